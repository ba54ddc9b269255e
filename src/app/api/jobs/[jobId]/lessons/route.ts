import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { lessonsBeside } from "@/service/lessons";

/** What other jobs taught. */
export const GET = (request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> =>
  handleJob(request, "see-history", params, (job) => lessonsBeside(db(), job.id));
