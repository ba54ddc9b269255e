import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { newSiteSchema } from "@/contract";
import { createSite } from "@/data/sites";
import { siteDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async (job) => siteDto(await createSite(db(), job.id, await parseBody(request, newSiteSchema))));
