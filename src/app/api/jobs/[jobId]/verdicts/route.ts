import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { keptVerdicts } from "@/service/verdicts";

type Context = { params: Promise<{ jobId: string }> };

/** What is kept of the verdicts; what is being worked out says so, and news of the job tell when it is there. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-job", params, async (job) => (await keptVerdicts(db(), [job.id])).get(job.id) ?? []);
