/*
 * Why a candidate keeps less than is asked: the one thing without which it would do, looked for in the order in which an
 * installer can do something about it. The figure beside it is how much of that thing is too much or too little.
 */
import { beamwidthOf, fadingOnce, isShaken, lostPercent, multipleOf, twistOf } from "../link";
import { type PowerRange, topSetting } from "./power";
import type { TemplateRung } from "./templates";
import type { Refusal } from "./types";
import type { School, WeighedOption, WeighedWay } from "./weigh";

const HOURS_A_YEAR = 8766;

/** What is held to when a way's fastest rung is looked for. */
interface Held {
  readonly ceiling: boolean;
  readonly year: boolean;
  readonly level: boolean;
  /** The radio's own most in place of what the rules allow. */
  readonly ownPower: boolean;
  /** Moves the level, dB. */
  readonly moveDb: number;
}
const ALL: Held = { ceiling: true, year: true, level: true, ownPower: false, moveDb: 0 };

const rangeOf = (way: WeighedWay, school: School): PowerRange =>
  school.name === "target" ? { ...way.range, leastDbm: way.figures.powerDbm, mostDbm: way.figures.powerDbm } : way.range;

const isHeld = (r: TemplateRung, range: PowerRange, way: WeighedWay, marginDb: number, h: Held): boolean => {
  if (!h.level) return true;
  const most = h.ownPower ? r.mostPowerDbm : Math.min(topSetting(range), r.mostPowerDbm);
  const fixedDb = way.fixedDb + h.moveDb;
  if (most + fixedDb - r.needsDbm < marginDb) return false;
  return !h.ceiling || Math.min(range.leastDbm, r.mostPowerDbm) + fixedDb <= r.ceilingDbm;
};

const rateOf = (option: WeighedOption, way: WeighedWay, school: School, h: Held): number => {
  const range = rangeOf(way, school);
  const marginDb = h.year ? way.marginDb : option.plan.policy.marginDb;
  let best = 0;
  for (const r of way.template.rungs) if (r.plannedMbps > best && isHeld(r, range, way, marginDb, h)) best = r.plannedMbps;
  return best;
};

const together = (option: WeighedOption, farMbps: number, nearMbps: number): number =>
  multipleOf(
    option.plan.needToFarMbps ?? 0,
    option.plan.needToNearMbps ?? 0,
    farMbps,
    nearMbps,
    option.far.template.shared,
    option.far.template.portMbps,
    option.near.template.portMbps,
  );

const multipleBy = (option: WeighedOption, school: School, h: Held): number =>
  together(option, rateOf(option, option.far, school, h), rateOf(option, option.near, school, h));

const ways = (option: WeighedOption): readonly WeighedWay[] => [option.far, option.near];

/** The least move of the level, of those at which some rung begins to hold, that keeps the need. */
const leastMove = (option: WeighedOption, school: School, moves: readonly number[], holds: (moveDb: number) => Held): number | null =>
  [...moves].sort((a, b) => a - b).find((m) => multipleBy(option, school, holds(m)) >= 1) ?? null;

const hotBy = (option: WeighedOption, school: School): number => {
  const overs = ways(option).flatMap((way) => {
    const { leastDbm } = rangeOf(way, school);
    return way.template.rungs.map((r) => Math.min(leastDbm, r.mostPowerDbm) + way.fixedDb - r.ceilingDbm);
  });
  const over = leastMove(
    option,
    school,
    overs.filter((o) => o > 0).map((o) => o + 1e-9),
    (moveDb) => ({ ...ALL, moveDb: -moveDb }),
  );
  return over ?? Math.max(0, ...overs);
};

const weakBy = (option: WeighedOption, school: School): number => {
  const lacks = ways(option).flatMap((way) => {
    const top = topSetting(rangeOf(way, school));
    return way.template.rungs.map((r) => r.needsDbm + way.marginDb - way.fixedDb - Math.min(top, r.mostPowerDbm));
  });
  return (
    leastMove(
      option,
      school,
      lacks.filter((l) => l > 0 && Number.isFinite(l)).map((l) => l + 1e-9),
      (moveDb) => ({ ...ALL, ceiling: false, moveDb }),
    ) ?? Number.POSITIVE_INFINITY
  );
};

