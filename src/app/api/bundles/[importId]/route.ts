import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { NotFound } from "@/data/clash";
import { getImport, removeImport, stopImport } from "@/data/imports";
import { importDto } from "@/service/dto";

type Context = { params: Promise<{ importId: string }> };
const action = z.object({ action: z.enum(["stop", "remove", "restore"]) });

const bundleImport = async (importId: string) => {
  const row = await getImport(db(), uuid.parse(importId));
  if (row.what !== "bundle") throw new NotFound("import");
  return row;
};

/** How far a job is on its way in, and which job it became. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "plan", async () => importDto(await bundleImport((await params).importId)));

/** Stops it, takes the job and all that came with it away again, or brings it back. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "plan", async () => {
    const { id } = await bundleImport((await params).importId);
    const asked = await parseBody(request, action);
    if (asked.action === "stop") await stopImport(db(), id);
    else await removeImport(db(), id, asked.action === "remove");
    return importDto(await getImport(db(), id));
  });
