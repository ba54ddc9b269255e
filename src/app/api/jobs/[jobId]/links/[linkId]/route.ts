import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { type LinkBundleDto, patchLinkSchema, uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { keptDesigns, setGroundTold, setLinkDeleted } from "@/data/links";
import { jobDto, keptDesignDto, linkDto, siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "read", params, async (job) => {
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
  handleJob(request, "write", params, async () => {
    const id = uuid.parse((await params).linkId);
    const { version, deleted, groundTold } = await parseBody(request, patchLinkSchema);
    if (groundTold !== undefined) await setGroundTold(db(), id, version, groundTold);
    else if (deleted !== undefined) await setLinkDeleted(db(), id, version, deleted);
    else return { id, version };
    return { id, version: version + 1 };
  });
