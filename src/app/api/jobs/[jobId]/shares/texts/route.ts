import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { freeTexts } from "@/service/people/share";

type Context = { params: Promise<{ jobId: string }> };

/** Words of a job that a link without identity leaves out unless they are ticked. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-shares", params, (job) => freeTexts(db(), job.id));
