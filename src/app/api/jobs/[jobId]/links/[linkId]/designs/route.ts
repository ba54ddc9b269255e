import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { keepDesignSchema, uuid } from "@/contract";
import { keepDesign } from "@/data/links";

type Context = { params: Promise<{ jobId: string; linkId: string }> };

/** Keeps a copy of the design in force, to compare with. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const linkId = uuid.parse((await params).linkId);
    const { name, design } = await parseBody(request, keepDesignSchema);
    return keepDesign(db(), job.id, linkId, name, design);
  });
