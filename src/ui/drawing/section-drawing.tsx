"use client";
import { area, line } from "d3";
import { type KeyboardEvent, memo, type PointerEvent, useId, useMemo, useRef, useState } from "react";
import { antennaNameOf, type LinkPlan, type LinkResult, type PreparedPath } from "@/core/link";
import { f1RadiusM, type Ray, rayBulgeM, rayZM } from "@/core/obstacles";
import { cutMiddle } from "../wording/names";
import { alongText, angleText, lengthText, metresFrom, type Units } from "../wording/numbers";
import { Blocks, Crowns } from "./bodies";
import { Hatches } from "./hatches";
import type { SectionScale } from "./section-scale";
import { heightTicks } from "./ticks";

const HATCH_BAND_PX = 11;
const LENS_STEPS = 80;

export interface MastHandlers {
  readonly onBegin: () => void;
  readonly onMount: (end: "near" | "far", mountAglM: number) => void;
  readonly onEnd: () => void;
}

export interface ClearsFrom {
  readonly nearAglM: number | null;
  readonly farAglM: number | null;
}

interface Props extends MastHandlers {
  readonly path: PreparedPath;
  readonly plan: LinkPlan;
  readonly result: LinkResult;
  readonly ray: Ray;
  readonly scale: SectionScale;
  readonly units: Units;
  readonly clearsFrom: ClearsFrom;
  /** Mounts before the gesture under way, for the dashed stub. */
  readonly settled: { readonly nearAglM: number; readonly farAglM: number };
}

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
        <path d={top} fill="none" stroke="var(--ground-line)" strokeWidth="1.8" strokeLinejoin="round" />
        <path d={sea} fill="none" stroke="var(--water-line)" strokeWidth="1.4" />
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
      <path d={shape(1)} fill="var(--lens)" stroke="var(--hair)" strokeWidth="0.9" fillOpacity="0.85" />
      {share > 0 && <path d={shape(share)} fill="var(--zone)" fillOpacity="0.85" />}
      {share > 0 && <path d={lower} fill="none" stroke="var(--ink)" strokeWidth="1" strokeDasharray="7 3" />}
      <path
        d={`M${scale.x(ray.startM)} ${scale.y(ray.startZM)}L${scale.x(ray.endM)} ${scale.y(ray.endZM)}`}
        stroke="var(--ink)"
        strokeWidth="1.25"
      />
    </g>
  );
};

const Captions = ({ ray, scale, share, units, atM }: { ray: Ray; scale: SectionScale; share: number; units: Units; atM: number }) => {
  // The captions stand on the side of the path that the worst place leaves free.
  const lengthM = ray.endM - ray.startM;
  const x = ray.startM + lengthM * (atM > ray.startM + lengthM / 2 ? 0.34 : 0.64);
  const f1 = f1RadiusM(ray, x);
  const thick = scale.y(rayZM(ray, x) - f1) - scale.y(rayZM(ray, x) + f1);
  if (thick < 34) return null;
  const slope = (Math.atan2(scale.y(ray.endZM) - scale.y(ray.startZM), scale.x(ray.endM) - scale.x(ray.startM)) * 180) / Math.PI;
  const f1Worst = f1RadiusM(ray, atM);
  const at = (z: number, dy: number) => `translate(${scale.x(x)} ${scale.y(z) + dy}) rotate(${slope})`;
  return (
    <g fontSize="12" textAnchor="middle" aria-hidden="true">
      <text transform={at(rayZM(ray, x) + f1, thick > 64 ? 14 : -4)} className={thick > 64 ? "" : "halo"}>
        F1, {lengthText(units, f1Worst)} at the worst place
      </text>
      {share > 0 && thick > 60 && (
        <text transform={at(rayZM(ray, x) - share * f1, -5)}>
          {Math.round(share * 100)} % of F1, {lengthText(units, share * f1Worst)}
        </text>
      )}
    </g>
  );
};

