/* Findings with what would mend them. A mend is offered only when with it the finding goes; what it brings of it is said otherwise. */
import { isSpan, isVegetation } from "../obstacles";
import { apply } from "./apply-action";
import { resultOf } from "./evaluate";
import type { DesignAction, Finding, LookView, Mend, Observation } from "./finding-types";
import { type Drawn, observe, worseVerdict } from "./judge";
import { keptMultiple, waysOf } from "./kept";
import { HIGHEST_RAISE_M } from "./limits";
import { type Ends, lowerToMeet, raiseToMeet, trimToMeet, withMounts } from "./mends";
import { beyondStructure } from "./observe-clearance";
import { type PathState, pathStateOf } from "./path-state";
import { lawfulPowers, mostLawfulDbm, powerForCeiling } from "./power-advice";
import { type PreparedPath, withTrims } from "./prepare";
import { meansRemoval, trimList } from "./trim-list";
import type { Direction, LinkPlan, LinkResult } from "./types";

const bare = (code: Mend["code"], action: DesignAction | null, amount = 0): Mend => ({
  code,
  action,
  amount,
  amountToday: null,
  name: null,
  lastYear: null,
  brings: null,
  beyondStructure: false,
});

const look = (code: Mend["code"], view: LookView): Mend => bare(code, { type: "look", view });

const raiseMends = (plan: LinkPlan, path: PreparedPath): Mend[] => {
  const { year, horizonYears } = plan.policy;
  const lastYear = year + horizonYears;
  const mends: Mend[] = [];
  for (const [ends, code] of [
    ["far", "raise-far"],
    ["near", "raise-near"],
    ["both", "raise-both"],
  ] as const satisfies readonly (readonly [Ends, string])[]) {
    const raiseM = raiseToMeet(plan, path, ends, lastYear);
    if (raiseM === null || raiseM <= 0) continue;
    const raised = withMounts(plan, ends, raiseM);
    const beyond =
      beyondStructure(plan.near.mountMaxAglM, raised.near.mountAglM) || beyondStructure(plan.far.mountMaxAglM, raised.far.mountAglM);
    const action: DesignAction =
      ends === "both"
        ? { type: "mounts", nearMountAglM: raised.near.mountAglM, farMountAglM: raised.far.mountAglM }
        : { type: "mount", end: ends, mountAglM: ends === "far" ? raised.far.mountAglM : raised.near.mountAglM };
    mends.push({
      ...bare(code, beyond ? null : action, raiseM),
      amountToday: raiseToMeet(plan, path, ends, year),
      name: ends === "both" ? null : ends === "far" ? plan.far.name : plan.near.name,
      lastYear,
      beyondStructure: beyond,
    });
  }
  // What the structure forbids stands last.
  return mends.sort((a, b) => Number(a.beyondStructure) - Number(b.beyondStructure));
};

/** Beneath an overhead line or a jib a lower mount may pass: the mend that raising is for everything else. */
const lowerMends = (plan: LinkPlan, path: PreparedPath): Mend[] => {
  const { year, horizonYears } = plan.policy;
  return (["far", "near"] as const).flatMap((end): Mend[] => {
    const dropM = lowerToMeet(plan, path, end, year + horizonYears);
    if (dropM === null) return [];
    const own = plan[end];
    return [
      {
        ...bare(`lower-${end}`, { type: "mount", end, mountAglM: own.mountAglM - dropM }, dropM),
        amountToday: lowerToMeet(plan, path, end, year),
        name: own.name,
        lastYear: year + horizonYears,
      },
    ];
  });
};

/** Where no cut of one tree is enough: all of them, when that is. */
const trimSeveral = (plan: LinkPlan, path: PreparedPath): Mend[] => {
  const lastYear = plan.policy.year + plan.policy.horizonYears;
  const list = trimList(plan, path, lastYear);
  if (!list.enough || list.rows.length < 2) return [];
  return [{ ...bare("trim-several", { type: "trims", trimsM: list.trims }, list.rows.length), lastYear }];
};

const trimMend = (plan: LinkPlan, path: PreparedPath, bodyId: string, name: string | null): Mend[] => {
  const lastYear = plan.policy.year + plan.policy.horizonYears;
  const heightM = trimToMeet(plan, path, bodyId, lastYear);
  if (heightM === null) return trimSeveral(plan, path);
  const todayM = path.profile.bodies.find((b) => b.id === bodyId)?.heightM ?? heightM;
  return [
    {
      ...bare("trim", { type: "trim", bodyId, heightM }, heightM),
      amountToday: trimToMeet(plan, path, bodyId, plan.policy.year),
      name,
      lastYear,
      removal: meansRemoval(Math.min(plan.trims[bodyId] ?? todayM, todayM), heightM),
    },
  ];
};

