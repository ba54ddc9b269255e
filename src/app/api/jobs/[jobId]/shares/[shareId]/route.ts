import { doors } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { endShare } from "@/service/people/share";

/** Takes a shared link back. */
export const DELETE = (request: Request, { params }: { params: Promise<{ jobId: string; shareId: string }> }): Promise<Response> =>
  handleJob(request, "share", params, async (job) => endShare(doors(), job.id, uuid.parse((await params).shareId)));
