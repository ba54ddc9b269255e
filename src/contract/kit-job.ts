import {
  type FixingLoad,
  fixingLoad,
  gustOfMean,
  type JudgedRisk,
  judgeScreen,
  type KitFact,
  type KitLine,
  kitLines,
  ladderFor,
  ladderM,
} from "../core/kit";
import type { Parts } from "../core/wiring";
import { type KitFields, type KitSite, kitSiteSchema, type SafetyFields } from "./kit";
import type { PlaceFields } from "./wiring";
import type { SiteWiring } from "./wiring-job";

/* The kit of a site: facts of its wiring and of what was told beside it, its lines, and what does not suit. */

/** What the kit needs of a radio's sheet. */
export interface MountedUnit {
  readonly id: string;
  readonly name: string;
  readonly poleDiameterMm?: { readonly low: number; readonly high: number } | undefined;
  readonly windAreaM2?: number | undefined;
  readonly weightKg?: number | undefined;
  readonly antenna?: { readonly form?: string | undefined } | undefined;
}

export const kitSiteOf = (kit: Pick<KitFields, "sites">, siteId: string): KitSite => kit.sites[siteId] ?? kitSiteSchema.parse({});

const FIXINGS: Readonly<Record<KitSite["wall"], readonly [fixing: string, bit: string]>> = {
  brick: ["frame plug 10 × 100 with screw, into brick, not joint", "masonry bit 10 mm"],
  block: ["injection anchor M10 for hollow block", "masonry bit 16 mm, no hammer"],
  concrete: ["anchor M10 for concrete", "masonry bit 10 mm, hammer"],
  "render over insulation": ["stand-off anchor through the insulation into the wall", "masonry bit 18 mm, long"],
  timber: ["coach screw 10 × 80 into a stud", "wood bit 7 mm"],
  "sheet on rails": ["through-bolt M10 to the rail behind, with a spreader plate", "steel bit 11 mm"],
  steel: ["clamp or bolt M10, galvanised", "steel bit 11 mm"],
  unknown: ["fixings for a wall that nobody named yet", "bits for a wall that nobody named yet"],
};

/** Of a mount this high above ground and more no ladder is leant. */
const NO_LADDER_BELOW_M = 2;
const HARNESS_FROM_M = 3;
const LOOPS: Readonly<Record<string, number>> = { both: 3, outside: 1, inside: 0.5 };
const THICK_AWG = 23;

const whereOf = (p: PlaceFields): string => (p.where === "mast" ? "mast" : p.where === "outside" ? "wall" : "inside");

