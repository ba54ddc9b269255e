import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { rankedWithoutPrices, seesPrices } from "@/contract";
import { roleNow } from "@/data/actor";
import { partsDto } from "@/service/dto";

/** Sheets of what is wired beside the radios. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "see-hardware", async () => {
    const parts = await partsDto(db());
    return seesPrices(roleNow()) ? parts : rankedWithoutPrices(parts);
  });
