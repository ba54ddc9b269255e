"use client";
import { type ReactNode, useId, useState } from "react";
import type { Direction, LevelTerm } from "@/core/link";
import { figure, signed, type Units } from "../wording/numbers";
import { termExplanation, termLabel } from "../wording/terms";
import { captionField, textBox } from "./caption-field";
import { Hatches } from "./hatches";
import { TYPE } from "./type";

const LEFT = 52;
const TOP = 58;
const FOOT = 54;
const GAP_PX = 14;
const BREAK_OVER_DB = 30;
/** Terms smaller than this have no column of their own; they stay in the sum. */
const OWN_COLUMN_DB = 0.05;

interface Column {
  readonly term: LevelTerm;
  readonly fromDbm: number;
  readonly toDbm: number;
}

/** Whose a term is, or that it is a loss which could be mended: by the name of its colour. */
const sideOf = (term: LevelTerm): "near" | "far" | "short-figure" | "ink" => {
  if (term.id === "antenna-out") return "near";
  if (term.id === "antenna-in") return "far";
  return term.valueDb < -3 && /diffraction|vegetation|beside|own-edge/.test(term.id) ? "short-figure" : "ink";
};
const SIDE_CLASS = { near: "text-near", far: "text-far", "short-figure": "text-short-figure", ink: "text-ink" } as const;

const cutEnd = (text: string, most: number): string =>
  text.length <= most ? text : `${text.slice(0, Math.max(1, Math.floor(most) - 1))}…`;

/** Columns of the level line; what is too small for a column is added to the air's. */
export const levelColumns = (d: Direction): Column[] => {
  const columns: Column[] = [];
  let level = 0;
  for (const term of d.terms) {
    const from = level;
    level += term.valueDb;
    const small = term.id !== "transmit" && Math.abs(term.valueDb) < OWN_COLUMN_DB;
    const before = columns[columns.length - 1];
    if (small && before !== undefined) columns[columns.length - 1] = { ...before, toDbm: level };
    else columns.push({ term, fromDbm: term.id === "transmit" ? term.valueDb : from, toDbm: level });
  }
  return columns;
};

interface LevelScale {
  readonly y: (dbm: number) => number;
  readonly breakAt: { readonly upperDbm: number; readonly lowerDbm: number } | null;
  readonly ticks: readonly number[];
}

const levelScale = (d: Direction, columns: readonly Column[], height: number): LevelScale => {
  const airAt = columns.findIndex((c) => c.term.id === "free-space");
  const before = columns.slice(0, Math.max(1, airAt)).flatMap((c) => [c.fromDbm, c.toDbm]);
  const after = [
    ...columns.slice(Math.max(0, airAt)).map((c) => c.toDbm),
    d.noiseDbm,
    d.bandLowDbm,
    d.bandHighDbm,
    d.ceilingDbm <= d.levelDbm + 34 ? d.ceilingDbm : d.levelDbm,
  ];
  const highMost = Math.max(...before) + 4;
  const highLeast = Math.min(...before) - 4;
  const lowMost = Math.max(...after) + 3;
  const lowLeast = Math.min(...after) - 4;
  const room = height - TOP - FOOT;
  const marks = (from: number, to: number, step: number): number[] => {
    const out: number[] = [];
    for (let v = Math.ceil(from / step) * step; v <= to; v += step) out.push(v);
    return out;
  };
  if (highLeast - lowMost > BREAK_OVER_DB) {
    const perDb = (room - GAP_PX) / (highMost - highLeast + lowMost - lowLeast);
    const seam = TOP + (highMost - highLeast) * perDb;
    return {
      y: (dbm) => (dbm >= (highLeast + lowMost) / 2 ? TOP + (highMost - dbm) * perDb : seam + GAP_PX + (lowMost - dbm) * perDb),
      breakAt: { upperDbm: highLeast, lowerDbm: lowMost },
      ticks: [...marks(highLeast, highMost, 20), ...marks(lowLeast, lowMost, 20)],
    };
  }
  const most = Math.max(highMost, lowMost);
  const least = Math.min(highLeast, lowLeast);
  const perDb = room / (most - least);
  return { y: (dbm) => TOP + (most - dbm) * perDb, breakAt: null, ticks: marks(least, most, 20) };
};

const zigzag = (x: number, y: number): string => `M${x - 11} ${y + 4}l6 -6l8 6l6 -6`;

