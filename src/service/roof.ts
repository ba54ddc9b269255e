import type { PackEnd, RoofDto, RoofEnd } from "../contract";
import { NotFound, Refused } from "../data/clash";
import type { Db } from "../data/client";
import type { JobRow } from "../data/jobs";
import { radarWaitS } from "../pack";
import { packFacts } from "./pack-facts";

/* What a phone takes along of a link: the same facts as the pages of its pack. */

const RANK = { short: 0, unknown: 1, tight: 2, clear: 3 } as const;

const endOf = (e: PackEnd): RoofEnd => ({
  siteId: e.siteId,
  name: e.name,
  aglM: e.aglM,
  lookDeg: e.lookDeg,
  declinationDeg: e.declinationDeg,
  lookTiltDeg: e.lookTiltDeg,
  ownAxis: e.ownAxis,
  unit: e.unit,
  antenna: e.antenna,
  polarisation: e.polarisation,
  poleMm: e.poleMm,
  level: e.level,
  azimuth: e.level === null ? null : e.cut.azimuth,
  tilt: e.level === null ? null : e.cut.tilt,
  landmarks: e.seen.landmarks,
  farEnd: e.seen.farEnd,
  risks: [...(e.kit?.risks ?? [])].sort((a, b) => RANK[a.verdict] - RANK[b.verdict]),
  exposureM: e.exposureM,
  access: e.access,
});

/**
 * @throws NotFound when the job has no such link.
 * @throws Refused "no-plan" while its plan cannot be worked out; the value "why" is the trouble's code.
 */
export const roofDto = async (db: Db, row: JobRow, linkId: string): Promise<RoofDto> => {
  const { links, without, contact, madeAt } = await packFacts(db, row, linkId);
  const [made] = links;
  if (made === undefined) {
    const [why] = without;
    if (why === undefined) throw new NotFound("link");
    throw new Refused("no-plan", "link", { why: why.code });
  }
  return { link: made.link, contact, madeAt, radarWaitS: radarWaitS(made), ends: [endOf(made.ends[0]), endOf(made.ends[1])] };
};
