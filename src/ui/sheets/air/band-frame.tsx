import { TYPE } from "../../drawing/type";

/* What the panels of the band have in common: their left margin, their heights, their names. */

export const LEFT = 128;
export const RIGHT = 16;
export const RULES_PX = 112;
export const HEARD_PX = 56;
export const LANE_PX = 20;
export const NOISE_PX = 176;

export const cut = (text: string, most: number): string => (text.length <= most ? text : `${text.slice(0, Math.max(1, most - 1))}…`);

export const Label = ({ y, words, note }: { y: number; words: string; note?: string }) => (
  <g>
    <text x={14} y={y} fontSize={TYPE.press} fontWeight={720}>
      {words}
    </text>
    {note !== undefined && (
      <text x={14} y={y + 16} fontSize={TYPE.label} style={{ fill: "var(--ink-2)" }}>
        {note}
      </text>
    )}
  </g>
);

/** Room that a name beside a block takes, px. */
const NAME_PX = 92;
const INSIDE_PX = 54;

export interface NamePlace {
  readonly x: number;
  readonly anchor: "start" | "middle" | "end";
  /** Letters that fit. */
  readonly most: number;
}

/** Where the name of a block stands: in it, beside it where no other block of its lane is near, else cut within it. */
export const namePlace = (x0: number, x1: number, others: readonly (readonly [number, number])[], width: number): NamePlace => {
  const inside: NamePlace = { x: (x0 + x1) / 2, anchor: "middle", most: Math.max(2, Math.floor((x1 - x0) / 6.4)) };
  if (x1 - x0 > INSIDE_PX) return inside;
  const near = (from: number, to: number): boolean => others.some(([a, b]) => b > from && a < to);
  if (x1 + NAME_PX < width && !near(x1 + 1, x1 + NAME_PX)) return { x: x1 + 5, anchor: "start", most: 14 };
  if (x0 - NAME_PX > LEFT && !near(x0 - NAME_PX, x0 - 1)) return { x: x0 - 5, anchor: "end", most: 14 };
  return inside;
};