export const kitFacts = (wiring: SiteWiring, site: KitSite, parts: Parts, units: ReadonlyMap<string, MountedUnit>): KitFact[] => {
  const facts: KitFact[] = [];
  const add = (kind: KitFact["kind"], name: string, values: KitFact["values"]): void => void facts.push({ kind, name, values });
  const nameOf = (id: string): string => wiring.places.find((p) => p.id === id)?.name ?? "?";
  const flags = {
    hasPlugs: false,
    hasShieldedPlugs: false,
    hasAnyPlugs: false,
    hasEntry: false,
    hasBond: false,
    hasLeads: false,
    hasRadio: false,
    hasPower: false,
  };
  for (const p of wiring.places) {
    const sheet = parts.get(p.partId ?? "");
    const isTheirs = p.kind === "mains" || p.kind === "other";
    add("place", p.name, {
      bought: sheet !== undefined && !isTheirs,
      unknown: sheet === undefined && !isTheirs,
      kindWords: p.kind.replace("-", " "),
      partId: p.partId,
      where: whereOf(p),
      labelled: p.kind === "radio" || p.kind === "injector" || p.kind === "switch",
    });
    if (p.kind === "radio") {
      flags.hasRadio = true;
      const unit = units.get(p.partId ?? "");
      const agl = p.aglM ?? 0;
      const step = site.stepOffM ?? agl;
      const ladder = ladderFor(step);
      const straps = unit?.poleDiameterMm;
      add("mount", p.name, {
        newBracket: site.newBracket,
        screws: 2 * site.screwsPerBracket,
        fixingWords: FIXINGS[site.wall][0],
        bitWords: FIXINGS[site.wall][1],
        wallWords: site.wall === "unknown" ? "a wall that nobody named" : site.wall,
        strapFits: site.poleMm === null || straps === undefined || (site.poleMm >= straps.low && site.poleMm <= straps.high),
        strapWords: `strap for a pole of ${site.poleMm ?? "?"} mm`,
        needsLadder: agl > NO_LADDER_BELOW_M && ladder !== null,
        needsLift: ladder === null,
        needsHarness: agl > HARNESS_FROM_M,
        ladderWords: `ladder of ${ladder ?? "?"} m or longer, foot and tie`,
        heightWords: `${agl} m up`,
      });
    }
    if (p.kind === "surge" && p.bond !== "none") {
      flags.hasBond = true;
      add("bond", p.name, { lengthM: p.where === "inside" ? 3 : (p.aglM ?? 3) + 2 });
    }
  }
  for (const l of wiring.leads) {
    const cable = parts.get(l.cableId ?? "")?.cable;
    const port = parts.get(wiring.places.find((p) => p.id === l.from.placeId)?.partId ?? "")?.ports.find((p) => p.id === l.from.port);
    if (port?.medium === "mains") continue;
    flags.hasLeads = true;
    const name = `${nameOf(l.from.placeId)} to ${nameOf(l.to.placeId)}`;
    const plugs = cable !== undefined && !cable.cord && cable.material !== "glass" && (cable.pairs ?? 4) > 1;
    if (plugs) flags[cable.shield ? "hasShieldedPlugs" : "hasPlugs"] = true;
    flags.hasAnyPlugs ||= plugs;
    add("lead", name, {
      form: cable === undefined ? "unknown" : cable.cord ? "cord" : "cable",
      cableId: l.cableId,
      lengthM: l.lengthM,
      lengthWords: `${l.lengthM} m`,
      loopsM: LOOPS[l.way] ?? 0,
      plugs,
      shield: cable?.shield ?? false,
      outside: l.way !== "inside",
      way: l.way,
    });
    if (l.way === "both") {
      flags.hasEntry = true;
      const glandId = cable?.metal === true || (cable?.awg ?? 99) < THICK_AWG ? "whelk-25" : "whelk-20";
      add("entry", name, { glandId, holeMm: parts.get(glandId)?.holeMm ?? null, through: l.through === "" ? "the wall" : l.through });
    }
  }
  flags.hasPower = wiring.leads.length > 0;
  add("site", "the site", flags);
  return facts;
};

/** A line of the kit with what is in hand of it. */
export interface KitRow extends KitLine {
  readonly pickId: string;
  readonly state: "open" | "picked" | "there" | "missing";
  /** In stock beside what is picked; null where nobody counts it. */
  readonly stock: number | null;
  /** Of the stock what earlier lines leave. */
  readonly left: number | null;
  readonly own: boolean;
}

export interface KitPick {
  readonly id: string;
  readonly version: number;
  readonly state: "picked" | "there";
  readonly count: number;
}

export type KitFinding =
  | {
      readonly code: "strap";
      readonly verdict: "short";
      readonly name: string;
      readonly poleMm: number;
      readonly low: number;
      readonly high: number;
    }
  | { readonly code: "saw"; readonly verdict: "short"; readonly holeMm: number; readonly sawsMm: readonly number[] }
  | { readonly code: "ladder"; readonly verdict: "short"; readonly asksM: number; readonly longestM: number }
  | { readonly code: "lift"; readonly verdict: "tight"; readonly name: string; readonly aglM: number }
  | { readonly code: "fixing"; readonly verdict: "short" | "unknown"; readonly name: string; readonly load: FixingLoad }
  | { readonly code: "wind-untold" | "wall-unknown" | "pole-untold"; readonly verdict: "unknown" }
  | { readonly code: "missing"; readonly verdict: "short"; readonly rows: readonly KitRow[] }
  | { readonly code: "not-chosen"; readonly verdict: "unknown"; readonly rows: readonly KitRow[] }
  | { readonly code: "risk"; readonly verdict: "short" | "unknown" | "tight"; readonly risk: JudgedRisk };

