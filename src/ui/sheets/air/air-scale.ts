import { type ScaleLinear, scaleLinear } from "d3";
import { type BandKey, bandKeyOf, type RuleRow } from "@/core/radio";

/* The axis of a band: what no rule permits between two stretches is closed up. */

export interface BandScale {
  readonly x: (mhz: number) => number;
  readonly mhzAt: (px: number) => number;
  /** Stretches that are drawn, MHz. */
  readonly stretches: readonly (readonly [number, number])[];
  readonly ticks: readonly number[];
}

const GAP_PX = 22;
/** Nothing permitted over so many MHz is closed up. */
const CLOSED_MHZ = 60;
/** A closed place is not drawn beyond what this holds of the whole. */
const EDGE_SHARE = 0.01;

/** Stretches of a band in which some row lies or something is set, joined where they are near. */
export const stretchesOf = (rows: readonly RuleRow[], band: BandKey, also: readonly (readonly [number, number])[]): [number, number][] => {
  const all = [...rows.map((r) => [r.lowMhz, r.highMhz] as const), ...also]
    .filter(([low, high]) => bandKeyOf((low + high) / 2) === band || (bandKeyOf(low) === band && bandKeyOf(high) === band))
    .sort((a, b) => a[0] - b[0]);
  const out: [number, number][] = [];
  for (const [low, high] of all) {
    const last = out.at(-1);
    if (last !== undefined && low - last[1] <= CLOSED_MHZ) last[1] = Math.max(last[1], high);
    else out.push([low, high]);
  }
  return out;
};

export const bandScale = (stretches: readonly (readonly [number, number])[], leftPx: number, rightPx: number): BandScale => {
  const whole = stretches.reduce((sum, [low, high]) => sum + high - low, 0) || 1;
  const room = rightPx - leftPx - GAP_PX * Math.max(0, stretches.length - 1);
  const domain: number[] = [];
  const range: number[] = [];
  let at = leftPx;
  for (const [low, high] of stretches) {
    domain.push(low, high);
    const wide = ((high - low) / whole) * room;
    range.push(at, at + wide);
    at += wide + GAP_PX;
  }
  const scale: ScaleLinear<number, number> = scaleLinear(
    domain.length > 0 ? domain : [0, 1],
    range.length > 0 ? range : [leftPx, rightPx],
  ).clamp(true);
  const ticks = stretches.flatMap(([low, high], k) => {
    const wide = ((high - low) / whole) * room;
    const inner = scaleLinear([low, high], [0, wide]).ticks(Math.max(1, Math.floor(wide / 90)));
    const edges = (high - low) * EDGE_SHARE;
    const apart = inner.filter((t) => t - low > edges && high - t > edges && scale(t) - scale(low) > 44 && scale(high) - scale(t) > 44);
    // What begins close behind a closed place leaves the figure to the stretch before.
    const before = stretches[k - 1];
    const first = before === undefined || scale(low) - scale(before[1]) > 44 ? [low] : [];
    return [...first, ...apart, ...(wide > 44 ? [high] : [])];
  });
  return { x: (mhz) => scale(mhz), mhzAt: (px) => scale.invert(px), stretches, ticks };
};
