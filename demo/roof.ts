import type { RoofFields } from "../src/contract";
import { type Part, SAYS_NOTHING, type StepId } from "../src/core/roof";

/* A sweep at the Fuel Berth that began on a false peak: what was written down until the true one began to show. */

const PHONE = "7c1d6f58-0b43-4a5e-9c1e-2f5a86d0b971";
const BEGAN_MS = Date.parse("2026-11-30T09:12:00Z");
const MINUTE_MS = 60_000;

const TICKS: readonly (readonly [StepId, readonly Part[]])[] = [
  ["risks", ["read"]],
  ["mount", ["bracket", "finger-tight"]],
  ["cable", ["loop", "surge"]],
  ["load", ["ports"]],
  ["bond", ["lug", "protector", "mast", "qualified"]],
  ["power", ["told", "on"]],
  ["coarse", ["aimed"]],
];
/** Degrees right of the start, and the level a chain. */
const SWEEP: readonly (readonly [number, number])[] = [
  [12, -85],
  [9, -86],
  [6, -82],
  [3, -79],
  [0, -78],
  [-3, -80],
  [-7, -86],
  [-11, -75],
  [-14, -71],
];

const BLANK = {
  end: "far",
  phone: PHONE,
  aheadS: 0,
  by: "Rhona",
  ...SAYS_NOTHING,
} as const;

/** Entries at the far end of the link from the Water Tower, in their order. */
export const demoRoof = (): RoofFields[] => {
  const written: Pick<RoofFields, "act" | "step" | "part" | "axis" | "angleDeg" | "levelDbm" | "way" | "readAt">[] = [
    ...TICKS.flatMap(([step, parts]) =>
      parts.map((part) => ({ ...BLANK, act: "tick" as const, step, part, way: step === "coarse" ? ("compass" as const) : null })),
    ),
    ...SWEEP.map(([angleDeg, levelDbm]) => ({
      ...BLANK,
      act: "reading" as const,
      axis: "azimuth" as const,
      angleDeg,
      levelDbm,
      way: "scale" as const,
      readAt: "here" as const,
    })),
  ];
  return written.map((e, i) => ({ ...BLANK, ...e, order: i + 1, at: new Date(BEGAN_MS + i * 4 * MINUTE_MS).toISOString() }));
};
