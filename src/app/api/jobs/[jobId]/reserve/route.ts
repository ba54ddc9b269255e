import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { reserveSchema } from "@/contract";
import { reserve } from "@/service/reserve";

/** Lines of the kit are reserved in stock, or given back, as one step. */
export const POST = (request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => reserve(db(), job.id, await parseBody(request, reserveSchema)));
