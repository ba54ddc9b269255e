export {
  costOf,
  type HeightAnswer,
  type HeightAnswerKind,
  type HeightAnswers,
  heightAnswers,
  type MastCosts,
  topsOf,
} from "./height-answers";
export { type HeightColumn, type HeightFrontier, heightFrontier, heightsThatMeet, type Interval, missAt, withHeights } from "./heights";
