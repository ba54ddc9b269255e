import { Check } from "lucide-react";
import type { Candidate, RackRow as Row } from "@/core/rack";
import { keptMultipleOf, serves, stockOf } from "@/core/rack";
import { Euro, usePriceText } from "../../../controls/euro";
import { VerdictMark } from "../../../marks/verdict-mark";
import { bandText, pairName, rateText, spareText, stockText } from "../../../wording/gear";
import { dbmText, figure, lengthText, type Units } from "../../../wording/numbers";
import { onAxis, type RateAxis } from "./axis";
import { faceText } from "./face-text";
import { BAR_HEIGHT, RateBar } from "./rate-bar";

export interface RowParts {
  readonly needMbps: number;
  readonly needToFarMbps: number;
  readonly needToNearMbps: number;
  readonly axis: RateAxis;
  readonly px: number;
  readonly units: Units;
  readonly hatch: string;
}

/** Columns of the rack: tick, name, face, bars, price. */
export const RACK_COLUMNS =
  "grid-cols-[26px_214px_66px_minmax(0,1fr)_92px] max-[1199px]:grid-cols-[26px_176px_minmax(0,1fr)_84px] max-[899px]:grid-cols-[26px_minmax(0,1fr)_92px]";
/** In a narrower window the face goes, in a narrow one the bar takes a line of its own. */
export const FACE_CELL = "pt-0.5 text-right text-line max-[1199px]:hidden";
export const BAR_CELL = "relative min-w-0 pl-4 max-[899px]:col-span-3 max-[899px]:row-start-2 max-[899px]:pl-0";

/** The need, through the bars of a line. */
export const NeedLine = ({ parts }: { parts: Pick<RowParts, "axis" | "px" | "needMbps"> }) => (
  <span
    aria-hidden="true"
    className="absolute -inset-y-1.5 ml-4 w-[1.4px] bg-ink max-[899px]:ml-0"
    style={{ left: onAxis(parts.axis, parts.needMbps, parts.px).x }}
  />
);

const WIDTHS_Y = 24;
/** Letters of a tick's words, px each, about. */
const LETTER_PX = 5.9;

/** Other widths of the pair as ticks beneath its bar, as far as there is room beside one another. */
const widthTicks = (row: Row, p: RowParts): { x: number; words: string }[] => {
  const out: { x: number; words: string }[] = [];
  let free = 0;
  const all = row.widths.map((c) => ({ c, mbps: keptMultipleOf(c) * p.needMbps })).sort((a, b) => a.mbps - b.mbps);
  for (const { c, mbps } of all) {
    const at = onAxis(p.axis, mbps, p.px);
    const words = `${c.widthMhz} MHz keeps ${rateText(mbps)}`;
    if (at.broken || at.x < free || at.x + words.length * LETTER_PX > p.px + 60) continue;
    out.push({ x: at.x, words });
    free = at.x + words.length * LETTER_PX + 16;
  }
  return out;
};

/** What an end is set to, in short. */
const settingWords = (c: Candidate): string => {
  const { toFar, toNear } = c.option!;
  const powers = toFar.powerDbm === toNear.powerDbm ? figure(toFar.powerDbm) : `${figure(toFar.powerDbm)} and ${figure(toNear.powerDbm)}`;
  return `${powers} dBm, ${dbmText(Math.max(toFar.levelDbm, toNear.levelDbm))} there`;
};

/** What speaks against a candidate that is in the rack all the same. */
const markWords = (c: Candidate, units: Units): string[] => [
  ...(c.clearance?.verdict === "short" ? [`path ${lengthText(units, c.clearance.missM ?? 0)} short`] : []),
  ...(c.option?.radar === true ? ["radar duty"] : []),
  ...(c.beyondRangeKm !== null ? [`made for ${figure(c.beyondRangeKm, c.beyondRangeKm < 1 ? 1 : 0)} km`] : []),
  ...(c.excessDb > 0.05 ? [`${figure(c.excessDb, 1)} dB hot for its densest`] : []),
];

