"use client";
import type { KeyboardEvent, PointerEvent } from "react";
import { useId, useState } from "react";
import type { HubFields } from "@/contract";
import type { Pattern } from "@/core/antenna";
import { blindRadiusM, type JudgedRemote, type JudgedSector, type SectorAim } from "@/core/hub";
import type { Verdict } from "@/core/link";
import { type Box, captionField, textBox } from "../../drawing/caption-field";
import { TYPE } from "../../drawing/type";
import { cutMiddle } from "../../wording/names";
import { figure, lengthText, type Units } from "../../wording/numbers";

const MARGIN_PX = 58;
const STEP_DEG = 2;
const RINGS = [100, 200, 500, 1000, 2000, 5000, 10_000, 20_000, 50_000];

const at = (cx: number, cy: number, bearingDeg: number, px: number): [number, number] => {
  const a = (bearingDeg * Math.PI) / 180;
  return [cx + px * Math.sin(a), cy - px * Math.cos(a)];
};

/** Degrees from true north of a spot as seen from another on the drawing. */
const bearingAt = (cx: number, cy: number, x: number, y: number): number => ((Math.atan2(x - cx, cy - y) * 180) / Math.PI + 360) % 360;

interface Named {
  readonly box: Box;
  readonly x: number;
  readonly y: number;
  readonly anchor: "start" | "end" | "middle";
}

/** Where each remote's name stands: beside its mark, off the ways to the others, and off the other names. */
const namesOf = (
  remotes: readonly JudgedRemote[],
  spotOf: (r: JudgedRemote) => [number, number],
  hub: [number, number],
  width: number,
  height: number,
  chosen: string | null,
): ReadonlyMap<string, Named> => {
  const field = captionField(width, height);
  for (const r of remotes) {
    const [x, y] = spotOf(r);
    field.line([hub, [x, y]]);
    field.take({ x0: x - 8, y0: y - 8, x1: x + 8, y1: y + 8 });
  }
  field.take({ x0: hub[0] - 10, y0: hub[1] - 10, x1: hub[0] + 10, y1: hub[1] + 10 });
  const out = new Map<string, Named>();
  const first = [...remotes].sort((a, b) => Number(b.linkId === chosen) - Number(a.linkId === chosen));
  for (const r of first) {
    const [x, y] = spotOf(r);
    const places = [0, 16, 30, 46].flatMap((away): Named[] =>
      (
        [
          [12 + away, 0, "start"],
          [-12 - away, 0, "end"],
          [0, 24 + away, "middle"],
          [0, -22 - away, "middle"],
          [10, -16 - away, "start"],
          [-10, -16 - away, "end"],
          [10, 20 + away, "start"],
          [-10, 20 + away, "end"],
        ] as const
      ).map(([dx, dy, anchor]) => {
        const text = textBox(cutMiddle(r.name, 18), x + dx, y + dy, 13, anchor);
        return { x: x + dx, y: y + dy, anchor, box: { ...text, y1: text.y1 + 15 } };
      }),
    );
    const place = field.place(places);
    if (place !== null) out.set(r.linkId, place);
  }
  return out;
};

/** A verdict's colour on a drawing. */
export const verdictInk = (v: Verdict): string => (v === "clear" ? "var(--ink)" : `var(--${v})`);

/**
 * The hub from above: its sectors as their own azimuth cuts, to scale as a level, and the remotes where they lie. A sector's axis
 * is dragged at its rim or moved by keys.
 */
