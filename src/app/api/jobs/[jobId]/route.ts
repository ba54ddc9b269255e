import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { type JobBundle, patchJobSchema } from "@/contract";
import { VersionClash } from "@/data/clash";
import { type JobRow, linksOf, sitesOf, updateJob } from "@/data/jobs";
import { jobDto, linkDto, siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "read", params, async (job): Promise<JobBundle> => {
    const [sites, links] = await Promise.all([sitesOf(db(), job.id), linksOf(db(), job.id)]);
    return { job: jobDto(job), sites: sites.map(siteDto), links: links.map(linkDto) };
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async (job) => {
    const { version, ...fields } = await parseBody(request, patchJobSchema);
    try {
      return jobDto(await updateJob(db(), job.id, version, fields));
    } catch (error) {
      if (error instanceof VersionClash) throw new VersionClash(error.entity, jobDto(error.current as JobRow));
      throw error;
    }
  });
