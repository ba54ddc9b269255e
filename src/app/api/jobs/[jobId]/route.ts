import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { type JobBundle, patchJobSchema, uuid } from "@/contract";
import { VersionClash } from "@/data/clash";
import { getJob, type JobRow, linksOf, sitesOf, updateJob } from "@/data/jobs";
import { jobDto, linkDto, siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async (): Promise<JobBundle> => {
    const jobId = uuid.parse((await params).jobId);
    const [job, sites, links] = await Promise.all([getJob(db(), jobId), sitesOf(db(), jobId), linksOf(db(), jobId)]);
    return { job: jobDto(job), sites: sites.map(siteDto), links: links.map(linkDto) };
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const jobId = uuid.parse((await params).jobId);
    const { version, ...fields } = await parseBody(request, patchJobSchema);
    try {
      return jobDto(await updateJob(db(), jobId, version, fields));
    } catch (error) {
      if (error instanceof VersionClash) throw new VersionClash(error.entity, jobDto(error.current as JobRow));
      throw error;
    }
  });
