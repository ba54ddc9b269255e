import { amountCents, type JudgedRisk, judgeScreen, type KitLine, kitLines } from "../core/kit";
import type { Stands } from "../core/link";
import type { Parts } from "../core/wiring";
import type { KitFields, PickState, SafetyFields } from "./kit";
import { kitFacts, kitSiteOf } from "./kit-facts";
import { HARNESS_FROM_M, judgeMounts, type MountFinding, type MountOf, type MountWind, swayFindings } from "./kit-mount";
import type { SiteWiring } from "./wiring-job";

/* The kit of a site: its lines with what is in hand of them, and what does not suit. */

/** A line of the kit with what is in hand of it. */
export interface KitRow extends KitLine {
  readonly pickId: string;
  readonly state: "open" | "missing" | PickState;
  /** What of it is reserved or picked; the plan may ask for more by now. */
  readonly held: number;
  /** Something of it is in somebody's hands: to reserve it would be to put it back. */
  readonly isBegun: boolean;
  /** In stock beside what is picked; null where nobody counts it. */
  readonly stock: number | null;
  /** Of the stock what earlier lines leave. */
  readonly left: number | null;
  readonly own: boolean;
}

export interface KitPick {
  readonly id: string;
  readonly version: number;
  readonly state: PickState;
  readonly count: number;
}

export type KitFinding =
  | MountFinding
  | { readonly code: "saw"; readonly verdict: "short"; readonly holeMm: number; readonly sawsMm: readonly number[] }
  | { readonly code: "missing"; readonly verdict: "short"; readonly rows: readonly KitRow[] }
  | { readonly code: "not-chosen"; readonly verdict: "unknown"; readonly rows: readonly KitRow[] }
  | { readonly code: "risk"; readonly verdict: "short" | "unknown" | "tight"; readonly risk: JudgedRisk };

const RANK = { short: 0, unknown: 1, tight: 2 } as const;
/** The worst first; of what is equally bad, what may hurt somebody. */
export const worstKitFirst = (a: KitFinding, b: KitFinding): number =>
  RANK[a.verdict] - RANK[b.verdict] || Number(b.code === "risk") - Number(a.code === "risk");

export interface SiteKit {
  readonly siteId: string;
  readonly rows: readonly KitRow[];
  readonly findings: readonly KitFinding[];
  readonly risks: readonly JudgedRisk[];
  /** Wind on the mount that bears it worst; null while it cannot be worked out. */
  readonly wind: MountWind | null;
  readonly materialCents: number;
}

/** What was picked of lines that the plan no longer has, of any site of the job: it is still out of stock. */
export const pickedBeside = <P extends { readonly id: string; readonly state: string; readonly count: number }>(
  picks: readonly P[],
  sites: readonly SiteKit[],
): P[] => {
  const known = new Set(sites.flatMap((s) => s.rows.map((r) => r.pickId)));
  return picks.filter((p) => p.state !== "there" && p.count > 0 && !known.has(p.id));
};

/** Rows that say that something is not chosen yet. */
const NOT_CHOSEN: ReadonlySet<string> = new Set(["unit-unknown", "cable-unknown", "antenna-unknown"]);

export interface KitAsk {
  readonly wiring: SiteWiring;
  readonly kit: KitFields;
  readonly safety: SafetyFields | null;
  readonly parts: Parts;
  readonly mountOf: MountOf;
  readonly pickOf: (key: string) => { readonly id: string; readonly pick: KitPick | null };
  /** What the plan says the mount stands on: wind turns it by that; left out, it is not judged. */
  readonly stands?: Stands | null;
  /** What of each counted part other sites leave; what this one is to take is taken from it. */
  readonly stockLeft?: Map<string, number>;
}

export const siteKit = ({ wiring, kit, safety, parts, mountOf, pickOf, stands, stockLeft = new Map() }: KitAsk): SiteKit => {
  const site = kitSiteOf(kit, wiring.siteId);
  const facts = kitFacts(wiring, site, parts, mountOf);
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
      costCents: o.priceEur === null ? null : amountCents(o.priceEur, o.quantity),
      own: true,
    })),
  ];
  const rows = lines.map((l): KitRow => {
    const { id, pick } = pickOf(l.key);
    const stock = l.part?.stock ?? null;
    const held = pick === null || pick.state === "there" ? 0 : pick.count;
    const of = { ...l, pickId: id, held, isBegun: pick?.state === "picked" };
    const more = Math.ceil(l.quantity) - Math.ceil(held);
    if (pick !== null && (pick.state === "there" || more <= 0)) return { ...of, state: pick.state, stock, left: stock };
    // What an earlier line is to take is not there for this one.
    const left = stock === null ? null : (stockLeft.get(l.part!.id) ?? stock);
    const isMissing = left !== null && left < more;
    if (left !== null && !isMissing) stockLeft.set(l.part!.id, left - more);
    return { ...of, state: isMissing ? "missing" : "open", stock, left };
  });
  const findings: KitFinding[] = [];
  const missing = rows.filter((r) => r.state === "missing");
  if (missing.length > 0) findings.push({ code: "missing", verdict: "short", rows: missing });
  const unknown = rows.filter((r) => r.ruleIds.some((id) => NOT_CHOSEN.has(id)));
  if (unknown.length > 0) findings.push({ code: "not-chosen", verdict: "unknown", rows: unknown });
  const radios = wiring.places.filter((p) => p.kind === "radio");
  const mounts = judgeMounts(radios, mountOf, site, kit);
  findings.push(...mounts.findings);
  if (stands !== undefined && radios.length > 0) findings.push(...swayFindings(site, stands));
  const holes = [...new Set(facts.flatMap((f) => (f.kind === "entry" && typeof f.values.holeMm === "number" ? [f.values.holeMm] : [])))];
  for (const holeMm of holes)
    if (kit.sawsMm.length > 0 && !kit.sawsMm.includes(holeMm)) findings.push({ code: "saw", verdict: "short", holeMm, sawsMm: kit.sawsMm });
  const risks = judgeScreen(safety?.answers ?? {}, {
    mountAglM: mounts.topAglM,
    lineM: safety?.lineM ?? null,
    reachM: mounts.reachM,
    approachM: safety?.approachM ?? null,
    workers: kit.crew,
    harness: mounts.topAglM > HARNESS_FROM_M,
    rescue: safety?.rescue ?? "",
  });
  for (const risk of risks) if (risk.verdict !== "clear") findings.push({ code: "risk", verdict: risk.verdict, risk });
  return {
    siteId: wiring.siteId,
    rows,
    findings: findings.sort(worstKitFirst),
    risks,
    wind: mounts.wind,
    materialCents: rows.reduce((s, r) => s + (r.state === "there" ? 0 : (r.costCents ?? 0)), 0),
  };
};
