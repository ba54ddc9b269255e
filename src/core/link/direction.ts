import { farFieldDistanceM, halfApertureM, referenceGainDbi } from "../antenna";
import { freeSpaceLossDb, gasSpecificAttenuation, rainExceededPercent, rainFading, vapourPressureHpa } from "../propagation";
import { ceilingDbm, channelFits, commonTable, noiseFloorDbm, type PairingFault, plannedRateMbps, regulate, usableRate } from "../radio";
import type { Direction, EndPlan, LadderRung, LevelTerm, LinkPlan } from "./types";

const ZERO_CELSIUS_K = 273.15;
const MINUTES_A_YEAR = 525_960;
/** 90th percentile of the standard normal distribution. */
const Z90 = 1.2816;
/** Standard errors of the level (defaults of the model). */
const POWER_SIGMA_DB = 1;
const GAIN_SIGMA_DB = 0.7;

export const gainOf = (end: EndPlan): number => end.radio.antenna.gainDbi ?? end.antenna?.gainDbi ?? 0;
export const antennaNameOf = (end: EndPlan): string => end.antenna?.name ?? end.radio.name;
export const halfApertureOf = (end: EndPlan, wavelengthM: number): number =>
  halfApertureM(gainOf(end), wavelengthM, end.antenna?.diameterMm ?? end.radio.antenna.diameterMm);

/** Pointing is counted on to this share of the beamwidth in each of two axes (ours); the corner is the worst of it. */
const AIMING_SHARE = 0.15;
/** Wider beams are not aimed. */
const AIMED_BELOW_DEG = 60;

/** What an end may lose by pointing within the counted error, by the F.699 main lobe. */
const aimingLossDb = (end: EndPlan): number => {
  const source = end.antenna ?? end.radio.antenna;
  const narrowestDeg = Math.min(source.azimuthBeamwidthDeg ?? 360, source.elevationBeamwidthDeg ?? 360);
  if (narrowestDeg >= AIMED_BELOW_DEG) return 0;
  const peakDbi = gainOf(end);
  return peakDbi - referenceGainDbi(peakDbi, AIMING_SHARE * Math.SQRT2 * narrowestDeg).gainDbi;
};

/** Terms that the path puts between the antennas, the same in both directions. */
export interface PathTerms {
  readonly pathM: number;
  readonly elevationDeg: number;
  readonly obstruction: readonly LevelTerm[];
  readonly wavelengthM: number;
}

const dryPressureHpa = (plan: LinkPlan): number => {
  const k = plan.climate.temperatureC + ZERO_CELSIUS_K;
  return plan.climate.pressureHpa - vapourPressureHpa(plan.climate.vapourDensityGm3, k);
};

const tiltOfPolarisation = (polarisation: string): number =>
  /slant|circular/.test(polarisation) ? 45 : /H\+V|linear V/.test(polarisation) ? 90 : 0;

