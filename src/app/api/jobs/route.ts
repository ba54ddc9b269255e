import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { type JobSummary, newJobSchema } from "@/contract";
import { createJob, listJobs } from "@/data/jobs";
import { jobDto } from "@/service/dto";
import { verdictsOf } from "@/service/verdicts";

export const GET = (request: Request): Promise<Response> =>
  handle(request, "read", async () => {
    const out: JobSummary[] = [];
    for (const job of await listJobs(db())) out.push({ job: jobDto(job), links: await verdictsOf(db(), job) });
    return out;
  });

export const POST = (request: Request): Promise<Response> =>
  handle(request, "write", async () => jobDto(await createJob(db(), await parseBody(request, newJobSchema))));
