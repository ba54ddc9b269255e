/* Small scenes for tests: a path over given ground with given bodies, and a plan over made-up radios. */
import {
  AIMED,
  type Climate,
  type EndPlan,
  K_LOW_DEFAULT,
  type LinkPlan,
  type LinkPolicy,
  type PathProfile,
  type WaterPlan,
} from "../link";
import type { BodyKind, PathBody } from "../obstacles";
import type { Permission, Radio } from "../radio";

export { seededRandom as seeded } from "../units";

export const body = (fields: Partial<PathBody> & { xM: number[]; yM: number[]; heightM: number }): PathBody => ({
  id: "b",
  name: "body",
  kind: "building" as BodyKind,
  baseAmslM: 0,
  crownBaseM: 0,
  growthMPerYear: 0,
  heightSigmaM: 0.3,
  carries: null,
  ...fields,
});

export const box = (fromM: number, toM: number, leftM: number, rightM: number): { xM: number[]; yM: number[] } => ({
  xM: [fromM, toM, toM, fromM],
  yM: [leftM, leftM, rightM, rightM],
});

export const profile = (pathM: number, ground: (xM: number) => number, bodies: readonly PathBody[] = [], points = 400): PathProfile => {
  const distanceM = Float64Array.from({ length: points }, (_, i) => (pathM * i) / (points - 1));
  return {
    pathM,
    latDeg: 47,
    nearBearingDeg: 90,
    farBearingDeg: 270,
    distanceM,
    groundAmslM: distanceM.map(ground),
    datasetIndex: new Uint8Array(points),
    datasets: [{ id: "d", name: "made up", kind: "dtm", cellM: 2, sigmaM: 0.15 }],
    bodies,
    features: [],
    thinned: false,
  };
};

/** An ac radio, 2 chains, 19 dBi, 25 dBm: figures of the size of any such device. */
export const radio = (fields: Partial<Radio> = {}): Radio => ({
  id: "r",
  name: "Test radio",
  family: "f",
  roles: ["near/far"],
  bandsMhz: [{ low: 5150, high: 5850 }],
  standard: "ac",
  channelWidthsMhz: [20, 40, 80],
  chains: 2,
  maxStreams: 2,
  maxStreamsPerRemote: 2,
  polarisation: "dual linear H+V",
  duplex: "TDD, contention",
  blockAckWindowFrames: 64,
  maxAggregateMs: 5.484,
  maxLinkKm: 60,
  radarDetection: true,
  minTxPowerDbm: 0,
  txPowerStepDb: 1,
  noiseFigureDb: 6,
  maxOperatingInputDbm: -30,
  damageInputDbm: 10,
  antenna: { kind: "integrated", form: "panel", gainDbi: 19, azimuthBeamwidthDeg: 19 },
  modulations: [
    { index: 0, modulation: "BPSK", codeRate: "1/2", maxTxPowerDbm: 25, phyRateMbps: { "40": 30 }, sensitivityDbm: { "40": -92 } },
    { index: 4, modulation: "16-QAM", codeRate: "3/4", maxTxPowerDbm: 23, phyRateMbps: { "40": 180 }, sensitivityDbm: { "40": -79 } },
    { index: 9, modulation: "256-QAM", codeRate: "5/6", maxTxPowerDbm: 19.5, phyRateMbps: { "40": 400 }, sensitivityDbm: { "40": -64 } },
  ],
  ethernetPorts: [{ speedMbps: 1000 }],
  ...fields,
});

export const end = (name: string, mountAglM: number, fields: Partial<EndPlan> = {}): EndPlan => ({
  name,
  mountAglM,
  mountMaxAglM: null,
  mountSigmaM: 0.2,
  positionSigmaM: 0.5,
  feederLossDb: 0,
  connectorLossDb: 0,
  barrier: null,
  interferenceDbm: null,
  aim: AIMED,
  txPowerDbm: 11,
  radio: radio(),
  use: "pair",
  portIndex: null,
  antenna: null,
  ...fields,
});

/** 60 % of F1 at k 4/3, trees strict, five years, headroom: the demo job's policy and air. */
export const POLICY: LinkPolicy = {
  clearance: "sixty",
  kFactor: 4 / 3,
  trees: "strict",
  year: 2026,
  horizonYears: 5,
  throughput: "headroom",
  freeShare: 0.3,
  marginDb: 10,
  domain: "FCC-like",
  climateZone: "temperate",
  leaf: "in",
  kLow: K_LOW_DEFAULT,
};
export const WATER: WaterPlan = { surface: "auto", tideRangeM: 1.5, roughnessM: 0.05 };
export const CLIMATE: Climate = {
  rainRate001MmH: 28,
  temperatureC: 10,
  pressureHpa: 1013,
  vapourDensityGm3: 7.5,
  gradientDn1NPerKm: -250,
  roughnessSaM: null,
};

export const plan = (near: EndPlan, far: EndPlan, fields: Partial<LinkPlan> = {}): LinkPlan => ({
  near,
  far,
  centreMhz: 5500,
  widthMhz: 40,
  needToFarMbps: null,
  needToNearMbps: null,
  trims: {},
  frameShareToFar: null,
  yearPercent: 99.9,
  permissions: [],
  day: "2026-06-01",
  policy: POLICY,
  climate: CLIMATE,
  water: WATER,
  ...fields,
});

/** A permission on record for every channel, open in time and power. */
export const permission = (fields: Partial<Permission> = {}): Permission => ({
  kind: "licence",
  holder: "Trust",
  number: "7/26",
  place: "",
  lowMhz: 1000,
  highMhz: 100_000,
  maxEirpDbm: null,
  from: null,
  until: null,
  note: "",
  ...fields,
});
