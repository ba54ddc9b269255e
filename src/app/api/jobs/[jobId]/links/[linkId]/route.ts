import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { type LinkBundleDto, uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { keptDesigns } from "@/data/links";
import { jobDto, keptDesignDto, linkDto, siteDto } from "@/service/dto";
import { PATCH as patchRecord } from "../../[records]/[recordId]/route";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-links", params, async (job) => {
    const { link, near, far } = await getLink(db(), uuid.parse((await params).linkId), job.id);
    const kept = await keptDesigns(db(), link.id);
    return {
      job: jobDto(job),
      link: linkDto(link),
      near: siteDto(near),
      far: siteDto(far),
      kept: kept.map(keptDesignDto),
    } satisfies LinkBundleDto;
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  patchRecord(request, { params: params.then(({ jobId, linkId }) => ({ jobId, records: "links", recordId: linkId })) });
