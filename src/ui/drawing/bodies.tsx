import { memo } from "react";
import type { LinkPlan, PreparedBody } from "@/core/link";
import { isSolid } from "@/core/obstacles";
import type { SectionScale } from "./section-scale";

const LEAST_WIDTH_PX = 5;

/** All that the bodies' drawing depends on; none of it moves with a dragged mast. */
interface Props {
  readonly bodies: readonly PreparedBody[];
  readonly year: number;
  readonly horizonYears: number;
  readonly trims: LinkPlan["trims"];
  readonly pathM: number;
  readonly effectiveRadiusM: number;
  readonly scale: SectionScale;
  readonly groundAt: (xM: number) => number;
  readonly worstId: string | null;
  readonly hatch: string;
}

const bulgeAt = ({ pathM, effectiveRadiusM }: Pick<Props, "pathM" | "effectiveRadiusM">, xM: number): number =>
  (xM * (pathM - xM)) / (2 * effectiveRadiusM);

/** Solid bodies as outlined blocks, cut where the path crosses them. */
export const Blocks = memo((props: Props) => {
  const { bodies, year, pathM, scale, groundAt, hatch } = props;
  return (
    <g>
      {bodies
        .filter((b) => !b.vegetation)
        .flatMap((b) => {
          const top = b.topAt(year);
          return b.stretches.map((s) => {
            const from = Math.max(s.fromM, -0.06 * pathM);
            const to = Math.min(s.toM, 1.06 * pathM);
            if (to <= from) return null;
            const mid = (from + to) / 2;
            const w = Math.max(LEAST_WIDTH_PX, scale.x(to) - scale.x(from));
            const x = (scale.x(from) + scale.x(to) - w) / 2;
            const clamp = Math.min(pathM, Math.max(0, mid));
            const ground = groundAt(clamp);
            // A span hangs: its block ends where the free air beneath begins.
            const foot = scale.y((!Number.isNaN(ground) ? ground : b.body.baseAmslM) + (b.body.freeBelowM ?? 0) + bulgeAt(props, clamp));
            const solid = isSolid(b.body.kind);
            const head = scale.y(top(clamp) + bulgeAt(props, clamp));
            return (
              <rect
                key={`${b.body.id}-${s.fromM}`}
                x={x}
                y={head}
                width={w}
                height={Math.max(1, foot - head)}
                fill={solid ? `url(#${hatch}-block)` : "none"}
                stroke="var(--block-line)"
                strokeWidth="1.4"
                {...(solid ? {} : { strokeDasharray: "7 3" })}
              >
                <title>{b.body.name}</title>
              </rect>
            );
          });
        })}
    </g>
  );
});
Blocks.displayName = "Blocks";

/** Crowns with the next years' growth dotted above them. */
export const Crowns = memo((props: Props) => {
  const { bodies, year, horizonYears, trims, pathM, scale, groundAt, worstId } = props;
  return (
    <g>
      {bodies
        .filter((b) => b.vegetation && b.stretches.length > 0 && trims[b.body.id] !== 0)
        .flatMap((b) =>
          b.stretches.map((s) => {
            const from = Math.max(0, s.fromM);
            const to = Math.min(pathM, s.toM);
            if (to <= from) return null;
            const mid = (from + to) / 2;
            const bulge = bulgeAt(props, mid);
            const g = groundAt(mid);
            const ground = !Number.isNaN(g) ? g : b.body.baseAmslM;
            const yTop = (inYear: number): number => scale.y(b.topAt(inYear)(mid) + bulge);
            const top = yTop(year);
            const foot = scale.y(ground + bulge);
            const crownFoot = scale.y(ground + Math.min(b.body.crownBaseM, b.topAt(year)(mid) - ground) + bulge);
            const trueW = scale.x(to) - scale.x(from);
            const cx = (scale.x(from) + scale.x(to)) / 2;
            const w = Math.max(b.body.kind === "hedge" ? 4 : 13, trueW);
            const worst = b.body.id === worstId;
            const years =
              worst && b.body.growthMPerYear > 0 ? [...new Set([1, Math.ceil(horizonYears / 2), horizonYears])].filter((n) => n > 0) : [];
            const outline =
              b.body.kind === "wood" || trueW > 60 ? scallops(cx - w / 2, cx + w / 2, top, crownFoot) : crown(cx, w / 2, top, crownFoot);
            return (
              <g key={`${b.body.id}-${s.fromM}`}>
                <title>{b.body.name}</title>
                <path d={`M${cx} ${crownFoot}V${foot}`} stroke="var(--tree-line)" strokeWidth={Math.min(3, w / 5)} />
                <path d={outline} fill="var(--tree-fill)" stroke="var(--tree-line)" strokeWidth="1.4" />
                {years.map((n) => {
                  const y = yTop(year + n);
                  return (
                    <g key={n}>
                      <path
                        d={arch(cx, w / 2, y, Math.max(6, (crownFoot - y) * 0.5))}
                        fill="none"
                        stroke="var(--tree-line)"
                        strokeWidth="1.3"
                        strokeDasharray="1.6 2.6"
                      />
                    </g>
                  );
                })}
              </g>
            );
          }),
        )}
    </g>
  );
});
Crowns.displayName = "Crowns";

/** A crown: broad above, drawn in below, so that an exaggerated one still reads as a tree. */
const crown = (cx: number, r: number, top: number, foot: number): string => {
  const h = foot - top;
  const shoulder = top + Math.min(r * 1.1, h * 0.45);
  return `M${cx} ${top}C${cx + r * 0.7} ${top} ${cx + r} ${top + (shoulder - top) * 0.5} ${cx + r} ${shoulder}V${foot - Math.min(r, h * 0.3)}Q${cx + r} ${foot} ${cx} ${foot}Q${cx - r} ${foot} ${cx - r} ${foot - Math.min(r, h * 0.3)}V${shoulder}C${cx - r} ${top + (shoulder - top) * 0.5} ${cx - r * 0.7} ${top} ${cx} ${top}Z`;
};

const arch = (cx: number, r: number, top: number, drop: number): string =>
  `M${cx - r} ${top + drop}C${cx - r} ${top + drop * 0.2} ${cx - r * 0.6} ${top} ${cx} ${top}S${cx + r} ${top + drop * 0.2} ${cx + r} ${top + drop}`;

const scallops = (x0: number, x1: number, top: number, foot: number): string => {
  const n = Math.max(2, Math.round((x1 - x0) / 16));
  const step = (x1 - x0) / n;
  let d = `M${x0} ${foot}V${top + 5}`;
  for (let i = 0; i < n; i++) d += `q${step / 2} -10 ${step} 0`;
  return `${d}V${foot}Z`;
};
