/* Candidates out of weighed options: which channel stands for a pair at a width, and what is against it. */
import { clearanceOf, conditionsOf, halfApertureOf, type LinkPlan, type PathState, rayOf } from "../link";
import { bandKeyOf } from "../radio";
import { brokenLimits, outOfScope, type PlannedUnits } from "./limits";
import { refusalOf } from "./refuse";
import type { Candidate, RackLimits, UnitPair } from "./types";
import { faceOfPair, priceOf, unitOf } from "./units";
import type { WeighedOption, Weigher } from "./weigh";

/** A pair at one of its widths; its channels are weighed when it is first looked at, whatever the limits, and kept. */
export interface Tried {
  readonly pair: UnitPair;
  readonly widthMhz: number;
  readonly options: () => readonly WeighedOption[];
}

/** The channel that serves best: usable as things stand, then what it keeps, then no permission, no radar, the lower centre. */
const better = (a: WeighedOption, b: WeighedOption): boolean => {
  const keys = (o: WeighedOption): number[] => [
    o.rule === null && o.belowRadioDb <= 1e-9 && !o.radarMissing ? 1 : 0,
    o.permission === null ? 1 : 0,
    o.sureMultiple,
    o.multiple,
    o.radar ? 0 : 1,
    -o.centreMhz,
  ];
  const [x, y] = [keys(a), keys(b)];
  const at = x.findIndex((v, i) => v !== y[i]);
  return at >= 0 && x[at]! > y[at]!;
};

/** @param noRadar channels with a radar duty are passed over where others are left. */
export const bestOption = (options: readonly WeighedOption[], noRadar: boolean): WeighedOption | null => {
  const free = noRadar ? options.filter((o) => !o.radar) : options;
  return (free.length > 0 ? free : options).reduce<WeighedOption | null>((best, o) => (best === null || better(o, best) ? o : best), null);
};

/** Level over the ceiling of the densest rung at the lowest setting, the worse way; 0 when it fits. */
const excessOf = ({ far, near }: WeighedOption): number =>
  Math.max(
    0,
    ...[far, near].map(({ template, range, fixedDb }) => {
      const densest = template.rungs[template.rungs.length - 1]!;
      return Math.min(range.leastDbm, densest.mostPowerDbm) + fixedDb - densest.ceilingDbm;
    }),
  );

export type WeighedCandidate = Candidate & { readonly option: WeighedOption | null };

const units = new WeakMap<LinkPlan, PlannedUnits>();
const plannedUnits = (plan: LinkPlan): PlannedUnits => {
  let found = units.get(plan);
  if (found === undefined) {
    found = { near: unitOf(plan.near.radio, plan.near.antenna), far: unitOf(plan.far.radio, plan.far.antenna) };
    units.set(plan, found);
  }
  return found;
};

/** A candidate by its chosen channel and the limits in force; its clearance is looked at later, where it matters. */
export const candidateOf = (tried: Tried, limits: RackLimits, weigher: Weigher): WeighedCandidate => {
  const { pair, widthMhz } = tried;
  const band = bandKeyOf(pair.near.radio.bandsMhz[0]!.low);
  const planned = plannedUnits(weigher.plan);
  const scope = outOfScope({ pair, band }, limits, planned);
  // What is left out of the search is not weighed.
  const option = scope.length > 0 ? null : bestOption(tried.options(), limits.noRadar);
  const own = scope.length > 0 ? null : refusalOf(option, weigher.school);
  const broken = scope.length > 0 ? [] : brokenLimits({ pair, band }, limits, option, planned);
  const against = [...scope, ...(own === null ? [] : [own]), ...broken];
  const rangeKm = Math.min(pair.near.radio.maxLinkKm, pair.far.radio.maxLinkKm);
  const pathKm = (option?.state.rayM ?? 0) / 1000;
  return {
    id: `${pair.key}@${widthMhz}`,
    pair,
    widthMhz,
    band,
    priceEur: priceOf(pair),
    faceCm: faceOfPair(pair),
    option,
    excessDb: option === null ? 0 : excessOf(option),
    beyondRangeKm: pathKm > rangeKm ? rangeKm : null,
    refusal: against[0] ?? null,
    onlyThat: against.length === 1,
    clearance: null,
    drawn: null,
  };
};

/** Clearance of the path on a channel between two faces, without drawing; kept by channel and faces. */
export const clearanceAt = (weigher: Weigher): ((option: WeighedOption) => Candidate["clearance"]) => {
  const known = new Map<string, Candidate["clearance"]>();
  return ({ plan, centreMhz }) => {
    const path = weigher.paths.pathAt(centreMhz);
    const faces = [plan.near, plan.far].map((end) => halfApertureOf(end, path.wavelengthM));
    const key = `${centreMhz}|${faces.join("|")}`;
    let found = known.get(key);
    if (found === undefined) {
      const conditions = conditionsOf(plan, path, (k) => rayOf(plan, path, k).ray);
      found = clearanceWords(clearanceOf(path, conditions, plan, false).result);
      known.set(key, found);
    }
    return found;
  };
};

export const clearanceWords = ({ verdict, worst }: PathState["clearance"]): NonNullable<Candidate["clearance"]> => ({
  verdict,
  missM: worst?.missM ?? null,
  owner: worst?.ownerName ?? null,
});

/** The plan of a candidate as it would stand when it is taken. */
export const planOfCandidate = (option: WeighedOption): LinkPlan => ({
  ...option.plan,
  near: { ...option.plan.near, txPowerDbm: option.toFar.powerDbm },
  far: { ...option.plan.far, txPowerDbm: option.toNear.powerDbm },
});
