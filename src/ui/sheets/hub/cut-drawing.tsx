"use client";
import type { KeyboardEvent, PointerEvent } from "react";
import { useState } from "react";
import type { HubRemote, JudgedRemote, JudgedSector, SectorAim } from "@/core/hub";
import { TYPE } from "../../drawing/type";
import { cutMiddle } from "../../wording/names";
import { figure, lengthText, type Units } from "../../wording/numbers";
import { verdictInk } from "./plan-drawing";

const LEFT = 44;
const RIGHT = 14;
const TOP = 26;
const FOOT = 30;

/** Ground along the way from the hub, distance rising. */
const groundFrom = (r: HubRemote): { readonly x: number; readonly z: number }[] => {
  const { profile } = r.state.path;
  const last = profile.distanceM.length - 1;
  const out: { x: number; z: number }[] = [];
  for (let i = 0; i <= last; i++) {
    const k = r.hubIsNear ? i : last - i;
    const z = profile.groundAmslM[k]!;
    if (!Number.isNaN(z)) out.push({ x: r.hubIsNear ? profile.distanceM[k]! : profile.pathM - profile.distanceM[k]!, z });
  }
  return out;
};

const ends = (r: HubRemote) =>
  r.hubIsNear
    ? { hubM: r.state.nearAmslM, remoteM: r.state.farAmslM, hubAglM: r.plan.near.mountAglM }
    : { hubM: r.state.farAmslM, remoteM: r.state.nearAmslM, hubAglM: r.plan.far.mountAglM };

/**
 * The beam from the side, along the way to one remote; the sector's other remotes are turned into it at their own distance. The
 * tilt is dragged at the axis or moved by keys.
 */
