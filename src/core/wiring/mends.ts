import type { WiringCode, WiringFinding } from "./finding";
import { type JudgedWiring, judgeWiring } from "./judge";
import type { Context, Draft, WiringMend } from "./mend-draft";
import { glass, onLead, otherCables, protectors, takeOff } from "./mend-leads";
import { otherParts } from "./mend-parts";
import { beyond, converters, countDrawn, otherPorts, turned } from "./mend-power";
import type { PartSheet } from "./part";
import type { SunPlan } from "./sun";

/* What would mend a finding: each worked out on the whole end before it is taken. */

const MOST_MENDS = 4;

const givesMore = (p: PartSheet, now: PartSheet | null): boolean =>
  (p.totalGiveW ?? Number.POSITIVE_INFINITY) > (now?.totalGiveW ?? 0) ||
  (p.ports.find((x) => x.gives !== undefined)?.giveW ?? 0) >
    (now?.ports.find((x) => x.gives !== undefined)?.giveW ?? Number.POSITIVE_INFINITY);

const giverOf = ({ w }: Context, f: WiringFinding, j: JudgedWiring): string | null => {
  const a = [...j.feeds.arrivals.values()].find((x) => x.end.placeId === f.placeId);
  return a === undefined ? null : (w.placeOf.get(a.source.placeId)?.id ?? null);
};

const WAYS: Partial<Record<WiringCode, (c: Context, f: WiringFinding, j: JudgedWiring) => Draft[]>> = {
  unfit: (c, f) => [...otherPorts(c, f), ...converters(c, f)],
  dark: (c, f, j) => [...otherPorts(c, f), ...converters(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  pairs: (c, f, j) => [...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true), ...converters(c, f)],
  polarity: (c, f, j) => [...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "volts-kind": (c, f, j) => [...otherPorts(c, f), ...converters(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "no-start": (c, f, j) => [...otherCables(c, f, () => true), ...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "volts-low": (c, f, j) => [...otherCables(c, f, () => true), ...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "start-low": (c, f, j) => [...otherCables(c, f, () => true), ...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  "volts-tight": (c, f) => [...otherCables(c, f, () => true)],
  "volts-high": (c, f, j) => [...otherPorts(c, f), ...otherParts(c, giverOf(c, f, j), () => true)],
  unfed: (c, f) => otherPorts(c, f),
  "port-over": (c, f) => [...otherParts(c, f.placeId, () => true)],
  "start-over": (c, f) => [...otherParts(c, f.placeId, givesMore)],
  "switch-over": (c, f) => otherParts(c, f.placeId, givesMore),
  "reserved-over": (c, f) => [...countDrawn(c, f), ...otherParts(c, f.placeId, givesMore)],
  "pass-over": (c, f) => otherPorts(c, beyond(c, f)),
  "pass-fed": (c, f) => [...otherPorts(c, beyond(c, f))],
  "copper-clad": (c, f) => otherCables(c, f, () => true),
  "thin-cord": (c, f) => otherCables(c, f, (p) => (p.cable!.awg ?? 99) < 26),
  "cable-unknown": (c, f) => otherCables(c, f, () => true),
  "slow-lead": (c, f) => otherCables(c, f, () => true),
  "indoor-outside": (c, f) => otherCables(c, f, () => true),
  "too-long": (c, f) => glass(c, f),
  "two-earths": (c, f) => [...glass(c, f), ...takeOff(c, f)],
  "slow-injector": (c, f) => otherParts(c, f.placeId, () => true),
  "injector-turned": turned,
  "surge-missing": protectors,
  "surge-one": protectors,
  "surge-volts": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "surge-kind": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "surge-pairs": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "surge-speed": (c, f) => otherParts(c, f.placeId, () => true, "other-protector"),
  "no-drip-loop": (c, f) => onLead(c, f, "drip-loop", { dripLoop: true }),
  "near-mains": (c, f) => onLead(c, f, "away-from-mains", { nearMains: null }),
  "data-loop": (c, f) => takeOff(c, f),
  "port-taken": (c, f) => [...takeOff(c, f)],
  "panel-small": (c) => bigger(c, (p) => p.panelW),
  "battery-small": (c) => bigger(c, (p) => p.battery?.ah),
  "frost-charge": (c, f) => otherParts(c, f.placeId, (p) => p.battery?.chemistry === "lead" || p.battery?.heater === true),
};

/** A greater one of the parts that a figure is of, or one more beside it. */
const bigger = (c: Context, of: (p: PartSheet) => number | undefined): Draft[] => {
  const place = c.w.graph.places.find((p) => {
    const sheet = c.w.sheetOf(p.id);
    return sheet !== null && of(sheet) !== undefined;
  });
  if (place === undefined) return [];
  const now = of(c.w.sheetOf(place.id)!)!;
  return otherParts(c, place.id, (p) => (of(p) ?? 0) > now);
};

const countOf = (j: JudgedWiring, code: WiringCode): number => j.findings.filter((f) => f.code === code).length;
/** How bad an end is: stops before what is short before what is not known or tight. */
const badness = (j: JudgedWiring): number =>
  j.findings.reduce((s, f) => s + (f.stop ? 1000 : f.verdict === "short" ? 100 : f.verdict === "unknown" ? 3 : 1), 0);

/** Mends of a finding that are worked out to leave the end better than it is, the best first. */
export const mendsOf = (judged: JudgedWiring, f: WiringFinding, sun: SunPlan | null, latDeg: number, newId: () => string): WiringMend[] => {
  const c: Context = { w: judged.wired, parts: judged.wired.parts, newId };
  return (WAYS[f.code]?.(c, f, judged) ?? [])
    .map((d): WiringMend => {
      const then = judgeWiring(d.graph, c.parts, sun, latDeg);
      const at = [...then.feeds.arrivals.values()].find((a) => a.end.placeId === f.placeId);
      return { ...d, judged: then, volts: at?.volts ?? null };
    })
    .filter(
      (m) =>
        countOf(m.judged, f.code) < countOf(judged, f.code) &&
        // What mends one thing and breaks another is no mend.
        m.judged.findings.every(
          (x) => (x.verdict !== "short" && x.code !== "sheet-unknown") || countOf(m.judged, x.code) <= countOf(judged, x.code),
        ),
    )
    .sort((a, b) => badness(a.judged) - badness(b.judged) || (a.costEur ?? 0) - (b.costEur ?? 0))
    .slice(0, MOST_MENDS);
};
