export {
  ANGLE_WAYS,
  AXES,
  type Axis,
  type End,
  nextOrder,
  otherEnd,
  READ_AT,
  ROOF_ACTS,
  type RoofEntry,
  SAYS_NOTHING,
  writtenAtMs,
} from "./entries";
export { type EndStands, type Refusal, replayRoof, type StepStands } from "./replay";
export { PARTS, type Part, STEP_IDS, type StepId } from "./steps";
