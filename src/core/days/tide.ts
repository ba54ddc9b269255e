import { clockText, minutesOf } from "./zone";

/*
 * High and low water as a harbour's table says it, and the height between: half a cosine from each to the next, which is what the rule
 * of twelfths rounds. Weather moves it; outside what the table says nothing is known.
 */

export interface TideMark {
  readonly day: string;
  /** Of the clocks of the job. */
  readonly at: string;
  readonly heightM: number;
}

export interface TideFault {
  readonly line: number;
  readonly text: string;
}

const DAY = /\b(\d{4})-(\d{2})-(\d{2})\b/;
const PAIR = /(?<![\d:.])(\d{1,2}:\d{2})(?![\d:])[^\d−-]*([−-]?\d{1,2}(?:[.,]\d+)?)(?![\d:])/g;

const isDay = (text: string): boolean => {
  const at = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(text);
};

/** Minutes since 1970 by the clocks of the table. */
export const tideMin = (t: Pick<TideMark, "day" | "at">): number => Date.parse(`${t.day}T00:00:00Z`) / 60_000 + minutesOf(t.at)!;

/** Reads a pasted table: a day on each line, then times with heights in metres. Lines without a time are passed over. */
export const readTides = (text: string): { readonly marks: readonly TideMark[]; readonly faults: readonly TideFault[] } => {
  const marks = new Map<number, TideMark>();
  const faults: TideFault[] = [];
  let day: string | null = null;
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const fault = (): void => void faults.push({ line: i + 1, text: raw.trim().slice(0, 60) });
    const found = DAY.exec(raw)?.[0];
    if (found !== undefined) day = isDay(found) ? found : null;
    const rest = found === undefined ? raw : raw.replace(found, " ");
    if (!/\d:\d{2}/.test(rest)) continue;
    const pairs = [...rest.matchAll(PAIR)];
    if (day === null || pairs.length === 0) {
      fault();
      continue;
    }
    for (const [, at, height] of pairs) {
      const minutes = minutesOf(at!);
      const heightM = Number(height!.replace("−", "-").replace(",", "."));
      if (minutes === null || Math.abs(heightM) > 20) {
        fault();
        continue;
      }
      const mark = { day, at: clockText(minutes), heightM };
      marks.set(tideMin(mark), mark);
    }
  }
  return { marks: [...marks].sort(([a], [b]) => a - b).map(([, m]) => m), faults };
};

/** Longer than this between two marks the table has a gap: nothing is drawn over it. */
const LONGEST_MIN = 9 * 60;

/**
 * Height of the water, metres as in the table. @param marks in order; @param atMin minutes since 1970 by the clocks of the table.
 * @returns null outside the table, or in a gap of it.
 */
export const tideAt = (marks: readonly TideMark[], atMin: number): number | null => {
  const next = marks.findIndex((m) => tideMin(m) >= atMin);
  if (next < 0) return null;
  const b = marks[next]!;
  if (tideMin(b) === atMin) return b.heightM;
  const a = marks[next - 1];
  if (a === undefined || tideMin(b) - tideMin(a) > LONGEST_MIN) return null;
  const share = (atMin - tideMin(a)) / (tideMin(b) - tideMin(a));
  return a.heightM + ((b.heightM - a.heightM) * (1 - Math.cos(Math.PI * share))) / 2;
};

/** Whether a mark is high water: higher than its neighbours in the table. */
export const isHighWater = (marks: readonly TideMark[], index: number): boolean => {
  const [before, here, after] = [marks[index - 1], marks[index]!, marks[index + 1]];
  const other = after ?? before;
  return other !== undefined && here.heightM > other.heightM && (before === undefined || here.heightM > before.heightM);
};
