"use client";
import type { Direction, LinkResult, Spread, Uncertainty } from "@/core/link";
import { chanceText, figure, lengthText, type Units } from "../wording/numbers";
import { TYPE } from "./type";

const ROW_PX = 44;
const LEFT = 178;
const MOST_INPUTS = 6;

interface Strip {
  readonly name: string;
  readonly unit: string;
  readonly spread: Spread;
  readonly digits: number;
  /** A value to mark: zero spare, the needed rate. */
  readonly mark: { readonly value: number; readonly words: string } | null;
}

const StripRow = ({ s, width, top }: { s: Strip; width: number; top: number }) => {
  const { spread } = s;
  const values = [spread.p02, spread.p98, ...(s.mark === null ? [] : [s.mark.value])];
  const low = Math.min(...values);
  const high = Math.max(...values);
  const room = Math.max(1e-9, high - low);
  const x = (v: number): number => LEFT + 26 + ((v - low) / room) * (width - LEFT - 70);
  const y = top + 20;
  const onRight = s.mark !== null && x(s.mark.value) > width * 0.55;
  const [from, to] = [figure(spread.p10, s.digits), figure(spread.p90, s.digits)];
  return (
    <g>
      <text x={LEFT - 10} y={y + 4} fontSize={TYPE.line} textAnchor="end">
        {s.name}, {s.unit}
      </text>
      <path d={`M${x(spread.p02)} ${y}H${x(spread.p98)}`} stroke="var(--ink)" strokeWidth="1" />
      <rect
        x={x(spread.p10)}
        y={y - 7}
        width={Math.max(1, x(spread.p90) - x(spread.p10))}
        height="14"
        fill="var(--band)"
        stroke="var(--ink)"
        strokeWidth="1.2"
      />
      <path d={`M${x(spread.p50)} ${y - 10}V${y + 10}`} stroke="var(--ink)" strokeWidth="2.4" />
      {s.mark !== null && (
        <g>
          <path d={`M${x(s.mark.value)} ${y - 14}V${y + 13}`} stroke="var(--short)" strokeWidth="1.6" strokeDasharray="4 2" />
          <text
            x={x(s.mark.value) + (onRight ? -4 : 4)}
            y={y - 11}
            fontSize={TYPE.tick}
            textAnchor={onRight ? "end" : "start"}
            className="halo"
          >
            {s.mark.words}
          </text>
        </g>
      )}
      {from !== to && (
        <text x={x(spread.p10)} y={y + 21} fontSize={TYPE.note} textAnchor="end" className="mono halo">
          {from}
        </text>
      )}
      <text x={x(spread.p90)} y={y + 21} fontSize={TYPE.note} textAnchor={from === to ? "end" : "start"} className="mono halo">
        {to}
      </text>
    </g>
  );
};

/** How sure the figures are: eight cases of ten for level, clearance and rate, and which input decides. */
export const DoubtDrawing = ({
  doubt,
  waiting,
  direction: d,
  reverse,
  result,
  units,
  width,
}: {
  doubt: Uncertainty | null;
  waiting: boolean;
  direction: Direction;
  reverse: boolean;
  result: LinkResult;
  units: Units;
  width: number;
}) => {
  if (doubt === null) {
    return (
      <p className="m-0 px-5 py-4">
        {waiting
          ? "Drawing the inputs 500 times."
          : "No spread can be told: the ground is not known all along the path, or the radios do not pair."}
      </p>
    );
  }
  const strips: Strip[] = [
    { name: "Level as read", unit: "dBm", spread: reverse ? doubt.levelToNearDbm : doubt.levelToFarDbm, digits: 0, mark: null },
    {
      name: "Clearance",
      unit: "share of F1",
      spread: doubt.shareOfF1,
      digits: 2,
      mark: {
        value: doubt.policyShare,
        // What is to spare is told by the drawing: here it is counted against the aperture, too, and next to an end that is nothing.
        words: `policy ${figure(doubt.policyShare, 1)}${doubt.spareM.p50 < 0 ? `; in the middle ${lengthText(units, -doubt.spareM.p50)} short` : ""}`,
      },
    },
    {
      name: "Usable rate",
      unit: "Mbps",
      spread: reverse ? doubt.rateToNearMbps : doubt.rateToFarMbps,
      digits: 0,
      mark: d.needMbps === null ? null : { value: d.needMbps, words: "need" },
    },
  ];
  const inputs = [...doubt.contributions].filter((c) => Math.max(c.ofLevel, c.ofClearance) > 0.01).slice(0, MOST_INPUTS);
  const drawing = Math.max(300, width - 330);
  return (
    <div className="flex h-full gap-4 px-5">
      <div className="min-w-0 flex-1">
        <p className="cap m-0 min-h-[32px]">
          {doubt.draws} draws of all inputs, always the same ones. Clear in {chanceText(doubt.probabilityClear)}
          {result.clearance.probability === null
            ? ""
            : `; ${chanceText(result.clearance.probability)} by the quick sum about the worst place`}
          . A reading inside the band is as planned; outside the line it is a fault to be found.
        </p>
        <svg width={drawing} height={ROW_PX * strips.length + 14} role="img" aria-label="Spread of level, clearance and rate">
          {strips.map((s, i) => (
            <StripRow key={s.name} s={s} width={drawing} top={i * ROW_PX + 6} />
          ))}
        </svg>
      </div>
      <table className="h-fit w-[300px] flex-none border-collapse text-line leading-[17px]">
        <caption className="cap text-left">What decides: share of the spread</caption>
        <thead>
          <tr className="text-note text-ink-2 [&>th]:font-normal">
            <th scope="col" className="text-left">
              Input
            </th>
            <th scope="col" className="w-[86px] text-left">
              of level
            </th>
            <th scope="col" className="w-[86px] text-left">
              of clearance
            </th>
          </tr>
        </thead>
        <tbody>
          {inputs.map((c) => (
            <tr key={c.input}>
              <td>{c.input}</td>
              {[c.ofLevel, c.ofClearance].map((share, i) => (
                <td key={i}>
                  <span className="flex items-center gap-1.5">
                    <span
                      aria-hidden="true"
                      className="inline-block h-[8px] border border-ink"
                      style={{ width: Math.max(1, share * 44), background: "var(--zone)" }}
                    />
                    <span className="font-mono text-note">{figure(share * 100)} %</span>
                  </span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
};
