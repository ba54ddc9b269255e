export { serves } from "./order";
export { type OpenRack, openRack } from "./rack";
export * from "./types";
