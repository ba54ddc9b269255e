"use client";
import type { KeyboardEvent, PointerEvent } from "react";
import { useId, useState } from "react";
import type { Verdict } from "@/core/link";
import { Hatches } from "../../drawing/hatches";
import { TYPE } from "../../drawing/type";
import { rateText } from "../../wording/gear";
import { cutMiddle } from "../../wording/names";
import type { PipePart, Segment, ShownPlace } from "./load-view";
import { freeText, fullYearText } from "./load-words";
import { Building, Ends, figureInk, MIDDLE } from "./pipe-parts";

const HEIGHT = 296;
const HALF_MOST = 88;
const FEED_PX = 86;
const BOX_PX = 84;
const PORT_PX = 34;
const END_PX = 150;
const LEAST_AIR_PX = 120;

interface Laid {
  readonly part: PipePart;
  readonly x: number;
  readonly width: number;
}

const layOut = (parts: readonly PipePart[], width: number): { readonly laid: readonly Laid[]; readonly whole: number } => {
  const fixed = (p: PipePart, i: number): number | null =>
    p.kind === "box"
      ? BOX_PX
      : i === 0
        ? FEED_PX
        : p.kind === "wire" && parts[i - 1]?.kind !== "box" && parts[i + 1]?.kind === "box"
          ? PORT_PX
          : null;
  const sizes = parts.map((p, i) => {
    if (p.kind !== "box" && i > 0 && p.place.id.startsWith("port:")) return PORT_PX;
    return fixed(p, i);
  });
  const open = sizes.filter((s) => s === null).length;
  const left = width - END_PX - sizes.reduce<number>((n, s) => n + (s ?? 0), 0);
  const each = Math.max(LEAST_AIR_PX, open === 0 ? 0 : left / open);
  const laid: Laid[] = [];
  let x = 0;
  parts.forEach((part, i) => {
    const w = sizes[i] ?? each;
    laid.push({ part, x, width: w });
    x += w;
  });
  return { laid, whole: Math.max(width, x + END_PX) };
};

const isSegment = (p: PipePart): p is Segment => p.kind !== "box";
/** Mbps that a segment is wide, both ways together; without end where nobody said. */
const widthOf = (s: Segment): number => (s.kind === "air" ? s.there.fits + s.back.fits : 2 * Math.max(s.there.fits, s.back.fits));
const askedOf = (s: Segment): number => s.there.asked + s.back.asked;

/**
 * The pipe from the feed to one end: its width is what fits, its fill what is asked. What is asked is dragged at the fill of the
 * narrowest place: what if it were more.
 */
