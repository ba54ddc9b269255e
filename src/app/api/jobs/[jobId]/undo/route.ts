import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { redoLast, undoLast } from "@/data/history";

type Context = { params: Promise<{ jobId: string }> };

/** `told`: edits whose refusal was told before. */
const asked = z.object({ redo: z.boolean(), told: z.array(z.int().positive()).max(1000).default([]) });

/** Takes back this browser's newest edit of the job, or does the last undone one again. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => {
    const { redo, told } = await parseBody(request, asked);
    return redo ? redoLast(db(), job.id) : undoLast(db(), job.id, told);
  });
