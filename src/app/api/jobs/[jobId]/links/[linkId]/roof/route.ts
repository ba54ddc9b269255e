import { handleJob } from "@/app/_server/handle";
import { readers, WRITE } from "@/app/_server/readers";
import { uuid } from "@/contract";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

/** What a phone takes along to both ends of a link. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "take-out", params, async (job) => {
    const linkId = uuid.parse((await params).linkId);
    return readers().long.run("roof", { jobId: job.id, linkId }, WRITE, request.signal);
  });
