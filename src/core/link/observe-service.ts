import type { PairingFault } from "../radio";
import { beamwidthOf, isShaken, twistOf } from "./end-gear";
import { type Observation, observed } from "./finding-types";
import { SERVES_PROBABILITY } from "./limits";
import { powerForCeiling } from "./power-advice";
import type { Kept, LinkPlan, LinkResult } from "./types";

const pairingOf = (f: PairingFault): Observation => {
  switch (f.code) {
    case "pair-only":
      return observed("pairing-pair-only", "short", 99, { radio: f.radio });
    case "band":
      return observed("pairing-band", "short", 99, { radio: f.radio, centreMhz: f.centreMhz, widthMhz: f.widthMhz });
    case "width":
      return observed("pairing-width", "short", 99, { radio: f.radio, widthMhz: f.widthMhz, allowedMhz: f.allowedMhz });
    case "antenna-missing":
      return observed("pairing-antenna-missing", "short", 99, { radio: f.radio });
    case "antenna-band":
      return observed("pairing-antenna-band", "short", 99, { antenna: f.antenna, centreMhz: f.centreMhz });
    default:
      return observed(`pairing-${f.code}`, "short", 99, { near: f.near, far: f.far });
  }
};

const level = (plan: LinkPlan, result: LinkResult): Observation[] => {
  const { toFar, toNear } = result.service;
  if (toFar === null || toNear === null) return [];
  const out: Observation[] = [];
  // The sheets name the width and give no rate for it: nothing can be held.
  if (toFar.ladder.length === 0 || toNear.ladder.length === 0) {
    const { radio } = toFar.ladder.length === 0 ? plan.near : plan.far;
    const allowedMhz = radio.channelWidthsMhz.filter((w) => radio.modulations.some((m) => m.phyRateMbps[String(w)] !== undefined));
    return [observed("pairing-width", "short", 99, { radio: radio.name, widthMhz: plan.widthMhz, allowedMhz })];
  }
  const hot = toFar.levelDbm - toFar.ceilingDbm >= toNear.levelDbm - toNear.ceilingDbm ? toFar : toNear;
  const overDb = hot.levelDbm - hot.ceilingDbm;
  const advice = powerForCeiling(plan, result);
  // Too strong for every rung is a fault below the maximum input, too: nothing may be planned there.
  const nothingHeld = hot.held === null && hot.ladder.length > 0 && hot.ladder.every((r) => r.state === "too-strong");
  if ((overDb > 0 || nothingHeld) && advice !== null) {
    const fault = hot.levelDbm > hot.maxOperatingInputDbm;
    const values = {
      levelDbm: hot.levelDbm,
      ceilingDbm: hot.ceilingDbm,
      maxDbm: hot.maxOperatingInputDbm,
      overDb,
      reachable: advice.reachable,
      tooHotDb: advice.tooHotDb,
      tooHotMildDb: advice.tooHotMildDb,
      densest: hot.ladder[hot.ladder.length - 1]?.modulation ?? "",
    };
    if (hot.levelDbm > hot.damageInputDbm) out.push(observed("damaging", "short", 96, values));
    else if (fault) out.push(observed("overloaded", "short", 95, values));
    else out.push(observed("too-strong", nothingHeld ? "short" : "tight", 58, values));
  }
  const weak = toFar.levelDbm <= toNear.levelDbm ? toFar : toNear;
  const last = weak.ladder[0];
  if (overDb <= 0 && !nothingHeld && !weak.heldWithMargin && last !== undefined) {
    const marginDb = weak.held?.marginDb ?? last.marginDb;
    const wantedDb = plan.policy.marginDb;
    const values = {
      levelDbm: weak.levelDbm,
      needsDbm: last.needsDbm,
      marginDb,
      wantedDb,
      lacksDb: weak.held === null ? -marginDb : wantedDb - marginDb,
    };
    out.push(weak.held === null ? observed("too-weak", "short", 90, values) : observed("thin-margin", "tight", 52, values));
  }
  return out;
};

const rateValues = (plan: LinkPlan, result: LinkResult, kept: Kept) => {
  const slow = kept.toFar.needMbps > 0 && (kept.toNear.needMbps === 0 || kept.toFar.rungIndex === null) ? kept.toFar : kept.toNear;
  const d = slow === kept.toFar ? result.service.toFar : result.service.toNear;
  return {
    multiple: kept.multiple,
    usedShare: kept.usedShare,
    narrowest: kept.narrowest,
    yearPercent: kept.yearPercent,
    needToFarMbps: plan.needToFarMbps ?? 0,
    needToNearMbps: plan.needToNearMbps ?? 0,
    plannedToFarMbps: kept.toFar.plannedMbps,
    plannedToNearMbps: kept.toNear.plannedMbps,
    portMbps: kept.narrowest === "port to near" ? kept.toNear.portMbps : kept.toFar.portMbps,
    neededMarginDb: slow.yearMarginDb === null ? null : slow.neededMarginDb,
    marginDb: d?.ladder[0]?.marginDb ?? null,
  };
};

/** @param serves share of the draws in which the need is kept; null until it is drawn. */
const rate = (plan: LinkPlan, result: LinkResult, serves: number | null): Observation[] => {
  const { kept, toFar, toNear } = result.service;
  if (toFar === null || toNear === null) return [];
  if (kept === null) return [observed("no-need", "unknown", 15, {})];
  if (kept.multiple < 1) {
    // Where nothing holds at all the level says why.
    const told = toFar.held === null || toNear.held === null;
    return told ? [] : [observed("too-slow", "short", 85, rateValues(plan, result, kept))];
  }
  if (serves === null || serves >= SERVES_PROBABILITY) return [];
  return [observed("not-sure-to-serve", "tight", 50, { ...rateValues(plan, result, kept), chance: serves })];
};

/** How far people keep from the antennas: the farther of both ends, when any distance is needed. */
const exposure = (plan: LinkPlan, result: LinkResult): Observation[] => {
  const [a, b] = [result.service.toFar?.exposure?.distanceM ?? 0, result.service.toNear?.exposure?.distanceM ?? 0];
  const distanceM = Math.max(a, b);
  if (distanceM <= 0) return [];
  return [observed("exposure", "clear", 12, { name: a >= b ? plan.near.name : plan.far.name, distanceM })];
};

/** An end that wind turns out of its own beam. */
const shaken = (plan: LinkPlan): Observation[] =>
  [plan.near, plan.far].flatMap((end) =>
    end.stands == null || !isShaken(end)
      ? []
      : [
          observed("wind-twist", "short", 91, {
            name: end.name,
            stands: end.stands,
            twistDeg: end.stands === "tree" ? null : twistOf(end),
            beamDeg: beamwidthOf(end),
          }),
        ],
  );

export const observeService = (plan: LinkPlan, result: LinkResult, serves: number | null): Observation[] => [
  ...result.service.faults.map(pairingOf),
  ...level(plan, result),
  ...shaken(plan),
  ...rate(plan, result, serves),
  ...exposure(plan, result),
];
