/* Tasks of a job in their days: what comes before what, who does it, by light and water, and what stands against it. */

export const TASK_KINDS = ["bench", "install", "aim", "trees", "lift", "clean", "other"] as const;
export type TaskKind = (typeof TASK_KINDS)[number];

export interface Task {
  readonly id: string;
  readonly kind: TaskKind;
  readonly name: string;
  readonly siteId: string | null;
  readonly people: readonly string[];
  readonly day: string | null;
  /** Minutes since midnight, of the place. */
  readonly fromMin: number;
  readonly hours: number;
  /** Tasks that must be over first. */
  readonly after: readonly string[];
  readonly outside: boolean;
  /** A permission of the brief that it waits for. */
  readonly waitsFor: string | null;
}

/** A time at which a site cannot be worked at, or the only ones at which it can. */
export interface Closure {
  readonly siteId: string | null;
  readonly day: string;
  readonly fromMin: number;
  readonly toMin: number;
  readonly kind: "closed" | "water";
  readonly why: string;
}

export interface Light {
  readonly riseMin: number;
  readonly setMin: number;
}

export interface DayRules {
  readonly lightOf: (siteId: string | null, day: string) => Light | null;
  readonly closures: readonly Closure[];
  /** Permissions that are granted or not needed. */
  readonly granted: ReadonlySet<string>;
  /** Kinds of permission as they are said. */
  readonly known: (taskId: string) => Task | undefined;
}

export type DayClash =
  | { readonly code: "no-day"; readonly taskId: string; readonly verdict: "unknown" }
  | { readonly code: "nobody"; readonly taskId: string; readonly verdict: "unknown" }
  | { readonly code: "waiting"; readonly taskId: string; readonly verdict: "unknown"; readonly permission: string }
  | { readonly code: "before"; readonly taskId: string; readonly verdict: "short"; readonly other: string }
  | { readonly code: "gone"; readonly taskId: string; readonly verdict: "tight" }
  | { readonly code: "round"; readonly taskId: string; readonly verdict: "short" }
  | { readonly code: "twice"; readonly taskId: string; readonly verdict: "short"; readonly other: string; readonly person: string }
  | { readonly code: "dark"; readonly taskId: string; readonly verdict: "short"; readonly light: Light }
  | { readonly code: "closed"; readonly taskId: string; readonly verdict: "short"; readonly closure: Closure }
  | { readonly code: "no-water"; readonly taskId: string; readonly verdict: "short" };

export const endMin = (t: Pick<Task, "fromMin" | "hours">): number => t.fromMin + t.hours * 60;

const overlap = (a: readonly [number, number], b: readonly [number, number]): boolean => a[0] < b[1] - 1e-9 && b[0] < a[1] - 1e-9;

/** Whether a task is reached again from itself over what must come before. */
const isRound = (task: Task, known: (id: string) => Task | undefined): boolean => {
  const seen = new Set<string>();
  const open = [...task.after];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (id === task.id) return true;
    if (seen.has(id)) continue;
    seen.add(id);
    open.push(...(known(id)?.after ?? []));
  }
  return false;
};

const ofOne = (t: Task, rules: DayRules): DayClash[] => {
  const out: DayClash[] = [];
  if (isRound(t, rules.known)) out.push({ code: "round", taskId: t.id, verdict: "short" });
  if (t.waitsFor !== null && !rules.granted.has(t.waitsFor))
    out.push({ code: "waiting", taskId: t.id, verdict: "unknown", permission: t.waitsFor });
  if (t.people.length === 0) out.push({ code: "nobody", taskId: t.id, verdict: "unknown" });
  if (t.day === null) return [...out, { code: "no-day", taskId: t.id, verdict: "unknown" }];
  const span = [t.fromMin, endMin(t)] as const;
  if (t.outside) {
    const light = rules.lightOf(t.siteId, t.day);
    if (light !== null && (span[0] < light.riseMin - 1e-9 || span[1] > light.setMin + 1e-9))
      out.push({ code: "dark", taskId: t.id, verdict: "short", light });
  }
  const here = rules.closures.filter((c) => c.day === t.day && (c.siteId === null || c.siteId === t.siteId));
  for (const c of here)
    if (c.kind === "closed" && overlap(span, [c.fromMin, c.toMin]))
      out.push({ code: "closed", taskId: t.id, verdict: "short", closure: c });
  const water = here.filter((c) => c.kind === "water");
  if (t.outside && water.length > 0 && !water.some((c) => span[0] >= c.fromMin - 1e-9 && span[1] <= c.toMin + 1e-9))
    out.push({ code: "no-water", taskId: t.id, verdict: "short" });
  return out;
};

