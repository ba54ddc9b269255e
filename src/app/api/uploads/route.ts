import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { newUploadSchema, uuid } from "@/contract";
import { createUpload } from "@/data/imports";
import { getJob } from "@/data/jobs";
import { uploadDto } from "@/service/dto";

const schema = newUploadSchema.extend({ jobId: z.union([uuid, z.null()]) });

export const POST = (request: Request): Promise<Response> =>
  handle(request, "write", async () => {
    const { jobId, ...input } = await parseBody(request, schema);
    if (jobId !== null) await getJob(db(), jobId);
    return uploadDto(await createUpload(db(), jobId, input));
  });
