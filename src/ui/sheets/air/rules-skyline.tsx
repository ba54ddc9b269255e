import type { Stretch } from "@/core/air";
import { TYPE } from "../../drawing/type";
import { figure } from "../../wording/numbers";
import type { BandScale } from "./air-scale";
import { Label, LEFT, RIGHT, RULES_PX } from "./band-frame";

/** What the rules allow over frequency: for a pair as a skyline, for a hub as a dashed line. */
export const RulesSkyline = ({
  pair,
  hub,
  scale,
  width,
  duty,
}: {
  pair: readonly Stretch[];
  hub: readonly Stretch[];
  scale: BandScale;
  width: number;
  duty: string;
}) => {
  const top = Math.max(30, ...pair.concat(hub).map((s) => Math.min(60, s.eirpDbm ?? 0)));
  const y0 = RULES_PX - 24;
  const ruleY = (dbm: number): number => y0 - (Math.max(0, dbm - 10) / (top - 10)) * (RULES_PX - 50);
  return (
    <g data-testid="skyline">
      <Label y={16} words="Rules" note="EIRP, dBm" />
      {[20, 40]
        .filter((t) => t < top)
        .map((t) => (
          <g key={t}>
            <path d={`M${LEFT} ${ruleY(t)}H${width - RIGHT}`} stroke="var(--grid)" />
            <text x={LEFT - 6} y={ruleY(t) + 4} textAnchor="end" fontSize={TYPE.tick} className="mono">
              {t}
            </text>
          </g>
        ))}
      {pair.map((s) => (
        <SkyStretch
          key={`p${s.lowMhz}`}
          s={s}
          x0={scale.x(s.lowMhz)}
          x1={scale.x(s.highMhz)}
          y0={y0}
          y={ruleY(Math.min(60, s.eirpDbm ?? 10))}
          duty={duty}
        />
      ))}
      {hub.map((s) =>
        s.eirpDbm === null ? null : (
          <path
            key={`h${s.lowMhz}`}
            d={`M${scale.x(s.lowMhz)} ${ruleY(Math.min(60, s.eirpDbm))}H${scale.x(s.highMhz)}`}
            stroke="var(--ink)"
            strokeWidth="1.2"
            strokeDasharray="4 3"
          />
        ),
      )}
      {merged(pair).map((s) => {
        const [x0, x1] = [scale.x(s.lowMhz), scale.x(s.highMhz)];
        if (x1 - x0 < 34) return null;
        return (
          <text
            key={`t${s.lowMhz}`}
            x={(x0 + x1) / 2}
            y={s.eirpDbm === null ? y0 - 8 : ruleY(Math.min(60, s.eirpDbm)) - 5}
            textAnchor="middle"
            fontSize={TYPE.label}
            fontWeight={650}
            className="halo"
          >
            {s.eirpDbm === null
              ? x1 - x0 > 66
                ? "indoors only"
                : ""
              : `${figure(s.eirpDbm)}${x1 - x0 > 86 ? (s.permission !== null ? " permission" : s.radar ? " radar" : " pair") : ""}`}
          </text>
        );
      })}
      <path d={`M${LEFT} ${y0}H${width - RIGHT}`} stroke="var(--ink)" strokeWidth="1.2" />
      {scale.ticks.map((t) => (
        <text
          key={t}
          x={scale.x(t)}
          y={y0 + 15}
          textAnchor={scale.x(t) > width - 40 ? "end" : "middle"}
          fontSize={TYPE.tick}
          className="mono"
        >
          {figure(t)}
        </text>
      ))}
    </g>
  );
};

/** Neighbouring stretches of one limit read as one. */
const merged = (list: readonly Stretch[]): Stretch[] => {
  const out: Stretch[] = [];
  for (const s of list) {
    const last = out.at(-1);
    if (last !== undefined && Math.abs(last.highMhz - s.lowMhz) < 1e-6 && last.eirpDbm === s.eirpDbm && last.radar === s.radar)
      out[out.length - 1] = { ...last, highMhz: s.highMhz };
    else out.push(s);
  }
  return out;
};

const SkyStretch = ({ s, x0, x1, y0, y, duty }: { s: Stretch; x0: number; x1: number; y0: number; y: number; duty: string }) => (
  <g>
    <title>
      {`${figure(s.lowMhz)} to ${figure(s.highMhz)} MHz: ${s.eirpDbm === null ? "not out of doors" : `${figure(s.eirpDbm, 1)} dBm EIRP`}${s.radar ? ", radar duty" : ""}${s.permission === null ? "" : `, ${s.permission}`}. ${s.rule.source}, ${s.rule.asOf}, confidence ${s.rule.confidence}`}
    </title>
    {s.eirpDbm === null ? (
      <rect x={x0} y={y0 - 16} width={Math.max(0, x1 - x0)} height={16} fill={`url(#${duty})`} stroke="var(--hair)" strokeWidth="0.8" />
    ) : (
      <>
        <rect x={x0} y={y} width={Math.max(0, x1 - x0)} height={y0 - y} fill={s.permission === null ? "var(--lens)" : "var(--paper)"} />
        {s.radar && <rect x={x0} y={y} width={Math.max(0, x1 - x0)} height={y0 - y} fill={`url(#${duty})`} />}
        <path
          d={`M${x0} ${y0}V${y}H${x1}V${y0}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.5"
          strokeDasharray={s.permission === null ? undefined : "5 3"}
        />
      </>
    )}
  </g>
);
