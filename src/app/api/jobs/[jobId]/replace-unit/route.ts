import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { replaceUnitSchema } from "@/contract";
import { replaceUnit } from "@/service/replace-unit";

/** A unit died: its cause, and a new one in its place, as one step. */
export const POST = (request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => replaceUnit(db(), job.id, await parseBody(request, replaceUnitSchema)));
