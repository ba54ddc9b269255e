import { handleJob } from "@/app/_server/handle";
import { takeUploadPiece, uploadState } from "@/app/_server/uploads";

type Context = { params: Promise<{ jobId: string; uploadId: string }> };

/** How much of a file has come, so that sending can go on where it broke off. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => uploadState((await params).uploadId, job.id));

/** The next piece of a file. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => takeUploadPiece(request, (await params).uploadId, job.id));
