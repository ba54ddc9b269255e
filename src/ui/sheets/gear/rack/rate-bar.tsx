import { rateText } from "../../../wording/gear";
import { onAxis, type RateAxis } from "./axis";

/** Length of the axis and height of a row's bar, px. */
export const BAR_HEIGHT = 14;

const zigzag = (x: number, y: number): string => `M${x - 9} ${y + 4}l5 -6l-4 -3l5 -6M${x - 4} ${y + 4}l5 -6l-4 -3l5 -6`;

/** A rate as a bar against the need: tone as far as it is asked, plain beyond, dashed to what nine in ten do not reach, hatched where it lacks. */
export const RateBar = ({
  axis,
  px,
  needMbps,
  keptMbps,
  mostMbps,
  y,
  hatch,
}: {
  axis: RateAxis;
  px: number;
  needMbps: number;
  /** Kept in nine cases of ten. */
  keptMbps: number;
  /** Kept in one of ten. */
  mostMbps: number | null;
  y: number;
  /** Id of the hatch for what is missing. */
  hatch: string;
}) => {
  const kept = onAxis(axis, keptMbps, px);
  const need = onAxis(axis, needMbps, px);
  const most = mostMbps === null ? null : onAxis(axis, mostMbps, px);
  const carried = Math.min(kept.x, need.x);
  return (
    <g>
      {keptMbps < needMbps && (
        <rect x={kept.x} y={y} width={Math.max(0, need.x - kept.x)} height={BAR_HEIGHT} fill={`url(#${hatch})`} stroke="var(--short)" />
      )}
      {most !== null && most.x > kept.x + 1 && (
        <rect x={kept.x} y={y} width={most.x - kept.x} height={BAR_HEIGHT} fill="none" stroke="var(--ink)" strokeDasharray="5 3" />
      )}
      {kept.x > 0.5 && (
        <>
          <rect x={0} y={y} width={carried} height={BAR_HEIGHT} fill="var(--zone)" />
          <rect x={0} y={y} width={kept.x} height={BAR_HEIGHT} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
        </>
      )}
      {kept.broken && (
        <g>
          <path d={zigzag(px - 14, y + BAR_HEIGHT)} fill="none" stroke="var(--paper)" strokeWidth={5} />
          <path d={zigzag(px - 14, y + BAR_HEIGHT)} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
          <text x={px + 4} y={y + 11} fontSize={12}>
            {rateText(keptMbps)}
          </text>
        </g>
      )}
    </g>
  );
};
