import type { BarrierLoss } from "../propagation";
import {
  type AirtimeResult,
  type Asker,
  accessOf,
  commonTable,
  exposureDistance,
  noiseFloorDbm,
  noiseRiseDb,
  plannedRateMbps,
  poweredPort,
  regulate,
  usableRate,
} from "../radio";
import { type Fading, staircaseOf, wetCoverDb } from "./availability";
import { aimDoubtDb, antennaNameOf, beamwidthOf, gainOf, halfApertureOf, polarisationWordsOf, twistOf } from "./end-gear";
import { type Gains, gainsAround } from "./gains";
import { fadingOnce } from "./kept";
import { ladderOf, pickRung } from "./ladder";
import type { PathState } from "./path-state";
import type { Direction, EndPlan, LadderRung, LevelTerm, LinkPlan, ReflectionSummary } from "./types";

/** 90th percentile of the standard normal distribution. */
const Z90 = 1.2816;
/** Standard errors of the level (defaults of the model). */
export const POWER_SIGMA_DB = 1;
export const GAIN_SIGMA_DB = 0.7;
/** Packets repeated: rate control settles where about one in twenty is lost (ours), one in ten at the edge. */
export const PACKET_ERROR_HELD = 0.05;
const PACKET_ERROR_THIN = 0.1;
/** Pointing is counted on to this share of the beamwidth in each of two axes; the corner is the worst of it. */
export const AIMING_SHARE = 0.15;
/** Wider beams are not aimed. */
const AIMED_BELOW_DEG = 60;
const EXPOSURE_LOW_GHZ = 2;

/** What an end may lose by pointing within the counted error, by the parabola of the main lobe, -12 (t / t3)^2. */
const aimingBandDb = (end: EndPlan): number => {
  const width = beamwidthOf(end);
  return width === null || width >= AIMED_BELOW_DEG ? 0 : 12 * 2 * AIMING_SHARE * AIMING_SHARE;
};

const plain = (id: LevelTerm["id"], valueDb: number, clause: string, inputs: LevelTerm["inputs"] = {}): LevelTerm => ({
  id,
  valueDb,
  worseByDb: 0,
  clause,
  inputs,
  inRange: true,
});

const barrierTerm = (id: "barrier-out" | "barrier-in", end: EndPlan, loss: BarrierLoss | null): LevelTerm =>
  loss === null
    ? plain(id, 0, "open air")
    : {
        id,
        valueDb: -loss.medianDb,
        worseByDb: loss.mostDb - loss.medianDb,
        betterByDb: loss.medianDb - loss.leastDb,
        clause: loss.clause,
        inputs: {
          material: end.barrier?.kind === "material" ? end.barrier.material : (end.barrier?.kind ?? ""),
          leastDb: loss.leastDb,
          mostDb: loss.mostDb,
        },
        inRange: loss.inRange,
      };

/** Speed of the port the cable goes into: the one told, else the powered one. */
export const portMbpsOf = (end: EndPlan): number => {
  const ports = end.radio.ethernetPorts;
  return (ports[end.portIndex ?? poweredPort(end.radio)] ?? ports[0])?.speedMbps ?? 0;
};
/** A scheduled hub rules the airtime of both. */
const hubDuplex = (a: EndPlan, b: EndPlan): string => (accessOf(b.radio.duplex) === "scheduled" ? b.radio.duplex : a.radio.duplex);

/** Usable rate of a rung between two ends, for the direction's share of the frame. */
export const airtimeOf = (
  plan: LinkPlan,
  tx: EndPlan,
  rx: EndPlan,
  pathM: number,
  rung: LadderRung,
  packetErrorShare: number,
): AirtimeResult => {
  const share = plan.frameShareToFar;
  return usableRate({
    standard: commonTable(tx.radio, rx.radio).standard,
    duplex: hubDuplex(tx, rx),
    phyRateMbps: rung.phyRateMbps,
    distanceM: pathM,
    blockAckWindowFrames: Math.min(tx.radio.blockAckWindowFrames, rx.radio.blockAckWindowFrames),
    maxAggregateMs: Math.min(tx.radio.maxAggregateMs, rx.radio.maxAggregateMs),
    frameShare: share === null ? null : tx === plan.near ? share : 1 - share,
    portMbps: Math.min(portMbpsOf(tx), portMbpsOf(rx)),
    packetErrorShare,
  });
};

