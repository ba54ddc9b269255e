import type { TaskFields } from "@/contract";
import { clockText, type DayClash } from "@/core/days";
import { PERMISSION_WORDS } from "../brief/open-points";

/* Words of the days: what stands against a task. */

export const permissionText = (key: string): string =>
  Object.hasOwn(PERMISSION_WORDS, key) ? PERMISSION_WORDS[key as keyof typeof PERMISSION_WORDS].who : key;

export const clashText = (c: DayClash, tasks: readonly TaskFields[]): string => {
  const nameOf = (id: string): string => tasks.find((t) => t.id === id)?.name ?? "a task that is gone";
  const name = nameOf(c.taskId);
  switch (c.code) {
    case "no-day":
      return `${name}: on no day yet.`;
    case "nobody":
      return `${name}: who does it?`;
    case "waiting":
      return `${name} waits for ${permissionText(c.permission)}.`;
    case "before":
      return `${name} begins before ${nameOf(c.other)} is over.`;
    case "gone":
      return `${name} comes after a task that is gone.`;
    case "round":
      return `${name} would have to come after itself.`;
    case "twice":
      return `${c.person} is on ${nameOf(c.other)} and on ${name} at once.`;
    case "dark":
      return `${name} is outside and in the dark: light is from ${clockText(c.light.riseMin)} to ${clockText(c.light.setMin)}.`;
    case "closed":
      return `${name}: closed from ${clockText(c.closure.fromMin)} to ${clockText(c.closure.toMin)}${c.closure.why === "" ? "" : `, ${c.closure.why}`}.`;
    case "no-water":
      return `${name} is not within the hours of water that are told for that day.`;
  }
};
