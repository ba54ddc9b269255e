import { z } from "zod";
import { clockText, type DayClash, instantOf, judgeDays, localTime, minutesOf, proposeTasks, TASK_KINDS, type Task } from "../core/days";
import { sunTimes } from "../core/geo";
import type { Brief } from "./brief";
import { PERMISSIONS } from "./starts";
import type { JobBundle } from "./types";

/* The days of a job: tasks with who, when and after what; when a site is closed or dry. One record a job. */

const text = (what: string, most: number) => z.string().trim().max(most, `${what} must be ${most} letters or fewer`).default("");
const clock = (what: string) => z.string().refine((t) => minutesOf(t) !== null, `${what} is written as 09:30`);
const day = (what: string) => z.iso.date(`${what} must be a date`);

export const taskSchema = z.object({
  id: z.uuid(),
  kind: z.enum(TASK_KINDS),
  name: z.string().trim().min(1, "a task needs a name").max(120, "a task's name has 120 letters or fewer"),
  siteId: z.uuid().nullable().default(null),
  people: z.array(z.string().trim().min(1).max(60)).max(20, "at most 20 people").default([]),
  day: day("the day").nullable().default(null),
  from: clock("the beginning").default("08:00"),
  hours: z
    .number("the hours must be a number")
    .min(0.25, "a task takes a quarter of an hour or more")
    .max(24, "a task takes 24 hours or fewer"),
  after: z.array(z.uuid()).max(50).default([]),
  outside: z.boolean().default(true),
  waitsFor: z.enum(PERMISSIONS).nullable().default(null),
  note: text("the note", 300),
});

export const closureSchema = z.object({
  id: z.uuid(),
  siteId: z.uuid().nullable().default(null),
  day: day("the day"),
  from: clock("the beginning"),
  to: clock("the end"),
  kind: z.enum(["closed", "water"]).default("closed"),
  why: text("the reason", 120),
});

/** High or low water, as the harbour's table says it. */
export const tideSchema = z.object({
  day: day("the day"),
  at: clock("the time"),
  heightM: z.number("the height must be a number").min(-20).max(20, "the water is 20 m or lower"),
});

export const daysSchema = z.object({
  tides: z.array(tideSchema).max(400, "at most 400 heights of water").default([]),
  tasks: z.array(taskSchema).max(300, "at most 300 tasks").default([]),
  closures: z.array(closureSchema).max(300, "at most 300 closures").default([]),
});
export type DaysFields = z.infer<typeof daysSchema>;
export type TaskFields = z.infer<typeof taskSchema>;
export type ClosureFields = z.infer<typeof closureSchema>;

export const daysFaults = (d: DaysFields): { path: string; message: string }[] => {
  const ids = new Set(d.tasks.map((t) => t.id));
  return [
    ...(ids.size === d.tasks.length ? [] : [{ path: "tasks", message: "two tasks have one id" }]),
    ...d.closures.flatMap((c) =>
      minutesOf(c.to)! > minutesOf(c.from)! ? [] : [{ path: "closures", message: "a time must end after it begins" }],
    ),
  ];
};

export const taskOf = (t: TaskFields): Task => ({ ...t, fromMin: minutesOf(t.from)! });

/** First and last light of a site on a day, as the clocks there show it; null in polar night or day. */
export const lightOf = (at: { readonly latDeg: number; readonly lonDeg: number }, dayText: string, zone: string) => {
  const sun = sunTimes(at, instantOf({ day: dayText, minutes: 0 }, zone));
  if (sun === null) return null;
  return { riseMin: localTime(sun.rise, zone).minutes, setMin: localTime(sun.set, zone).minutes };
};

/** What stands against the days of a job. */
export const judgedDays = (job: Pick<JobBundle, "job" | "sites">, brief: Pick<Brief, "permissions">, days: DaysFields): DayClash[] => {
  const known = new Map<string, ReturnType<typeof lightOf>>();
  return judgeDays(days.tasks.map(taskOf), {
    lightOf: (siteId, dayText) => {
      const site = job.sites.find((s) => s.id === siteId) ?? { latDeg: job.job.centreLatDeg, lonDeg: job.job.centreLonDeg };
      const key = `${siteId}|${dayText}`;
      if (!known.has(key)) known.set(key, lightOf(site, dayText, job.job.timeZone));
      return known.get(key) ?? null;
    },
    closures: days.closures.map((c) => ({ ...c, fromMin: minutesOf(c.from)!, toMin: minutesOf(c.to)! })),
    granted: new Set(brief.permissions.filter((p) => p.state === "granted" || p.state === "not-needed").map((p) => p.key)),
  });
};

const DAY_MS = 86_400_000;

/** Tasks of a link as its plan suggests them. */
export const proposedDays = (
  job: JobBundle,
  linkId: string,
  crew: readonly string[],
  needsLift: boolean,
  newId: () => string,
): TaskFields[] => {
  const link = job.links.find((l) => l.id === linkId)!;
  const nameOf = (id: string): string => job.sites.find((s) => s.id === id)?.name ?? "?";
  const { visitOn } = job.job;
  const rises = job.sites
    .filter((s) => s.id === link.nearSiteId || s.id === link.farSiteId)
    .flatMap((s) => lightOf(s, visitOn, job.job.timeZone)?.riseMin ?? []);
  return proposeTasks({
    nearSiteId: link.nearSiteId,
    farSiteId: link.farSiteId,
    nearName: nameOf(link.nearSiteId),
    farName: nameOf(link.farSiteId),
    trims: Object.keys(link.design.trimsM).length > 0,
    lift: needsLift,
    people: crew,
    visitOn,
    lightFromMin: rises.length === 0 ? null : Math.max(...rises),
    dayBefore: new Date(Date.parse(visitOn) - DAY_MS).toISOString().slice(0, 10),
    newId,
  }).map(({ fromMin, ...t }) => taskSchema.parse({ ...t, from: clockText(fromMin) }));
};
