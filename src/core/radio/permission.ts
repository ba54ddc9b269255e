/** A permission as it was recorded. It covers what it names, and only that. */
export interface Permission {
  readonly kind: string;
  readonly holder: string;
  /** Number or reference. */
  readonly number: string;
  readonly place: string;
  readonly lowMhz: number;
  readonly highMhz: number;
  /** Highest EIRP it grants; null where it names none. */
  readonly maxEirpDbm: number | null;
  /** Days as year-month-day; null for open. */
  readonly from: string | null;
  readonly until: string | null;
  readonly note: string;
}

/** The end of a permission is told this long before it comes (ours). */
export const TOLD_DAYS_BEFORE = 60;

export type PermissionState = "covers" | "not yet" | "expired" | "other channel";

/** Whether a permission covers a channel on a day (year-month-day; such days compare as text). */
export const permissionState = (p: Permission, lowMhz: number, highMhz: number, day: string): PermissionState => {
  if (lowMhz < p.lowMhz - 1e-6 || highMhz > p.highMhz + 1e-6) return "other channel";
  if (p.from !== null && day < p.from) return "not yet";
  return p.until !== null && day > p.until ? "expired" : "covers";
};

const DAY_MS = 86_400_000;

/** Days from one day to another, both year-month-day. */
export const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS);
