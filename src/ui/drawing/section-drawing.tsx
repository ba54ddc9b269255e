"use client";
import { area, line } from "d3";
import { memo, useId, useMemo } from "react";
import { antennaNameOf, type LinkPlan, type LinkResult, MET_WITHIN_M, type PreparedPath } from "@/core/link";
import { f1RadiusM, type Ray, rayZM } from "@/core/obstacles";
import { cutMiddle } from "../wording/names";
import { angleText } from "../wording/numbers";
import { Blocks, Crowns } from "./bodies";
import { GhostDesign } from "./ghost-design";
import { GhostZones } from "./ghost-zones";
import { Hatches } from "./hatches";
import { Mast } from "./mast";
import { sectionCaptions } from "./section-captions";
import type { SectionProps } from "./section-props";
import type { SectionScale } from "./section-scale";
import { heightTicks } from "./ticks";
import { TideLines, tideCaption } from "./tide-lines";
import { TYPE } from "./type";
import { Wedge, WorstPlaceMark } from "./worst-place";

const HATCH_BAND_PX = 11;
const LENS_STEPS = 80;

/** Ground, water at level zero, and the earth's hatch: drawn anew only when the scale changes. */
const Ground = memo(
  ({ path, effectiveRadiusM, scale, hatch }: { path: PreparedPath; effectiveRadiusM: number; scale: SectionScale; hatch: string }) => {
    const { distanceM, groundAmslM, pathM } = path.profile;
    const points = useMemo(() => {
      const bulgeOf = (xM: number): number => (xM * (pathM - xM)) / (2 * effectiveRadiusM);
      const out: { x: number; y: number; water: boolean; known: boolean }[] = [];
      const add = (xM: number, g: number): void => {
        const known = !Number.isNaN(g);
        out.push({
          x: scale.x(xM),
          y: scale.y((known ? g : scale.lowestM) + bulgeOf(Math.min(pathM, Math.max(0, xM)))),
          water: known && Math.abs(g) < 0.005,
          known,
        });
      };
      add(-pathM, groundAmslM[0]!);
      distanceM.forEach((x, i) => {
        add(x, groundAmslM[i]!);
      });
      add(2 * pathM, groundAmslM[groundAmslM.length - 1]!);
      return out;
    }, [distanceM, groundAmslM, pathM, effectiveRadiusM, scale]);
    type P = (typeof points)[number];
    const bottom = scale.height;
    const fill =
      area<P>()
        .x((p) => p.x)
        .y0(bottom)
        .y1((p) => p.y)(points) ?? "";
    const band =
      area<P>()
        .x((p) => p.x)
        .y0((p) => p.y + HATCH_BAND_PX)
        .y1((p) => p.y)
        .defined((p) => !p.water && p.known)(points) ?? "";
    const water =
      area<P>()
        .x((p) => p.x)
        .y0(bottom)
        .y1((p) => p.y)
        .defined((p) => p.water)(points) ?? "";
    const top =
      line<P>()
        .x((p) => p.x)
        .y((p) => p.y)
        .defined((p) => p.known && !p.water)(points) ?? "";
    const sea =
      line<P>()
        .x((p) => p.x)
        .y((p) => p.y)
        .defined((p) => p.water)(points) ?? "";
    const unknown =
      line<P>()
        .x((p) => p.x)
        .y((p) => p.y)
        .defined((p) => !p.known)(points) ?? "";
    return (
      <g>
        <path d={fill} fill="var(--ground-fill)" />
        <path d={band} fill={`url(#${hatch}-earth)`} />
        <path d={water} fill={`url(#${hatch}-water)`} />
        <path d={top} fill="none" stroke="var(--ground-line)" strokeWidth="1.8" strokeLinejoin="round" data-line="ground" />
        <path d={sea} fill="none" stroke="var(--water-line)" strokeWidth="1.4" data-line="water" />
        <path d={unknown} fill="none" stroke="var(--unknown)" strokeWidth="1.4" strokeDasharray="6 4" />
      </g>
    );
  },
);
Ground.displayName = "Ground";

const Lens = ({ ray, scale, share }: { ray: Ray; scale: SectionScale; share: number }) => {
  const steps = Array.from({ length: LENS_STEPS + 1 }, (_, s) => {
    // Points crowd toward the ends, where the lens is round.
    const t = (1 - Math.cos((Math.PI * s) / LENS_STEPS)) / 2;
    const x = ray.startM + (ray.endM - ray.startM) * t;
    return { x, z: rayZM(ray, x), f1: f1RadiusM(ray, x) };
  });
  const shape = (k: number): string =>
    area<(typeof steps)[number]>()
      .x((p) => scale.x(p.x))
      .y0((p) => scale.y(p.z - k * p.f1))
      .y1((p) => scale.y(p.z + k * p.f1))(steps) ?? "";
  const lower =
    line<(typeof steps)[number]>()
      .x((p) => scale.x(p.x))
      .y((p) => scale.y(p.z - share * p.f1))(steps) ?? "";
  return (
    <g>
      <path d={shape(1)} fill="var(--lens)" stroke="var(--hair)" strokeWidth="0.9" fillOpacity="0.85" data-line="lens" />
      {share > 0 && <path d={shape(share)} fill="var(--zone)" fillOpacity="0.85" />}
      {share > 0 && <path d={lower} fill="none" stroke="var(--ink)" strokeWidth="1" strokeDasharray="7 3" data-line="zone" />}
      <path
        d={`M${scale.x(ray.startM)} ${scale.y(ray.startZM)}L${scale.x(ray.endM)} ${scale.y(ray.endZM)}`}
        stroke="var(--ink)"
        strokeWidth="1.25"
        data-line="ray"
      />
    </g>
  );
};

