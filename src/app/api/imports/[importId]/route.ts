import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { importActionSchema, uuid } from "@/contract";
import { againImport, getImport, removeImport, stopImport } from "@/data/imports";
import { sendImport } from "@/jobs/queue";
import { importDto } from "@/service/dto";

type Context = { params: Promise<{ importId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const id = uuid.parse((await params).importId);
    const { action } = await parseBody(request, importActionSchema);
    if (action === "stop") await stopImport(db(), id);
    else if (action === "again") {
      await againImport(db(), id);
      await sendImport(process.env.DATABASE_URL ?? "", id);
    } else await removeImport(db(), id, action === "remove");
    return importDto(await getImport(db(), id));
  });
