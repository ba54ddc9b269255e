import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { newImportSchema } from "@/contract";
import { Refused } from "@/data/clash";
import { createImport, getUpload, importsOf } from "@/data/imports";
import { importDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-history", params, async (job) => (await importsOf(db(), job.id)).map(importDto));

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const { uploadId, options } = await parseBody(request, newImportSchema);
    const file = await getUpload(db(), uploadId, job.id);
    if (file.receivedBytes < file.sizeBytes) throw new Refused("upload-unfinished", "file", { name: file.name });
    return importDto(await createImport(db(), { jobId: job.id, uploadId, fileName: file.name, what: options.what, options }));
  });
