import { createEvents, type EventAttributes } from "ics";
import { FileFault } from "./file-fault";

/* Tasks as a calendar (RFC 5545). Names of events stay: brought in a second time they are changed, not doubled. */

export interface CalendarTask {
  readonly id: string;
  readonly name: string;
  readonly from: Date;
  readonly hours: number;
  readonly place: string;
  readonly people: readonly string[];
  readonly note: string;
  readonly latDeg: number | null;
  readonly lonDeg: number | null;
}

const MINUTE_MS = 60_000;
const utc = (at: Date): [number, number, number, number, number] => [
  at.getUTCFullYear(),
  at.getUTCMonth() + 1,
  at.getUTCDate(),
  at.getUTCHours(),
  at.getUTCMinutes(),
];

/**
 * Writes a calendar. @param version rises with every edit: a calendar that has an event of the same name takes the higher one.
 * @throws FileFault when the writer refuses a task.
 */
export const calendarText = (name: string, tasks: readonly CalendarTask[], version: number, madeAt: Date): string => {
  if (tasks.length === 0)
    return `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:dry-arc\r\nX-WR-CALNAME:${name.replace(/([\\;,])/g, "\\$1")}\r\nEND:VCALENDAR\r\n`;
  const { value, error } = createEvents(
    tasks.map(
      (t): EventAttributes => ({
        uid: `${t.id}@dry-arc`,
        sequence: version,
        productId: "dry-arc",
        calName: name,
        title: t.name,
        start: utc(t.from),
        startInputType: "utc",
        startOutputType: "utc",
        end: utc(new Date(t.from.getTime() + t.hours * 60 * MINUTE_MS)),
        endInputType: "utc",
        endOutputType: "utc",
        location: t.place,
        description: [t.people.length === 0 ? "" : `Who: ${t.people.join(", ")}`, t.note].filter((l) => l !== "").join("\n"),
        lastModified: utc(madeAt),
        ...(t.latDeg === null || t.lonDeg === null ? {} : { geo: { lat: t.latDeg, lon: t.lonDeg } }),
        status: "CONFIRMED",
        busyStatus: "BUSY",
      }),
    ),
  );
  if (error != null || value == null) throw new FileFault(`the calendar cannot be written: ${error?.message ?? "no reason given"}`);
  return value;
};