export const RackRowLine = ({
  row,
  first,
  selected,
  ticked,
  taken,
  parts,
  onSelect,
  onTick,
}: {
  row: Row;
  /** The best one: its figure is larger. */
  first: boolean;
  selected: boolean;
  ticked: boolean;
  taken: boolean;
  parts: RowParts;
  onSelect: () => void;
  onTick: () => void;
}) => {
  const c = row.best;
  const kept = keptMultipleOf(c) * parts.needMbps;
  const spare = kept - parts.needMbps;
  const ok = serves(c);
  const at = onAxis(parts.axis, kept, parts.px);
  const name = pairName(c.pair);
  const cost = usePriceText()(c.priceEur);
  const ticks = widthTicks(row, parts);
  const marks = markWords(c, parts.units);
  const words = first || !ok ? spareText(spare) : spareText(spare).replace(" Mbps", "");
  const room = at.x + words.length * (first ? 9.6 : 7) < parts.px;
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the rack itself has the keys and names the line that is chosen
    // biome-ignore lint/a11y/useKeyWithClickEvents: the same
    <div
      role="option"
      id={`rack-${c.id}`}
      aria-selected={selected}
      aria-label={`${name}, ${bandText(c.band)}, ${figure(c.widthMhz)} MHz, ${spareText(spare)}${cost === "" ? "" : `, ${cost}`}${ticked ? ", ticked" : ""}`}
      data-candidate={c.id}
      data-serves={ok}
      onClick={onSelect}
      className={`grid ${RACK_COLUMNS} cursor-pointer items-start border-b border-rule py-1 pl-4 pr-3.5 ${selected ? "bg-band" : ""}`}
    >
      {/* A line of the list has no button in it: the space bar ticks, and a press on the box does the same. */}
      <span
        aria-hidden="true"
        data-tick={ticked}
        className="mt-0.5 grid h-6 w-6 place-items-center"
        onClick={(e) => {
          e.stopPropagation();
          onTick();
        }}
      >
        <span className={`grid h-4 w-4 place-items-center border-[1.4px] border-ink text-label ${ticked ? "bg-ink text-paper" : ""}`}>
          {ticked ? <Check size={12} strokeWidth={3} /> : null}
        </span>
      </span>
      <div className="min-w-0 pr-2">
        <div className="text-press font-figure leading-[18px]">
          {name}
          {taken ? <span className="cap font-said">, planned</span> : null}
        </div>
        <div className="cap truncate">
          {bandText(c.band)}, {figure(c.widthMhz)} MHz on {figure(c.option!.centreMhz, Number.isInteger(c.option!.centreMhz) ? 0 : 1)}
        </div>
        <div className="cap truncate">{settingWords(c)}</div>
      </div>
      <div className={FACE_CELL}>{faceText(c.faceCm, parts.units)}</div>
      <div className={BAR_CELL}>
        <NeedLine parts={parts} />
        <svg width={parts.px + 44} height={ticks.length > 0 ? 44 : 26} className="relative block overflow-visible" aria-hidden="true">
          <RateBar
            axis={parts.axis}
            px={parts.px}
            needMbps={parts.needMbps}
            keptMbps={kept}
            mostMbps={c.drawn === null ? null : c.drawn.p90 * parts.needMbps}
            y={3}
            hatch={parts.hatch}
          />
          {!at.broken && (
            <text
              x={room ? Math.max(at.x, onAxis(parts.axis, (c.drawn?.p90 ?? 0) * parts.needMbps, parts.px).x) + 8 : 6}
              y={first ? 16 : 15}
              fontSize={first ? 17 : 13}
              fontWeight={650}
              className="halo"
              style={{ fill: ok ? "var(--ink)" : "var(--short-figure)" }}
            >
              {words}
              {first && room ? (
                <tspan fontSize={12.5} fontWeight={400} dx={6}>
                  {rateText(keptMultipleOf(c) * parts.needToFarMbps)} there, {rateText(keptMultipleOf(c) * parts.needToNearMbps)} back
                </tspan>
              ) : null}
            </text>
          )}
          {at.broken && (
            <text
              x={onAxis(parts.axis, parts.needMbps, parts.px).x + 8}
              y={15}
              fontSize={first ? 15 : 13}
              fontWeight={650}
              className="halo"
            >
              {words}
            </text>
          )}
          {ticks.length > 0 && (
            <g>
              <path
                d={`M${Math.min(at.x, ticks[0]!.x)} ${3 + BAR_HEIGHT}V${WIDTHS_Y + 6}H${ticks[ticks.length - 1]!.x}`}
                fill="none"
                stroke="var(--hair)"
              />
              {ticks.map((t) => (
                <g key={t.words}>
                  <path d={`M${t.x} ${WIDTHS_Y}v12`} stroke="var(--ink)" />
                  <text x={t.x + 5} y={WIDTHS_Y + 10} fontSize={12} className="halo">
                    {t.words}
                  </text>
                </g>
              ))}
            </g>
          )}
        </svg>
        {marks.length > 0 && (
          <div className="cap relative max-w-full" style={{ paddingLeft: onAxis(parts.axis, parts.needMbps, parts.px).x + 8 }}>
            <span className={c.clearance?.verdict === "short" ? "text-short-figure" : ""}>
              {c.clearance?.verdict === "short" && <VerdictMark verdict="short" a={6} />} {marks.join(", ")}
            </span>
          </div>
        )}
      </div>
      <div className="text-right">
        <div className="figure text-press">
          <Euro of={c.priceEur} />
        </div>
        {!ok && <div className="cap">{c.drawn === null ? "not drawn" : `${figure(c.drawn.serves * 100)} cases in 100`}</div>}
        {ok && <div className="cap">{stockText(stockOf(c.pair))}</div>}
        {row.beats.length > 0 && <div className="cap">{row.beats.length} beneath it</div>}
      </div>
    </div>
  );
};
