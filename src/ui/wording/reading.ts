import type { LinkPlan, LinkResult, PreparedPath } from "@/core/link";
import type { Reading } from "@/core/solve";
import { alongText, distanceText, figure, lengthText, type Units } from "./numbers";

/** What the drawing says at one place, in a line. */
export const readingText = (r: Reading, units: Units): string => {
  const ground = r.groundAmslM === null ? "ground unknown" : `ground ${lengthText(units, r.groundAmslM)}`;
  const top = r.top === null ? "" : `, ${r.top.name} to ${lengthText(units, r.top.amslM)}`;
  const free =
    r.clearM === null
      ? ""
      : `; ${r.clearM < 0 ? `${lengthText(units, -r.clearM)} inside` : `${lengthText(units, r.clearM)} free`}${r.share === null ? "" : `, ${figure(r.share, 2)} of F1 ${lengthText(units, r.f1M)}`}`;
  const beside =
    r.beside === null
      ? ""
      : `; ${r.beside.name} ${lengthText(units, Math.abs(r.beside.acrossM))} to the ${r.beside.acrossM < 0 ? "left" : "right"}`;
  return `${alongText(units, r.atM)}: ${ground}${top}, ray ${lengthText(units, r.rayAmslM)}${free}${beside}`;
};

/** The drawing in a few sentences, for who cannot see it. */
export const summaryText = (
  e: { readonly plan: LinkPlan; readonly path: PreparedPath; readonly result: LinkResult },
  units: Units,
): string => {
  const { near, far } = e.plan;
  const { clearance: c, geometry: g } = e.result;
  const w = c.worst;
  const where =
    w === null
      ? "Nothing comes near the ray."
      : `${w.ownerName ?? (w.owner.kind === "ground" ? "The ground" : "An obstacle")} comes nearest, ${alongText(units, w.atM)} from ${near.name}, ${
          w.side === "left" || w.side === "right" ? `on the ${w.side}, ` : ""
        }with ${figure(w.share, 2)} of F1: ${w.missM > 0.0005 ? `${lengthText(units, w.missM)} short of` : `${lengthText(units, -w.missM)} more than`} the ${
          c.policyShare === 0 ? "bare line" : `${figure(c.policyShare * 100)} %`
        } asked for.`;
  return `${distanceText(units, g.pathM)} from ${near.name} (${lengthText(units, g.nearAmslM)} AMSL) to ${far.name} (${lengthText(units, g.farAmslM)} AMSL). ${where} ${e.path.near.length} things stand within reach of the ray.`;
};
