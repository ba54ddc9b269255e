import type { DesignFields, RecordedPermission } from "@/contract";
import { permissionState } from "@/core/radio";
import { figure } from "../../wording/numbers";

const STATE_WORDS = {
  covers: "covers this channel",
  "not yet": "not yet in force",
  expired: "ended",
  "other channel": "another channel",
} as const;

/** A permission on record in one line: what it covers, and whether that is this channel. */
export const permissionLine = (p: RecordedPermission, design: DesignFields, day: string): string => {
  const half = design.widthMhz / 2;
  const state = permissionState(p, design.centreMhz - half, design.centreMhz + half, day);
  const power = p.maxEirpDbm === null ? "" : `, up to ${figure(p.maxEirpDbm, Number.isInteger(p.maxEirpDbm) ? 0 : 1)} dBm EIRP`;
  const until = p.until === null ? "" : `, until ${p.until}`;
  return `${p.number}: ${figure(p.lowMhz)} to ${figure(p.highMhz)} MHz${power}${until}; ${STATE_WORDS[state]}`;
};
