import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { streamed } from "@/app/_server/stream";
import { placesSchema, uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { placesAlong } from "@/service/places";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

/** What the link comes to from other spots of one end. Nothing is changed. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  streamed(request, "work-out", params, async (job) => {
    const { link } = await getLink(db(), uuid.parse((await params).linkId), job.id);
    return placesAlong(db(), link.id, await parseBody(request, placesSchema));
  });
