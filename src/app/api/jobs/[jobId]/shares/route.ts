import { parseBody } from "@/app/_server/body";
import { needSignIn, originOf } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { shareSchema } from "@/contract";
import { makeShare, shareList } from "@/service/people/share";

type Context = { params: Promise<{ jobId: string }> };

/** Links of a job that were shared. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-shares", params, (job) => shareList(doors(), job.id));

/** Makes one; its secret is told once, here. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "share", params, async (job) => {
    needSignIn();
    return makeShare(doors(), job.id, await parseBody(request, shareSchema), originOf(request));
  });
