/*
 * The rack of one link: every pair at every width in order, folded beneath what beats it or rejected with what decides.
 * Opened once for a plan; limits are then switched without weighing anything again.
 */
import type { LinkPlan, PathProfile } from "../link";
import { isTurned } from "../link";
import { type Antenna, BAND_KEYS, type Radio } from "../radio";
import { candidateOf, clearanceAt, type Tried, type WeighedCandidate } from "./candidates";
import { drawCandidate, openDraws } from "./draw";
import { isOutOfScope } from "./limits";
import { orderOf, serves } from "./order";
import { type PowerRange, topSetting } from "./power";
import { schoolsOf } from "./told";
import type { BandLine, Rack, RackLimits, RackRow, Refusal, RejectedGroup, SchoolFigures, UnitPair } from "./types";
import { pairsOf, unitsOf } from "./units";
import { openWeigher, type School, USUAL_SCHOOL, type WeighedOption, type Weigher } from "./weigh";

/** Rows that are drawn before the order is final. */
export const DRAWN_ROWS = 12;

export interface OpenRack {
  readonly weigher: Weigher;
  /** The rack under some limits, with what has been drawn so far. */
  readonly arrange: (limits: RackLimits) => Rack;
  /** Draws the next of the first twelve rows that is not drawn yet. @returns false when all of them are. */
  readonly drawNext: (limits: RackLimits) => boolean;
  /** A candidate by the schools of power; null when it has no channel. */
  readonly schools: (limits: RackLimits, id: string) => readonly SchoolFigures[] | null;
}

const needOf = ({ needToFarMbps, needToNearMbps }: LinkPlan): number => (needToFarMbps ?? 0) + (needToNearMbps ?? 0);

/** How far a refused candidate is from being let in, for the order within its group; less is nearer. */
const farness = (r: Refusal): number => {
  switch (r.code) {
    case "hot":
    case "rule-minimum":
      return r.overDb;
    case "weak":
    case "rule-cuts":
      return r.lacksDb;
    case "rain":
      return r.hoursAYear ?? Number.POSITIVE_INFINITY;
    case "slow":
      return r.shortMbps;
    case "port":
      return -r.portMbps;
    case "face":
    case "price":
      return typeof r.figure === "number" ? r.figure : 0;
    case "wind":
      return -(r.beamDeg ?? 0);
    default:
      return 0;
  }
};

/** Order in which groups of refusals are told: what the path does, what the rules say, then the limits that were set. */
const GROUPS: readonly Refusal["code"][] = [
  "hot",
  "weak",
  "rule-cuts",
  "rain",
  "slow",
  "port",
  "wind",
  "rule",
  "rule-minimum",
  "radar-missing",
  "permission",
  "face",
  "price",
  "port-speed",
  "pole",
  "supply",
  "cold",
  "heat",
  "radar",
  "stock",
  "like",
  "band",
  "family",
  "one-type",
  "unlike",
  "kept-end",
];

type Order = (a: WeighedCandidate, b: WeighedCandidate) => number;

const grouped = (refused: readonly WeighedCandidate[], order: Order): RejectedGroup[] =>
  GROUPS.flatMap((code) => {
    const candidates = refused
      .filter((c) => c.refusal?.code === code)
      .sort((a, b) => Number(b.onlyThat) - Number(a.onlyThat) || farness(a.refusal!) - farness(b.refusal!) || order(a, b));
    return candidates.length === 0 ? [] : [{ code, candidates }];
  });

/** Of candidates that are all refused the one that tells most: one that a single press would let in, else the nearest of what stops most of them. */
const mostTelling = (refused: readonly WeighedCandidate[], order: Order): WeighedCandidate | null => {
  const groups = grouped(refused, order).map((g) => g.candidates as readonly WeighedCandidate[]);
  const loose = groups.flatMap((g) => g.filter((c) => c.onlyThat && GROUPS.indexOf(c.refusal!.code) >= GROUPS.indexOf("permission")));
  return [...loose].sort(order)[0] ?? groups.sort((a, b) => b.length - a.length)[0]?.[0] ?? null;
};

/** A pair on a line of its own: its best width, and the others. */
interface Line {
  readonly best: WeighedCandidate;
  readonly widths: WeighedCandidate[];
  readonly beats: WeighedCandidate[];
}

const linesOf = (ordered: readonly WeighedCandidate[]): Line[] => {
  const lines = new Map<string, Line>();
  for (const c of ordered) {
    const line = lines.get(c.pair.key);
    if (line === undefined) lines.set(c.pair.key, { best: c, widths: [], beats: [] });
    else line.widths.push(c);
  }
  return [...lines.values()];
};

const mostKept = (l: Line): number => Math.max(...[l.best, ...l.widths].map((c) => c.option?.sureMultiple ?? 0));

const beats = (a: Line, b: Line): boolean => {
  if (!serves(a.best)) return false;
  const notMore = (x: number | null, y: number | null): boolean => (x ?? Number.POSITIVE_INFINITY) <= (y ?? Number.POSITIVE_INFINITY);
  const clears = (l: Line): boolean => l.best.clearance?.verdict !== "short";
  return (
    notMore(a.best.priceEur, b.best.priceEur) &&
    notMore(a.best.faceCm, b.best.faceCm) &&
    mostKept(a) >= mostKept(b) &&
    (clears(a) || !clears(b))
  );
};

