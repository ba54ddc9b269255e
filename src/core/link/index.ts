export { apply } from "./apply-action";
export { assembleProfile, type FeatureInput, type ObstacleInput } from "./assemble";
export { lostPercent, marginForYear } from "./availability";

export { chanceOfClearance } from "./chance";

export { clearanceOf } from "./clearance";
export { conditionsOf } from "./conditions";
export { AIMED, K_LOW_DEFAULT, kLowOf, waterOver } from "./defaults";
export { AIMING_SHARE, airtimeOf, askerOf, GAIN_SIGMA_DB, PACKET_ERROR_HELD, POWER_SIGMA_DB } from "./direction";

export { antennaNameOf, beamwidthOf, halfApertureOf, isShaken, patternOfEnd, polarisationWordsOf, twistOf } from "./end-gear";
export { evaluateLink, evaluatePrepared, resultOf, serviceOf } from "./evaluate";
export { explainDirection, explainPath } from "./explain-result";
export { explainTerm } from "./explain-term";
export { type ExplainedSymbol, type Explanation, explanationText, symbolText } from "./explanation";
export type { DesignAction, Finding, FindingCode, FindingValues, Mend, Observation, PlaceValues } from "./finding-types";
export { findings } from "./findings";
export { gainsAround } from "./gains";
export { isTurned } from "./ground-field";
export { type TypedGround, typedGround } from "./ground-under";
export { type Drawn, observe, verdictOf, worseVerdict } from "./judge";
export { fadingOnce, multipleOf } from "./kept";
export { ladderOf } from "./ladder";
export * from "./limits";
export { lowerToMeet, raiseToMeet, trimToMeet } from "./mends";
export { clearanceUnder, type PathState, pathStateOf, rayOf, worstOfBodies, worstPlaceOf } from "./path-state";
export { lawfulPowers } from "./power-advice";
export { type PreparedBody, type PreparedPath, preparePath, withChannel, withTrims } from "./prepare";
export { type Reflector, reflectedAt, reflectorOf } from "./reflection-summary";
export { type ServeDraws, serveDraws } from "./serve-draws";
export { type SectionSketch, sketchOf } from "./sketch";
export type { Spread } from "./spread";
export { type WidthRow, widthSweep } from "./sweep";
export { type TrimList, trimList } from "./trim-list";
export type * from "./types";
export { DEFAULT_DRAWS, decidingDraws, monteCarlo, type Uncertainty } from "./uncertainty";
