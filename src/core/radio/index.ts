export { accessOf, plannedRateMbps, usableRate, type AirtimeResult, type ThroughputSchool } from "./airtime";
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
export { adRateMbps, ofdmMinSensitivityDbm, ofdmRateMbps, type OfdmStandard } from "./ofdm-rates";
export { type Domain, type LinkUse, limitOfRow, type PowerLimit, type RegulationResult, regulate, ruleRows } from "./regulation";
export { ceilingDbm, perChainDbm } from "./window";
