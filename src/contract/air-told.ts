import { type JudgedAir, type LinkAir, ruledChannel } from "../core/air";
import { rowsInForce } from "../core/radio";
import type { AirBuilt, AirRead } from "./air-job";
import type { LinkVerdict } from "./types";

/* What the air makes of each link, as it is told in register, section, hub and load. */

export type AirTold = NonNullable<LinkVerdict["inAir"]>;

/** Part of a rate that is left of what a way carries alone. */
const leftOf = (air: LinkAir, way: 0 | 1): number => {
  const w = air.ways[way];
  const noise = w.quietMbps === 0 ? 1 : w.meanMbps / w.quietMbps;
  return Math.max(0, Math.min(1, noise * Math.max(1 - air.waits, 1 / (1 + air.sharesWith.length))));
};

/** Days after which a scan says little. */
export const SCAN_DAYS = 365;
const DAY_MS = 86_400_000;

export const scanAgeDays = (heardOn: string, day: string): number => Math.round((Date.parse(day) - Date.parse(heardOn)) / DAY_MS);

/** Names by which those are told that a link hears or waits for. */
export const nameOfUnit = (built: AirBuilt, id: string): string => {
  const unit = built.job.units.find((u) => u.id === id);
  if (unit !== undefined) return unit.name;
  const radio = built.job.field.radios.find((r) => r.unitId === id);
  if (radio !== undefined) return radio.name;
  const key = id.replace(/^heard:/, "");
  for (const list of built.job.heard.values())
    for (const h of list) if (h.id === key) return h.name === "" ? `somebody on ${h.channel.centreMhz} MHz` : h.name;
  return "somebody";
};

/** The loudest that falls on the worse of a link's receivers. */
export const worstWay = (air: LinkAir): 0 | 1 => {
  const [a, b] = air.ways;
  if (a.blinded !== b.blinded) return a.blinded ? 0 : 1;
  return b.riseDb > a.riseDb ? 1 : 0;
};

/** Edges of rule rows within a channel: what lies over one has the lower limits and both duties. */
export const edgeWithin = (read: Pick<AirRead, "job">, centreMhz: number, widthMhz: number): number | null => {
  const rows = rowsInForce(read.job.job.ruleDomain, read.job.job.ownRules);
  const [low, high] = [centreMhz - widthMhz / 2, centreMhz + widthMhz / 2];
  const edges = rows.flatMap((r) => [r.lowMhz, r.highMhz]).filter((mhz) => mhz > low + 1e-6 && mhz < high - 1e-6);
  return edges.length === 0 ? null : Math.min(...edges);
};

export const airToldOf = (read: AirRead, built: AirBuilt, judged: JudgedAir): ReadonlyMap<string, AirTold> => {
  const out = new Map<string, AirTold>();
  const { job } = read;
  for (const air of judged.links) {
    const link = job.links.find((l) => l.id === air.linkId);
    const unit = built.job.units.find((u) => u.id === air.unitId);
    const planned = unit?.links.find((l) => l.id === air.linkId);
    if (link === undefined || planned === undefined) continue;
    const way = worstWay(air);
    const worst = air.ways[way];
    const loudest = worst.contributions.find((c) => c.hitShare > 0) ?? null;
    const hub = read.hubs.find((h) => air.unitId.startsWith(`${h.id}/`));
    const sector = hub?.sectors.find((s) => air.unitId === `${hub.id}/${s.id}`);
    const { centreMhz, widthMhz } = link.design;
    const ends = [link.nearSiteId, link.farSiteId];
    const own = read.scans.filter((s) => s.counts && ends.includes(s.siteId));
    out.set(link.id, {
      verdict: air.verdict,
      trouble: air.trouble === "alone" ? null : air.trouble,
      riseDb: [air.ways[0].riseDb, air.ways[1].riseDb],
      hitShare: [air.ways[0].hitShare, air.ways[1].hitShare],
      worstEnd: way === 0 ? "far" : "near",
      loudest:
        loudest === null
          ? null
          : loudest.unitId === null
            ? nameOfUnit(built, `heard:${loudest.heard!.id}`)
            : nameOfUnit(built, loudest.unitId),
      waits: air.waits,
      sharesWith: air.sharesWith.map((id) => nameOfUnit(built, id)),
      asked: air.asked,
      left: [leftOf(air, 0), leftOf(air, 1)],
      unlike: sector !== undefined && (sector.centreMhz !== centreMhz || sector.widthMhz !== widthMhz) ? sector.centreMhz : null,
      acrossMhz: edgeWithin(read, centreMhz, widthMhz),
      oldScanDays: own.length === 0 ? null : Math.max(...own.map((s) => scanAgeDays(s.heardOn, job.job.visitOn))),
      radar: ruledChannel(planned.plan, { centreMhz, widthMhz }).radar,
    });
  }
  return out;
};

/** What of it makes a link worse than it is by itself. */
export const airVerdictOf = (t: AirTold): { readonly verdict: AirTold["verdict"]; readonly code: string } | null => {
  if (t.verdict === "short" && t.trouble !== null) return { verdict: "short", code: `air-${t.trouble}` };
  if (t.unlike !== null) return { verdict: "short", code: "air-unlike" };
  if (t.verdict === "tight" && t.trouble !== null) return { verdict: "tight", code: `air-${t.trouble}` };
  if (t.acrossMhz !== null) return { verdict: "tight", code: "air-across" };
  if (t.oldScanDays !== null && t.oldScanDays > SCAN_DAYS) return { verdict: "tight", code: "air-old-scan" };
  return null;
};
