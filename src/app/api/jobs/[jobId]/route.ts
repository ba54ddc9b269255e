import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { type JobBundle, uuid } from "@/contract";
import { getJob, linksOf, sitesOf } from "@/data/jobs";
import { jobDto, linkDto, siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async (): Promise<JobBundle> => {
    const jobId = uuid.parse((await params).jobId);
    const [job, sites, links] = await Promise.all([getJob(db(), jobId), sitesOf(db(), jobId), linksOf(db(), jobId)]);
    return { job: jobDto(job), sites: sites.map(siteDto), links: links.map(linkDto) };
  });
