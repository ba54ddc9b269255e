import type { PreparedPath } from "@/core/link";
import { type Ray, rayBulgeM } from "@/core/obstacles";
import { lengthIn, lengthUnit, signed, type Units } from "../wording/numbers";
import type { SectionScale } from "./section-scale";

/** High and low water over each stretch of sea under the path. */
export const TideLines = ({
  path,
  ray,
  scale,
  tideRangeM,
  units,
}: {
  path: PreparedPath;
  ray: Ray;
  scale: SectionScale;
  tideRangeM: number;
  units: Units;
}) => {
  const seas = path.level.filter((l) => l.sea);
  const tallPx = scale.y(0) - scale.y(tideRangeM);
  if (tideRangeM <= 0 || seas.length === 0 || tallPx < 3) return null;
  const widest = [...seas].sort((a, b) => b.toM - b.fromM - (a.toM - a.fromM))[0]!;
  const mid = (widest.fromM + widest.toM) / 2;
  const line = (fromM: number, toM: number, heightM: number): string => {
    const n = Math.max(2, Math.min(40, Math.ceil((toM - fromM) / 200)));
    return Array.from({ length: n + 1 }, (_, i) => {
      const x = fromM + ((toM - fromM) * i) / n;
      return `${i === 0 ? "M" : "L"}${scale.x(x)} ${scale.y(heightM + rayBulgeM(ray, x))}`;
    }).join("");
  };
  const roomy = scale.x(widest.toM) - scale.x(widest.fromM) > 150;
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
          />
        )),
      )}
      {roomy && (
        <text
          x={scale.x(mid)}
          y={scale.y(widest.heightAmslM + tideRangeM / 2 + rayBulgeM(ray, mid)) - 4}
          fontSize="12"
          textAnchor="middle"
          className="halo"
          style={{ fill: "var(--water-line)" }}
        >
          high and low water, {signed(lengthIn(units, tideRangeM / 2), 2)} and {signed(-lengthIn(units, tideRangeM / 2), 2)}{" "}
          {lengthUnit(units)}
        </text>
      )}
    </g>
  );
};
