export { adviseSweep, movedByTightening, wantedStepDeg } from "./advice";
export { type AimingTable, aimingTable } from "./aiming-table";
export { lobesOf } from "./lobes";
export { aimModel } from "./model";
export { offAim, type Seen, seenFrom, seenReachM } from "./seen";
export { angleSigmaDeg, needsScrew, SCREW_BELOW_DEG, scaleMmPerDeg } from "./taken";
