export {
  ANGLE_WAYS,
  AXES,
  type Axis,
  type End,
  inOrder,
  nextOrder,
  otherEnd,
  READ_AT,
  ROOF_ACTS,
  type RoofEntry,
  writtenAtMs,
} from "./entries";
export { type EndStands, type LinkStands, type Refusal, replayRoof, type StepStands } from "./replay";
export { type EndPlan, PARTS, type Part, STEP_IDS, type StepId } from "./steps";
