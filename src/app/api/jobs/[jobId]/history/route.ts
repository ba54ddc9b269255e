import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { historyOf, takeBack } from "@/data/history";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => historyOf(db(), uuid.parse((await params).jobId)));

/** Takes one edit back, or does it again. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const { changeId } = await parseBody(request, z.object({ changeId: z.number().int().min(1) }));
    return takeBack(db(), uuid.parse((await params).jobId), changeId);
  });
