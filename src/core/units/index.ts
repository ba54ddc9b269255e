export { dbFromRatio, mwFromDbm, dbmFromMw, powerSumDb } from "./decibels";
export { DEG_PER_RAD, RAD_PER_DEG, normaliseBearingDeg } from "./angles";
export { FEET_PER_METRE, MILES_PER_KM, feetFromMetres, metresFromFeet } from "./lengths";
