import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { redoLast, undoLast } from "@/data/history";

type Context = { params: Promise<{ jobId: string }> };

/** Takes back this browser's newest edit of the job, or does the last undone one again. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async (job) => {
    const { redo } = await parseBody(request, z.object({ redo: z.boolean() }));
    return (redo ? redoLast : undoLast)(db(), job.id);
  });
