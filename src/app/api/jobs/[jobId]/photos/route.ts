import { z } from "zod";
import { db } from "@/app/_server/db";
import { bodyBytes, handle, parseJson, parseQuery } from "@/app/_server/handle";
import { photoFieldsSchema, uuid } from "@/contract";
import { Refused } from "@/data/clash";
import { getJob, sitesOf } from "@/data/jobs";
import { createPhoto, photosOf } from "@/data/photos";
import { photoDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

const MOST_PHOTO_BYTES = 3_000_000;
const query = z.object({ about: z.string().max(2000) });

/** What the bytes are, whatever the sender calls them. */
const mimeOf = (b: Uint8Array): string | null => {
  if (b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff) return "image/jpeg";
  if (b[0] === 0x89 && b[1] === 0x50 && b[2] === 0x4e && b[3] === 0x47) return "image/png";
  const text = (from: number, to: number): string => String.fromCharCode(...b.subarray(from, to));
  return text(0, 4) === "RIFF" && text(8, 12) === "WEBP" ? "image/webp" : null;
};

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => (await photosOf(db(), uuid.parse((await params).jobId))).map(photoDto));

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const job = await getJob(db(), uuid.parse((await params).jobId));
    const fields = parseJson(parseQuery(request, query).about, photoFieldsSchema);
    if (fields.siteId !== null && !(await sitesOf(db(), job.id)).some((s) => s.id === fields.siteId))
      throw new Refused("unknown-reference", "siteId");
    const bytes = await bodyBytes(request, MOST_PHOTO_BYTES);
    const mime = mimeOf(bytes);
    if (mime === null) throw new Refused("not-a-photo", "photo");
    return photoDto(await createPhoto(db(), { jobId: job.id, ...fields, mime, bytes: Buffer.from(bytes) }));
  });