const EndName = ({
  end,
  plan,
  result,
  scale,
  ray,
}: {
  end: "near" | "far";
  plan: LinkPlan;
  result: LinkResult;
  scale: SectionScale;
  ray: Ray;
}) => {
  const own = end === "near" ? plan.near : plan.far;
  const x = scale.x(end === "near" ? ray.startM : ray.endM) + (end === "near" ? 20 : -20);
  const tilt = end === "near" ? result.geometry.nearTiltDeg : result.geometry.farTiltDeg;
  const anchor = end === "near" ? "start" : "end";
  return (
    <g textAnchor={anchor} aria-hidden="true">
      <text x={x} y="22" fontSize={TYPE.press} fontWeight="700" className="halo" style={{ fill: `var(--${end})` }}>
        {cutMiddle(own.name, scale.x(ray.endM) - scale.x(ray.startM) > LEAST_FOR_GEAR_PX ? 26 : 14)}
      </text>
      {/* Side by side on a phone both would not fit. */}
      {scale.x(ray.endM) - scale.x(ray.startM) > LEAST_FOR_GEAR_PX && (
        <text x={x} y="38" fontSize={TYPE.note} className="halo" style={{ fill: "var(--ink-2)" }}>
          {cutMiddle(antennaNameOf(own), 24)}, tilt {angleText(tilt)}
        </text>
      )}
    </g>
  );
};

const LEAST_FOR_GEAR_PX = 420;

/** The path from the side. Data in, picture out: it computes no physics. */
export const SectionDrawing = (props: SectionProps) => {
  const { path, plan, result, ray, scale, units } = props;
  const hatch = useId();
  const share = result.clearance.policyShare;
  const { worst } = result.clearance;
  const worstId = worst?.owner.kind === "body" ? worst.owner.id : null;
  const common = {
    bodies: path.bodies,
    year: plan.policy.year,
    horizonYears: plan.policy.horizonYears,
    trims: plan.trims,
    pathM: ray.pathM,
    effectiveRadiusM: ray.effectiveRadiusM,
    scale,
    groundAt: path.groundAt,
    worstId,
    hatch,
  };
  const captions = sectionCaptions(props);
  const tide = tideCaption(path, ray, scale, plan.water.tideRangeM, units);
  const grid = heightTicks(scale.lowestM, scale.highestM, units, Math.max(2, Math.min(6, Math.round(scale.height / 70))));
  return (
    // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no fieldset.
    <svg
      width={scale.width}
      height={scale.height}
      role="group"
      data-drawing="section"
      aria-label={`Section from ${plan.near.name} to ${plan.far.name}`}
      style={{ display: "block" }}
    >
      <Hatches id={hatch} />
      <g aria-hidden="true">
        {grid.map((t) => (
          <g key={t.text}>
            <path d={`M34 ${scale.y(t.atM)}H${scale.width}`} stroke="var(--grid)" strokeWidth="0.75" />
            <text x="30" y={scale.y(t.atM) + 4} fontSize={TYPE.note} textAnchor="end" className="mono" style={{ fill: "var(--ink-2)" }}>
              {t.text}
            </text>
          </g>
        ))}
      </g>
      <Lens ray={ray} scale={scale} share={share} />
      <Blocks {...common} />
      <Ground path={path} effectiveRadiusM={ray.effectiveRadiusM} scale={scale} hatch={hatch} />
      <TideLines
        path={path}
        ray={ray}
        scale={scale}
        tideRangeM={plan.water.tideRangeM}
        caption={captions.tide === null || tide === null ? null : { ...captions.tide, text: tide.text }}
      />
      <Crowns {...common} />
      <text aria-hidden="true" x="8" y={scale.height - 8} fontSize={TYPE.tick} className="halo" style={{ fill: "var(--ink-2)" }}>
        {units === "metric" ? "m AMSL" : "ft AMSL"}
      </text>
      {worst !== null && worst.missM > MET_WITHIN_M && worst.side !== "left" && worst.side !== "right" && (
        <Wedge worst={worst} ray={ray} scale={scale} share={share} />
      )}
      {props.ghost !== null && <GhostDesign ghost={props.ghost} path={path} plan={plan} ray={ray} scale={scale} caption={captions.ghost} />}
      <GhostZones zones={props.zones} share={share} scale={scale} captions={captions.zones} />
      {captions.zone !== null && (
        <text
          aria-hidden="true"
          fontSize={TYPE.tick}
          textAnchor="middle"
          className="halo"
          data-caption="zone"
          transform={captions.zone.transform}
        >
          {captions.zone.text}
        </text>
      )}
      {captions.years.map((y) => (
        <text
          key={y.text}
          aria-hidden="true"
          x={y.x}
          y={y.y}
          fontSize={TYPE.tick}
          className="halo"
          data-caption="year"
          style={{ fill: "var(--ink-2)" }}
        >
          {y.text}
        </text>
      ))}
      <EndName end="near" plan={plan} result={result} scale={scale} ray={ray} />
      <EndName end="far" plan={plan} result={result} scale={scale} ray={ray} />
      <WorstPlaceMark result={result} ray={ray} scale={scale} units={units} nearName={plan.near.name} placing={captions.worst} />
      <Mast end="near" props={props} />
      <Mast end="far" props={props} />
    </svg>
  );
};