export const PipeDrawing = ({
  parts,
  narrowest,
  width,
  thisYear,
  times,
  onTimes,
  onHeld,
  choose,
  hangs,
}: {
  parts: readonly PipePart[];
  narrowest: ShownPlace | null;
  width: number;
  thisYear: number;
  times: number;
  onTimes: (times: number) => void;
  /** It is taken hold of, or let go. */
  onHeld: (held: boolean) => void;
  choose: (placeId: string) => void;
  /** What hangs at the end. */
  hangs: readonly { readonly name: string; readonly there: number; readonly back: number }[];
}) => {
  const hatch = useId();
  const [held, setHeld] = useState<{ readonly fromY: number; readonly times: number; readonly half: number } | null>(null);
  const { laid, whole } = layOut(parts, Math.max(560, width));
  const segments = parts.filter(isSegment);
  const slimmest = Math.min(...segments.map(widthOf).filter((w) => Number.isFinite(w) && w > 0));
  const fullest = Math.max(1, ...segments.map(askedOf));
  // The narrowest shows its width; what is many times as wide is cut off with its figure.
  const reach = Math.max(fullest * 1.25, Math.min(6 * slimmest, Math.max(...segments.map(widthOf).filter(Number.isFinite), slimmest)));
  const scale = Number.isFinite(reach) && reach > 0 ? HALF_MOST / (reach / 2) : 1;
  const half = (mbps: number): number => Math.min(HALF_MOST, (mbps / 2) * scale);
  const isCut = (mbps: number): boolean => (mbps / 2) * scale > HALF_MOST + 0.5;
  const letGo = (): void => {
    if (held === null) return;
    setHeld(null);
    onHeld(false);
  };
  const drag = (event: PointerEvent<SVGElement>): void => {
    if (held === null) return;
    const y = event.clientY;
    const moved = (held.fromY - y) / Math.max(6, held.half);
    onTimes(clampTimes(held.times * (1 + moved)));
  };
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowUp: 0.05, ArrowRight: 0.05, ArrowDown: -0.05, ArrowLeft: -0.05 }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      onTimes(clampTimes(times + by * (event.shiftKey ? 5 : 1)));
    } else if (event.key === "Home" || event.key === "Escape") {
      event.preventDefault();
      onTimes(1);
    }
  };
  const verdict: Verdict = narrowest?.verdict ?? "clear";
  return (
    // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no fieldset.
    <svg
      width={whole}
      height={HEIGHT}
      role="group"
      aria-label="The pipe from the feed: its width is what fits, its fill what is asked"
      className="block touch-pan-x"
      onPointerMove={drag}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      <Hatches id={hatch} />
      {laid.map(({ part, x, width: w }, i) => {
        if (!isSegment(part)) return null;
        const isNarrowest = part.place.id === narrowest?.id;
        const ink = isNarrowest ? figureInk(verdict) : "var(--ink)";
        const fits = widthOf(part);
        const h = half(fits);
        // A wire's lanes have a wall each.
        const walls = part.kind === "wire" ? [half(2 * part.there.fits), half(2 * part.back.fits)] : [h, h];
        const all = part.kind === "air" ? half(fits / Math.max(0.01, shareUsed(part.place))) : h;
        const fill = half(askedOf(part));
        const over = askedOf(part) > fits + 1e-6;
        const lanes = part.kind === "wire";
        const cut = isCut(fits);
        const split = askedOf(part) > 0 ? part.there.asked / askedOf(part) : 0.5;
        return (
          <g key={`${part.place.id}-${i}`} data-testid={`pipe-${part.place.id.split(":")[0]}`}>
            {all > h + 0.5 && (
              <rect x={x} y={MIDDLE - all} width={w} height={2 * all} fill={`url(#${hatch}-noise)`} stroke="var(--hair)" strokeWidth="1" />
            )}
            <rect x={x} y={MIDDLE - walls[0]!} width={w} height={walls[0]! + walls[1]!} fill="var(--paper)" />
            {lanes ? (
              <>
                <rect x={x} y={MIDDLE - half(2 * part.there.asked)} width={w} height={half(2 * part.there.asked)} fill="var(--zone)" />
                <rect
                  x={x}
                  y={MIDDLE - half(2 * part.there.asked)}
                  width={w}
                  height={half(2 * part.there.asked)}
                  fill={`url(#${hatch}-noise)`}
                />
                <rect x={x} y={MIDDLE} width={w} height={half(2 * part.back.asked)} fill="var(--zone)" />
                <path d={`M${x} ${MIDDLE}H${x + w}`} stroke="var(--ink)" strokeWidth="1" />
              </>
            ) : (
              <>
                <rect x={x} y={MIDDLE - fill} width={w} height={2 * fill} fill="var(--zone)" />
                <rect x={x} y={MIDDLE - fill} width={w} height={2 * fill * split} fill={`url(#${hatch}-noise)`} />
                <path d={`M${x} ${MIDDLE - fill + 2 * fill * split}H${x + w}`} stroke="var(--ink)" strokeWidth="1" strokeDasharray="5 3" />
              </>
            )}
            {over && !lanes && (
              <>
                <rect x={x} y={MIDDLE - fill} width={w} height={fill - h} fill="var(--short)" opacity="0.25" />
                <rect x={x} y={MIDDLE + h} width={w} height={fill - h} fill="var(--short)" opacity="0.25" />
              </>
            )}
            {[-1, 1].map((side) => (
              <path
                key={side}
                d={
                  cut
                    ? `M${x} ${MIDDLE + side * walls[side < 0 ? 0 : 1]!}H${x + w / 2 - 9}l5 -5l4 10l4 -10l5 5H${x + w}`
                    : `M${x} ${MIDDLE + side * walls[side < 0 ? 0 : 1]!}H${x + w}`
                }
                fill="none"
                stroke={ink}
                strokeWidth={isNarrowest ? 2.6 : 1.6}
              />
            ))}
            {w > PORT_PX && (
              <text x={x + w / 2} y={MIDDLE + Math.max(h, fill) + 16} textAnchor="middle" fontSize={TYPE.note}>
                {Number.isFinite(fits) ? fitsText(part) : "not said"}
              </text>
            )}
            {w > PORT_PX && askedOf(part) > 0 && (
              <text x={x + w / 2} y={MIDDLE + 4.5} textAnchor="middle" fontSize={TYPE.line} fontWeight={650} className="mono halo">
                {lanes ? `${rateText(part.there.asked)} + ${rateText(part.back.asked)}` : rateText(askedOf(part))}
              </text>
            )}
            {/* biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no button. */}
            <rect
              x={x}
              y={MIDDLE - Math.max(12, all)}
              width={w}
              height={2 * Math.max(12, all)}
              fill="transparent"
              role="button"
              tabIndex={0}
              aria-label={`${part.place.name}: ${freeText(part.place)}`}
              className="cursor-pointer"
              onClick={() => choose(part.place.id)}
              onKeyDown={(e) => {
                if (e.key === "Enter" || e.key === " ") {
                  e.preventDefault();
                  choose(part.place.id);
                }
              }}
            />
          </g>
        );
      })}
      {laid.map(({ part, x, width: w }, i) =>
        isSegment(part) ? null : <Building key={part.siteId} box={part} x={x} width={w} hatch={hatch} isEnd={i === laid.length - 1} />,
      )}
      <Ends x={whole - END_PX} hangs={hangs} scale={scale} />
      {narrowest !== null && !segments.some((s) => s.place.id === narrowest.id) && (
        // A recorder or a device: it is no part of the pipe, and yet the narrowest.
        <>
          <text x={8} y={18} fontSize={TYPE.note} fontWeight={650} style={{ fill: figureInk(verdict) }}>
            Narrowest: {cutMiddle(narrowest.name, 60)}
          </text>
          <text x={8} y={56} fontSize={40} fontWeight={750} style={{ fill: figureInk(verdict) }} data-testid="narrowest-figure">
            {freeText(narrowest)}
          </text>
        </>
      )}
      {laid.map(({ part, x, width: w }) => {
        if (!isSegment(part) || part.place.id !== narrowest?.id) return null;
        const fill = half(part.kind === "air" ? askedOf(part) : 2 * Math.max(part.there.asked, part.back.asked));
        // Where the pipe is wider than the page its figure stands where the page begins.
        const scrolls = whole > width;
        const isRight = !scrolls && x + w / 2 > whole / 2;
        const textX = scrolls ? 8 : isRight ? Math.min(x + w / 2 + 120, whole - 6) : Math.max(6, x + w / 2 - 120);
        const full = fullYearText(part.place, thisYear);
        return (
          <g key="narrowest">
            <text
              x={textX}
              y={18}
              textAnchor={isRight ? "end" : "start"}
              fontSize={TYPE.note}
              fontWeight={650}
              fill={figureInk(verdict)}
              style={{ fill: figureInk(verdict) }}
            >
              Narrowest: {cutMiddle(part.place.name, 44)}
              {full === null ? "" : `, ${full}`}
            </text>
            <text
              x={textX}
              y={56}
              textAnchor={isRight ? "end" : "start"}
              fontSize={40}
              fontWeight={750}
              style={{ fill: figureInk(verdict) }}
              data-testid="narrowest-figure"
            >
              {freeText(part.place)}
            </text>
            <g
              role="slider"
              tabIndex={0}
              aria-label="What if more were asked: all that is asked, multiplied"
              aria-orientation="vertical"
              aria-valuemin={0.1}
              aria-valuemax={10}
              aria-valuenow={Math.round(times * 100) / 100}
              aria-valuetext={`${Math.round(times * 100)} % of what is asked`}
              className="handle"
              data-testid="what-if"
              onPointerDown={(e) => {
                e.currentTarget.ownerSVGElement!.setPointerCapture(e.pointerId);
                setHeld({ fromY: e.clientY, times, half: fill });
                onHeld(true);
              }}
              onKeyDown={onKey}
            >
              <rect x={x + w / 2 - 22} y={MIDDLE - fill - 12} width="44" height="24" fill="transparent" />
              <path d={`M${x + w / 2 - 12} ${MIDDLE - fill}h24`} stroke={figureInk(verdict)} strokeWidth="5" />
              <path
                d={`M${x + w / 2} ${MIDDLE - fill - 11}l-4 6h8zM${x + w / 2} ${MIDDLE - fill + 11}l-4 -6h8z`}
                fill={figureInk(verdict)}
              />
            </g>
          </g>
        );
      })}
    </svg>
  );
};

const clampTimes = (t: number): number => Math.round(Math.min(10, Math.max(0.1, t)) * 100) / 100;
const shareUsed = (p: ShownPlace): number =>
  Number.isFinite(p.figures.allMbps) && p.figures.allMbps > 0 ? p.figures.fitsMbps / p.figures.allMbps : 1;
const fitsText = (s: Segment): string =>
  s.kind === "air"
    ? `${rateText(s.there.fits + s.back.fits)} fit`
    : s.there.fits === s.back.fits
      ? `${rateText(s.there.fits)} each way`
      : `${rateText(s.there.fits)} + ${rateText(s.back.fits)} fit`;
