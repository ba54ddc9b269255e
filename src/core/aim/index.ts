export { adviseSweep, movedByTightening, type SweepAdvice, wantedStepDeg } from "./advice";
export { type AimingTable, aimingTable } from "./aiming-table";
export { type AimCut, aimCut, patternOfCut } from "./cut";
export type { SweepExpectation } from "./fit";
export { lobesOf } from "./lobes";
export { type AimModel, aimModel } from "./model";
export { offAim, type Seen, type SeenLandmark, seenFrom, seenReachM } from "./seen";
export { ANGLE_WAYS, type AngleWay, angleSigmaDeg, needsScrew, SCREW_BELOW_DEG, scaleMmPerDeg } from "./taken";
