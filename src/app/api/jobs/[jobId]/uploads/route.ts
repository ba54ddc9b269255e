import { handleJob } from "@/app/_server/handle";
import { beginUpload } from "@/app/_server/uploads";

type Context = { params: Promise<{ jobId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, (job) => beginUpload(request, job.id));
