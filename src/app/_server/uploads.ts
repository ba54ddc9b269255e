import { z } from "zod";
import { MOST_FILE_BYTES, newUploadSchema, PIECE_BYTES, type UploadDto, uuid } from "@/contract";
import { needRoom, writePiece } from "@/data/files";
import { createUpload, getUpload, takePiece } from "@/data/imports";
import { uploadDto } from "@/service/dto";
import { bodyBytes, parseBody, parseQuery } from "./body";
import { db } from "./db";

/* Files on their way in, of a job, or of none while a whole job comes in. */

const pieceSchema = z.object({ at: z.coerce.number().int().min(0).max(MOST_FILE_BYTES) });
const checksum = z.string("a piece needs its checksum").regex(/^[0-9a-f]{64}$/, "a checksum is 64 hexadecimal digits");

export const beginUpload = async (request: Request, jobId: string | null): Promise<UploadDto> => {
  const input = await parseBody(request, newUploadSchema);
  await needRoom(input.sizeBytes);
  return uploadDto(await createUpload(db(), jobId, input));
};

export const uploadState = async (uploadId: string, jobId: string | null): Promise<UploadDto> =>
  uploadDto(await getUpload(db(), uuid.parse(uploadId), jobId));

/** Takes the next piece: whole, as its checksum says, behind what is there; a repeat changes nothing. */
export const takeUploadPiece = async (request: Request, uploadId: string, jobId: string | null): Promise<UploadDto> => {
  const id = uuid.parse(uploadId);
  const { at } = parseQuery(request, pieceSchema);
  const sha256 = checksum.parse(request.headers.get("x-sha256") ?? undefined);
  const bytes = await bodyBytes(request, PIECE_BYTES);
  return uploadDto(await takePiece(db(), id, jobId, at, bytes.length, () => writePiece(id, at, bytes, sha256)));
};
