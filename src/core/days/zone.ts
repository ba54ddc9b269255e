/*
 * Times of a place: a day and minutes since midnight as people there say them, and the instant they mean. Zones are those of IANA, by
 * the tables that the platform carries.
 */

export const isZone = (zone: string): boolean => {
  try {
    new Intl.DateTimeFormat("en", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};

const formats = new Map<string, Intl.DateTimeFormat>();
const formatOf = (zone: string): Intl.DateTimeFormat => {
  let format = formats.get(zone);
  if (format === undefined) {
    format = new Intl.DateTimeFormat("en-CA", {
      timeZone: zone,
      hourCycle: "h23",
      year: "numeric",
      month: "2-digit",
      day: "2-digit",
      hour: "2-digit",
      minute: "2-digit",
      second: "2-digit",
    });
    formats.set(zone, format);
  }
  return format;
};

export interface LocalTime {
  readonly day: string;
  readonly minutes: number;
}

/** What a clock on the wall shows at an instant. @throws RangeError for a zone that is none. */
export const localTime = (at: Date, zone: string): LocalTime => {
  const parts = Object.fromEntries(
    formatOf(zone)
      .formatToParts(at)
      .map((p) => [p.type, p.value]),
  );
  return {
    day: `${parts.year}-${parts.month}-${parts.day}`,
    minutes: Number(parts.hour) * 60 + Number(parts.minute) + Number(parts.second) / 60,
  };
};

const MINUTE_MS = 60_000;
const DAY_MIN = 24 * 60;
const asIfUtc = ({ day, minutes }: LocalTime): number => Date.parse(`${day}T00:00:00Z`) + minutes * MINUTE_MS;

/**
 * The instant that a time on the wall means. Where clocks are put back and it comes twice the first is meant; where they are put
 * forward and it never comes, as long after the change as it would have been.
 */
export const instantOf = (at: LocalTime, zone: string): Date => {
  const wanted = asIfUtc(at);
  const offsetAt = (ms: number): number => asIfUtc(localTime(new Date(ms), zone)) - ms;
  // Offsets on both sides of the time: of two instants that show it the earlier one.
  const tries = [offsetAt(wanted - DAY_MIN * MINUTE_MS), offsetAt(wanted + DAY_MIN * MINUTE_MS)].map((offset) => wanted - offset);
  const shown = tries.filter((ms) => Math.abs(asIfUtc(localTime(new Date(ms), zone)) - wanted) < 1000);
  return new Date(shown.length > 0 ? Math.min(...shown) : Math.max(...tries));
};

/** "09:30" as minutes since midnight; null for what is no time. */
export const minutesOf = (text: string): number | null => {
  const m = /^(\d{1,2}):(\d{2})$/.exec(text.trim());
  if (m === null || Number(m[1]) > 23 || Number(m[2]) > 59) return null;
  return Number(m[1]) * 60 + Number(m[2]);
};
export const clockText = (minutes: number): string => {
  const whole = Math.round(minutes);
  return `${String(Math.floor(whole / 60) % 24).padStart(2, "0")}:${String(whole % 60).padStart(2, "0")}`;
};
