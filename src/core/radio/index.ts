export {
  type Access,
  type AirtimeResult,
  accessOf,
  FRAME_US,
  frameRatios,
  parseDuplex,
  plannedRateMbps,
  type ThroughputSchool,
  usableRate,
} from "./airtime";
export { BAND_KEYS, type BandKey, bandKeyOf, channelCentresMhz } from "./channels";
export { type Exposure, exposureDistance, localLimitWm2, wholeBodyLimitWm2 } from "./exposure";
export { formulaModulations } from "./formula-table";
export {
  type Antenna,
  CONNECTOR_PLACES,
  type ConnectorPlace,
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
export { adRateMbps, type OfdmStandard, ofdmMinSensitivityDbm, ofdmRateMbps } from "./ofdm-rates";
export { movedModulations, ownSheetId } from "./own-sheet";
export { daysBetween, type Permission, permissionState, TOLD_DAYS_BEFORE } from "./permission";
export {
  matchPolarisation,
  mirrorPolarisation,
  type Polarisation,
  type PolarisationMatch,
  parsePolarisation,
  polarisationFromSheet,
  rainTiltDeg,
} from "./polarisation";
export {
  type Asker,
  type CutBy,
  limitOfRow,
  PLAIN_ASKER,
  type RegulationResult,
  regulate,
} from "./regulation";
export { type Domain, type LinkUse, type OwnRule, type RuleRow, rowsInForce, rowsOfDomain, ruleRows } from "./rule-rows";
export { ceilingDbm, USUAL_TARGET_DBM } from "./window";
