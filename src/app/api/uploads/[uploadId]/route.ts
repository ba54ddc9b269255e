import { z } from "zod";
import { db } from "@/app/_server/db";
import { bodyBytes, handle, parseQuery } from "@/app/_server/handle";
import { MOST_FILE_BYTES, PIECE_BYTES, uuid } from "@/contract";
import { Refused } from "@/data/clash";
import { writePiece } from "@/data/files";
import { getUpload, setReceived } from "@/data/imports";
import { uploadDto } from "@/service/dto";

type Context = { params: Promise<{ uploadId: string }> };
const schema = z.object({ at: z.coerce.number().int().min(0).max(MOST_FILE_BYTES) });

/** How much of a file has come, so that sending can go on where it broke off. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => uploadDto(await getUpload(db(), uuid.parse((await params).uploadId))));

/** The next piece of a file. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const row = await getUpload(db(), uuid.parse((await params).uploadId));
    const { at } = parseQuery(request, schema);
    const bytes = await bodyBytes(request, PIECE_BYTES);
    if (at > row.receivedBytes) throw new Refused("piece-out-of-order", "at", { at, receivedBytes: row.receivedBytes });
    if (at + bytes.length > row.sizeBytes) throw new Refused("piece-too-long", "at", { sizeBytes: row.sizeBytes });
    const receivedBytes = Math.max(row.receivedBytes, await writePiece(row.id, at, bytes));
    await setReceived(db(), row.id, receivedBytes);
    return { ...uploadDto(row), receivedBytes };
  });