/** What might mend a level or a rate, in the order a person would try: power, width, both. */
const radioMends = (plan: LinkPlan, result: LinkResult): Mend[] => {
  const lawful = lawfulPowers(plan, result);
  if (lawful === null) return [];
  const out: Mend[] = [];
  const { nearDbm, farDbm } = lawful;
  const more = nearDbm > plan.near.txPowerDbm || farDbm > plan.far.txPowerDbm;
  const power: DesignAction = {
    type: "power",
    nearDbm: Math.max(nearDbm, plan.near.txPowerDbm),
    farDbm: Math.max(farDbm, plan.far.txPowerDbm),
  };
  if (more) out.push(bare("raise-power", power, Math.max(nearDbm, farDbm)));
  const widths = plan.near.radio.channelWidthsMhz.filter((w) => w !== plan.widthMhz && plan.far.radio.channelWidthsMhz.includes(w));
  for (const widthMhz of [...widths].sort((a, b) => Math.abs(a - plan.widthMhz) - Math.abs(b - plan.widthMhz)))
    out.push(bare("width", { type: "width", widthMhz }, widthMhz));
  if (more)
    for (const widthMhz of [...widths].sort((a, b) => b - a))
      out.push(bare("power-and-width", { type: "together", actions: [power, { type: "width", widthMhz }] }, widthMhz));
  return out;
};

/** What the mends under one finding are made of, before they are tried. */
const candidates = (o: Observation, plan: LinkPlan, path: PreparedPath, result: LinkResult): Mend[] => {
  switch (o.code) {
    case "short":
    case "unsure": {
      const w = result.clearance.worst;
      if (w === null || (o.code === "unsure" && w.missM <= -result.clearance.policyShare * w.f1M)) return [];
      const tree = w.owner.kind === "body" && isVegetation(w.owner.bodyKind) ? w.owner.id : null;
      const span = w.owner.kind === "body" && isSpan(w.owner.bodyKind);
      return [
        ...(tree === null ? [] : trimMend(plan, path, tree, w.ownerName)),
        ...(span ? lowerMends(plan, path) : []),
        ...raiseMends(plan, path),
      ];
    }
    case "grows": {
      const later = result.clearance.worstAtHorizon;
      const id = later?.owner.kind === "body" ? later.owner.id : null;
      return [...(id === null ? [] : trimMend(plan, path, id, later?.ownerName ?? null)), ...raiseMends(plan, path)];
    }
    case "little-spare":
      return [look("see-heights", "heights")];
    case "overloaded":
    case "damaging":
    case "too-strong": {
      const advice = powerForCeiling(plan, result);
      if (advice === null) return [];
      const lower = advice.nearDbm < plan.near.txPowerDbm || advice.farDbm < plan.far.txPowerDbm;
      const action: DesignAction = { type: "power", nearDbm: advice.nearDbm, farDbm: advice.farDbm };
      return [...(lower ? [bare("lower-power", action, Math.max(advice.nearDbm, advice.farDbm))] : []), look("see-gear", "gear")];
    }
    case "too-weak":
    case "thin-margin":
    case "too-slow":
    case "not-sure-to-serve":
      return [...radioMends(plan, result), look("see-gear", "gear")];
    case "over-rule": {
      const { toFar, toNear } = result.service;
      if (toFar === null || toNear === null) return [];
      const lawful = (d: Direction, end: LinkPlan["near"]): number =>
        Math.min(end.txPowerDbm, mostLawfulDbm(d, end.txPowerDbm, end.radio.txPowerStepDb));
      const action: DesignAction = { type: "power", nearDbm: lawful(toFar, plan.near), farDbm: lawful(toNear, plan.far) };
      const amount = o.values.name === plan.near.name ? action.nearDbm : action.farDbm;
      return [bare("legal-power", action, amount), ...(o.values.morePermission === null ? [] : [look("record-permission", "permission")])];
    }
    case "permission":
    case "permission-ended":
    case "permission-not-yet":
    case "permission-ends":
      return [look("record-permission", "permission")];
    case "reflection":
      return [look("see-water", "water")];
    case "out-of-beam":
      return [{ ...bare("aim-true", { type: "aim", end: o.values.end }), name: o.values.name }];
    case "rule-forbids":
    case "rule-below-radio":
    case "radar-missing":
    case "beyond-radio-range":
    case "no-need":
      return [look("see-gear", "gear")];
    default:
      return o.code.startsWith("pairing-") ? [look("see-gear", "gear")] : [];
  }
};

/** Codes of one trouble at several depths: a mend that leads from one to another has not mended it. */
const FAMILY: readonly (readonly Observation["code"][])[] = [
  ["short", "unsure", "blocked-no-height", "little-spare"],
  ["overloaded", "damaging", "too-strong"],
  ["too-weak", "thin-margin", "too-slow", "not-sure-to-serve"],
];
const familyOf = (code: Observation["code"]): readonly Observation["code"][] => FAMILY.find((f) => f.includes(code)) ?? [code];