/** Usual level of a short link: strong, and still far below what overloads. */
const USUAL_DBM = { low: -55, high: -50 };
const SHORT_LINK_M = 1000;

/** Where the held modulation works best: above what it needs with its margin, below what is too strong for it. */
const LevelWindow = ({
  direction: d,
  marginDb,
  scale,
  x,
  foot,
}: {
  direction: Direction;
  marginDb: number;
  scale: LevelScale;
  x: number;
  foot: number;
}) => {
  const { held } = d;
  if (held === null) return null;
  const fromDbm = held.needsDbm + marginDb;
  const inside = (dbm: number): number => Math.min(foot, Math.max(TOP, scale.y(dbm)));
  const [low, high] = [inside(fromDbm), inside(held.ceilingDbm)];
  const pathM = Number(d.terms.find((t) => t.id === "free-space")?.inputs.distanceM ?? 0);
  return (
    <g>
      <title>
        {held.modulation} {held.codeRate} works best from {figure(fromDbm)} to {figure(held.ceilingDbm)} dBm
      </title>
      <path d={`M${x - 5} ${low}H${x}V${high}H${x - 5}`} fill="none" stroke="var(--ink-2)" strokeWidth="1.2" />
      {pathM <= SHORT_LINK_M && <path d={`M${x} ${inside(USUAL_DBM.low)}V${inside(USUAL_DBM.high)}`} stroke="var(--ink)" strokeWidth="4" />}
    </g>
  );
};

/** The bracket at the right edge, in words. */
const windowText = (d: Direction, marginDb: number): string =>
  d.held === null
    ? ""
    : ` Bracket: ${d.held.modulation} ${d.held.codeRate} works best from ${figure(d.held.needsDbm + marginDb)} to ${figure(d.held.ceilingDbm)} dBm; thick: usual on short links, ${figure(USUAL_DBM.low)} to ${figure(USUAL_DBM.high)}.`;

/**
 * One continuous line from transmitter to receiver, each gain and loss a column. Hover, focus or press a column to
 * read where its figure comes from.
 */
