import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { patchLinkSchema, uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { setGroundTold, setLinkDeleted } from "@/data/links";
import { jobDto, linkDto, siteDto } from "@/service/dto";

type Context = { params: Promise<{ linkId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const { link, job, near, far } = await getLink(db(), uuid.parse((await params).linkId));
    return { job: jobDto(job), link: linkDto(link), near: siteDto(near), far: siteDto(far) };
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const id = uuid.parse((await params).linkId);
    const { version, deleted, groundTold } = await parseBody(request, patchLinkSchema);
    if (groundTold !== undefined) await setGroundTold(db(), id, version, groundTold);
    else if (deleted !== undefined) await setLinkDeleted(db(), id, version, deleted);
  });
