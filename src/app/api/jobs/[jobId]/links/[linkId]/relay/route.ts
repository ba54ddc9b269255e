import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { newRelaySchema, uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { addRelay } from "@/service/new-relay";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

/** Puts a relay between the ends of a link: one step of the history. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const { link } = await getLink(db(), uuid.parse((await params).linkId), job.id);
    return addRelay(db(), link.id, await parseBody(request, newRelaySchema));
  });