/** Hours a year in which fading takes the slowest rungs that carry the need in clear air, the worse way; null beyond what the method knows. */
const hoursLost = (option: WeighedOption, school: School): number | null => {
  const clear: Held = { ...ALL, year: false };
  const other = { far: rateOf(option, option.near, school, clear), near: rateOf(option, option.far, school, clear) };
  const one = (way: WeighedWay, isFar: boolean): number | null => {
    const need = isFar ? option.plan.needToFarMbps : option.plan.needToNearMbps;
    if ((need ?? 0) === 0) return 0;
    const range = rangeOf(way, school);
    const marginsDb = way.template.rungs.flatMap((r) => {
      const does = isHeld(r, range, way, option.plan.policy.marginDb, clear);
      const multiple = isFar ? together(option, r.plannedMbps, other.far) : together(option, other.near, r.plannedMbps);
      return does && multiple >= 1 ? [Math.min(topSetting(range), r.mostPowerDbm) + way.fixedDb - r.needsDbm] : [];
    });
    const tx = isFar ? option.plan.near : option.plan.far;
    const lost = lostPercent(fadingOnce(option.plan, tx, option.state), Math.max(0, ...marginsDb)).all;
    return lost === null ? null : (lost / 100) * HOURS_A_YEAR;
  };
  const [a, b] = [one(option.far, true), one(option.near, false)];
  return a === null || b === null ? null : Math.max(a, b);
};

/** What the rules have against an option. */
const ruleRefusal = (option: WeighedOption): Refusal | null => {
  if (option.rule !== null) return { code: "rule", reason: option.rule === "no-rule" ? "no-channel" : (option.rule as "gain-too-low") };
  if (option.belowRadioDb > 1e-9) return { code: "rule-minimum", overDb: option.belowRadioDb };
  if (option.radarMissing) return { code: "radar-missing" };
  return null;
};

/** An end that wind turns out of its own beam. */
const windRefusal = ({ plan }: WeighedOption): Refusal | null => {
  for (const end of ["near", "far"] as const) {
    const of = plan[end];
    if (isShaken(of)) return { code: "wind", twistDeg: of.stands === "tree" ? null : twistOf(of), beamDeg: beamwidthOf(of), end };
  }
  return null;
};

/** What keeps a candidate from carrying the need; null when it does, as expected. */
export const shortfallOf = (option: WeighedOption, school: School): Refusal | null => {
  // One that only other settings would let keep it, as expected, is not sure to: it is for the draws to say.
  if (option.multiple >= 1 || multipleBy(option, school, ALL) >= 1) return null;
  const { needToFarMbps, needToNearMbps } = option.plan;
  const needMbps = (needToFarMbps ?? 0) + (needToNearMbps ?? 0);
  if (together(option, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY) < 1) {
    const far = (needToFarMbps ?? 0) > option.far.template.portMbps;
    return { code: "port", portMbps: (far ? option.far : option.near).template.portMbps };
  }
  const slow: Refusal = { code: "slow", keptMbps: option.multiple * needMbps, shortMbps: (1 - option.multiple) * needMbps };
  if (multipleBy(option, school, { ...ALL, level: false }) < 1) return slow;
  if (multipleBy(option, school, { ...ALL, ceiling: false }) >= 1) return { code: "hot", overDb: hotBy(option, school) };
  if (multipleBy(option, school, { ...ALL, year: false }) >= 1) return { code: "rain", hoursAYear: hoursLost(option, school) };
  const cut = ways(option).find((w) => w.figures.legalDbm < Math.max(...w.template.rungs.map((r) => r.mostPowerDbm)));
  if (cut !== undefined && multipleBy(option, school, { ...ALL, ceiling: false, ownPower: true }) >= 1)
    return { code: "rule-cuts", limitDbm: cut.figures.legalDbm, lacksDb: weakBy(option, school) };
  return { code: "weak", lacksDb: weakBy(option, school) };
};

/** Everything that is against a candidate by itself, whatever limits are set; the first that decides. */
export const refusalOf = (option: WeighedOption | null, school: School): Refusal | null => {
  if (option === null) return { code: "rule", reason: "no-channel" };
  const byRule = ruleRefusal(option) ?? windRefusal(option);
  if (byRule !== null) return byRule;
  const short = shortfallOf(option, school);
  // A permission brings no level: what would not serve with it is told by what it lacks.
  return short ?? (option.permission === null ? null : { code: "permission", asks: option.permission });
};
