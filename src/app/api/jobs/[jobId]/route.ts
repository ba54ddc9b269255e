import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import type { JobBundle } from "@/contract";
import { getJob, linksOf, sitesOf } from "@/data/jobs";
import { edit } from "@/data/records";
import { jobDto, linkDto, siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-job", params, async (job): Promise<JobBundle> => {
    const [sites, links] = await Promise.all([sitesOf(db(), job.id), linksOf(db(), job.id)]);
    return { job: jobDto(job), sites: sites.map(siteDto), links: links.map(linkDto) };
  });

const body = z.looseObject({ version: z.number("the version is missing").int().min(1) });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const { version, ...fields } = await parseBody(request, body);
    await edit(db(), job.id, (door) => door.patch("job", job.id, version, fields as never));
    return jobDto(await getJob(db(), job.id));
  });
