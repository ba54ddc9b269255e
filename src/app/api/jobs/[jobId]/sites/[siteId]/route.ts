import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { patchSiteSchema, uuid } from "@/contract";
import { setSiteDeleted, updateSite } from "@/data/sites";
import { siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string; siteId: string }> };

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async () => {
    const siteId = uuid.parse((await params).siteId);
    const { version, deleted, ...fields } = await parseBody(request, patchSiteSchema);
    const row =
      deleted === undefined ? await updateSite(db(), siteId, version, fields) : await setSiteDeleted(db(), siteId, version, deleted);
    return siteDto(row);
  });