export interface SiteKit {
  readonly siteId: string;
  readonly rows: readonly KitRow[];
  readonly findings: readonly KitFinding[];
  readonly risks: readonly JudgedRisk[];
  /** Wind on the highest unit and its fixings; null while the wind is not told. */
  readonly wind: { readonly name: string; readonly load: FixingLoad; readonly gustMS: number } | null;
  readonly materialCents: number;
}

/** Gust at the mount's height; null while it is not told, or is a mean without its factor. */
export const gustOf = ({ wind }: Pick<KitFields, "wind">): number | null => {
  if (wind.speedMS === null) return null;
  if (wind.kind === "gust") return wind.speedMS;
  return wind.gustFactor === null ? null : gustOfMean(wind.speedMS, wind.gustFactor);
};

/** What was picked of lines that the plan no longer has, of any site of the job: it is still out of stock. */
export const pickedBeside = <P extends { readonly id: string; readonly state: string; readonly count: number }>(
  picks: readonly P[],
  wirings: readonly SiteWiring[],
  kit: KitFields,
  parts: Parts,
  units: ReadonlyMap<string, MountedUnit>,
  idOf: (key: string) => string,
): P[] => {
  const known = new Set(
    wirings.flatMap((wiring) =>
      siteKit({ wiring, kit, safety: null, parts, units, pickOf: (key) => ({ id: idOf(key), pick: null }) }).rows.map((r) => r.pickId),
    ),
  );
  return picks.filter((p) => p.state === "picked" && p.count > 0 && !known.has(p.id));
};

export interface KitAsk {
  readonly wiring: SiteWiring;
  readonly kit: KitFields;
  readonly safety: SafetyFields | null;
  readonly parts: Parts;
  readonly units: ReadonlyMap<string, MountedUnit>;
  readonly pickOf: (key: string) => { readonly id: string; readonly pick: KitPick | null };
  /** What of each counted part other sites leave; what this one is to take is taken from it. */
  readonly stockLeft?: Map<string, number>;
}

