import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { stockSchema } from "@/contract";
import { countStock } from "@/data/hardware";
import { hardwareDto } from "@/service/dto";

/** Says how many of a radio or an antenna are at hand. @returns the catalogue as it then stands. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "write", async () => {
    const { kind, id, stock } = await parseBody(request, stockSchema);
    await countStock(db(), kind, id, stock);
    return hardwareDto(db());
  });