/** An end as the rules see it. */
export const askerOf = (plan: LinkPlan, end: EndPlan): Asker => ({
  use: end.use,
  gainDbi: gainOf(end),
  beamwidthDeg: beamwidthOf(end),
  radarDetection: end.radio.radarDetection,
  powerControl: end.radio.automaticPowerControl ?? true,
  mesh: end.radio.roles.includes("mesh node") && end.use === "hub",
  permissions: plan.permissions,
  ownRules: plan.policy.ownRules,
  day: plan.day,
});

/** The same as terms in the order of the level line, with the air between them. */
const termsOf = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, state: PathState, transmit: LevelTerm, g: Gains): LevelTerm[] => [
  transmit,
  plain("chains", -g.chainsDb, "total to one chain", { chains: tx.radio.chains }),
  plain("feeder-out", -tx.feederLossDb, "typed"),
  plain("connectors-out", -tx.connectorLossDb, "typed"),
  plain("antenna-out", gainOf(tx), "data sheet", { antenna: antennaNameOf(tx), gainDbi: gainOf(tx) }),
  {
    ...plain("aim-out", g.aimOutDb, "antenna pattern", { tiltDeg: g.outTiltDeg, bearingDeg: g.outBearingDeg, twistDeg: twistOf(tx) }),
    ...aimDoubtDb(state.path, tx, g.outBearingDeg, g.outTiltDeg),
  },
  barrierTerm("barrier-out", tx, g.barrierOut),
  plain("near-field", -g.nearFieldDb, "bound 4 P / A (ours)", { farFieldM: Number(state.freeSpace.inputs.farFieldM) }),
  state.freeSpace,
  state.gas,
  ...state.obstruction,
  plain("polarisation", -g.polarisation.lossDb, "data sheets", {
    out: polarisationWordsOf(tx),
    into: polarisationWordsOf(rx),
    match: g.polarisation.note,
  }),
  plain("radome", 0, "1 to 2 dB an end when wet (ours)", { wetDb: wetCoverDb(plan.centreMhz / 1000) }),
  barrierTerm("barrier-in", rx, g.barrierIn),
  {
    ...plain("aim-in", g.aimInDb, "antenna pattern", { tiltDeg: g.inTiltDeg, bearingDeg: g.inBearingDeg, twistDeg: twistOf(rx) }),
    ...aimDoubtDb(state.path, rx, g.inBearingDeg, g.inTiltDeg),
  },
  plain("antenna-in", gainOf(rx), "data sheet", { antenna: antennaNameOf(rx), gainDbi: gainOf(rx) }),
  plain("connectors-in", -rx.connectorLossDb, "typed"),
  plain("feeder-in", -rx.feederLossDb, "typed"),
];

const sum = (terms: readonly LevelTerm[], of: (t: LevelTerm) => number): number => terms.reduce((s, t) => s + of(t), 0);

/**
 * One direction from transmitter to receiver.
 * @param detail false leaves out terms, availability and exposure, for trying thousands of radios.
 */
