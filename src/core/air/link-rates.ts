/*
 * What a link carries each way on any channel of its radios, by how far its noise is risen: its level as it was worked out over its
 * path, moved by free space to the other frequency; the air between does not change within a band.
 */
import { airtimeOf, askerOf, type EndPlan, type LadderRung, type LinkPlan, ladderOf, multipleOf, PACKET_ERROR_HELD } from "../link";
import { channelFits, noiseFloorDbm, noiseRiseDb, plannedRateMbps, type RegulationResult, regulate } from "../radio";
import type { Channel } from "./mask";

/** What is kept of a link's path with its verdict. */
export interface AirPath {
  readonly pathM: number;
  readonly nearAmslM: number;
  readonly farAmslM: number;
  readonly nearTiltDeg: number;
  readonly farTiltDeg: number;
  /** Level per receive chain against the power sent, dB, on the planned channel. */
  readonly toFarDb: number;
  readonly toNearDb: number;
  /** Margin that the year and the job ask for, each way. */
  readonly marginToFarDb: number;
  readonly marginToNearDb: number;
  /** Walls before the units, dB. */
  readonly nearWallDb: number;
  readonly farWallDb: number;
}

interface Rung {
  readonly plannedMbps: number;
  readonly airTcpMbps: number;
  /** Noise may rise by this before it no longer holds with its margin. */
  readonly roomDb: number;
}

export interface WayRates {
  /** Fastest first. */
  readonly rungs: readonly Rung[];
  readonly portMbps: number;
  readonly powerDbm: number;
  /** Level per receive chain of the rung in use while nobody disturbs; null where none holds. */
  readonly levelDbm: number | null;
  readonly floorDbm: number;
  readonly rule: RegulationResult;
  readonly shared: boolean;
}

export interface LinkRates {
  readonly toFar: WayRates;
  readonly toNear: WayRates;
  readonly shared: boolean;
}

export const rateAt = (way: WayRates, riseDb: number): number => {
  for (const r of way.rungs) if (r.roomDb >= riseDb) return r.plannedMbps;
  return 0;
};

/** The same with all of the air. */
export const airRateAt = (way: WayRates, riseDb: number): number => {
  for (const r of way.rungs) if (r.roomDb >= riseDb) return r.airTcpMbps;
  return 0;
};

interface Carries {
  readonly plannedMbps: number;
  readonly airTcpMbps: number;
  readonly portMbps: number;
  readonly shared: boolean;
}

/** What a rung carries over a path is the same on every channel of a width. */
const carried = new WeakMap<AirPath, Map<string, Carries>>();

const carriesOf = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, path: AirPath, rung: LadderRung): Carries => {
  let known = carried.get(path);
  if (known === undefined) {
    known = new Map();
    carried.set(path, known);
  }
  const key = `${tx === plan.near}|${tx.radio.id}|${rx.radio.id}|${tx.portIndex}|${rx.portIndex}|${rung.phyRateMbps}|${plan.frameShareToFar}|${plan.policy.throughput}|${plan.policy.freeShare}`;
  let found = known.get(key);
  if (found === undefined) {
    const a = airtimeOf(plan, tx, rx, path.pathM, rung, PACKET_ERROR_HELD);
    found = {
      plannedMbps: plannedRateMbps(plan.policy.throughput, rung.phyRateMbps, a.airTcpMbps, plan.policy.freeShare),
      airTcpMbps: a.airTcpMbps,
      portMbps: a.portTcpMbps,
      shared: a.sharedAirtime,
    };
    known.set(key, found);
  }
  return found;
};

const wayOf = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, path: AirPath, fixedDb: number, marginDb: number): WayRates => {
  const rule = regulate(plan.policy.domain, plan.centreMhz, plan.widthMhz, askerOf(plan, tx), tx.feederLossDb + tx.connectorLossDb);
  const floorDbm = noiseFloorDbm(plan.widthMhz, rx.radio.noiseFigureDb);
  const typedDb = noiseRiseDb(floorDbm, rx.interferenceDbm);
  const ladder = ladderOf(plan, tx, rx, tx.txPowerDbm, fixedDb, typedDb);
  let portMbps = 0;
  let shared = true;
  const rungs: (Rung & { readonly levelDbm: number })[] = [];
  for (const rung of ladder) {
    const carries = carriesOf(plan, tx, rx, path, rung);
    portMbps = carries.portMbps;
    shared = carries.shared;
    if (rung.levelDbm > rung.ceilingDbm || rung.marginDb < marginDb) continue;
    rungs.push({
      plannedMbps: carries.plannedMbps,
      airTcpMbps: carries.airTcpMbps,
      roomDb: rung.marginDb - marginDb,
      levelDbm: rung.levelDbm,
    });
  }
  rungs.sort((a, b) => b.plannedMbps - a.plannedMbps || b.roomDb - a.roomDb);
  return { rungs, portMbps, powerDbm: tx.txPowerDbm, levelDbm: rungs[0]?.levelDbm ?? null, floorDbm: floorDbm + typedDb, rule, shared };
};

/** The plan on another channel, with the power that the rules let each end send there, never more than is set. */
export const planOnChannel = (plan: LinkPlan, channel: Channel): LinkPlan => {
  const moved = { ...plan, ...channel };
  const cut = (e: EndPlan): EndPlan => {
    const rule = regulate(plan.policy.domain, channel.centreMhz, channel.widthMhz, askerOf(moved, e), e.feederLossDb + e.connectorLossDb);
    if (rule.status !== "allowed" || rule.maxConductedDbm >= e.txPowerDbm) return e;
    const step = e.radio.txPowerStepDb > 0 ? e.radio.txPowerStepDb : 1;
    return { ...e, txPowerDbm: Math.max(e.radio.minTxPowerDbm, Math.floor(rule.maxConductedDbm / step) * step) };
  };
  return { ...moved, near: cut(plan.near), far: cut(plan.far) };
};

/** @param plan on the channel asked for. @param at the channel that the path was worked out on, MHz. */
export const ratesOf = (plan: LinkPlan, path: AirPath, atMhz: number): LinkRates => {
  const movedDb = 20 * Math.log10(atMhz / plan.centreMhz);
  const toFar = wayOf(plan, plan.near, plan.far, path, path.toFarDb + movedDb, path.marginToFarDb);
  const toNear = wayOf(plan, plan.far, plan.near, path, path.toNearDb + movedDb, path.marginToNearDb);
  return { toFar, toNear, shared: toFar.shared };
};

/** Whether both radios (and their antennas) have a channel. */
export const hasChannel = (plan: LinkPlan, { centreMhz, widthMhz }: Channel): boolean =>
  [plan.near, plan.far].every(
    (e) =>
      e.radio.channelWidthsMhz.includes(widthMhz) &&
      channelFits(e.radio.bandsMhz, centreMhz, widthMhz) &&
      (e.antenna === null || channelFits(e.antenna.bandsMhz, centreMhz, widthMhz)),
  );

/** How often both needs fit, by what each way carries; infinite when nothing is asked. */
export const keptBy = (plan: LinkPlan, rates: LinkRates, toFarMbps: number, toNearMbps: number): number =>
  multipleOf(
    plan.needToFarMbps ?? 0,
    plan.needToNearMbps ?? 0,
    toFarMbps,
    toNearMbps,
    rates.shared,
    rates.toFar.portMbps,
    rates.toNear.portMbps,
  );
