import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { streamed } from "@/app/_server/stream";
import { relaysSchema, uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { relaysAt } from "@/service/relays";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

/** Both legs of a relay at each spot asked for. Nothing is changed. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  streamed(request, "work-out", params, async (job) => {
    const { link } = await getLink(db(), uuid.parse((await params).linkId), job.id);
    return relaysAt(db(), link.id, await parseBody(request, relaysSchema));
  });