const Worst = ({
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
  const { worst, policyShare, verdict } = result.clearance;
  if (worst === null) return null;
  const short = worst.missM > 0.0005;
  const colour = short ? "var(--short)" : "var(--ink)";
  const words = short ? "var(--short-figure)" : verdict === "tight" ? "var(--tight)" : "var(--ink)";
  const x = Math.min(scale.width - 12, Math.max(12, scale.x(worst.atM)));
  const inside = Math.min(ray.endM, Math.max(ray.startM, worst.atM));
  const zone = scale.y(rayZM(ray, inside) - policyShare * f1RadiusM(ray, inside));
  const lens = scale.y(rayZM(ray, inside) - f1RadiusM(ray, inside));
  const top = scale.y(worst.zAmslM + rayBulgeM(ray, inside));
  const sideways = worst.side === "left" || worst.side === "right";
  const toLeft = x > scale.width * 0.55;
  const dx = toLeft ? x - 34 : x + 34;
  const textX = toLeft ? dx - 12 : dx + 12;
  const anchor = toLeft ? "end" : "start";
  const big = lengthText(units, Math.abs(worst.missM), Math.abs(worst.missM) >= 20 ? 0 : 1);
  // The figure is about half its size wide for each letter; the sentence stands beyond it.
  const sentenceX = textX + (toLeft ? -1 : 1) * (big.length * 25 + 14);
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
        {short ? (sideways ? `too near on the ${worst.side}` : policyShare > 0 ? "into the zone" : "into the line of sight") : "to spare"}
        {worst.ownerName === null ? (worst.owner.kind === "ground" ? ", ground" : "") : `, ${cutMiddle(worst.ownerName, 26)}`}
      </text>
      <text x={sentenceX} y={y} fontSize="13" textAnchor={anchor} className="halo">
        {alongText(units, worst.atM)} from {cutMiddle(nearName, 22)}
      </text>
    </g>
  );
};

const NUDGE = { metric: [0.1, 1], imperial: [0.1524, 0.9144] } as const;
const MOST_AGL_M = 300;

const Mast = ({ end, props }: { end: "near" | "far"; props: Props }) => {
  const { ray, scale, plan, units, result, settled } = props;
  const [held, setHeld] = useState(false);
  const drag = useRef<{ y: number; aglM: number } | null>(null);
  const own = end === "near" ? plan.near : plan.far;
  const colour = `var(--${end})`;
  const atM = end === "near" ? ray.startM : ray.endM;
  const groundM = (end === "near" ? result.geometry.nearAmslM : result.geometry.farAmslM) - own.mountAglM;
  const x = scale.x(atM);
  const foot = scale.y(groundM + rayBulgeM(ray, atM));
  const top = scale.y(groundM + own.mountAglM + rayBulgeM(ray, atM));
  const oldAgl = end === "near" ? settled.nearAglM : settled.farAglM;
  const oldTop = scale.y(groundM + oldAgl + rayBulgeM(ray, atM));
  const out = end === "near" ? 1 : -1;
  const set = (aglM: number): void => props.onMount(end, Math.round(Math.min(MOST_AGL_M, Math.max(0, aglM)) * 100) / 100);
  const [small, big] = NUDGE[units];
  const onPointerDown = (event: PointerEvent<SVGGElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { y: event.clientY, aglM: own.mountAglM };
    setHeld(true);
    props.onBegin();
  };
  const onPointerMove = (event: PointerEvent<SVGGElement>): void => {
    if (drag.current === null) return;
    const raw = drag.current.aglM + (drag.current.y - event.clientY) * scale.metresPerPxY;
    const stepM = units === "metric" ? 0.1 : metresFrom("imperial", 0.5);
    set(Math.round(raw / stepM) * stepM);
  };
  const release = (): void => {
    if (drag.current === null) return;
    drag.current = null;
    setHeld(false);
    props.onEnd();
  };
  const onKeyDown = (event: KeyboardEvent<SVGGElement>): void => {
    const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set(own.mountAglM + by * (event.shiftKey ? big : small));
  };
  const clears = end === "near" ? props.clearsFrom.nearAglM : props.clearsFrom.farAglM;
  const clearsY = clears === null ? null : scale.y(groundM + clears + rayBulgeM(ray, atM));
  const limit = own.mountMaxAglM;
  const limitY = limit === null ? null : scale.y(groundM + limit + rayBulgeM(ray, atM));
  const ringY = top - 20;
  return (
    <g>
      {Math.abs(oldTop - top) > 1 && (
        <path
          d={`M${x} ${Math.max(oldTop, top)}V${oldTop}M${x - 7} ${oldTop}h14`}
          stroke="var(--ink-2)"
          strokeWidth="1.2"
          strokeDasharray="3 2"
          className="ghost"
        />
      )}
      <path d={`M${x} ${foot}V${top}`} stroke="var(--ink)" strokeWidth="2.1" />
      {clearsY !== null && clearsY > 12 && clearsY < top - 4 && (
        <g aria-hidden="true">
          <path d={`M${x} ${Math.min(ringY - 9, top)}V${clearsY}`} stroke={colour} strokeWidth="1" strokeDasharray="3 3" />
          <path d={`M${x - 6} ${clearsY}h12`} stroke={colour} strokeWidth="2" />
          <text
            x={x + 14 * out}
            y={Math.max(56, clearsY < ringY - 14 ? clearsY + 4 : ringY - 12)}
            fontSize="12"
            textAnchor={end === "near" ? "start" : "end"}
            className="halo"
          >
            clears from {lengthText(units, clears!)}
          </text>
        </g>
      )}
      {limitY !== null && limitY > 8 && (
        <g aria-hidden="true">
          <path d={`M${x} ${limitY}h${-16 * out}`} stroke="var(--ink-2)" strokeWidth="1" strokeDasharray="2 2" />
          <text
            x={x - 18 * out}
            y={limitY + 4}
            fontSize="11.5"
            textAnchor={end === "near" ? "end" : "start"}
            className="halo"
            style={{ fill: "var(--ink-2)" }}
          >
            limit
          </text>
        </g>
      )}
      <rect
        x={x + (end === "near" ? 1 : -8)}
        y={top - 11}
        width="7"
        height="22"
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <g
        role="slider"
        tabIndex={0}
        aria-label={`${own.name}: mount height above ground`}
        aria-orientation="vertical"
        aria-valuemin={0}
        aria-valuemax={MOST_AGL_M}
        aria-valuenow={own.mountAglM}
        aria-valuetext={lengthText(units, own.mountAglM)}
        data-testid={`mast-${end}`}
        className="handle"
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={release}
        onPointerCancel={release}
        onKeyDown={onKeyDown}
      >
        <rect x={x - 16} y={ringY - 16} width="32" height="48" fill="transparent" />
        <circle cx={x} cy={ringY} r="8.5" fill={held ? colour : "var(--paper)"} stroke={colour} strokeWidth="2.2" />
        <path
          d={`M${x - 3} ${ringY - 1.6}l3 -3l3 3M${x - 3} ${ringY + 1.6}l3 3l3 -3`}
          fill="none"
          stroke={held ? "var(--paper)" : colour}
          strokeWidth="1.6"
        />
      </g>
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
      <text x={x} y="22" fontSize="15" fontWeight="700" className="halo" style={{ fill: `var(--${end})` }}>
        {cutMiddle(own.name, 26)}
      </text>
      <text x={x} y="38" fontSize="12.5" className="halo" style={{ fill: "var(--ink-2)" }}>
        {cutMiddle(antennaNameOf(own), 24)}, tilt {angleText(tilt)}
      </text>
    </g>
  );
};

