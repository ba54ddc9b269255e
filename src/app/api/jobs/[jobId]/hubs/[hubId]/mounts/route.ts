import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { streamed } from "@/app/_server/stream";
import { hubMountsSchema, uuid } from "@/contract";
import { hubMounts } from "@/service/hub-mounts";

type Context = { params: Promise<{ jobId: string; hubId: string }> };

/** What the hub comes to from other spots. Nothing is changed. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  streamed(request, "work-out", params, async (job) =>
    hubMounts(db(), job.id, uuid.parse((await params).hubId), await parseBody(request, hubMountsSchema)),
  );
