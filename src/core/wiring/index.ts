export {
  type AddressAsker,
  type AddressFault,
  addressFaults,
  assignAddresses,
  ipv4Text,
  laptopFor,
  type NetPlan,
  parseIpv4,
  parseSubnet,
  ROLE_FROM,
  UNIT_ROLES,
  type UnitRole,
} from "./addresses";
export { channelsOf } from "./check-leads";
export { type JobFinding, jobNetworkFindings, type SiteWired } from "./check-network";
export { judgeSun, type SunJudged } from "./check-sun";
export type { Arrival, Feeds, Given } from "./feeds";
export { WIRING_CODES, type WiringCode, type WiringFinding } from "./finding";
export { type EarthPlan, followed, type Lead, type Place, portKey, type Wired, type WiringGraph, wire } from "./graph";
export { type JudgedWiring, judgeWiring, worstFirst } from "./judge";
export { bestFit, classOf, isPowerKind, POE_TYPES, type PowerKind, powerKind, reservedW } from "./kinds";
export { type MendKind, mendsOf, type WiringMend } from "./mends";
export { type CableSheet, PART_KINDS, type PartKind, type PartSheet, type Parts, type PortSheet } from "./part";
export { EARTH_UNASKED, type ProposedDevice, type ProposedRadio, type ProposeInput, proposeWiring, SUNNY_C, WARM_C } from "./propose";
export { injectorIdOf, type PoweredRadio, partsOf } from "./radio-part";
export { clearSkyHours, type SunPlan, type SunSupply, sunSupply } from "./sun";
export { type ReadTaken, readTaken, type TakenAddress } from "./taken";
export { type PortVlans, portVlans } from "./vlans";
