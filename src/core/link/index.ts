export { assembleProfile, type FeatureInput, type ObstacleInput } from "./assemble";
export { policyShareOf } from "./clearance";
export { antennaNameOf, gainOf } from "./direction";
export { evaluateLink, evaluatePrepared, LONGEST_LINK_M, rayOf, SHORTEST_LINK_M, worseVerdict, worstPlaceOf } from "./evaluate";
export { type DesignAction, type Finding, findings, type Mend } from "./findings";
export { HIGHEST_RAISE_M, raiseToMeet, trimToMeet, withMounts } from "./mends";
export { type PreparedBody, type PreparedPath, preparePath } from "./prepare";
export type * from "./types";
