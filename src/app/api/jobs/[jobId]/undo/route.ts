import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { redoLast, undoLast } from "@/data/history";

type Context = { params: Promise<{ jobId: string }> };

/** Takes back this browser's newest edit of the job, or does the last undone one again. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const { redo } = await parseBody(request, z.object({ redo: z.boolean() }));
    const jobId = uuid.parse((await params).jobId);
    return { step: await (redo ? redoLast : undoLast)(db(), jobId) };
  });
