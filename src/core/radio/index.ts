export {
  type AirtimeParts,
  type AirtimeResult,
  accessOf,
  frameRatios,
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
  type Radio,
} from "./hardware";
export { noiseFloorDbm, noiseRiseDb, thermalNoiseDbm } from "./noise";
export { adRateMbps, type OfdmStandard, ofdmMinSensitivityDbm, ofdmModulations, ofdmRateMbps } from "./ofdm-rates";
export { matchPolarisation } from "./polarisation";
export { type Domain, type LinkUse, limitOfRow, type PowerLimit, type RegulationResult, regulate, ruleRows } from "./regulation";
export { ceilingDbm } from "./window";
