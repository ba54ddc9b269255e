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
  UNIT_ROLES,
  type UnitRole,
} from "./addresses";
export { type AirBridge, type JobFinding, jobNetworkFindings } from "./check-network";
export { judgeSun } from "./check-sun";
export type { Arrival } from "./feeds";
export { WIRING_CODES, type WiringCode } from "./finding";
export { type EarthPlan, followed, type Lead, type Place, portKey, type Wired, type WiringGraph, wire } from "./graph";
export { type JudgedWiring, judgeWiring, supplyRank, worstFirst } from "./judge";
export { keptFrom } from "./kept";
export { bestFit, isPowerKind, powerKind } from "./kinds";
export type { MendKind, WiringMend } from "./mend-draft";
export { mendsOf } from "./mends";
export { PART_KINDS, type PartKind, type PartSheet, type Parts } from "./part";
export { EARTH_UNASKED, type ProposedDevice, proposeWiring } from "./propose";
export { injectorIdOf, partsOf } from "./radio-part";
export { clearSkyHours, type SunPlan } from "./sun";
export { readTaken } from "./taken";
export { portVlans } from "./vlans";
