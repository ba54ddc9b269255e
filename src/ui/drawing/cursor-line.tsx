"use client";
import { type StoreApi, useStore } from "zustand";
import type { LinkPlan, PreparedPath } from "@/core/link";
import { type Ray, rayBulgeM } from "@/core/obstacles";
import { type Reading, readAt } from "@/core/solve";
import type { Units } from "../wording/numbers";
import { readingText } from "../wording/reading";
import type { SectionScale } from "./section-scale";

/** Where the drawing is read, distance along the path; null while it is not. */
export type CursorStore = StoreApi<{ readonly atM: number | null }>;

const Ticks = ({ reading, ray, scale }: { reading: Reading; ray: Ray; scale: SectionScale }) => {
  const x = scale.x(reading.atM);
  const bulgeM = rayBulgeM(ray, reading.atM);
  const tick = (amslM: number): string => `M${x - 6} ${scale.y(amslM + bulgeM)}h12`;
  return (
    <path
      d={`${tick(reading.rayAmslM)}${reading.groundAmslM === null ? "" : tick(reading.groundAmslM)}${reading.top === null ? "" : tick(reading.top.amslM)}`}
      stroke="var(--ink)"
      strokeWidth="1.6"
    />
  );
};

/** A hairline where the drawing is read, with ticks on ground, top and ray, and what stands there in words. */
export const CursorLayer = ({
  store,
  plan,
  path,
  ray,
  scale,
  year,
  units,
}: {
  store: CursorStore;
  plan: LinkPlan;
  path: PreparedPath;
  ray: Ray;
  scale: SectionScale;
  year: number;
  units: Units;
}) => {
  const atM = useStore(store, (s) => s.atM);
  const reading = atM === null ? null : readAt(plan, path, ray, atM, year);
  return (
    <>
      {reading !== null && (
        <svg aria-hidden="true" className="pointer-events-none absolute inset-0" width={scale.width} height={scale.height}>
          <path d={`M${scale.x(reading.atM)} 0V${scale.height}`} stroke="var(--ink)" strokeWidth="0.8" strokeDasharray="2 3" />
          <Ticks reading={reading} ray={ray} scale={scale} />
        </svg>
      )}
      <p
        aria-live="polite"
        data-testid="reading"
        className={
          reading === null
            ? "sr-only"
            : "pointer-events-none absolute inset-x-[246px] top-0 m-0 bg-paper px-2 text-center text-note leading-[16px]"
        }
      >
        {reading === null ? "" : readingText(reading, units)}
      </p>
    </>
  );
};

/** The same hairline carried down over another drawing on the same axis. */
export const CursorDown = ({ store, scale, height }: { store: CursorStore; scale: SectionScale; height: number }) => {
  const atM = useStore(store, (s) => s.atM);
  if (atM === null) return null;
  return (
    <svg aria-hidden="true" className="pointer-events-none absolute inset-0" width={scale.width} height={height}>
      <path d={`M${scale.x(atM)} 0V${height}`} stroke="var(--ink)" strokeWidth="0.8" strokeDasharray="2 3" />
    </svg>
  );
};
