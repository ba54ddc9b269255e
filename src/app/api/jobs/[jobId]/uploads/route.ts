import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { beginUpload } from "@/app/_server/uploads";
import type { RoomDto } from "@/contract";
import { heldBytes, MOST_ALL_BYTES, MOST_JOB_BYTES } from "@/data/imports";

type Context = { params: Promise<{ jobId: string }> };

/** What files on their way in take, of this job and in all, and what they may. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job): Promise<RoomDto> => {
    const held = await heldBytes(db(), job.id);
    return { jobBytes: held.job, mostJobBytes: MOST_JOB_BYTES, allBytes: held.all, mostAllBytes: MOST_ALL_BYTES };
  });

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, (job) => beginUpload(request, job.id));