/** Channels of one direction from transmitter to receiver. */
export const directionOf = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, path: PathTerms, needMbps: number | null): Direction => {
  const frequencyGhz = plan.centreMhz / 1000;
  const txGain = gainOf(tx);
  const rxGain = gainOf(rx);
  const regulation = regulate(plan.policy.domain, plan.centreMhz, plan.widthMhz, txGain, plan.policy.use, tx.feederLossDb);
  const legalDbm = regulation.status === "allowed" ? regulation.maxConductedDbm : Number.POSITIVE_INFINITY;
  const setPowerDbm = Math.min(tx.txPowerDbm, legalDbm);
  const fsplDb = freeSpaceLossDb(frequencyGhz, path.pathM);
  const gas = gasSpecificAttenuation(
    frequencyGhz,
    dryPressureHpa(plan),
    plan.climate.temperatureC + ZERO_CELSIUS_K,
    plan.climate.vapourDensityGm3,
  );
  const gasDbPerKm = gas.oxygenDbPerKm + gas.waterDbPerKm;
  const gasDb = (gasDbPerKm * path.pathM) / 1000;
  const obstructionDb = path.obstruction.reduce((sum, t) => sum + t.valueDb, 0);
  const chainsDb = 10 * Math.log10(tx.radio.chains);
  const fixedDb = -chainsDb - tx.feederLossDb + txGain - fsplDb - gasDb + obstructionDb + rxGain - rx.feederLossDb;
  const noiseDbm = noiseFloorDbm(plan.widthMhz, rx.radio.noiseFigureDb);
  const ladder = ladderOf(plan, tx, rx, setPowerDbm, fixedDb);
  const { held, heldWithMargin } = pickRung(ladder);
  const shownPowerDbm = held?.txPowerDbm ?? Math.min(setPowerDbm, ladder[0]?.txPowerDbm ?? setPowerDbm);
  const levelDbm = shownPowerDbm + fixedDb;
  const worseDb = path.obstruction.reduce((sum, t) => sum + t.worseByDb, 0);
  const sigmaDb = Math.hypot(POWER_SIGMA_DB, GAIN_SIGMA_DB, GAIN_SIGMA_DB);
  const far = 2 * Math.max(halfApertureOf(tx, path.wavelengthM), halfApertureOf(rx, path.wavelengthM));
  const farFieldM = farFieldDistanceM(far, path.wavelengthM);
  const terms: LevelTerm[] = [
    {
      id: "transmit",
      valueDb: shownPowerDbm,
      worseByDb: 0,
      clause: regulation.status === "allowed" && tx.txPowerDbm > legalDbm ? regulation.limit.rule.source : "set power, radio's table",
      inputs: { setDbm: tx.txPowerDbm, legalDbm: Number.isFinite(legalDbm) ? legalDbm : "none", radio: tx.radio.name },
      inRange: regulation.status === "allowed",
    },
    { id: "chains", valueDb: -chainsDb, worseByDb: 0, clause: "total to one chain", inputs: { chains: tx.radio.chains }, inRange: true },
    { id: "feeder-out", valueDb: -tx.feederLossDb, worseByDb: 0, clause: "typed", inputs: {}, inRange: true },
    {
      id: "antenna-out",
      valueDb: txGain,
      worseByDb: 0,
      clause: "data sheet",
      inputs: { antenna: antennaNameOf(tx), gainDbi: txGain },
      inRange: true,
    },
    {
      id: "free-space",
      valueDb: -fsplDb,
      worseByDb: 0,
      clause: "P.525 (3)",
      inputs: { distanceM: path.pathM, frequencyGhz, farFieldM },
      inRange: path.pathM >= farFieldM,
    },
    {
      id: "gas",
      valueDb: -gasDb,
      worseByDb: 0,
      clause: "P.676-12 Annex 1 (1)",
      inputs: {
        dbPerKm: gasDbPerKm,
        temperatureC: plan.climate.temperatureC,
        pressureHpa: plan.climate.pressureHpa,
        vapourGm3: plan.climate.vapourDensityGm3,
      },
      inRange: frequencyGhz >= 1 && frequencyGhz <= 350,
    },
    ...path.obstruction,
    {
      id: "antenna-in",
      valueDb: rxGain,
      worseByDb: 0,
      clause: "data sheet",
      inputs: { antenna: antennaNameOf(rx), gainDbi: rxGain },
      inRange: true,
    },
    { id: "feeder-in", valueDb: -rx.feederLossDb, worseByDb: 0, clause: "typed", inputs: {}, inRange: true },
  ];
  const portMbps = Math.min(fastestPort(tx), fastestPort(rx));
  const airtime =
    held === null
      ? null
      : usableRate({
          standard: commonTable(tx.radio, rx.radio).standard,
          duplex: hubDuplex(tx, rx),
          phyRateMbps: held.phyRateMbps,
          distanceM: path.pathM,
          blockAckWindowFrames: Math.min(tx.radio.blockAckWindowFrames, rx.radio.blockAckWindowFrames),
          maxAggregateMs: Math.min(tx.radio.maxAggregateMs, rx.radio.maxAggregateMs),
          portMbps,
          packetErrorShare: heldWithMargin ? 0.01 : 0.1,
        });
  const plannedMbps =
    held === null || airtime === null
      ? 0
      : plannedRateMbps(plan.policy.throughput, held.phyRateMbps, airtime.tcpMbps, plan.policy.freeShare);
  return {
    terms,
    levelDbm,
    bandLowDbm: levelDbm - Z90 * sigmaDb - worseDb - aimingLossDb(tx) - aimingLossDb(rx),
    bandHighDbm: levelDbm + Z90 * sigmaDb,
    noiseDbm,
    snrDb: levelDbm - noiseDbm,
    ladder,
    held,
    heldWithMargin,
    ceilingDbm: rx.radio.maxOperatingInputDbm - 6,
    maxOperatingInputDbm: rx.radio.maxOperatingInputDbm,
    damageInputDbm: rx.radio.damageInputDbm,
    eirpDbm: shownPowerDbm - tx.feederLossDb + txGain,
    setPowerDbm: tx.txPowerDbm,
    regulation,
    airtime,
    plannedMbps,
    needMbps,
    rain: rainOf(plan, tx, path, ladder, held, airtime, needMbps),
  };
};

