import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { newImportSchema, uuid } from "@/contract";
import { NotFound, Refused } from "@/data/clash";
import { createImport, getUpload, importsOf } from "@/data/imports";
import { sendImport } from "@/jobs/queue";
import { importDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => (await importsOf(db(), uuid.parse((await params).jobId))).map(importDto));

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const jobId = uuid.parse((await params).jobId);
    const { uploadId, options } = await parseBody(request, newImportSchema);
    const file = await getUpload(db(), uploadId);
    if (file.jobId !== jobId) throw new NotFound("file");
    if (file.receivedBytes < file.sizeBytes) throw new Refused("upload-unfinished", "file", { name: file.name });
    const row = await createImport(db(), { jobId, uploadId, fileName: file.name, what: options.what, options });
    await sendImport(process.env.DATABASE_URL ?? "", row.id);
    return importDto(row);
  });