const folded = (lines: readonly Line[]): Line[] => {
  const rows: Line[] = [];
  for (const line of lines) {
    const by = rows.find((r) => beats(r, line));
    if (by === undefined) rows.push(line);
    else by.beats.push(line.best, ...line.widths);
  }
  return rows;
};

/** @param onProgress told of every pair at every width that is looked at. */
export const openRack = (
  plan: LinkPlan,
  profile: PathProfile,
  hardware: { readonly radios: readonly Radio[]; readonly antennas: readonly Antenna[] },
  school: School = USUAL_SCHOOL,
  onProgress: (done: number, total: number) => void = () => undefined,
): OpenRack => {
  const weigher = openWeigher(plan, profile, school);
  const { pairs, alone } = pairsOf(unitsOf(hardware.radios, hardware.antennas));
  const settingsIn = ({ range }: { readonly range: PowerRange }): number =>
    Math.max(0, Math.round((topSetting(range) - range.leastDbm) / range.stepDb)) + 1;
  const weighed = (pair: UnitPair, widthMhz: number): (() => readonly WeighedOption[]) => {
    let options: readonly WeighedOption[] | null = null;
    return () => {
      options ??= weigher.options(pair, widthMhz);
      return options;
    };
  };
  const tried = pairs.flatMap((pair): Tried[] => {
    const widths = pair.near.radio.channelWidthsMhz.filter((w) => pair.far.radio.channelWidthsMhz.includes(w));
    return [...widths].sort((a, b) => a - b).map((widthMhz) => ({ pair, widthMhz, options: weighed(pair, widthMhz) }));
  });

  const order = orderOf(isTurned(profile));
  const clearance = clearanceAt(weigher);
  const drawn = new Map<string, WeighedCandidate>();
  const keyOf = (c: WeighedCandidate): string => `${c.id}|${c.option?.centreMhz}`;
  const asDrawn = (c: WeighedCandidate): WeighedCandidate => {
    const d = drawn.get(keyOf(c));
    if (d !== undefined) return { ...c, option: d.option, clearance: d.clearance, drawn: d.drawn };
    return c.refusal !== null || c.option === null ? c : { ...c, clearance: clearance(c.option) };
  };

  /** Candidates under the limits asked about last: what is drawn meanwhile changes nothing of them. */
  let last: {
    readonly limits: RackLimits;
    readonly all: readonly WeighedCandidate[];
    readonly channels: number;
    readonly settings: number;
  } | null = null;
  const looked = (limits: RackLimits): NonNullable<typeof last> => {
    if (last?.limits === limits) return last;
    let channels = 0;
    let settings = 0;
    const all = tried.map((t, i) => {
      onProgress(i, tried.length);
      const c = candidateOf(t, limits, weigher);
      if (c.refusal === null || !isOutOfScope(c.refusal.code)) {
        const options = t.options();
        channels += options.length;
        for (const o of options) settings += settingsIn(o.far) * settingsIn(o.near);
      }
      return c;
    });
    last = { limits, all, channels, settings };
    return last;
  };
  const under = (limits: RackLimits): readonly WeighedCandidate[] => looked(limits).all;

  const sorted = (limits: RackLimits): { all: WeighedCandidate[]; lines: Line[] } => {
    const all = under(limits).map(asDrawn);
    return { all, lines: folded(linesOf(all.filter((c) => c.refusal === null).sort(order))) };
  };

  const bandsOf = (all: readonly WeighedCandidate[]): BandLine[] =>
    BAND_KEYS.flatMap((band) => {
      const every = all.filter((c) => c.band === band);
      if (every.length === 0) return [];
      // What was not looked at says nothing of a band, unless nothing of it was.
      const looked = every.filter((c) => c.option !== null || c.refusal?.code === "rule");
      const own = looked.length > 0 ? looked : every;
      const inRack = own.filter((c) => c.refusal === null).sort(order)[0];
      if (inRack !== undefined) return [{ band, best: inRack }];
      return [{ band, best: mostTelling(own, order) }];
    });

  return {
    weigher,
    arrange: (limits) => {
      const { all, lines } = sorted(limits);
      const refused = all.filter((c) => c.refusal !== null);
      const rows: RackRow[] = lines;
      return {
        rows,
        rejected: grouped(refused, order),
        bands: bandsOf(all),
        counts: {
          tried: tried.length,
          channels: looked(limits).channels,
          settings: looked(limits).settings,
          rows: rows.length,
          folded: rows.reduce((n, r) => n + r.widths.length + r.beats.length, 0),
          rejected: refused.length,
        },
        alone,
        needMbps: needOf(plan),
      };
    },
    drawNext: (limits) => {
      const { lines } = sorted(limits);
      const next = lines.slice(0, DRAWN_ROWS).find((l) => l.best.drawn === null && !drawn.has(keyOf(l.best)))?.best;
      if (next === undefined) return false;
      drawn.set(keyOf(next), drawCandidate(next, school));
      return true;
    },
    schools: (limits, id) => {
      const option = under(limits).find((c) => c.id === id)?.option;
      return option == null ? null : schoolsOf(option, openDraws(option), school.targetDbm);
    },
  };
};