export const directionOf = (
  plan: LinkPlan,
  tx: EndPlan,
  rx: EndPlan,
  state: PathState,
  needMbps: number | null,
  reflection: ReflectionSummary | null,
  detail = true,
): Direction => {
  const frequencyGhz = plan.centreMhz / 1000;
  const cableDb = tx.feederLossDb + tx.connectorLossDb;
  const regulation = regulate(plan.policy.domain, plan.centreMhz, plan.widthMhz, askerOf(plan, tx), cableDb);
  const legalDbm = regulation.status === "allowed" ? regulation.maxConductedDbm : Number.POSITIVE_INFINITY;
  const setPowerDbm = tx.txPowerDbm;
  const gains = gainsAround(plan, tx, rx, state);
  const fixedDb = gains.totalDb + state.airDb;
  const floorDbm = noiseFloorDbm(plan.widthMhz, rx.radio.noiseFigureDb);
  const riseDb = noiseRiseDb(floorDbm, rx.interferenceDbm);
  const ladder = ladderOf(plan, tx, rx, setPowerDbm, fixedDb, riseDb);
  const { held, heldWithMargin } = pickRung(ladder);
  const shownPowerDbm = held?.txPowerDbm ?? Math.min(setPowerDbm, ladder[0]?.txPowerDbm ?? setPowerDbm);
  const levelDbm = shownPowerDbm + fixedDb;
  const transmit = (): LevelTerm => ({
    id: "transmit",
    valueDb: shownPowerDbm,
    worseByDb: 0,
    clause: "set power, radio's table",
    inputs: { setDbm: tx.txPowerDbm, legalDbm: Number.isFinite(legalDbm) ? legalDbm : "none", radio: tx.radio.name },
    inRange: regulation.status === "allowed",
  });
  const terms = detail ? termsOf(plan, tx, rx, state, transmit(), gains) : [];
  const spreadDb = Z90 * Math.hypot(POWER_SIGMA_DB, GAIN_SIGMA_DB, GAIN_SIGMA_DB);
  const rung = (r: LadderRung, errors: number): AirtimeResult => airtimeOf(plan, tx, rx, state.rayM, r, errors);
  const rates = ladder.map((r) => ({ rung: r, airtime: rung(r, PACKET_ERROR_HELD) }));
  const sentPowerDbm = Math.min(setPowerDbm, Math.max(...ladder.map((r) => r.txPowerDbm), Number.NEGATIVE_INFINITY));
  const airtime = held === null ? null : rung(held, heldWithMargin ? PACKET_ERROR_HELD : PACKET_ERROR_THIN);
  const fading: Fading | null = detail ? fadingOnce(plan, tx, state) : null;
  const atAntennaDbm = shownPowerDbm - cableDb;
  return {
    terms,
    levelDbm,
    bandLowDbm:
      levelDbm - spreadDb - sum(terms, (t) => t.worseByDb) - aimingBandDb(tx) - aimingBandDb(rx) + Math.min(0, reflection?.lowDb ?? 0),
    bandHighDbm: levelDbm + spreadDb + sum(terms, (t) => t.betterByDb ?? 0) + Math.max(0, reflection?.highDb ?? 0),
    noiseDbm: floorDbm + riseDb,
    noiseRiseDb: riseDb,
    snrDb: levelDbm - floorDbm - riseDb,
    ladder,
    held,
    heldWithMargin,
    ceilingDbm: rx.radio.maxOperatingInputDbm - 6,
    maxOperatingInputDbm: rx.radio.maxOperatingInputDbm,
    damageInputDbm: rx.radio.damageInputDbm,
    eirpDbm: atAntennaDbm + gainOf(tx),
    setPowerDbm,
    sentPowerDbm: Number.isFinite(sentPowerDbm) ? sentPowerDbm : setPowerDbm,
    regulation,
    airtime,
    rates,
    plannedMbps:
      held === null || airtime === null
        ? 0
        : plannedRateMbps(plan.policy.throughput, held.phyRateMbps, airtime.tcpMbps, plan.policy.freeShare),
    needMbps,
    // The whole sets it: what must survive depends on what the other way takes of the air.
    outage: null,
    staircase: fading !== null ? staircaseOf(fading, ladder, (r) => rates.find((x) => x.rung === r)?.airtime.tcpMbps ?? 0) : null,
    exposure:
      detail && frequencyGhz >= EXPOSURE_LOW_GHZ
        ? exposureDistance(atAntennaDbm, gainOf(tx), 2 * halfApertureOf(tx, state.path.wavelengthM), frequencyGhz, 1)
        : null,
  };
};
