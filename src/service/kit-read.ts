import {
  type BriefDto,
  type DaysFields,
  type JobBundle,
  type KitDto,
  mountsOf,
  type PickDto,
  type SafetyDto,
  type SiteKit,
  siteKit,
  type WiringDto,
} from "../contract";
import { lineId } from "../core/kit";
import { partsOf } from "../core/wiring";
import type { Db } from "../data/client";
import { type JobRow, linksOf, sitesOf } from "../data/jobs";
import { listRecords } from "../data/records";
import { hardwareDto, jobDto, linkDto, partsDto, siteDto } from "./dto";

/** All that the kit of a job follows from, and the kits of some of its sites: those without a wiring have none. */
export const readKit = async (db: Db, row: JobRow) => {
  const [sites, links, wirings, [kit], [days], picks, safety, [brief], parts, hardware] = await Promise.all([
    sitesOf(db, row.id),
    linksOf(db, row.id),
    listRecords(db, row.id, "wiring") as unknown as Promise<WiringDto[]>,
    listRecords(db, row.id, "kit") as unknown as Promise<KitDto[]>,
    listRecords(db, row.id, "days") as unknown as Promise<DaysFields[]>,
    listRecords(db, row.id, "pick") as unknown as Promise<PickDto[]>,
    listRecords(db, row.id, "safety") as unknown as Promise<SafetyDto[]>,
    listRecords(db, row.id, "brief") as unknown as Promise<BriefDto[]>,
    partsDto(db),
    hardwareDto(db),
  ]);
  const job: JobBundle = { job: jobDto(row), sites: sites.map(siteDto), links: links.map(linkDto) };
  const all = partsOf(parts, hardware.radios);
  const pickById = new Map(picks.map((p) => [p.id, p]));
  const pickOf = (key: string) => {
    const id = lineId(row.id, key);
    const pick = pickById.get(id);
    return { id, pick: pick === undefined || (pick.state !== "there" && pick.count === 0) ? null : pick };
  };
  const kitsOf = (siteIds: readonly string[]): SiteKit[] => {
    const stockLeft = new Map<string, number>();
    return siteIds.flatMap((siteId) => {
      const wiring = wirings.find((w) => w.siteId === siteId);
      if (wiring === undefined) return [];
      const screen = safety.find((s) => s.siteId === siteId) ?? null;
      const stands = job.sites.find((s) => s.id === siteId)?.stands ?? null;
      return [
        siteKit({ wiring, kit: kit!, safety: screen, parts: all, mountOf: mountsOf(job, hardware, siteId), pickOf, stockLeft, stands }),
      ];
    });
  };
  return { job, kit: kit!, days: days!, brief: brief!, kitsOf };
};
