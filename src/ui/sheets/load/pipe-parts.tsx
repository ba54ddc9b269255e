import type { Verdict } from "@/core/link";
import { TYPE } from "../../drawing/type";
import { rateText } from "../../wording/gear";
import { cutMiddle } from "../../wording/names";
import type { Box } from "./load-view";

/** Half way down the pipe. */
export const MIDDLE = 158;
const MOST_ENDS = 5;

/** Ink of a figure: short is darker there than in a mark. */
export const figureInk = (v: Verdict): string => (v === "clear" ? "var(--ink)" : v === "short" ? "var(--short-figure)" : `var(--${v})`);

/** Each device as a pipe of its own, out of the last building. */
export const Ends = ({
  x,
  hangs,
  scale,
}: {
  x: number;
  hangs: readonly { name: string; there: number; back: number }[];
  scale: number;
}) => {
  const shown = hangs.length > MOST_ENDS ? hangs.slice(0, MOST_ENDS - 1) : hangs;
  const rest = hangs.slice(shown.length);
  const rows =
    rest.length === 0
      ? shown
      : [
          ...shown,
          { name: `${rest.length} others`, there: rest.reduce((n, r) => n + r.there, 0), back: rest.reduce((n, r) => n + r.back, 0) },
        ];
  const gap = 38;
  const top = MIDDLE - ((rows.length - 1) * gap) / 2;
  return (
    <g>
      {rows.map((r, i) => {
        const y = top + i * gap;
        const from = MIDDLE + (i - (rows.length - 1) / 2) * 12;
        return (
          <g key={r.name}>
            <path
              d={`M${x} ${from}C${x + 16} ${from} ${x + 8} ${y} ${x + 26} ${y}`}
              fill="none"
              stroke="var(--zone)"
              strokeWidth={Math.max(2, Math.min(26, (r.there + r.back) * scale))}
            />
            <path d={`M${x} ${from}C${x + 16} ${from} ${x + 8} ${y} ${x + 26} ${y}`} fill="none" stroke="var(--ink)" strokeWidth="1" />
            <circle cx={x + 29} cy={y} r="3.5" fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.6" />
            <text x={x + 38} y={y - 1} fontSize={TYPE.note} fontWeight={650} className="halo">
              {cutMiddle(r.name, 17)}
            </text>
            <text x={x + 38} y={y + 13} fontSize={TYPE.label} className="halo">
              {rateText(r.there)} there, {rateText(r.back)} back
            </text>
          </g>
        );
      })}
      {rows.length === 0 && (
        <text x={x + 8} y={MIDDLE + 4} fontSize={TYPE.note}>
          nothing hangs here
        </text>
      )}
    </g>
  );
};

export const Building = ({ box, x, width, hatch, isEnd }: { box: Box; x: number; width: number; hatch: string; isEnd: boolean }) => {
  const words = cutMiddle(box.name, 24).split(" ");
  const middle = Math.ceil(words.length / 2);
  const lines =
    box.name.length > 10 && words.length > 1 ? [words.slice(0, middle).join(" "), words.slice(middle).join(" ")] : [words.join(" ")];
  return (
    <g>
      <rect x={x} y={MIDDLE - 66} width={width} height="132" fill={`url(#${hatch}-block)`} stroke="var(--block-line)" strokeWidth="1.4" />
      {lines.map((line, i) => (
        <text
          key={line}
          x={x + width / 2}
          y={MIDDLE - (lines.length - 1) * 8 + i * 17 + 4}
          textAnchor="middle"
          fontSize={TYPE.line}
          fontWeight={700}
          className="halo"
          style={{ fill: isEnd ? "var(--ink)" : "var(--near)" }}
        >
          {line}
        </text>
      ))}
      {box.others !== null && (
        <>
          <path
            d={`M${x + width / 2 - 12} ${MIDDLE - 66}v-14l5 -4l4 8l4 -8l5 4h6v14z`}
            fill="var(--zone)"
            stroke="var(--ink)"
            strokeWidth="1.2"
          />
          <text x={x + width / 2 + 18} y={MIDDLE - 76} fontSize={TYPE.label} fontWeight={600} className="halo">
            {box.others.ends === 1 ? "1 other end" : `${box.others.ends} other ends`}, {rateText(box.others.there)} +{" "}
            {rateText(box.others.back)}
          </text>
        </>
      )}
      {box.recorderMbps !== null && (
        <>
          <path d={`M${x + width / 2 - 12} ${MIDDLE + 66}v16h24v-16`} fill="var(--zone)" stroke="var(--ink)" strokeWidth="1.2" />
          <rect x={x} y={MIDDLE + 82} width={width} height="20" fill="var(--paper)" stroke="var(--block-line)" />
          <text x={x + width / 2} y={MIDDLE + 96} textAnchor="middle" fontSize={TYPE.label} fontWeight={700}>
            recorder {rateText(box.recorderMbps)}
          </text>
        </>
      )}
    </g>
  );
};