const groundUnder = (path: PreparedPath, xM: number): number => {
  const g = path.groundAt(xM);
  return !Number.isNaN(g) ? g : 0;
};

/** The path from the side. Data in, picture out: it computes no physics. */
export const SectionDrawing = (props: Props) => {
  const { path, plan, result, ray, scale, units } = props;
  const hatch = useId();
  const share = result.clearance.policyShare;
  const { worst } = result.clearance;
  const worstId = worst?.owner.kind === "body" ? worst.owner.id : null;
  const common = { bodies: path.bodies, plan, ray, scale, groundAt: path.groundAt, worstId, hatch };
  const grid = heightTicks(scale.lowestM, scale.highestM, units, Math.max(2, Math.min(6, Math.round(scale.height / 70))));
  return (
    <svg
      width={scale.width}
      height={scale.height}
      role="group"
      aria-label={`Section from ${plan.near.name} to ${plan.far.name}`}
      style={{ display: "block" }}
    >
      <Hatches id={hatch} />
      <g aria-hidden="true">
        {grid.map((t) => (
          <g key={t.text}>
            <path d={`M34 ${scale.y(t.atM)}H${scale.width}`} stroke="var(--grid)" strokeWidth="0.75" />
            <text x="30" y={scale.y(t.atM) + 4} fontSize="12.5" textAnchor="end" className="mono" style={{ fill: "var(--ink-2)" }}>
              {t.text}
            </text>
          </g>
        ))}
      </g>
      <Lens ray={ray} scale={scale} share={share} />
      <Blocks {...common} />
      <Ground path={path} effectiveRadiusM={ray.effectiveRadiusM} scale={scale} hatch={hatch} />
      <Crowns {...common} />
      <text aria-hidden="true" x="8" y={scale.height - 8} fontSize="12" className="halo" style={{ fill: "var(--ink-2)" }}>
        {units === "metric" ? "m AMSL" : "ft AMSL"}
      </text>
      {worst !== null && worst.missM > 0.0005 && worst.side !== "left" && worst.side !== "right" && (
        <Wedge worst={worst} ray={ray} scale={scale} share={share} />
      )}
      <Captions ray={ray} scale={scale} share={share} units={units} atM={worst?.atM ?? path.profile.pathM / 2} />
      <EndName end="near" plan={plan} result={result} scale={scale} ray={ray} />
      <EndName end="far" plan={plan} result={result} scale={scale} ray={ray} />
      <Worst
        result={result}
        ray={ray}
        scale={scale}
        units={units}
        nearName={plan.near.name}
        groundAmslM={groundUnder(path, worst?.atM ?? 0)}
      />
      <Mast end="near" props={props} />
      <Mast end="far" props={props} />
    </svg>
  );
};

/** The part of the worst obstacle that stands in the zone, solid. */
const Wedge = ({
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
