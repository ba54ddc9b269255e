import type { ReactNode } from "react";
import type { Ray } from "@/core/obstacles";
import type { Box } from "./caption-field";
import type { SectionScale } from "./section-scale";
import { TYPE } from "./type";

const FIGURE_PX = { width: 84, height: 26 } as const;
/** On a phone the figure is as tall as a finger. */
const PHONE_PX = { width: 560, height: 46 } as const;
const tallOf = (scale: SectionScale): number => (scale.width < PHONE_PX.width ? PHONE_PX.height : FIGURE_PX.height);

/** Where the height figure of a mast stands. */
export const mastFigureBox = (end: "near" | "far", ray: Ray, scale: SectionScale, groundAmslM: number): Box => {
  const isNear = end === "near";
  const x = scale.x(isNear ? ray.startM : ray.endM);
  const top = scale.y(isNear ? ray.startZM : ray.endZM);
  const foot = scale.y(groundAmslM);
  const low = Math.abs(foot - top) < 46;
  const y = low ? (top + foot) / 2 : Math.min(scale.height - 20, Math.max(top + 14, (top + foot) / 2));
  const aside = low ? -6 : 34;
  const left = isNear ? x + 46 - aside : x - 46 + aside - FIGURE_PX.width;
  return { x0: left, y0: y - tallOf(scale) / 2, x1: left + FIGURE_PX.width, y1: y + tallOf(scale) / 2 };
};

/** The dimension line of one mast, with its figure, which can be typed. */
export const MastDimension = ({
  end,
  ray,
  scale,
  groundAmslM,
  figure,
  children,
}: {
  end: "near" | "far";
  ray: Ray;
  scale: SectionScale;
  groundAmslM: number;
  /** The figure as it is written; children where it can be typed. */
  figure?: string;
  children?: ReactNode;
}) => {
  const isNear = end === "near";
  const x = scale.x(isNear ? ray.startM : ray.endM);
  if (x < 0 || x > scale.width) return null;
  const top = scale.y(isNear ? ray.startZM : ray.endZM);
  const foot = scale.y(groundAmslM);
  const lineX = isNear ? x + 46 : x - 46;
  // Too low a mast for a figure on its line: the figure stands beside it.
  const low = Math.abs(foot - top) < 46;
  const y = low ? (top + foot) / 2 : Math.min(scale.height - 20, Math.max(top + 14, (top + foot) / 2));
  if (y < 0 || y > scale.height) return null;
  const aside = low ? -6 : 34;
  return (
    <>
      <svg
        data-drawing="over"
        aria-hidden="true"
        className="pointer-events-none absolute inset-0"
        width={scale.width}
        height={scale.height}
      >
        <path d={`M${x} ${foot}H${lineX}M${x} ${top}H${lineX}`} stroke={`var(--${end})`} strokeWidth="0.8" opacity="0.7" />
        <path
          d={`M${lineX} ${top}V${foot}M${lineX - 4.5} ${top + 4.5}l9 -9M${lineX - 4.5} ${foot + 4.5}l9 -9`}
          stroke={`var(--${end})`}
          strokeWidth="1.2"
        />
        {figure !== undefined && (
          <text
            x={isNear ? lineX - aside : lineX + aside}
            y={y + 5}
            fontSize={TYPE.press}
            fontWeight="650"
            textAnchor={isNear ? "start" : "end"}
            className="mono halo"
          >
            {figure}
          </text>
        )}
      </svg>
      <div
        className="absolute -translate-y-1/2"
        style={isNear ? { left: lineX - aside, top: y + 1 } : { right: scale.width - lineX - aside, top: y + 1 }}
      >
        {children}
      </div>
    </>
  );
};