export const PlanDrawing = ({
  hub,
  sectors,
  patterns,
  aims,
  chosenSector,
  chosenRemote,
  width,
  height,
  units,
  chooseRemote,
  chooseSector,
  onBegin,
  onTurn,
  onEnd,
}: {
  hub: HubFields & { readonly title: string };
  sectors: readonly (JudgedSector | null)[];
  patterns: readonly (Pattern | null)[];
  aims: readonly SectorAim[];
  chosenSector: number;
  chosenRemote: string | null;
  width: number;
  height: number;
  units: Units;
  chooseRemote: (linkId: string) => void;
  chooseSector: (index: number) => void;
  onBegin: () => void;
  onTurn: (sector: number, azimuthDeg: number) => void;
  onEnd: () => void;
}) => {
  const clip = useId();
  const [held, setHeld] = useState<number | null>(null);
  const remotes = sectors.flatMap((s) => s?.remotes ?? []);
  const farthestM = Math.max(50, ...remotes.map((r) => r.distanceM));
  // The mast stands where all remotes find room around it.
  const spread = remotes.map((r) => at(0, 0, r.bearingDeg, r.distanceM));
  const [xs, ys] = [
    [0, ...spread.map((p) => p[0])],
    [0, ...spread.map((p) => p[1])],
  ];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const pxPerM = Math.min(
    (width - 2 * MARGIN_PX) / Math.max(farthestM * 0.7, x1 - x0),
    (height - 2 * MARGIN_PX) / Math.max(farthestM * 0.7, y1 - y0),
  );
  const cx = width / 2 - ((x0 + x1) / 2) * pxPerM;
  const cy = height / 2 - ((y0 + y1) / 2) * pxPerM;
  const rim = farthestM * 1.06 * pxPerM;
  const outline = (pattern: Pattern, azimuthDeg: number): string => {
    const points: string[] = [];
    for (let off = -180; off < 180; off += STEP_DEG) {
      const px = rim * 10 ** (pattern.relativeDb(off, 0) / 20);
      points.push(
        at(cx, cy, azimuthDeg + off, px)
          .map((v) => v.toFixed(1))
          .join(" "),
      );
    }
    return `M${points.join("L")}Z`;
  };
  const named = namesOf(remotes, (r) => at(cx, cy, r.bearingDeg, r.distanceM * pxPerM), [cx, cy], width, height, chosenRemote);
  const ring = RINGS.find((m) => m * 2.4 > farthestM) ?? farthestM;
  const dragTo = (event: PointerEvent<SVGElement>, i: number): void => {
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    onTurn(i, Math.round(bearingAt(cx, cy, event.clientX - box.left, event.clientY - box.top) * 2) / 2);
  };
  const letGo = (): void => {
    if (held === null) return;
    setHeld(null);
    onEnd();
  };
  const onKey = (event: KeyboardEvent, i: number): void => {
    const way = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    onTurn(i, (aims[i]!.azimuthDeg + way * (event.shiftKey ? 5 : 0.5) + 360) % 360);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no fieldset.
    <svg
      width={width}
      height={height}
      role="group"
      aria-label={`Plan of ${hub.title}: sectors and remotes, north up`}
      className="touch-none"
    >
      <clipPath id={clip}>
        <rect width={width} height={height} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        {[ring, ring * 2].map((m) => (
          <g key={m} aria-hidden="true">
            <circle cx={cx} cy={cy} r={m * pxPerM} fill="none" stroke="var(--hair)" strokeDasharray="1 3" />
            <text x={cx + 3} y={cy - m * pxPerM - 3} fontSize={TYPE.note} className="halo" style={{ fill: "var(--ink-2)" }}>
              {lengthText(units, m, 0)}
            </text>
          </g>
        ))}
        {hub.sectors.map((s, i) => {
          const pattern = patterns[i];
          const judged = sectors[i];
          if (pattern == null) return null;
          const blindM = judged == null ? null : blindRadiusM(hub.mountAglM, aims[i]!, judged.edges);
          const aside = judged?.edges.asideDeg ?? 180;
          const [a, b] = [
            at(cx, cy, aims[i]!.azimuthDeg - aside, (blindM ?? 0) * pxPerM),
            at(cx, cy, aims[i]!.azimuthDeg + aside, (blindM ?? 0) * pxPerM),
          ];
          return (
            <g key={s.id}>
              <path
                d={outline(pattern, aims[i]!.azimuthDeg)}
                fill="var(--lens)"
                fillOpacity={i === chosenSector ? 0.9 : 0.45}
                stroke={i === chosenSector ? "var(--ink)" : "var(--hair)"}
                strokeWidth={i === chosenSector ? 1.4 : 1}
                data-sector={s.id}
              />
              {blindM !== null && Number.isFinite(blindM) && blindM * pxPerM > 4 && blindM * pxPerM < 3 * rim && (
                <path
                  aria-hidden="true"
                  d={`M${a[0]} ${a[1]}A${blindM * pxPerM} ${blindM * pxPerM} 0 ${aside > 90 ? 1 : 0} 1 ${b[0]} ${b[1]}`}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth="1.8"
                  data-testid="blind-ring"
                />
              )}
            </g>
          );
        })}
        {sectors.flatMap((s, i) =>
          (s?.remotes ?? []).map((r) => {
            const [x, y] = at(cx, cy, r.bearingDeg, r.distanceM * pxPerM);
            return (
              <path
                key={r.linkId}
                aria-hidden="true"
                d={`M${cx} ${cy}L${x} ${y}`}
                stroke={r.place.where === "in" ? "var(--ink)" : verdictInk(r.verdict)}
                strokeWidth={r.linkId === chosenRemote ? 2 : 1}
                strokeDasharray={r.place.where === "in" ? undefined : "6 4"}
                opacity={i === chosenSector ? 1 : 0.6}
              />
            );
          }),
        )}
        {hub.sectors.map((s, i) => {
          const [x, y] = at(cx, cy, aims[i]!.azimuthDeg, Math.min(rim, Math.min(width, height) * 0.42));
          return (
            <g key={s.id}>
              <path aria-hidden="true" d={`M${cx} ${cy}L${x} ${y}`} stroke="var(--ink)" strokeWidth="1" strokeDasharray="10 3 2 3" />
              <g
                role="slider"
                tabIndex={0}
                aria-label={`Axis of sector ${i + 1}: left and right turn it by half a degree, with Shift by five`}
                aria-valuemin={0}
                aria-valuemax={360}
                aria-valuenow={aims[i]!.azimuthDeg}
                aria-valuetext={`${figure(aims[i]!.azimuthDeg, 1)} degrees`}
                data-testid={`axis-${i}`}
                className="cursor-grab"
                onFocus={() => chooseSector(i)}
                onKeyDown={(e) => onKey(e, i)}
                onPointerDown={(e) => {
                  if (e.button !== 0) return;
                  e.currentTarget.setPointerCapture(e.pointerId);
                  setHeld(i);
                  chooseSector(i);
                  onBegin();
                }}
                onPointerMove={(e) => held === i && dragTo(e, i)}
                onPointerUp={letGo}
                onPointerCancel={letGo}
              >
                <circle cx={x} cy={y} r="15" fill="transparent" />
                <circle cx={x} cy={y} r="7" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2.2" />
                <circle cx={x} cy={y} r="2" fill="var(--ink)" />
              </g>
              <text x={x + 12} y={y + 4} fontSize={TYPE.tick} className="halo mono" aria-hidden="true">
                {figure(aims[i]!.azimuthDeg, 1)}°
              </text>
            </g>
          );
        })}
        <rect x={cx - 6} y={cy - 6} width="12" height="12" fill="var(--ink)" />
        {sectors.flatMap((s) =>
          (s?.remotes ?? []).map((r) => {
            const [x, y] = at(cx, cy, r.bearingDeg, r.distanceM * pxPerM);
            return (
              // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no button.
              <g
                key={r.linkId}
                role="button"
                tabIndex={0}
                aria-pressed={r.linkId === chosenRemote}
                aria-label={`${r.name}, ${lengthText(units, r.distanceM, 0)} off, ${r.verdict}`}
                className="cursor-pointer"
                data-remote={r.linkId}
                onClick={() => chooseRemote(r.linkId)}
                onKeyDown={(e) => {
                  if (e.key !== "Enter" && e.key !== " ") return;
                  e.preventDefault();
                  chooseRemote(r.linkId);
                }}
              >
                <circle cx={x} cy={y} r="14" fill="transparent" />
                <circle
                  cx={x}
                  cy={y}
                  r="5.5"
                  fill="var(--paper)"
                  stroke={verdictInk(r.verdict)}
                  strokeWidth={r.linkId === chosenRemote ? 3.4 : 2.2}
                />
                {named.get(r.linkId) !== undefined && (
                  <text
                    x={named.get(r.linkId)!.x}
                    y={named.get(r.linkId)!.y}
                    fontSize={TYPE.tick}
                    textAnchor={named.get(r.linkId)!.anchor}
                    className={`halo ${r.linkId === chosenRemote ? "font-bold" : "font-figure"}`}
                  >
                    {cutMiddle(r.name, 18)}
                    <tspan x={named.get(r.linkId)!.x} dy="14" fontSize={TYPE.note} style={{ fill: "var(--ink-2)", fontWeight: 400 }}>
                      {lengthText(units, r.distanceM, 0)}
                    </tspan>
                  </text>
                )}
              </g>
            );
          }),
        )}
      </g>
      <g aria-hidden="true" transform={`translate(${width - 20} 14)`}>
        <path d="M0 22V2M-5 8L0 1L5 8" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      </g>
    </svg>
  );
};
