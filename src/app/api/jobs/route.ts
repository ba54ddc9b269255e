import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { type JobSummary, newJobSchema } from "@/contract";
import { getJob, listJobs } from "@/data/jobs";
import { makeJob } from "@/data/records";
import { jobDto } from "@/service/dto";
import { keptVerdicts } from "@/service/verdicts";

export const GET = (request: Request): Promise<Response> =>
  handle(request, "see-jobs", async () => {
    const jobs = await listJobs(db());
    const links = await keptVerdicts(
      db(),
      jobs.map((j) => j.id),
    );
    // What each link carries is read with its own job: the register is one list of all of them.
    return jobs.map(
      (job): JobSummary => ({ job: jobDto(job), links: (links.get(job.id) ?? []).map((l) => ({ ...l, carries: null, widths: [] })) }),
    );
  });

export const POST = (request: Request): Promise<Response> =>
  handle(request, "plan", async () => jobDto(await getJob(db(), (await makeJob(db(), await parseBody(request, newJobSchema))).id)));
