import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { newLinkSchema, uuid } from "@/contract";
import { NotFound, Refused } from "@/data/clash";
import { sitesOf } from "@/data/jobs";
import { createLink } from "@/data/links";
import { hardwareDto, linkDto } from "@/service/dto";
import { firstDesign } from "@/service/new-link";

type Context = { params: Promise<{ jobId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const jobId = uuid.parse((await params).jobId);
    const input = await parseBody(request, newLinkSchema);
    const [sites, hardware] = await Promise.all([sitesOf(db(), jobId), hardwareDto(db())]);
    const near = sites.find((s) => s.id === input.nearSiteId);
    const far = sites.find((s) => s.id === input.farSiteId);
    if (near === undefined || far === undefined) throw new NotFound("site");
    const design = firstDesign(hardware, near, far);
    if (design === null) throw new Refused("no-hardware", "radio");
    return linkDto(await createLink(db(), jobId, { ...input, design }));
  });
