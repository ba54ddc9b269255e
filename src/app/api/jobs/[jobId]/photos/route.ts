import { z } from "zod";
import { bodyBytes, parseJson, parseQuery } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { photoFieldsSchema, uuid } from "@/contract";
import { Refused } from "@/data/clash";
import { needPhotoRoom } from "@/data/photos";
import { edit, listRecords } from "@/data/records";
import { mimeOf, withoutData } from "@/formats";

type Context = { params: Promise<{ jobId: string }> };

const MOST_PHOTO_BYTES = 3_000_000;
/** What the photo is of, and the id its phone gave it: sent again, it is the same photo. */
const query = z.object({ about: z.string().max(2000), id: uuid.optional() });

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-photos", params, (job) => listRecords(db(), job.id, "photo"));

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => {
    const { about, id } = parseQuery(request, query);
    const fields = parseJson(about, photoFieldsSchema);
    const bytes = await bodyBytes(request, MOST_PHOTO_BYTES);
    const mime = mimeOf(bytes);
    // Where and when it was taken, and with what, stays with whoever took it.
    const plain = mime === null ? null : withoutData(bytes, mime);
    if (mime === null || plain === null) throw new Refused("not-a-photo", "photo");
    await needPhotoRoom(db(), job.id, plain.byteLength, id);
    return edit(db(), job.id, (door) =>
      door.create("photo", { ...fields, mime }, { bytes: Buffer.from(plain), ...(id === undefined ? {} : { id }) }),
    );
  });