export const LevelDrawing = ({
  direction: d,
  band,
  width,
  height,
  units,
  marginDb,
  risen = null,
  transmit,
  heading,
  still,
}: {
  direction: Direction;
  /** Reach of the 80 % band about the level when it was drawn; the quick sum otherwise. */
  band: { readonly lowDb: number; readonly highDb: number } | null;
  width: number;
  height: number;
  units: Units;
  /** Margin a modulation must keep. */
  marginDb: number;
  /** What others' radios lift the noise by while they send, and for what part of the time; null for nothing worth telling. */
  risen?: { readonly db: number; readonly share: number } | null;
  transmit?: ReactNode;
  heading?: ReactNode;
  /** For paper and files: words in the drawing itself, nothing to press. */
  still?: { readonly heading: string; readonly transmit: string };
}) => {
  const hatch = useId();
  const [open, setOpen] = useState<number | null>(null);
  const columns = levelColumns(d);
  const scale = levelScale(d, columns, height);
  const endX = width - 34;
  const step = (endX - LEFT - 10) / columns.length;
  const x = (i: number): number => LEFT + 10 + step * i;
  let line = `M${x(0) + step * 0.1} ${scale.y(columns[0]!.toDbm)}`;
  columns.forEach((c, i) => {
    if (i === 0) line += `H${x(1)}`;
    else line += `L${x(i) + step * 0.78} ${scale.y(c.toDbm)}H${x(i + 1)}`;
  });
  const airIndex = columns.findIndex((c) => c.term.id === "free-space");
  const bandFrom = Math.max(0, airIndex);
  const lift = band?.highDb ?? d.bandHighDbm - d.levelDbm;
  const drop = -(band?.lowDb ?? d.bandLowDbm - d.levelDbm);
  const bandPoints = columns.slice(bandFrom).map((c, k) => ({
    x0: x(bandFrom + k) + step * 0.78,
    x1: x(bandFrom + k + 1),
    dbm: c.toDbm,
    share: (k + 1) / (columns.length - bandFrom),
  }));
  // Captions of the limits: where the level line leaves room, else left out.
  const field = captionField(width, height - FOOT + 6);
  field.line(
    columns.flatMap(
      (c, i) =>
        (i === 0
          ? [[x(0), scale.y(c.toDbm)]]
          : [
              [x(i) + step * 0.78, scale.y(c.toDbm)],
              [x(i + 1), scale.y(c.toDbm)],
            ]) as [number, number][],
    ),
  );
  for (const dbm of [lift, -drop]) {
    field.line(
      bandPoints.flatMap((p): [number, number][] => [
        [p.x0, scale.y(p.dbm + dbm * p.share)],
        [p.x1, scale.y(p.dbm + dbm * p.share)],
      ]),
    );
  }
  field.take({ x0: endX - 7, y0: scale.y(d.levelDbm) - 7, x1: endX + 7, y1: scale.y(d.levelDbm) + 7 });
  const risenDbm = risen === null ? null : d.noiseDbm + risen.db;
  if (risenDbm !== null)
    field.line([
      [endX - 60, scale.y(risenDbm)],
      [endX + 8, scale.y(risenDbm)],
    ]);
  const beside = (text: string, y: number) =>
    field.place(
      [endX + 4, endX - 64, endX - 200, endX - 340].flatMap((at) =>
        [y - 5, y + 14].map((line) => ({ box: textBox(text, at, line, 12, "end"), x: at, y: line })),
      ),
    );
  const bandPath = `M${bandPoints.map((p) => `${p.x0} ${scale.y(p.dbm + lift * p.share)}L${p.x1} ${scale.y(p.dbm + lift * p.share)}`).join("L")}L${[
    ...bandPoints,
  ]
    .reverse()
    .map((p) => `${p.x1} ${scale.y(p.dbm - drop * p.share)}L${p.x0} ${scale.y(p.dbm - drop * p.share)}`)
    .join("L")}Z`;
  const shown = open === null ? null : columns[open];
  const ceilingY = scale.y(d.ceilingDbm);
  const breakY = scale.breakAt === null ? 0 : (scale.y(scale.breakAt.upperDbm) + scale.y(scale.breakAt.lowerDbm)) / 2;
  // Where on the slope of the air the line crosses the break.
  const air = columns[Math.max(0, airIndex)]!;
  const breakShare = (breakY - scale.y(air.fromDbm)) / (scale.y(air.toDbm) - scale.y(air.fromDbm) || 1);
  // A limit that falls into the break of the axis has no place on it.
  const hidden = scale.breakAt !== null && d.ceilingDbm < scale.breakAt.upperDbm && d.ceilingDbm > scale.breakAt.lowerDbm;
  const ceilingText = `too strong above ${figure(d.ceilingDbm)}`;
  const noiseText = `noise ${figure(d.noiseDbm)}`;
  const risenText = risen === null ? "" : `others lift it to ${figure(d.noiseDbm + risen.db)}, ${figure(risen.share * 100)} % of the time`;
  const ceilingAt = ceilingY > TOP && !hidden ? beside(ceilingText, ceilingY) : null;
  const noiseAt = beside(noiseText, scale.y(d.noiseDbm));
  const risenAt = risenDbm === null ? null : beside(risenText, scale.y(risenDbm));
  return (
    <div className="relative" style={{ width, height }}>
      {still === undefined && (
        <div className="absolute left-3 right-2 top-1.5">
          <div className="flex items-baseline gap-3">{heading}</div>
          <p className="m-0 mt-0.5 line-clamp-2 pl-1 text-note leading-[14px] text-ink-2" aria-live="polite">
            {shown === undefined || shown === null
              ? `dBm per chain; choose a column for its source.${windowText(d, marginDb)}`
              : termExplanation(shown.term, units)}
          </p>
        </div>
      )}
      <svg
        data-drawing="level"
        width={width}
        height={height}
        role="img"
        aria-label={`Level line: expected ${figure(d.levelDbm)} dBm per receive chain`}
      >
        <Hatches id={hatch} />
        {scale.ticks.map((t) => (
          <g key={t}>
            <path d={`M${LEFT} ${scale.y(t)}H${endX}`} stroke="var(--grid)" strokeWidth="0.75" />
            <text x={LEFT - 8} y={scale.y(t) + 4} fontSize={TYPE.note} textAnchor="end" className="mono" style={{ fill: "var(--ink-2)" }}>
              {figure(t)}
            </text>
          </g>
        ))}
        <path d={`M${LEFT} ${TOP}V${height - FOOT}`} stroke="var(--ink)" strokeWidth="1.2" />
        <rect
          x={endX - 26}
          y={scale.y(d.noiseDbm)}
          width="34"
          height={Math.max(0, height - FOOT - scale.y(d.noiseDbm))}
          fill={`url(#${hatch}-noise)`}
        />
        <path d={`M${endX - 40} ${scale.y(d.noiseDbm)}H${endX + 8}`} stroke="var(--ink)" strokeWidth="1" />
        {risenDbm !== null && (
          <path d={`M${endX - 60} ${scale.y(risenDbm)}H${endX + 8}`} stroke="var(--short)" strokeWidth="1.8" data-line="risen" />
        )}
        {ceilingY > TOP && !hidden && (
          <g>
            <path d={`M${endX - 60} ${ceilingY}H${endX + 8}`} stroke="var(--ink)" strokeWidth="1" strokeDasharray="2 2" />
          </g>
        )}
        {d.held !== null && <LevelWindow direction={d} marginDb={marginDb} scale={scale} x={endX + 15} foot={height - FOOT} />}
        <path d={bandPath} fill="var(--band)" />
        <path d={line} fill="none" stroke="var(--ink)" strokeWidth="2.4" strokeLinejoin="round" data-line="level" />
        {scale.breakAt !== null && airIndex > 0 && (
          <g stroke="var(--ink)" strokeWidth="1.4" fill="none">
            {[LEFT, x(airIndex) + step * 0.78 * breakShare].map((bx) => {
              const by = breakY;
              return (
                <g key={bx}>
                  <rect x={bx - 13} y={by - 4} width="26" height="10" fill="var(--paper)" stroke="none" />
                  <path d={zigzag(bx, by - 4)} />
                  <path d={zigzag(bx, by + 3)} />
                </g>
              );
            })}
          </g>
        )}
        {noiseAt !== null && (
          <text x={noiseAt.x} y={noiseAt.y} fontSize={TYPE.tick} textAnchor="end" className="halo" data-caption="noise">
            {noiseText}
          </text>
        )}
        {risenAt !== null && (
          <text
            x={risenAt.x}
            y={risenAt.y}
            fontSize={TYPE.tick}
            textAnchor="end"
            className="halo"
            style={{ fill: "var(--short-figure)" }}
            data-caption="risen"
          >
            {risenText}
          </text>
        )}
        {ceilingAt !== null && (
          <text x={ceilingAt.x} y={ceilingAt.y} fontSize={TYPE.tick} textAnchor="end" className="halo" data-caption="ceiling">
            {ceilingText}
          </text>
        )}
        <circle cx={endX} cy={scale.y(d.levelDbm)} r="4.5" fill="var(--ink)" />
        {still !== undefined && (
          <g>
            <text x="12" y="20" fontSize={TYPE.press} fontWeight="700">
              {still.heading}
            </text>
            <text x="12" y="38" fontSize={TYPE.note} style={{ fill: "var(--ink-2)" }}>
              {`dBm per receive chain.${windowText(d, marginDb)}`}
            </text>
            {columns.map((c, i) => (
              <g key={c.term.id} transform={`translate(${x(i)} ${height - 50})`}>
                <path d="M0 0V46" stroke="var(--rule)" />
                <text x="8" y="16" fontSize={TYPE.line} style={{ fill: `var(--${sideOf(c.term)})` }}>
                  {cutEnd(termLabel(c.term, units), (step - 10) / 7)}
                </text>
                <text x="8" y="38" fontSize={TYPE.press} fontWeight="650" className="mono" style={{ fill: `var(--${sideOf(c.term)})` }}>
                  {i === 0 ? still.transmit : `${signed(c.toDbm - c.fromDbm, 1)} dB`}
                </text>
              </g>
            ))}
          </g>
        )}
      </svg>
      {(still === undefined ? columns : []).map((c, i) => {
        const side = SIDE_CLASS[sideOf(c.term)];
        return (
          <div key={c.term.id} className="absolute border-l border-rule pl-2" style={{ left: x(i), width: step, bottom: 3, height: 48 }}>
            <button
              type="button"
              className={`block min-h-6 w-full truncate text-left text-line ${side} ${/^antenna/.test(c.term.id) ? "font-figure" : ""}`}
              aria-expanded={open === i}
              onMouseEnter={() => setOpen(i)}
              onMouseLeave={() => setOpen(null)}
              onFocus={() => setOpen(i)}
              onBlur={() => setOpen(null)}
              onClick={() => setOpen(i)}
            >
              {termLabel(c.term, units)}
            </button>
            <div className={`figure text-press leading-6 ${side}`}>{i === 0 ? transmit : `${signed(c.toDbm - c.fromDbm, 1)} dB`}</div>
          </div>
        );
      })}
    </div>
  );
};
