import { handleJob } from "@/app/_server/handle";
import { readers, WRITE } from "@/app/_server/readers";
import { sendFile } from "@/app/_server/send-file";
import { tookOut } from "@/app/_server/took-out";
import { fileName } from "@/service/export";

type Context = { params: Promise<{ jobId: string }> };

/** The whole job as one zip. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "take-out-all", params, async (job) => {
    await tookOut(request, "took-out-job", job.id);
    return sendFile({ name: `${fileName(job.name)}-job.zip`, type: "application/zip" }, (path) =>
      readers().long.run("bundle", { jobId: job.id, path }, WRITE, request.signal),
    );
  });
