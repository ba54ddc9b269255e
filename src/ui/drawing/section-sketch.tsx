import { area, line } from "d3";
import type { SectionSketch } from "@/contract";

const PAD = 4;

/** A path from the side, small: ground, what stands on it, the ray and its first zone. */
export const Sketch = ({
  sketch: s,
  name,
  width,
  height,
  short,
}: {
  sketch: SectionSketch;
  name: string;
  width: number;
  height: number;
  short: boolean;
}) => {
  const lift = (x: number): number => (x * (s.pathM - x)) / (2 * s.effectiveRadiusM);
  const points = s.distanceM.map((x, i) => ({ x, ground: s.groundAmslM[i] ?? null, top: s.topAmslM[i] ?? null }));
  const heights = points.flatMap((p) => (p.top === null ? [] : [p.top + lift(p.x)]));
  const low = Math.min(s.nearAmslM, s.farAmslM, ...points.flatMap((p) => (p.ground === null ? [] : [p.ground + lift(p.x)])));
  const high = Math.max(s.nearAmslM, s.farAmslM, ...heights) + 1;
  const px = (x: number): number => PAD + (x / s.pathM) * (width - 2 * PAD);
  const py = (z: number): number => height - PAD - ((z - low) / (high - low || 1)) * (height - 2 * PAD);
  const fill = (key: "ground" | "top"): string =>
    area<(typeof points)[number]>()
      .x((p) => px(p.x))
      .y0(height)
      .y1((p) => py((p[key] ?? 0) + lift(p.x)))
      .defined((p) => p[key] !== null)(points) ?? "";
  const zone = Array.from({ length: 31 }, (_, i) => {
    const x = (s.pathM * i) / 30;
    const z = s.nearAmslM + ((s.farAmslM - s.nearAmslM) * i) / 30;
    return { x, z, f1: Math.sqrt((s.wavelengthM * x * (s.pathM - x)) / s.pathM) };
  });
  return (
    <svg width={width} height={height} role="img" aria-label={name} className="border border-rule">
      <path
        d={
          area<(typeof zone)[number]>()
            .x((p) => px(p.x))
            .y0((p) => py(p.z - p.f1))
            .y1((p) => py(p.z + p.f1))(zone) ?? ""
        }
        fill="var(--zone)"
      />
      <path d={fill("top")} fill="var(--block-line)" fillOpacity="0.55" />
      <path d={fill("ground")} fill="var(--ground-fill)" />
      <path
        d={
          line<(typeof points)[number]>()
            .x((p) => px(p.x))
            .y((p) => py((p.ground ?? 0) + lift(p.x)))
            .defined((p) => p.ground !== null)(points) ?? ""
        }
        fill="none"
        stroke="var(--ground-line)"
        strokeWidth="1.2"
      />
      <path
        d={`M${px(0)} ${py(s.nearAmslM)}L${px(s.pathM)} ${py(s.farAmslM)}`}
        stroke={short ? "var(--short)" : "var(--ink)"}
        strokeWidth="1.2"
      />
    </svg>
  );
};
