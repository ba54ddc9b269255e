export { adviseSweep, LEAST_READINGS, movedByTightening, SURE, type SweepAdvice, wantedStepDeg } from "./advice";
export { type AimingRow, type AimingTable, aimingTable } from "./aiming-table";
export { fitSweep, type LobeAt, type SweepExpectation, type SweepFit, type SweepReading } from "./fit";
export { type AimAxis, beamwidthOf, type CutSide, type Lobes, lobesOf } from "./lobes";
export { type AimModel, aimModel } from "./model";
export { offAim, type Seen, type SeenBody, type SeenLandmark, seenFrom, seenReachM } from "./seen";
export { ANGLE_WAYS, type AngleWay, angleSigmaDeg, needsScrew, type PoleAndScrew, SCREW_BELOW_DEG, scaleMmPerDeg } from "./taken";
