export { type DayClash, endMin, judgeDays, type Light, proposeTasks, TASK_KINDS, type Task } from "./plan";
export { isHighWater, readTides, type TideMark, tideAt, tideMin } from "./tide";
export { clockText, instantOf, isZone, localTime, minutesOf } from "./zone";
