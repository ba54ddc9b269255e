export { DEG_PER_RAD, RAD_PER_DEG } from "./angles";

export { FEET_PER_METRE, MILES_PER_KM, metresFromFeet } from "./lengths";
export { normalQuantile, normalShare } from "./normal";
export { normalRandom, seededRandom } from "./random";
export { needAtLeast, needInRange, needPositive } from "./range";
export { likelySlip, type Slip } from "./slips";
