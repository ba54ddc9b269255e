import { bodyText, refuseUncleanJson } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { type ErrorBody, rankedWithoutPrices, seesPrices } from "@/contract";
import { roleNow } from "@/data/actor";
import { saveHardware } from "@/data/hardware";
import { isPartsTable, readHardwareCsv, readHardwareFile, readPartsCsv } from "@/formats";
import { hardwareDto } from "@/service/dto";

export const GET = (request: Request): Promise<Response> =>
  handle(request, "see-hardware", async () => {
    const { radios, antennas } = await hardwareDto(db());
    if (seesPrices(roleNow())) return { radios, antennas };
    return { radios: rankedWithoutPrices(radios), antennas: rankedWithoutPrices(antennas) };
  });

/** A table and not JSON: its first letter says so. */
const isTable = (text: string): boolean => !/^\s*[[{]/.test(text);

/** Takes a hardware file, JSON or a table, all of it or nothing; faults name the row and the field. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "edit-hardware", async () => {
    const text = await bodyText(request);
    const table = isTable(text);
    if (!table) refuseUncleanJson(text);
    const read = !table ? readHardwareFile(text) : isPartsTable(text) ? readPartsCsv(text) : readHardwareCsv(text, await hardwareDto(db()));
    if ("faults" in read) {
      const body: ErrorBody = { code: "hardware-faults", faults: read.faults };
      return Response.json(body, { status: 400 });
    }
    const { radios, antennas, parts } = read.file;
    await saveHardware(db(), { radios, antennas, parts, source: "own" });
    return { radios: radios.length, antennas: antennas.length, parts: parts.length };
  });