export const CutDrawing = ({
  aim,
  judged,
  remotes,
  chosen,
  width,
  height,
  units,
  onBegin,
  onTilt,
  onEnd,
}: {
  aim: SectorAim;
  judged: JudgedSector;
  remotes: readonly HubRemote[];
  chosen: JudgedRemote;
  width: number;
  height: number;
  units: Units;
  onBegin: () => void;
  onTilt: (tiltDeg: number) => void;
  onEnd: () => void;
}) => {
  const [held, setHeld] = useState(false);
  const own = remotes.find((r) => r.linkId === chosen.linkId);
  if (own === undefined) return null;
  const { hubM, hubAglM } = ends(own);
  const ground = groundFrom(own);
  const longestM = Math.max(...judged.remotes.map((r) => r.distanceM)) * 1.08;
  const spots = judged.remotes.flatMap((j) => {
    const r = remotes.find((x) => x.linkId === j.linkId);
    return r === undefined ? [] : [{ j, z: ends(r).remoteM, x: j.distanceM }];
  });
  const low = Math.min(...ground.map((g) => g.z), ...spots.map((s) => s.z), hubM) - 4;
  const high = hubM + Math.max(6, (hubM - low) * 0.25);
  const x = (m: number): number => LEFT + (m / longestM) * (width - LEFT - RIGHT);
  const y = (m: number): number => TOP + ((high - m) / (high - low)) * (height - TOP - FOOT);
  const taller = (height - TOP - FOOT) / (high - low) / ((width - LEFT - RIGHT) / longestM);
  const ray = (tiltDeg: number, toM = longestM): string =>
    `M${x(0)} ${y(hubM)}L${x(toM)} ${y(hubM + toM * Math.tan((tiltDeg * Math.PI) / 180))}`;
  const [upDeg, downDeg] = [judged.edges.upDeg ?? 45, judged.edges.downDeg ?? 45];
  const handleM = longestM * 0.62;
  const handle = {
    x: x(handleM),
    y: Math.min(height - FOOT - 10, Math.max(TOP, y(hubM + handleM * Math.tan((aim.tiltDeg * Math.PI) / 180)))),
  };
  const beam = `M${x(0)} ${y(hubM)}L${x(longestM)} ${y(hubM + longestM * Math.tan(((aim.tiltDeg + upDeg) * Math.PI) / 180))}L${x(longestM)} ${y(hubM + longestM * Math.tan(((aim.tiltDeg - downDeg) * Math.PI) / 180))}Z`;
  const dragTo = (event: PointerEvent<SVGElement>): void => {
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const m = ((event.clientX - box.left - LEFT) / (width - LEFT - RIGHT)) * longestM;
    const z = high - ((event.clientY - box.top - TOP) / (height - TOP - FOOT)) * (high - low);
    if (m > longestM * 0.05) onTilt(clampTilt(Math.round(((Math.atan2(z - hubM, m) * 180) / Math.PI) * 2) / 2));
  };
  const letGo = (): void => {
    if (!held) return;
    setHeld(false);
    onEnd();
  };
  const onKey = (event: KeyboardEvent): void => {
    const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    onTilt(clampTilt(aim.tiltDeg + way * (event.shiftKey ? 5 : 0.5)));
  };
  const base = height - FOOT;
  const path = ground.map((g) => `${x(g.x).toFixed(1)} ${y(g.z).toFixed(1)}`).join("L");
  return (
    // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no fieldset.
    <svg
      width={width}
      height={height}
      role="group"
      aria-label={`Cut through the beam towards ${chosen.name}`}
      className="touch-none"
      style={{ overflow: "hidden" }}
    >
      <path d={beam} fill="var(--lens)" aria-hidden="true" />
      {ground.length > 1 && (
        <path
          aria-hidden="true"
          d={`M${path}L${x(ground[ground.length - 1]!.x)} ${base}L${x(ground[0]!.x)} ${base}Z`}
          fill="var(--ground-fill)"
          stroke="var(--ground-line)"
          strokeWidth="1.6"
        />
      )}
      <g aria-hidden="true" fill="none" stroke="var(--ink)">
        <path d={ray(aim.tiltDeg + upDeg)} strokeDasharray="7 3" />
        <path d={ray(aim.tiltDeg - downDeg)} strokeDasharray="7 3" />
        <path d={ray(aim.tiltDeg)} strokeDasharray="10 3 2 3" />
        <path d={`M${x(0)} ${y(hubM - hubAglM)}V${y(hubM)}`} strokeWidth="3" />
      </g>
      {spots.map(({ j, z, x: m }, i) => {
        const is = j.linkId === chosen.linkId;
        return (
          <g key={j.linkId} aria-hidden="true">
            {is && (
              <path
                d={`M${x(0)} ${y(hubM)}L${x(m)} ${y(z)}`}
                stroke={verdictInk(j.verdict)}
                strokeWidth="1.8"
                strokeDasharray={j.place.where === "in" ? undefined : "6 4"}
              />
            )}
            <circle cx={x(m)} cy={y(z)} r={is ? 6 : 4} fill="var(--paper)" stroke={verdictInk(j.verdict)} strokeWidth="2.2" />
            <text
              x={Math.min(width - 4, x(m))}
              y={y(z) - 10 - (i % 3) * 13}
              fontSize={TYPE.note}
              textAnchor={x(m) > width - 90 ? "end" : "middle"}
              className={`halo ${is ? "font-bold" : ""}`}
            >
              {cutMiddle(j.name, 16)}
            </text>
          </g>
        );
      })}
      <path d={`M${LEFT} ${base}H${width - RIGHT}`} stroke="var(--ink)" aria-hidden="true" />
      {[0.25, 0.5, 0.75, 1].map((share) => (
        <text key={share} x={x(longestM * share)} y={base + 14} fontSize={TYPE.note} textAnchor="end" className="mono" aria-hidden="true">
          {lengthText(units, longestM * share, 0)}
        </text>
      ))}
      <text x={4} y={14} fontSize={TYPE.note} style={{ fill: "var(--ink-2)" }} aria-hidden="true">
        heights ×{figure(taller, taller < 9.5 ? 1 : 0)}
      </text>
      <text x={4} y={y(hubM) + 4} fontSize={TYPE.note} className="mono halo" aria-hidden="true">
        {lengthText(units, hubM, 0)}
      </text>
      <g
        role="slider"
        tabIndex={0}
        aria-label="Tilt: up and down by half a degree, with Shift by five"
        aria-valuemin={-90}
        aria-valuemax={90}
        aria-valuenow={aim.tiltDeg}
        aria-valuetext={`${figure(aim.tiltDeg, 1)} degrees`}
        data-testid="tilt"
        className="cursor-ns-resize"
        onKeyDown={onKey}
        onPointerDown={(e) => {
          if (e.button !== 0) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          setHeld(true);
          onBegin();
        }}
        onPointerMove={(e) => held && dragTo(e)}
        onPointerUp={letGo}
        onPointerCancel={letGo}
      >
        <circle cx={handle.x} cy={handle.y} r="15" fill="transparent" />
        <circle cx={handle.x} cy={handle.y} r="7" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2.2" />
        <circle cx={handle.x} cy={handle.y} r="2" fill="var(--ink)" />
      </g>
    </svg>
  );
};

const clampTilt = (deg: number): number => Math.min(90, Math.max(-90, deg));
