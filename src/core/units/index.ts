export { DEG_PER_RAD, normaliseBearingDeg, RAD_PER_DEG } from "./angles";
export { dbFromRatio, dbmFromMw, mwFromDbm, powerSumDb } from "./decibels";
export { FEET_PER_METRE, feetFromMetres, MILES_PER_KM, metresFromFeet } from "./lengths";
export { normalQuantile, normalShare } from "./normal";
export { normalRandom, seededRandom } from "./random";
export { needAtLeast, needInRange, needPositive } from "./range";
export { likelySlip, type Slip } from "./slips";
