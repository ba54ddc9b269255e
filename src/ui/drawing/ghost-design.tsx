import type { LinkPlan, PreparedPath } from "@/core/link";
import { type Ray, rayBulgeM, rayZM } from "@/core/obstacles";
import type { SpotPlacing } from "./section-captions";
import type { Ghost } from "./section-props";
import type { SectionScale } from "./section-scale";
import { TYPE } from "./type";

const SAME_WITHIN_M = 0.005;

const cutsOf = (ghost: Ghost, path: PreparedPath, plan: LinkPlan, ray: Ray, scale: SectionScale) =>
  path.bodies.flatMap((b) => {
    const [stretch] = b.stretches;
    const theirs = ghost.path.bodies.find((g) => g.body.id === b.body.id);
    if (!b.vegetation || stretch === undefined || theirs === undefined) return [];
    const atM = Math.min(ray.pathM, Math.max(0, (stretch.fromM + stretch.toM) / 2));
    const top = theirs.topAt(plan.policy.year)(atM);
    if (Math.abs(top - b.topAt(plan.policy.year)(atM)) < SAME_WITHIN_M) return [];
    return [{ id: b.body.id, x: scale.x(atM), y: scale.y(top + rayBulgeM(ray, atM)) }];
  });

const isMoved = (other: Ray, ray: Ray): boolean =>
  Math.abs(other.startZM - ray.startZM) > SAME_WITHIN_M || Math.abs(other.endZM - ray.endZM) > SAME_WITHIN_M;

/** The name of a ghost and the spot it belongs to; null when nothing of it is drawn. */
export const ghostName = (
  ghost: Ghost,
  path: PreparedPath,
  plan: LinkPlan,
  ray: Ray,
  scale: SectionScale,
): { readonly text: string; readonly x: number; readonly y: number } | null => {
  const [cut] = cutsOf(ghost, path, plan, ray, scale);
  const { ray: other, name: text } = ghost;
  if (!isMoved(other, ray)) return cut === undefined ? null : { text, x: cut.x + 14, y: cut.y };
  const mid = other.startM + (other.endM - other.startM) * 0.47;
  return { text, x: scale.x(mid), y: scale.y(rayZM(other, mid)) };
};

/** Another design of the same link, laid over the drawing in dashes: its ray, its mounts, its cuts. */
export const GhostDesign = ({
  ghost,
  path,
  plan,
  ray,
  scale,
  caption,
}: {
  ghost: Ghost;
  path: PreparedPath;
  plan: LinkPlan;
  ray: Ray;
  scale: SectionScale;
  caption: (SpotPlacing & { readonly text: string }) | null;
}) => {
  const { ray: other } = ghost;
  const [x0, y0] = [scale.x(other.startM), scale.y(other.startZM)];
  const [x1, y1] = [scale.x(other.endM), scale.y(other.endZM)];
  const moved = isMoved(other, ray);
  const cuts = cutsOf(ghost, path, plan, ray, scale);
  if (!moved && cuts.length === 0) return null;
  return (
    <g aria-hidden="true" data-testid="ghost">
      {moved && (
        <>
          <path d={`M${x0} ${y0}L${x1} ${y1}`} stroke="var(--ink)" strokeWidth="1.4" strokeDasharray="6 4" />
          <circle cx={x0} cy={y0} r="4" fill="none" stroke="var(--near)" strokeWidth="1.6" strokeDasharray="2 2" />
          <circle cx={x1} cy={y1} r="4" fill="none" stroke="var(--far)" strokeWidth="1.6" strokeDasharray="2 2" />
        </>
      )}
      {cuts.map((c) => (
        <path key={c.id} d={`M${c.x - 16} ${c.y}h32`} stroke="var(--ink)" strokeWidth="2" strokeDasharray="6 4" />
      ))}
      {caption !== null && (
        <text x={caption.x} y={caption.y} fontSize={TYPE.tick} textAnchor={caption.anchor} className="halo" data-caption="ghost">
          {caption.text}
        </text>
      )}
    </g>
  );
};
