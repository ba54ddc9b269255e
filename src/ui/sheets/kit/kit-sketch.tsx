"use client";
import type { KitRow, SiteWiring } from "@/contract";
import type { KitPlace } from "@/core/kit";
import { VerdictShape } from "../../marks/verdict-mark";
import { placeState, placeStateText } from "../../wording/kit";

const WIDTH = 104;
const HEIGHT = 330;
const MOST_DRAWN = 3;
const MAST_X = 32;
const WALL_X = 62;
const GROUND_Y = 282;

/** What of a place is still to pick, drawn where it is: a triangle with how many are missing, a number to pick, or a tick. */
const Mark = ({ x, y, rows }: { x: number; y: number; rows: readonly KitRow[] }) => {
  if (rows.length === 0) return null;
  const { missing, open } = placeState(rows);
  if (missing > 0)
    return (
      <g transform={`translate(${x} ${y})`}>
        <g transform="translate(0 -5)" className="mark-short">
          <VerdictShape verdict="short" a={6} />
        </g>
        <text x={8} y={0} fontSize={12} fontWeight={700} style={{ fill: "var(--short-figure)" }} className="mono">
          {missing}
        </text>
      </g>
    );
  return open > 0 ? (
    <text x={x} y={y} fontSize={12} fontWeight={700} className="mono" textAnchor="middle">
      {open}
    </text>
  ) : (
    <path d={`M${x - 5} ${y - 5}l4 4l7 -8`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
  );
};

/** One end in outline: mast, wall, hole, room and earth, each with what of its kit is in hand; pressing one leads to its lines. */
export const KitSketch = ({
  name,
  wiring,
  rows,
  mirror,
  show,
}: {
  name: string;
  wiring: SiteWiring | undefined;
  rows: readonly KitRow[];
  /** The mast stands towards the other end. */
  mirror: boolean;
  show: (where: KitPlace) => void;
}) => {
  const of = (where: KitPlace): readonly KitRow[] => rows.filter((r) => r.where === where);
  const places = wiring?.places ?? [];
  const onMast = places.filter((p) => p.kind === "radio");
  const surge = (where: "inside" | "out"): boolean =>
    places.some((p) => p.kind === "surge" && (where === "inside" ? p.where === "inside" : p.where !== "inside"));
  const zone = (where: KitPlace, label: string, x: number, y: number, w: number, h: number) => {
    if (of(where).length === 0) return null;
    return (
      // biome-ignore lint/a11y/useSemanticElements: a part of a drawing
      <g
        role="button"
        tabIndex={0}
        aria-label={`${label} at ${name}: ${placeStateText(of(where))}`}
        className="zone-press"
        onClick={() => show(where)}
        onKeyDown={(e) => {
          if (e.key !== "Enter" && e.key !== " ") return;
          e.preventDefault();
          show(where);
        }}
      >
        <rect x={x} y={y} width={w} height={h} fill="transparent" />
      </g>
    );
  };
  const at = (x: number): number => (mirror ? WIDTH - x : x);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing with parts to press
    <svg width={WIDTH} height={HEIGHT} role="group" aria-label={`${name} in outline`} className="flex-none" data-testid="kit-sketch">
      <g transform={mirror ? `translate(${WIDTH} 0) scale(-1 1)` : undefined} stroke="var(--ink)" fill="none">
        <rect x={0} y={GROUND_Y} width={WIDTH} height={HEIGHT - GROUND_Y} fill="var(--ground-fill)" stroke="none" />
        <line x1={0} x2={WIDTH} y1={GROUND_Y} y2={GROUND_Y} stroke="var(--ground-line)" strokeWidth={1.6} />
        <path d={`M${MAST_X} 14V${GROUND_Y - 20}`} strokeWidth={3} />
        <path d={`M${MAST_X} 96H${WALL_X}M${MAST_X} 168H${WALL_X}`} strokeWidth={1.6} />
        <path d={`M${WALL_X} 74V${GROUND_Y}h8V74zM${WALL_X - 16} 84L${WIDTH} 44V56L${WALL_X - 12} 93z`} fill="var(--paper)" />
        {onMast.slice(0, MOST_DRAWN).map((p, i) => (
          <rect key={p.id} x={MAST_X + 3} y={18 + i * 25} width={14} height={20} fill="var(--paper)" strokeWidth={1.6} />
        ))}
        <path d={`M${MAST_X + 10} 38V176q0 26 18 26H${WALL_X + 22}`} strokeWidth={1.8} />
        {surge("out") && <rect x={MAST_X + 3} y={134} width={14} height={14} fill="var(--paper)" strokeWidth={1.6} />}
        {surge("inside") && <rect x={WALL_X + 14} y={195} width={14} height={14} fill="var(--paper)" strokeWidth={1.6} />}
        <path d={`M${WALL_X + 21} ${surge("inside") ? 209 : 202}V230`} strokeWidth={1.8} />
        <rect x={WALL_X + 12} y={230} width={26} height={20} fill="var(--paper)" strokeWidth={1.6} />
        <path d={`M${MAST_X} ${GROUND_Y - 20}V${GROUND_Y + 14}m-10 0h20m-16 5h12m-9 5h6`} strokeWidth={1.4} />
      </g>
      {onMast.length > MOST_DRAWN && (
        <text x={at(MAST_X + 10)} y={11} fontSize={11.5} textAnchor="middle" className="mono">
          {onMast.length} radios
        </text>
      )}
      {surge("out") && (
        <text x={at(MAST_X + 10)} y={145} fontSize={10.5} textAnchor="middle">
          S
        </text>
      )}
      {surge("inside") && (
        <text x={at(WALL_X + 21)} y={206} fontSize={10.5} textAnchor="middle">
          S
        </text>
      )}
      <Mark x={at(12)} y={36} rows={of("mast")} />
      <Mark x={at(12)} y={140} rows={of("wall")} />
      <Mark x={at(WALL_X - 10)} y={194} rows={of("through")} />
      <Mark x={at(WALL_X + 25)} y={272} rows={of("inside")} />
      <Mark x={at(MAST_X + 34)} y={GROUND_Y + 28} rows={of("earth")} />
      {zone("mast", "On the mast", at(0) - (mirror ? 44 : 0), 4, 44, 86)}
      {zone("wall", "Down the wall", at(0) - (mirror ? 44 : 0), 92, 44, 86)}
      {zone("through", "Through the wall", at(36) - (mirror ? 28 : 0), 180, 28, 34)}
      {zone("inside", "Indoors", at(WALL_X + 8) - (mirror ? 34 : 0), 182, 34, 96)}
      {zone("earth", "To earth", 0, GROUND_Y, WIDTH, HEIGHT - GROUND_Y)}
    </svg>
  );
};
