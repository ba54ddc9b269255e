export { type AirtimeResult, accessOf, plannedRateMbps, type ThroughputSchool, usableRate } from "./airtime";
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
export { noiseFloorDbm, thermalNoiseDbm } from "./noise";
export { adRateMbps, type OfdmStandard, ofdmMinSensitivityDbm, ofdmRateMbps } from "./ofdm-rates";
export { type Domain, type LinkUse, limitOfRow, type PowerLimit, type RegulationResult, regulate, ruleRows } from "./regulation";
export { ceilingDbm } from "./window";
