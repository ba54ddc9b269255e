import { z } from "zod";
import { bodyBytes, parseJson, parseQuery } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { photoFieldsSchema } from "@/contract";
import { Refused } from "@/data/clash";
import { sitesOf } from "@/data/jobs";
import { createPhoto, photosOf } from "@/data/photos";
import { mimeOf, withoutData } from "@/formats";
import { photoDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

const MOST_PHOTO_BYTES = 3_000_000;
const query = z.object({ about: z.string().max(2000) });

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "read", params, async (job) => (await photosOf(db(), job.id)).map(photoDto));

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async (job) => {
    const fields = parseJson(parseQuery(request, query).about, photoFieldsSchema);
    if (fields.siteId !== null && !(await sitesOf(db(), job.id)).some((s) => s.id === fields.siteId))
      throw new Refused("unknown-reference", "siteId");
    const bytes = await bodyBytes(request, MOST_PHOTO_BYTES);
    const mime = mimeOf(bytes);
    // Where and when it was taken, and with what, stays with whoever took it.
    const plain = mime === null ? null : withoutData(bytes, mime);
    if (mime === null || plain === null) throw new Refused("not-a-photo", "photo");
    return photoDto(await createPhoto(db(), { jobId: job.id, ...fields, mime, bytes: Buffer.from(plain) }));
  });
