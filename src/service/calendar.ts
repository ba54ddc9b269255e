import type { DaysFields } from "../contract";
import { instantOf, minutesOf } from "../core/days";
import type { Db } from "../data/client";
import { type JobRow, sitesOf } from "../data/jobs";
import { listRecords } from "../data/records";
import { calendarText } from "../formats";

/** The days of a job as a calendar: every task that has a day, in the zone of the job, under a name that stays. */
export const calendarOf = async (db: Db, job: JobRow): Promise<{ readonly name: string; readonly text: string }> => {
  const [[days], sites] = await Promise.all([listRecords(db, job.id, "days"), sitesOf(db, job.id)]);
  const { tasks } = days as unknown as DaysFields;
  const placed = tasks.flatMap((t) => {
    if (t.day === null) return [];
    const site = sites.find((s) => s.id === t.siteId);
    return [
      {
        id: t.id,
        name: t.name,
        from: instantOf({ day: t.day, minutes: minutesOf(t.from)! }, job.timeZone),
        hours: t.hours,
        place: site?.name ?? job.place,
        people: t.people,
        note: t.note,
        latDeg: site?.latDeg ?? null,
        lonDeg: site?.lonDeg ?? null,
      },
    ];
  });
  // The stamp is that of the last edit: the same days give the same file.
  return { name: job.name, text: calendarText(job.name, placed, Number((days as unknown as { version: number }).version), job.updatedAt) };
};
