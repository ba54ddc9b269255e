import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { hardwareHistory, stepHardware } from "@/data/hardware";

export const GET = (request: Request): Promise<Response> => handle(request, "see-hardware", () => hardwareHistory(db()));

/** Takes a step of the catalogue back, or does it again. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "edit-hardware", async () => {
    const { step } = await parseBody(request, z.strictObject({ step: uuid }));
    await stepHardware(db(), step);
    return hardwareHistory(db());
  });
