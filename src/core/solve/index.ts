export {
  type HeightAnswer,
  type HeightAnswers,
  heightAnswers,
  type MastCosts,
  topsOf,
} from "./height-answers";
export { type HeightFrontier, heightFrontier, heightsThatMeet, missAt, withHeights } from "./heights";
export { byMount, type MountOutcome, mountOutcome } from "./mount";
export { MOST_YEARS, type Outlook, outlook } from "./outlook";
export { byMerit, type PlaceOutcome, placeOutcome } from "./place";
export { type PolicyOutcome, policyOutcomes } from "./policies";
export { type Reading, readAt, tableDistances } from "./reading";
export { type RelayAnswer, type RelayQuestion, relaySpots } from "./relay";
export {
  byRelayMerit,
  type RelayCandidate,
  type RelayLeg,
  relayAroundM,
  relayServes,
} from "./relay-choice";
export {
  type HeightLevel,
  heightsWithoutNull,
  levelOverHeight,
  levelOverTide,
  NULL_BELOW_DB,
  type TideLevel,
  type WaterView,
  worstOverTideGrid,
} from "./water";
