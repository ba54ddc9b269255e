import type { Arrival, JobFinding } from "@/core/wiring";
import { TYPE } from "../../drawing/type";
import { figure } from "../../wording/numbers";
import { supplyText, voltsText } from "../../wording/wiring";
import { shortBy } from "./wiring-view";

const HEIGHT = 46;

/** Watts or ampere-hours that decide, where no volts do. */
const OVER: Partial<Record<JobFinding["code"], readonly [key: string, unit: string, words: string]>> = {
  "panel-small": ["watts", "W", "of panel; asked are"],
  "battery-small": ["ah", "Ah", "of battery; asked are"],
  "port-over": ["watts", "W", "are asked of a port that gives"],
  "start-over": ["watts", "W", "are asked while all start, of a port that gives"],
  "switch-over": ["watts", "W", "are drawn from what gives"],
  "reserved-over": ["reserved", "W", "are set aside by class of"],
};
export const isOver = (f: JobFinding): boolean => OVER[f.code] !== undefined;

/** What is too little where no volts are: watts, ampere-hours. */
export const OverFigure = ({ finding: f, name }: { finding: JobFinding; name: string }) => {
  const over = OVER[f.code];
  if (over === undefined) return null;
  const [key, unit, words] = over;
  const against = Number(f.figures.asked ?? f.figures.most);
  return (
    <section aria-label="What decides" className="flex flex-none flex-wrap items-end gap-x-4 gap-y-1 px-4 pb-1.5" data-testid="decides">
      <div className="figure v-short whitespace-nowrap text-[46px] leading-[46px]">
        {figure(Number(f.figures[key]))} {unit}
      </div>
      <p className="m-0 max-w-[320px] text-line leading-[17px]">
        {words} <b>{Number.isFinite(against) ? `${figure(against)} ${unit}` : "no end"}</b>, {name}
      </p>
    </section>
  );
};

/** The supply that decides: what arrives, and the window in which the device works. */
export const VoltScale = ({ arrival, name, width }: { arrival: Arrival; name: string; width: number }) => {
  const { volts, window, gives, fit } = arrival;
  const by = shortBy(arrival);
  const over = volts === null || window === null ? 0 : volts - window.high;
  const isShort = fit !== "fits" || arrival.collapses || (by !== null && by < 0) || over > 0;
  const most = Math.max(60, (window?.high ?? 0) * 1.05, (volts ?? 0) * 1.1);
  const scaleW = Math.max(160, Math.min(380, width - 300));
  const x = (v: number): number => 6 + (v / most) * (scaleW - 12);
  const ticks = [0, 10, 20, 30, 40, 50].filter((t) => t < most);
  return (
    <section
      aria-label="The supply that decides"
      className="flex flex-none flex-wrap items-end gap-x-4 gap-y-1 px-4 pb-1.5"
      data-testid="decides"
    >
      <div className={`figure whitespace-nowrap text-[46px] leading-[46px] ${isShort ? "v-short" : "v-clear"}`}>
        {arrival.collapses ? "no start" : volts === null ? "? V" : voltsText(volts)}
      </div>
      <p className="m-0 max-w-[260px] text-line leading-[17px]">
        {arrival.collapses ? "holds at" : "arrives at"} <b>{name}</b>, {supplyText(gives.key)}
        {fit !== "fits" && arrival.takes !== null ? `, which asks for ${supplyText(arrival.takes.key)}` : ""}
        {over > 0
          ? `: ${figure(over, 1)} V more than it bears`
          : by === null
            ? ""
            : by < 0
              ? `: ${figure(-by, 1)} V too little to start`
              : `: ${figure(by, 1)} V to spare`}
      </p>
      <svg
        width={scaleW}
        height={HEIGHT}
        role="img"
        aria-label={
          window === null ? "the device's window is not known" : `it works from ${figure(window.low, 1)} to ${figure(window.high, 1)} volts`
        }
      >
        {window !== null && <rect x={x(window.low)} y={6} width={x(window.high) - x(window.low)} height={20} fill="var(--zone)" />}
        {window !== null && (
          <>
            <line x1={x(window.low)} x2={x(window.low)} y1={2} y2={28} stroke="var(--ink)" strokeDasharray="5 3" />
            <text
              x={x(window.low) + 100 > scaleW ? scaleW - 6 : x(window.low) + 4}
              y={20}
              fontSize={TYPE.label}
              textAnchor={x(window.low) + 100 > scaleW ? "end" : "start"}
            >
              {figure(window.low, 1)} to {figure(window.high, 1)} V
            </text>
          </>
        )}
        <line x1={6} x2={scaleW - 6} y1={28} y2={28} stroke="var(--ink)" />
        {ticks.map((t) => (
          <g key={t}>
            <line x1={x(t)} x2={x(t)} y1={25} y2={31} stroke="var(--ink)" />
            <text x={x(t)} y={43} fontSize={TYPE.label} textAnchor="middle" className="mono">
              {t}
            </text>
          </g>
        ))}
        {volts !== null && (
          <>
            <line x1={x(volts)} x2={x(volts)} y1={0} y2={30} stroke={isShort ? "var(--short)" : "var(--ink)"} strokeWidth={2.4} />
            {window !== null && volts < window.low && (
              <path
                d={`M${x(volts) + 2} 9H${x(window.low) - 2}M${x(volts) + 7} 5L${x(volts) + 2} 9L${x(volts) + 7} 13M${x(window.low) - 7} 5L${x(window.low) - 2} 9L${x(window.low) - 7} 13`}
                stroke="var(--short)"
                fill="none"
                strokeWidth={1.4}
              />
            )}
          </>
        )}
      </svg>
    </section>
  );
};
