export {
  type AirtimeParts,
  type AirtimeResult,
  accessOf,
  type Duplex,
  frameRatios,
  parseDuplex,
  plannedRateMbps,
  type ThroughputSchool,
  usableRate,
} from "./airtime";
export { type Exposure, exposureDistance, localLimitWm2, wholeBodyLimitWm2 } from "./exposure";
export { formulaModulations } from "./formula-table";
export {
  type Antenna,
  channelFits,
  commonTable,
  type FrequencyRange,
  type Modulation,
  type PairingFault,
  pairingFaults,
  poweredPort,
  type Radio,
  usesOf,
} from "./hardware";
export { noiseFloorDbm, noiseRiseDb, thermalNoiseDbm } from "./noise";
export { adRateMbps, type OfdmStandard, ofdmMinSensitivityDbm, ofdmModulations, ofdmRateMbps } from "./ofdm-rates";
export { daysBetween, type Permission, type PermissionState, permissionState, TOLD_DAYS_BEFORE } from "./permission";
export {
  matchPolarisation,
  mirrorPolarisation,
  type Polarisation,
  parsePolarisation,
  polarisationFromSheet,
  rainTiltDeg,
} from "./polarisation";
export {
  type Asker,
  type CutBy,
  limitOfRow,
  type PermissionNeed,
  PLAIN_ASKER,
  type PowerLimit,
  type RegulationResult,
  regulate,
} from "./regulation";
export { type Domain, type EirpByGain, type LimitByBandwidth, type LinkUse, type RuleRow, rowsOfDomain, ruleRows } from "./rule-rows";
export { ceilingDbm } from "./window";
