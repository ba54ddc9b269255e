"use client";
import { TYPE } from "../../drawing/type";
import { figure } from "../../wording/numbers";
import { verdictInk } from "../hub/plan-drawing";
import type { Receiver } from "./air-view";
import { dbRise } from "./air-words";
import { cut, Label, LEFT, NOISE_PX, RIGHT } from "./band-frame";

const NOISE_TOP_DBM = -30;
const NOISE_FOOT_DBM = -100;

/** The noise at the receivers of one mast: own floor, what it is risen to, and the level that is wanted; one of them dimensioned. */
export const NoisePanel = ({
  receivers,
  receiver,
  choose,
  x,
  y,
  width,
  names,
  hatch,
  builtName,
}: {
  receivers: readonly Receiver[];
  receiver: Receiver | null;
  choose: (r: Receiver) => void;
  x: (mhz: number) => number;
  y: number;
  width: number;
  names: ReadonlyMap<string, string>;
  hatch: string;
  builtName: (r: Receiver) => string;
}) => {
  const level = (dbm: number): number =>
    y +
    NOISE_PX -
    12 -
    ((Math.max(NOISE_FOOT_DBM, Math.min(NOISE_TOP_DBM, dbm)) - NOISE_FOOT_DBM) / (NOISE_TOP_DBM - NOISE_FOOT_DBM)) * (NOISE_PX - 24);
  if (receiver === null) return null;
  const risen = receiver.air.floorDbm + receiver.air.riseDb;
  const [rx0, rx1] = [
    x(receiver.channel.centreMhz - receiver.channel.widthMhz / 2),
    x(receiver.channel.centreMhz + receiver.channel.widthMhz / 2),
  ];
  const middle = (rx0 + rx1) / 2;
  const lows = receivers.map((r) => x(r.channel.centreMhz - r.channel.widthMhz / 2));
  const highs = receivers.map((r) => x(r.channel.centreMhz + r.channel.widthMhz / 2));
  // The figure stands where most room is: left of all, right of all, or in the widest gap between.
  const edges = [LEFT, ...lows.flatMap((l, i) => [l, highs[i]!]), width - RIGHT].sort((a, b) => a - b);
  let [from, to] = [LEFT, LEFT];
  for (let i = 0; i + 1 < edges.length; i++) {
    const [a, b] = [edges[i]!, edges[i + 1]!];
    if (b - a > to - from && !lows.some((l, k) => l < b - 1 && highs[k]! > a + 1)) [from, to] = [a, b];
  }
  const figureLeft = (from + to) / 2 < middle;
  const tx = figureLeft ? to - 14 : from + 14;
  const anchor = figureLeft ? "end" : "start";
  const above = receiver.air.levelDbm === null ? null : risen - receiver.air.levelDbm;
  const ink = verdictInk(receiver.verdict === "clear" ? "clear" : receiver.verdict);
  return (
    <g data-testid="noise">
      <Label y={y + 18} words="Noise" note={`at ${cut(names.get(receiver.siteId ?? "") ?? "", 16)}`} />
      <text x={14} y={y + 50} fontSize={TYPE.label} style={{ fill: "var(--ink-2)" }}>
        heavy: wanted
      </text>
      <text x={14} y={y + 65} fontSize={TYPE.label} style={{ fill: "var(--ink-2)" }}>
        hair: own noise
      </text>
      <text x={14} y={y + 80} fontSize={TYPE.label} style={{ fill: "var(--ink-2)" }}>
        hatched: risen
      </text>
      {[-90, -70, -50].map((t) => (
        <g key={t}>
          <path d={`M${LEFT} ${level(t)}H${width - RIGHT}`} stroke="var(--grid)" />
          <text x={LEFT - 6} y={level(t) + 4} textAnchor="end" fontSize={TYPE.tick} className="mono">
            {figure(t)}
          </text>
        </g>
      ))}
      {receivers.map((r) => {
        const [x0, x1] = [x(r.channel.centreMhz - r.channel.widthMhz / 2), x(r.channel.centreMhz + r.channel.widthMhz / 2)];
        const [floor, up] = [level(r.air.floorDbm), level(r.air.floorDbm + r.air.riseDb)];
        const own = r.linkId === receiver.linkId && r.way === receiver.way;
        return (
          // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no button.
          <g
            key={`${r.linkId}${r.way}`}
            role="button"
            tabIndex={0}
            aria-pressed={own}
            aria-label={`${builtName(r)}: noise up by ${dbRise(r.air.riseDb)}`}
            className="cursor-pointer"
            onClick={() => choose(r)}
            onKeyDown={(e) => {
              if (e.key === "Enter" || e.key === " ") {
                e.preventDefault();
                choose(r);
              }
            }}
          >
            <rect
              x={x0}
              y={Math.min(up, floor) - 1}
              width={Math.max(3, x1 - x0)}
              height={Math.max(2, floor - up)}
              fill={own && r.air.riseDb > 0.5 ? `url(#${hatch})` : "transparent"}
              stroke={r.air.riseDb > 1 ? "var(--short)" : "var(--hair)"}
              strokeWidth={own ? 1.8 : 1}
            />
            <path d={`M${x0} ${floor}H${x1}`} stroke="var(--ink)" strokeWidth="1" />
            {r.air.levelDbm !== null && <path d={`M${x0} ${level(r.air.levelDbm)}H${x1}`} stroke="var(--ink)" strokeWidth="2.8" />}
          </g>
        );
      })}
      <path d={`M${middle} ${level(receiver.air.floorDbm)}V${level(risen)}`} stroke={ink} strokeWidth="1.6" />
      <text x={tx} y={y + 42} textAnchor={anchor} fontSize={TYPE.line} fontWeight={720} className="halo" style={{ fill: ink }}>
        noise up at {cut(builtName(receiver), 34)}
      </text>
      <text
        x={tx}
        y={y + 92}
        textAnchor={anchor}
        fontSize="46"
        fontWeight={750}
        className="halo"
        style={{ fill: ink }}
        data-testid="worst-rise"
      >
        {dbRise(receiver.air.riseDb)}
      </text>
      <text x={tx} y={y + 114} textAnchor={anchor} fontSize={TYPE.line} className="halo">
        {above === null
          ? "nothing is held there"
          : above > 0
            ? `${figure(above)} dB above the level it wants to hear`
            : `${figure(-above)} dB under the level it wants to hear`}
      </text>
      <text x={tx} y={y + 131} textAnchor={anchor} fontSize={TYPE.line} className="halo">
        {receiver.air.hitShare > 0 ? `for ${figure(receiver.air.hitShare * 100)} % of the time` : "nothing falls on it"}
      </text>
    </g>
  );
};