/** How much of what lacks a mend brings, for those that are measured in decibels. */
const bringsOf = (o: Observation, before: LinkResult, after: LinkResult): Mend["brings"] => {
  if (o.code !== "too-weak" && o.code !== "thin-margin") return null;
  const margin = (r: LinkResult): number =>
    Math.min(...[r.service.toFar, r.service.toNear].map((d) => d?.ladder[0]?.marginDb ?? Number.NEGATIVE_INFINITY));
  const db = margin(after) - margin(before);
  return Number.isFinite(db) && db > 0 ? { db, ofDb: o.values.lacksDb } : null;
};

const onlyRadios = (a: DesignAction): boolean =>
  a.type === "power" || a.type === "width" || a.type === "aim" || (a.type === "together" && a.actions.every(onlyRadios));

/** What a mend is tried on: the design, its result, what was found, and the path as it stands. */
interface Trial {
  readonly plan: LinkPlan;
  readonly path: PreparedPath;
  readonly result: LinkResult;
  readonly found: readonly Observation[];
  readonly drawn: Drawn | null;
  /** The path's state, made when first asked for: power and width leave it as it is. */
  readonly state: () => PathState;
}

/** What is kept at the level that one case in ten lies below. */
const keptLow = (plan: LinkPlan, state: PathState, { service }: LinkResult, drawn: Drawn | null): number => {
  if (service.toFar === null || service.toNear === null) return 0;
  const { toFar, toNear } = waysOf(plan, state, service.toFar, service.toNear);
  const [farDb, nearDb] = [drawn?.lowToFarDb ?? 0, drawn?.lowToNearDb ?? 0];
  return keptMultiple(plan, toFar, toNear, farDb, nearDb, toFar.yearMarginDb(1), toNear.yearMarginDb(1));
};

/** Tries a mend: kept as a button when its finding goes and nothing worse comes, else told for what it brings, or left out. */
const tried = (o: Observation, m: Mend, { plan, path, result, found, drawn, state: asIs }: Trial): Mend | null => {
  if (m.action === null || m.action.type === "look") return m;
  const after = apply(plan, m.action);
  const state = onlyRadios(m.action) ? asIs() : pathStateOf(after, withTrims(path, after));
  const changed = resultOf(after, state);
  const now = observe(after, changed, () => 0, null);
  const family = familyOf(o.code);
  const gone =
    !now.some((x) => family.includes(x.code) && worseVerdict(x.verdict, o.verdict) === x.verdict) &&
    (o.code !== "not-sure-to-serve" || keptLow(after, state, changed, drawn) >= 1);
  // Nothing may come of it that did not stand there before as badly.
  const worse = now.some(
    (x) =>
      !family.includes(x.code) &&
      x.verdict !== "clear" &&
      !found.some((f) => f.code === x.code && worseVerdict(f.verdict, x.verdict) === f.verdict),
  );
  if (gone && !worse) return m;
  if (worse) return null;
  const brings = bringsOf(o, result, changed);
  return brings === null ? null : { ...m, action: null, brings };
};

const MOST_TOLD = 1;

/** A few of them: all that do, and one that says what it brings where none does. Ways to look come last. */
const chosen = (mends: readonly Mend[]): Mend[] => {
  const doing = mends.filter((m) => m.action !== null && m.action.type !== "look");
  const looks = mends.filter((m) => m.action?.type === "look");
  const single = doing.filter((m) => m.action?.type !== "together");
  const told = mends.filter((m) => m.action === null && m.beyondStructure);
  const brought = mends.filter((m) => m.action === null && m.brings !== null).sort((a, b) => (b.brings?.db ?? 0) - (a.brings?.db ?? 0));
  return [...(single.length > 0 ? single : doing.slice(0, 1)), ...(doing.length > 0 ? [] : brought.slice(0, MOST_TOLD)), ...told, ...looks];
};

/**
 * What stands against the design, worst first, each with what would mend it. Always at least one.
 * @param drawn what the draws say, once they are there.
 */
export const findings = (plan: LinkPlan, path: PreparedPath, result: LinkResult, drawn: Drawn | null = null): Finding[] => {
  const found = observe(plan, result, (id) => path.profile.bodies.find((b) => b.id === id)?.growthMPerYear ?? 0, drawn);
  let state: PathState | undefined;
  const trial: Trial = {
    plan,
    path,
    result,
    found,
    drawn,
    state: () => {
      state ??= pathStateOf(plan, path);
      return state;
    },
  };
  return found.map((o): Finding => {
    const mends = chosen(candidates(o, plan, path, result).flatMap((m) => tried(o, m, trial) ?? []));
    if (o.code !== "short" || mends.some((m) => m.action !== null || m.beyondStructure)) return { ...o, mends };
    return {
      ...o,
      code: "blocked-no-height",
      values: { ...o.values, limitM: HIGHEST_RAISE_M },
      mends: [look("look-elsewhere", "elsewhere")],
    };
  });
};
