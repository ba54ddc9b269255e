import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { sheetMarksSchema } from "@/contract";
import { markSheet } from "@/data/hardware";
import { hardwareDto } from "@/service/dto";

/** Says how many of a radio or an antenna are at hand, or retires it. @returns the catalogue as it then stands. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "edit-hardware", async () => {
    const { kind, id, ...marks } = await parseBody(request, sheetMarksSchema);
    await markSheet(db(), kind, id, marks);
    return hardwareDto(db());
  });
