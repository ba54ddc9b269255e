import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { newSiteSchema, uuid } from "@/contract";
import { createSite } from "@/data/sites";
import { siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const jobId = uuid.parse((await params).jobId);
    return siteDto(await createSite(db(), jobId, await parseBody(request, newSiteSchema)));
  });
