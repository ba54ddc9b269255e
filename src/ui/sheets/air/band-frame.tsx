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
