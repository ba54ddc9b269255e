export { type OneTypeAnswer, oneTypeFor, type Serving, typeKeyOf } from "./one-type";
export { keptMultipleOf, serves } from "./order";
export { type Planned, plannedCandidate } from "./planned";
export { DRAWN_ROWS, type OpenRack, openRack } from "./rack";
export { plainRack } from "./told";
export * from "./types";
export { stockOf, unitsOf } from "./units";
export type { School } from "./weigh";
