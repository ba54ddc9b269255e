"use client";
import { type Direction, explainDirection, explanationText, type LinkPlan, type WidthRow } from "@/core/link";
import { ScrollRegion } from "../controls/scroll-region";
import { figure, type Units } from "../wording/numbers";
import { symbolIn } from "../wording/terms";
import { TYPE } from "./type";

interface Part {
  readonly name: string;
  readonly us: number;
  readonly fill: string;
}

const partsOf = (d: Direction): Part[] => {
  const p = d.airtime?.parts;
  if (p === undefined) return [];
  return [
    { name: "data", us: p.dataUs, fill: "var(--zone)" },
    { name: "waiting for the channel", us: p.contentionUs, fill: "var(--ground-fill)" },
    { name: "TCP's answers", us: p.answersUs, fill: "var(--lens)" },
    { name: "preamble", us: p.preambleUs, fill: "var(--tree-fill)" },
    { name: "gaps and acknowledgement", us: p.gapUs + p.ackUs, fill: "var(--block-fill)" },
    { name: "travel of the wave", us: p.travelUs, fill: "var(--paper)" },
    { name: "frame control, other direction", us: p.frameUs, fill: "var(--ground-fill)" },
  ].filter((x) => x.us > 0);
};

/** Where the airtime of one exchange goes, and what every channel width would give. */
export const RateDrawing = ({
  direction: d,
  plan,
  widths,
  units,
  width,
  choose,
}: {
  direction: Direction;
  plan: LinkPlan;
  widths: readonly WidthRow[];
  units: Units;
  width: number;
  choose: (widthMhz: number) => void;
}) => {
  const parts = partsOf(d);
  const total = parts.reduce((s, p) => s + p.us, 0);
  const barWidth = Math.max(200, width - 40);
  const explanation = explainDirection(d, plan).find((e) => e.id === "rate");
  let x = 0;
  const most = Math.max(1, ...widths.map((w) => w.usableMbps));
  return (
    <div className="flex h-full min-h-0 flex-col px-5 pb-2">
      <p className="cap m-0 line-clamp-2 min-h-[32px]" aria-live="polite">
        {explanation === undefined
          ? "No modulation holds: nothing is carried."
          : `${explanationText(explanation, symbolIn(units))} ${explanation.clause}.`}
      </p>
      {parts.length > 0 && (
        <svg
          width={barWidth}
          height={36}
          role="img"
          aria-label={`One exchange of ${figure(total)} microseconds, ${figure((parts[0]!.us / total) * 100)} % of it data`}
        >
          {parts.map((p) => {
            const w = (p.us / total) * barWidth;
            const at = x;
            x += w;
            return (
              <g key={p.name}>
                <rect x={at} y={4} width={Math.max(0.6, w)} height={24} fill={p.fill} stroke="var(--ink)" strokeWidth="1" />
                {w > 8 * p.name.length + 8 ? (
                  <text x={at + 6} y={21} fontSize={TYPE.line}>
                    {p.name}
                    {p.name === "data" ? ` ${figure(p.us)} µs, ${figure((p.us / total) * 100)} % of an exchange` : ""}
                  </text>
                ) : null}
              </g>
            );
          })}
        </svg>
      )}
      {parts.length > 1 && (
        <p className="cap m-0 truncate">
          {parts
            .slice(1)
            .map((p) => `${p.name} ${figure(p.us)} µs`)
            .join(", ")}
        </p>
      )}
      <ScrollRegion label="Channel widths" className="flex-1">
        <table className="w-full border-collapse text-line leading-[17px]">
          <thead>
            <tr className="text-left text-note text-ink-2 [&>th]:font-normal">
              <th scope="col">Channel width</th>
              <th scope="col">Spectrum, MHz</th>
              <th scope="col">Signal over noise</th>
              <th scope="col">Modulation</th>
              <th scope="col" className="w-[34%]">
                Usable, Mbps, the slower way
              </th>
              <th scope="col">Service</th>
            </tr>
          </thead>
          <tbody>
            {widths.map((w) => {
              const now = w.widthMhz === plan.widthMhz;
              return (
                <tr key={w.widthMhz} className={now ? "font-bold" : ""} aria-current={now || undefined}>
                  <td>
                    {now ? (
                      `${w.widthMhz} MHz, in force`
                    ) : (
                      <button type="button" className="press min-h-6" onClick={() => choose(w.widthMhz)}>
                        {w.widthMhz} MHz
                      </button>
                    )}
                  </td>
                  <td className="font-mono text-note">
                    {figure(w.lowMhz)} to {figure(w.highMhz)}
                  </td>
                  <td className="font-mono text-note">{w.snrDb === null ? "" : `${figure(w.snrDb)} dB`}</td>
                  <td>
                    {!w.allowed ? "not allowed by the rules" : w.modulation === null ? "none holds" : `${w.modulation} ${w.codeRate}`}
                  </td>
                  <td>
                    <span className="flex items-center gap-2">
                      <span
                        aria-hidden="true"
                        className="inline-block h-[9px] border border-ink"
                        style={{ width: `${Math.max(0.5, (w.usableMbps / most) * 62)}%`, background: now ? "var(--ink)" : "var(--zone)" }}
                      />
                      <span className="font-mono text-note">{figure(w.usableMbps)}</span>
                    </span>
                  </td>
                  <td className={`v-${w.verdict}`}>{w.verdict}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </ScrollRegion>
    </div>
  );
};
