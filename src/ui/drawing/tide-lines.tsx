import type { PreparedPath } from "@/core/link";
import { type Ray, rayBulgeM } from "@/core/obstacles";
import { lengthIn, lengthUnit, signed, type Units } from "../wording/numbers";
import type { SectionScale } from "./section-scale";
import { TYPE } from "./type";

/** The water's caption, on the widest stretch of sea that has room for it; null when none has. */
export const tideCaption = (
  path: PreparedPath,
  ray: Ray,
  scale: SectionScale,
  tideRangeM: number,
  units: Units,
): { readonly text: string; readonly x: number; readonly y: number } | null => {
  const widest = path.level.filter((l) => l.sea).sort((a, b) => b.toM - b.fromM - (a.toM - a.fromM))[0];
  if (widest === undefined || tideRangeM <= 0 || scale.y(0) - scale.y(tideRangeM) < 3) return null;
  if (scale.x(widest.toM) - scale.x(widest.fromM) <= 150) return null;
  const mid = (widest.fromM + widest.toM) / 2;
  const half = lengthIn(units, tideRangeM / 2);
  return {
    text: `high and low water, ${signed(half, 2)} and ${signed(-half, 2)} ${lengthUnit(units)}`,
    x: scale.x(mid),
    y: scale.y(widest.heightAmslM + tideRangeM / 2 + rayBulgeM(ray, mid)) - 7,
  };
};

/** High and low water over each stretch of sea under the path. */
export const TideLines = ({
  path,
  ray,
  scale,
  tideRangeM,
  caption,
}: {
  path: PreparedPath;
  ray: Ray;
  scale: SectionScale;
  tideRangeM: number;
  /** Its words, where they found a place. */
  caption: { readonly text: string; readonly x: number; readonly y: number } | null;
}) => {
  const seas = path.level.filter((l) => l.sea);
  const tallPx = scale.y(0) - scale.y(tideRangeM);
  if (tideRangeM <= 0 || seas.length === 0 || tallPx < 3) return null;
  const line = (fromM: number, toM: number, heightM: number): string => {
    const n = Math.max(2, Math.min(40, Math.ceil((toM - fromM) / 200)));
    return Array.from({ length: n + 1 }, (_, i) => {
      const x = fromM + ((toM - fromM) * i) / n;
      return `${i === 0 ? "M" : "L"}${scale.x(x)} ${scale.y(heightM + rayBulgeM(ray, x))}`;
    }).join("");
  };
  return (
    <g aria-hidden="true">
      {seas.flatMap((s) =>
        [0.5, -0.5].map((k) => (
          <path
            key={`${s.fromM}-${k}`}
            d={line(s.fromM, s.toM, s.heightAmslM + k * tideRangeM)}
            stroke="var(--water-line)"
            strokeWidth="1.4"
            strokeDasharray={k > 0 ? undefined : "5 3"}
            fill="none"
            data-line="tide"
          />
        )),
      )}
      {caption !== null && (
        <text
          x={caption.x}
          y={caption.y}
          fontSize={TYPE.tick}
          textAnchor="middle"
          className="halo"
          data-caption="tide"
          style={{ fill: "var(--water-line)" }}
        >
          {caption.text}
        </text>
      )}
    </g>
  );
};