const fastestPort = (end: EndPlan): number => end.radio.ethernetPorts.reduce((best, p) => Math.max(best, p.speedMbps), 0);
/** A scheduled hub rules the airtime of both. */
const hubDuplex = (a: EndPlan, b: EndPlan): string => (b.radio.duplex.includes("scheduled") ? b.radio.duplex : a.radio.duplex);

const ladderOf = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, setPowerDbm: number, fixedDb: number): LadderRung[] => {
  const width = String(plan.widthMhz);
  const table = commonTable(tx.radio, rx.radio);
  const streams = Math.min(tx.radio.maxStreamsPerRemote, rx.radio.maxStreamsPerRemote, tx.radio.chains, rx.radio.chains);
  const rungs: LadderRung[] = [];
  for (const row of table.modulations) {
    const own = tx.radio.modulations.find((m) => m.index === row.index);
    const receives = rx.radio.modulations.find((m) => m.index === row.index);
    const needs = receives?.sensitivityDbm[width];
    const rate = row.phyRateMbps[width];
    if (own === undefined || receives === undefined || needs === undefined || rate === undefined) continue;
    const txPowerDbm = Math.min(setPowerDbm, own.maxTxPowerDbm);
    const levelDbm = txPowerDbm + fixedDb;
    const ceiling = ceilingDbm(rx.radio, receives);
    const marginDb = levelDbm - needs;
    const state =
      levelDbm > ceiling.plannedDbm ? "too-strong" : marginDb >= plan.policy.marginDb ? "holds" : marginDb >= 0 ? "thin" : "below";
    rungs.push({
      index: row.index,
      modulation: row.modulation,
      codeRate: row.codeRate,
      needsDbm: needs,
      ceilingDbm: ceiling.plannedDbm,
      ceilingMildDbm: ceiling.mildDbm,
      levelDbm,
      txPowerDbm,
      marginDb,
      // The table's rate is with all of its streams; a four-chain hub serves one remote with two.
      phyRateMbps: (rate * Math.min(streams, table.maxStreams)) / table.maxStreams,
      state,
    });
  }
  return rungs;
};

/** The fastest rung that holds with the wanted margin; failing that, the slowest that holds at all. */
const pickRung = (ladder: LadderRung[]): { held: LadderRung | null; heldWithMargin: boolean } => {
  let held: LadderRung | null = null;
  for (const r of ladder) if (r.state === "holds" && (held === null || r.phyRateMbps > held.phyRateMbps)) held = r;
  const heldWithMargin = held !== null;
  if (held === null) held = ladder.find((r) => r.state === "thin") ?? null;
  if (held === null) return { held: null, heldWithMargin: false };
  const at = ladder.indexOf(held);
  ladder[at] = { ...held, state: "held" };
  return { held: ladder[at]!, heldWithMargin };
};

const rainOf = (
  plan: LinkPlan,
  tx: EndPlan,
  path: PathTerms,
  ladder: readonly LadderRung[],
  held: LadderRung | null,
  airtime: Direction["airtime"],
  needMbps: number | null,
): Direction["rain"] => {
  const fading = rainFading(
    plan.centreMhz / 1000,
    path.pathM / 1000,
    plan.climate.rainRate001MmH,
    path.elevationDeg,
    tiltOfPolarisation(tx.radio.polarisation),
  );
  // What must survive is the slowest rung that still carries the need; without a need the slowest of all.
  const usableShare = held === null || airtime === null ? 0 : airtime.tcpMbps / held.phyRateMbps;
  const enough = needMbps === null ? ladder[0] : ladder.find((r) => r.phyRateMbps * usableShare >= needMbps);
  if (enough === undefined || enough.marginDb <= 0) {
    return { percent: 100, minutesAYear: MINUTES_A_YEAR, marginDb: enough?.marginDb ?? 0, a001Db: fading.a001Db, inRange: fading.inRange };
  }
  const { percent } = rainExceededPercent(fading, enough.marginDb);
  return {
    percent,
    minutesAYear: (percent / 100) * MINUTES_A_YEAR,
    marginDb: enough.marginDb,
    a001Db: fading.a001Db,
    inRange: fading.inRange,
  };
};

/** A connectorised radio needs an antenna of its band. */
export const antennaFaults = (plan: LinkPlan): PairingFault[] => {
  const faults: PairingFault[] = [];
  for (const end of [plan.near, plan.far]) {
    if (end.radio.antenna.kind !== "connectorised") continue;
    if (end.antenna === null) faults.push({ code: "antenna-missing", radio: end.radio.name });
    else if (!channelFits(end.antenna.bandsMhz, plan.centreMhz, plan.widthMhz)) {
      faults.push({ code: "antenna-band", antenna: end.antenna.name, centreMhz: plan.centreMhz });
    }
  }
  return faults;
};
