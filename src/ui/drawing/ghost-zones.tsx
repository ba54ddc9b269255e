import type { Ray } from "@/core/obstacles";
import { alongRay } from "./along-ray";
import type { SpotPlacing } from "./section-captions";
import type { SectionScale } from "./section-scale";
import { TYPE } from "./type";

/** The first zone on the channel of another design, between the same mounts. */
export interface GhostZone {
  readonly name: string;
  readonly ray: Ray;
}

/** Zones of wavelengths this near are one line on the drawing. */
const SAME_WITHIN = 0.2;

/** Zones that differ from the one that is drawn, those of one band as one with all their names. */
export const zonesBeside = (ray: Ray, others: readonly { readonly name: string; readonly wavelengthM: number }[]): GhostZone[] => {
  const isSame = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_WITHIN * Math.max(a, b);
  const out: { names: string[]; wavelengthM: number }[] = [];
  for (const { name, wavelengthM } of others) {
    if (isSame(wavelengthM, ray.wavelengthM)) continue;
    const same = out.find((z) => isSame(z.wavelengthM, wavelengthM));
    if (same === undefined) out.push({ names: [name], wavelengthM });
    else if (!same.names.includes(name)) same.names.push(name);
  }
  return out.map((z) => ({ name: z.names.join("; "), ray: { ...ray, wavelengthM: z.wavelengthM } }));
};

/** How far each of them must be kept clear, in dashes, with the names of what would use it. */
export const GhostZones = ({
  zones,
  share,
  scale,
  captions,
}: {
  zones: readonly GhostZone[];
  share: number;
  scale: SectionScale;
  captions: readonly (SpotPlacing & { readonly text: string })[];
}) => (
  <g aria-hidden="true">
    {zones.map((z) => (
      <path
        key={z.name}
        d={`M${alongRay(z.ray, scale, -share)
          .map(([x, y]) => `${x} ${y}`)
          .join("L")}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.3"
        strokeDasharray="2 4"
        data-testid="ghost-zone"
      />
    ))}
    {captions.map((c) => (
      <text key={c.text} x={c.x} y={c.y} fontSize={TYPE.tick} textAnchor={c.anchor} className="halo" data-caption="ghost-zone">
        {c.text}
      </text>
    ))}
  </g>
);
