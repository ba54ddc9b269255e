import type { LinkResult } from "@/core/link";
import { f1RadiusM, type Ray, rayBulgeM, rayZM } from "@/core/obstacles";
import { cutMiddle } from "../wording/names";
import { alongText, lengthText, type Units } from "../wording/numbers";
import type { SectionScale } from "./section-scale";

/** Reach of a mast's height figure inwards from its mast. */
const MAST_FIGURE_PX = 92;

/** A letter of the sentence, on average. */
const CHARACTER_PX = 6.5;

/** Width of the large figure, 46 px and heavy: digits, point, space, unit. */
const widthOfBig = (text: string): number =>
  [...text].reduce((sum, c) => sum + (c === "m" ? 41 : c === "." ? 12 : /\d/.test(c) ? 28 : 15), 0);

/** A normal error lies within this many sigmas in 8 cases of 10. */
const EIGHT_OF_TEN = 1.2816;

const sideText = (units: Units, missM: number): string =>
  missM > 0 ? `${lengthText(units, missM)} short` : `${lengthText(units, -missM)} spare`;
const spreadText = (units: Units, missM: number, sigmaM: number): string => {
  const [good, bad] = [missM - EIGHT_OF_TEN * sigmaM, missM + EIGHT_OF_TEN * sigmaM];
  return good > 0 === bad > 0
    ? `${lengthText(units, Math.min(Math.abs(good), Math.abs(bad)))} to ${lengthText(units, Math.max(Math.abs(good), Math.abs(bad)))}`
    : `${sideText(units, bad)} to ${sideText(units, good)}`;
};

/** The worst place, dimensioned: how much it lacks or spares, of what, where. */
export const WorstPlaceMark = ({
  result,
  ray,
  scale,
  units,
  nearName,
  groundAmslM,
}: {
  result: LinkResult;
  ray: Ray;
  scale: SectionScale;
  units: Units;
  nearName: string;
  groundAmslM: number;
}) => {
  const { worst, policyShare, verdict, sigmaM } = result.clearance;
  if (worst === null) return null;
  const short = worst.missM > 0.0005;
  const colour = short ? "var(--short)" : "var(--ink)";
  const words = short ? "var(--short-figure)" : verdict === "tight" ? "var(--tight)" : "var(--ink)";
  const x = Math.min(scale.width - 12, Math.max(12, scale.x(worst.atM)));
  const inside = Math.min(ray.endM, Math.max(ray.startM, worst.atM));
  // Beneath a span the zone's upper edge is what counts.
  const way = worst.side === "under" ? 1 : -1;
  const zone = scale.y(rayZM(ray, inside) + way * policyShare * f1RadiusM(ray, inside));
  const lens = scale.y(rayZM(ray, inside) - f1RadiusM(ray, inside));
  const top = scale.y(worst.zAmslM + rayBulgeM(ray, inside));
  const sideways = worst.side === "left" || worst.side === "right";
  const big = lengthText(units, Math.abs(worst.missM), Math.abs(worst.missM) >= 20 ? 0 : 1);
  const what = `${short ? (sideways ? `too near on the ${worst.side}` : policyShare > 0 ? "into the zone" : "into the line of sight") : "to spare"}${
    worst.ownerName === null ? (worst.owner.kind === "ground" ? ", ground" : "") : `, ${cutMiddle(worst.ownerName, 26)}`
  }`;
  const where = `${alongText(units, worst.atM)} from ${cutMiddle(nearName, 22)}`;
  // On the side with room for figure and sentence, clear of the masts' own figures.
  const wantedPx = 58 + widthOfBig(big) + Math.max(what.length, where.length, 27) * CHARACTER_PX;
  const roomRight = Math.min(scale.width, scale.x(ray.endM)) - MAST_FIGURE_PX - x;
  const roomLeft = x - Math.max(0, scale.x(ray.startM)) - MAST_FIGURE_PX;
  const toLeft = roomRight < wantedPx && roomLeft > roomRight;
  const dx = toLeft ? x - 34 : x + 34;
  // Clear of the figures on both masts' dimension lines.
  const textX = toLeft ? Math.min(dx - 12, scale.x(ray.endM) - MAST_FIGURE_PX) : Math.max(dx + 12, scale.x(ray.startM) + MAST_FIGURE_PX);
  const anchor = toLeft ? "end" : "start";
  // The sentence stands beyond the figure.
  const sentenceX = textX + (toLeft ? -1 : 1) * (widthOfBig(big) + 12);
  // Below the lens where the ground leaves room, else in the sky above it.
  const groundY = scale.y((short ? worst.zAmslM : groundAmslM) + rayBulgeM(ray, inside));
  const below = Math.max(lens, zone, short ? 0 : top) + 50;
  const skyY = scale.y(rayZM(ray, inside) + f1RadiusM(ray, inside)) - 16;
  const y = below <= Math.max(groundY, scale.y(groundAmslM)) + 2 || skyY < 96 ? Math.min(scale.height - 8, below) : skyY;
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
      <text
        x={textX}
        y={y}
        fontSize="46"
        fontWeight="750"
        letterSpacing="-0.5"
        textAnchor={anchor}
        className="halo"
        style={{ fill: words }}
      >
        {big}
      </text>
      <text x={sentenceX} y={y - 16} fontSize="13" textAnchor={anchor} className="halo">
        {what}
      </text>
      <text x={sentenceX} y={y} fontSize="13" textAnchor={anchor} className="halo">
        {where}
      </text>
      {sigmaM !== null && sigmaM > 0.05 && (
        <text x={sentenceX} y={y - 32} fontSize="12" textAnchor={anchor} className="halo" style={{ fill: "var(--ink-2)" }}>
          {spreadText(units, worst.missM, sigmaM)} in 8 cases of 10
        </text>
      )}
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
