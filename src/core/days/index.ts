export { type DayClash, endMin, judgeDays, type Light, proposeTasks, TASK_KINDS, type Task } from "./plan";
export { clockText, instantOf, isZone, localTime, minutesOf } from "./zone";
