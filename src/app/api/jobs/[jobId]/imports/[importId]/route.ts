import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { importActionSchema, uuid } from "@/contract";
import { getImport, removeImport, stopImport } from "@/data/imports";
import { importDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string; importId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const { id } = await getImport(db(), uuid.parse((await params).importId), job.id);
    const { action } = await parseBody(request, importActionSchema);
    if (action === "stop") await stopImport(db(), id);
    else await removeImport(db(), id, action === "remove");
    return importDto(await getImport(db(), id));
  });