export const siteKit = ({ wiring, kit, safety, parts, units, pickOf, stockLeft = new Map() }: KitAsk): SiteKit => {
  const site = kitSiteOf(kit, wiring.siteId);
  const facts = kitFacts(wiring, site, parts, units);
  const own = kit.own.filter((o) => o.siteId === wiring.siteId);
  const lines: (KitLine & { own: boolean })[] = [
    ...kitLines(wiring.siteId, facts, parts).map((l) => ({ ...l, own: false })),
    ...own.map((o) => ({
      key: `${wiring.siteId}|own|${o.id}`,
      siteId: wiring.siteId,
      where: o.where,
      name: o.name,
      part: null,
      quantity: o.quantity,
      unit: o.unit,
      why: [o.why === "" ? "a row of your own" : o.why],
      ruleIds: [],
      costCents: o.priceEur === null ? null : Math.round(o.priceEur * 100 * o.quantity),
      own: true,
    })),
  ];
  const rows = lines.map((l): KitRow => {
    const { id, pick } = pickOf(l.key);
    const stock = l.part?.stock ?? null;
    if (pick !== null) return { ...l, pickId: id, state: pick.state, stock, left: stock };
    // What an earlier line is to take is not there for this one.
    const left = stock === null ? null : (stockLeft.get(l.part!.id) ?? stock);
    const isMissing = left !== null && left < l.quantity;
    if (left !== null && !isMissing) stockLeft.set(l.part!.id, left - Math.ceil(l.quantity));
    return { ...l, pickId: id, state: isMissing ? "missing" : "open", stock, left };
  });
  const findings: KitFinding[] = [];
  const missing = rows.filter((r) => r.state === "missing");
  if (missing.length > 0) findings.push({ code: "missing", verdict: "short", rows: missing });
  const unknown = rows.filter((r) => r.ruleIds.includes("unit-unknown"));
  if (unknown.length > 0) findings.push({ code: "not-chosen", verdict: "unknown", rows: unknown });
  const radios = wiring.places.filter((p) => p.kind === "radio");
  for (const r of radios) {
    const straps = units.get(r.partId ?? "")?.poleDiameterMm;
    if (site.poleMm !== null && straps !== undefined && (site.poleMm < straps.low || site.poleMm > straps.high))
      findings.push({ code: "strap", verdict: "short", name: r.name, poleMm: site.poleMm, ...straps });
    if ((r.aglM ?? 0) > 0 && ladderFor(site.stepOffM ?? r.aglM ?? 0) === null)
      findings.push({ code: "lift", verdict: "tight", name: r.name, aglM: r.aglM ?? 0 });
  }
  if (radios.length > 0 && site.poleMm === null) findings.push({ code: "pole-untold", verdict: "unknown" });
  if (radios.length > 0 && site.newBracket && site.wall === "unknown") findings.push({ code: "wall-unknown", verdict: "unknown" });
  const holes = [...new Set(facts.flatMap((f) => (f.kind === "entry" && typeof f.values.holeMm === "number" ? [f.values.holeMm] : [])))];
  for (const holeMm of holes)
    if (kit.sawsMm.length > 0 && !kit.sawsMm.includes(holeMm)) findings.push({ code: "saw", verdict: "short", holeMm, sawsMm: kit.sawsMm });
  const top = radios.reduce<PlaceFields | null>((m, r) => (m === null || (r.aglM ?? 0) > (m.aglM ?? 0) ? r : m), null);
  const asksM = top === null ? 0 : ladderM(site.stepOffM ?? top.aglM ?? 0);
  const longestM = Math.max(0, ...kit.laddersM);
  if (
    top !== null &&
    (top.aglM ?? 0) > NO_LADDER_BELOW_M &&
    kit.laddersM.length > 0 &&
    ladderFor(site.stepOffM ?? top.aglM ?? 0) !== null &&
    longestM < asksM
  )
    findings.push({ code: "ladder", verdict: "short", asksM, longestM });
  const gustMS = gustOf(kit);
  const unit = units.get(top?.partId ?? "");
  let wind: SiteKit["wind"] = null;
  if (top !== null && gustMS === null) findings.push({ code: "wind-untold", verdict: "unknown" });
  if (top !== null && gustMS !== null && unit?.windAreaM2 !== undefined) {
    const load = fixingLoad({
      gustMS,
      face: { areaM2: unit.windAreaM2, form: unit.antenna?.form === "dish" ? "dish" : "plate", weightKg: unit.weightKg ?? 0 },
      pole: site.poleAboveM === 0 ? null : { diameterMm: site.poleMm ?? 50, lengthM: site.poleAboveM, weightKg: 3 * site.poleAboveM },
      faceAboveM: site.poleAboveM,
      bracketsApartM: site.bracketsApartM,
      standOffM: site.standOffM,
      screwsPerBracket: site.screwsPerBracket,
      pullHoldN: site.pullHoldN,
      shearHoldN: site.shearHoldN,
      factor: kit.fixingFactor,
      iceMm: site.iceMm,
    });
    wind = { name: top.name, load, gustMS };
    if (load.verdict !== "clear") findings.push({ code: "fixing", verdict: load.verdict, name: top.name, load });
  }
  const risks = judgeScreen(safety?.answers ?? {}, {
    mountAglM: top?.aglM ?? 0,
    lineM: safety?.lineM ?? null,
    reachM: top === null ? null : Math.max(asksM, top.aglM ?? 0),
    approachM: safety?.approachM ?? null,
    workers: kit.crew,
  });
  for (const risk of risks) if (risk.verdict !== "clear") findings.push({ code: "risk", verdict: risk.verdict, risk });
  const RANK = { short: 0, unknown: 1, tight: 2 } as const;
  return {
    siteId: wiring.siteId,
    rows,
    findings: findings.sort((a, b) => RANK[a.verdict] - RANK[b.verdict]),
    risks,
    wind,
    materialCents: rows.reduce((s, r) => s + (r.state === "there" ? 0 : (r.costCents ?? 0)), 0),
  };
};
