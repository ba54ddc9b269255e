export {
  type HeightAnswer,
  type HeightAnswerKind,
  type HeightAnswers,
  heightAnswers,
  type MastCosts,
  topsOf,
} from "./height-answers";
export { type HeightColumn, type HeightFrontier, heightFrontier, heightsThatMeet, type Interval, missAt, withHeights } from "./heights";
export { MOST_YEARS, type Outlook, outlook, type YearOfClearance } from "./outlook";
export { byMerit, type PlaceOutcome, placeOutcome } from "./place";
export { type PolicyChange, type PolicyOutcome, policyOutcomes, withPolicy } from "./policies";
export { type Reading, readAt, tableDistances } from "./reading";
export { type RelayAnswer, type RelayEnd, type RelayQuestion, type RelaySpot, relaySpots } from "./relay";
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
