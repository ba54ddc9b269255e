import { type LinkResult, MET_WITHIN_M } from "@/core/link";
import { f1RadiusM, type Ray, rayBulgeM, rayZM } from "@/core/obstacles";
import type { Units } from "../wording/numbers";
import type { WorstPlacing } from "./section-captions";
import type { SectionScale } from "./section-scale";
import { TYPE } from "./type";
import { worstWords } from "./worst-words";

/** The worst place, dimensioned: how much it lacks or spares, of what, where. */
export const WorstPlaceMark = ({
  result,
  ray,
  scale,
  units,
  nearName,
  placing,
}: {
  result: LinkResult;
  ray: Ray;
  scale: SectionScale;
  units: Units;
  nearName: string;
  /** Where its figure stands; null when no place is free, the arrows alone then mark it. */
  placing: WorstPlacing | null;
}) => {
  const { worst, policyShare, verdict } = result.clearance;
  if (worst === null) return null;
  const short = worst.missM > MET_WITHIN_M;
  const colour = short ? "var(--short)" : "var(--ink)";
  const words = short ? "var(--short-figure)" : verdict === "tight" ? "var(--tight)" : "var(--ink)";
  const x = Math.min(scale.width - 12, Math.max(12, scale.x(worst.atM)));
  const inside = Math.min(ray.endM, Math.max(ray.startM, worst.atM));
  // Beneath a span the zone's upper edge is what counts.
  const way = worst.side === "under" ? 1 : -1;
  const zone = scale.y(rayZM(ray, inside) + way * policyShare * f1RadiusM(ray, inside));
  const top = scale.y(worst.zAmslM + rayBulgeM(ray, inside));
  const sideways = worst.side === "left" || worst.side === "right";
  const told = worstWords(result, units, nearName);
  // The arrows stand on the side of the figure.
  const dx = x + (placing?.anchor === "end" ? -34 : 34);
  const gap = Math.abs(zone - top);
  const upper = Math.min(zone, top);
  const lower = Math.max(zone, top);
  return (
    <g aria-hidden="true">
      {!sideways && (
        <g stroke={colour} strokeWidth="0.9">
          <path d={`M${x} ${top}H${dx}M${x} ${zone}H${dx}`} />
          {gap < 30 ? (
            <g strokeWidth="1.6" fill={colour}>
              <path d={`M${dx} ${upper - 26}V${upper}`} />
              <path d={`M${dx} ${lower}V${lower + 26}`} />
              <path d={`M${dx} ${upper}l-4.5 -11h9Z`} stroke="none" />
              <path d={`M${dx} ${lower}l-4.5 11h9Z`} stroke="none" />
            </g>
          ) : (
            <g strokeWidth="1.6">
              <path d={`M${dx} ${upper}V${lower}M${dx - 4.5} ${upper + 4.5}l9 -9M${dx - 4.5} ${lower + 4.5}l9 -9`} />
            </g>
          )}
        </g>
      )}
      {sideways && <circle cx={x} cy={scale.y(rayZM(ray, inside))} r="7" fill="none" stroke={colour} strokeWidth="2" />}
      {placing !== null && (
        <text
          x={placing.x}
          y={placing.y}
          fontSize={placing.size}
          fontWeight="750"
          letterSpacing="-0.5"
          textAnchor={placing.anchor}
          className="halo"
          data-caption="worst"
          style={{ fill: words }}
        >
          {told.big}
        </text>
      )}
      {placing?.withWords === true &&
        told.lines.map((line, i) => (
          <text
            key={line}
            x={placing.sentenceX}
            y={placing.y - 16 * (told.lines.length - 1 - i)}
            fontSize={i === 0 && told.spread ? TYPE.tick : TYPE.line}
            textAnchor={placing.anchor}
            className="halo"
            data-caption="worst"
            style={i === 0 && told.spread ? { fill: "var(--ink-2)" } : undefined}
          >
            {line}
          </text>
        ))}
    </g>
  );
};

/** The part of the worst obstacle that stands in the zone, solid. */
export const Wedge = ({
  worst,
  ray,
  scale,
  share,
}: {
  worst: NonNullable<LinkResult["clearance"]["worst"]>;
  ray: Ray;
  scale: SectionScale;
  share: number;
}) => {
  const x = scale.x(worst.atM);
  const top = scale.y(worst.zAmslM + rayBulgeM(ray, worst.atM));
  const foot = scale.y(rayZM(ray, worst.atM) - share * f1RadiusM(ray, worst.atM));
  return <path d={`M${x} ${top}l6 ${foot - top}h-12Z`} fill="var(--short)" aria-hidden="true" />;
};
