import { z } from "zod";
import { parseQuery } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { NotFound } from "@/data/clash";
import { getLink } from "@/data/jobs";
import { keptDesigns } from "@/data/links";
import { endPositions, profileDto, profileOf } from "@/service/profile";
import { keptProfile } from "@/service/profile-kept";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

/** The sampled path of the design in force, or of a kept one. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-links", params, async (job) => {
    const linkId = uuid.parse((await params).linkId);
    const { design: keptId } = parseQuery(request, z.object({ design: uuid.optional() }));
    if (keptId === undefined) return keptProfile(db(), linkId, job.id);
    const { link, near, far } = await getLink(db(), linkId, job.id);
    const kept = (await keptDesigns(db(), link.id)).find((d) => d.id === keptId);
    if (kept === undefined) throw new NotFound("design");
    const asked = { ...link, design: kept };
    const ends = endPositions(asked, near, far);
    return profileDto(await profileOf(db(), job, asked, near, far), job, ends.near, ends.far);
  });
