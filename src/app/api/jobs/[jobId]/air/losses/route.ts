import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { airLosses } from "@/service/air-losses";

/** Loss by ground and bodies between the ends of a job's radios, dB, by the keys of both. Nothing is changed. */
export const GET = (request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> =>
  handleJob(request, "see-air", params, (job) => airLosses(db(), job));
