import { z } from "zod";
import { parseBody, parseQuery } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { historyOf, takeBack } from "@/data/history";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-history", params, (job) => {
    const { before } = parseQuery(request, z.object({ before: z.coerce.number().int().min(1).optional() }));
    return historyOf(db(), job.id, before);
  });

/** Takes one edit back, or does it again. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => {
    const { changeId } = await parseBody(request, z.object({ changeId: z.number().int().min(1) }));
    return takeBack(db(), job.id, changeId);
  });