/** What stands against the days as they are planned. */
export const judgeDays = (tasks: readonly Task[], rules: Omit<DayRules, "known">): DayClash[] => {
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const known = (id: string): Task | undefined => byId.get(id);
  const out = tasks.flatMap((t) => ofOne(t, { ...rules, known }));
  for (const t of tasks) {
    for (const id of t.after) {
      const first = byId.get(id);
      if (first === undefined) out.push({ code: "gone", taskId: t.id, verdict: "tight" });
      else if (t.day !== null && first.day !== null && (first.day > t.day || (first.day === t.day && endMin(first) > t.fromMin + 1e-9)))
        out.push({ code: "before", taskId: t.id, verdict: "short", other: first.id });
    }
  }
  for (const [i, a] of tasks.entries())
    for (const b of tasks.slice(i + 1)) {
      if (a.day === null || a.day !== b.day || !overlap([a.fromMin, endMin(a)], [b.fromMin, endMin(b)])) continue;
      const person = a.people.find((p) => b.people.some((q) => q.toLowerCase() === p.toLowerCase()));
      if (person !== undefined) out.push({ code: "twice", taskId: b.id, verdict: "short", other: a.id, person });
    }
  return out;
};

export interface DayPlanFacts {
  readonly nearSiteId: string;
  readonly farSiteId: string;
  readonly nearName: string;
  readonly farName: string;
  readonly trims: boolean;
  readonly lift: boolean;
  readonly people: readonly string[];
  readonly visitOn: string;
  /** First light of that day at the later end, minutes; null where the sun never rises or never sets. */
  readonly lightFromMin: number | null;
  readonly dayBefore: string;
  readonly newId: () => string;
}

/** Usual hours of a task (ours; each is a field). */
const HOURS: Readonly<Record<TaskKind, number>> = { bench: 3, install: 3, aim: 1.5, trees: 3, lift: 0.5, clean: 0.5, other: 1 };
const MORNING_MIN = 8 * 60;
const QUARTER_MIN = 15;

/** Tasks of a link from its plan: bench the day before, then near, far, aim, clean, each after what it needs. */
export const proposeTasks = (f: DayPlanFacts): Task[] => {
  const task = (kind: TaskKind, name: string, more: Partial<Task>): Task => ({
    id: f.newId(),
    kind,
    name,
    siteId: null,
    people: f.people,
    day: f.visitOn,
    fromMin: MORNING_MIN,
    hours: HOURS[kind],
    after: [],
    outside: kind !== "bench",
    waitsFor: null,
    ...more,
  });
  const bench = task("bench", `bench, ${f.nearName} and ${f.farName}`, { day: f.dayBefore, outside: false });
  const trees = f.trims ? [task("trees", "trim what stands in the way", { waitsFor: "tree-owner" })] : [];
  const lift = f.lift ? [task("lift", "lift comes", {})] : [];
  // Nobody goes outside before it is light.
  let at = Math.max(MORNING_MIN, Math.ceil((f.lightFromMin ?? 0) / QUARTER_MIN) * QUARTER_MIN);
  const next = (t: Task): Task => {
    const placed = { ...t, fromMin: at };
    at += t.hours * 60;
    return placed;
  };
  const first = [...trees, ...lift].map(next);
  const needed = [bench.id, ...first.map((t) => t.id)];
  const near = next(task("install", f.nearName, { siteId: f.nearSiteId, after: needed }));
  const far = next(task("install", f.farName, { siteId: f.farSiteId, after: needed }));
  const aim = next(task("aim", "aim, read, prove", { siteId: f.farSiteId, after: [near.id, far.id] }));
  const clean = next(task("clean", "clean up", { siteId: f.farSiteId, after: [aim.id] }));
  return [bench, ...first, near, far, aim, clean];
};
