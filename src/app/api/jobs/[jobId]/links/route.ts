import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { FIRST_STAGE, newLinkSchema } from "@/contract";
import { NotFound, Refused } from "@/data/clash";
import { sitesOf } from "@/data/jobs";
import { createLink } from "@/data/links";
import { hardwareDto, jobDto, linkDto } from "@/service/dto";
import { firstDesign } from "@/service/first-design";

type Context = { params: Promise<{ jobId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const input = await parseBody(request, newLinkSchema);
    const sites = await sitesOf(db(), job.id);
    const hardware = await hardwareDto(db());
    const near = sites.find((s) => s.id === input.nearSiteId);
    const far = sites.find((s) => s.id === input.farSiteId);
    if (near === undefined || far === undefined) throw new NotFound("site");
    const design = firstDesign(jobDto(job), hardware, near, far);
    if (design === null) throw new Refused("no-hardware", "radio");
    return linkDto(await createLink(db(), job.id, { ...input, stage: FIRST_STAGE, design }));
  });
