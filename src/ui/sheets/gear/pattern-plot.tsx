import type { AntennaShape } from "@/core/antenna";
import { patternOf, referenceGainDbi } from "@/core/antenna";
import { figure } from "../../wording/numbers";

const WIDTH = 430;
const HEIGHT = 190;
const LEFT = 34;
const BOTTOM = 22;
const DEEPEST_DB = -50;
const STEP_DEG = 0.5;

const x = (deg: number): number => LEFT + ((deg + 180) / 360) * (WIDTH - LEFT - 6);
const y = (db: number): number => 8 + (Math.max(DEEPEST_DB, Math.min(0, db)) / DEEPEST_DB) * (HEIGHT - BOTTOM - 8);

const line = (at: (deg: number) => number): string => {
  let d = "";
  for (let deg = -180; deg <= 180; deg += STEP_DEG) d += `${d === "" ? "M" : "L"}${x(deg).toFixed(1)} ${y(at(deg)).toFixed(1)}`;
  return d;
};

/** Both cuts of an antenna below its peak, over the envelope that is reckoned with between stations. */
export const PatternPlot = ({ shape, frequencyGhz }: { shape: AntennaShape; frequencyGhz: number }) => {
  const p = patternOf(shape, frequencyGhz);
  const hub = p.kind === "F.1336" || shape.form === "sector" || shape.form === "omni";
  const envelope = (deg: number): number =>
    hub ? p.envelopeDb(deg, 0) : referenceGainDbi(shape.gainDbi, Math.abs(deg)).gainDbi - shape.gainDbi;
  return (
    <figure className="m-0">
      <svg
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={`Pattern by ${p.kind}: beam ${figure(p.azimuthBeamwidthDeg, 1)} by ${figure(p.elevationBeamwidthDeg, 1)} degrees`}
      >
        {[0, -10, -20, -30, -40, -50].map((db) => (
          <g key={db}>
            <path d={`M${LEFT} ${y(db)}H${WIDTH - 6}`} stroke="var(--grid)" />
            <text x={LEFT - 5} y={y(db) + 4} fontSize={11.5} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
              {figure(db)}
            </text>
          </g>
        ))}
        {[-180, -90, 0, 90, 180].map((deg) => (
          <text
            key={deg}
            x={x(deg)}
            y={HEIGHT - 6}
            fontSize={11.5}
            textAnchor={deg === 180 ? "end" : deg === -180 ? "start" : "middle"}
            style={{ fill: "var(--ink-2)" }}
          >
            {figure(deg)}°
          </text>
        ))}
        <path d={line(envelope)} fill="none" stroke="var(--hair)" strokeWidth={1.2} />
        <path d={line((deg) => p.relativeDb(0, deg))} fill="none" stroke="var(--ink)" strokeWidth={1} strokeDasharray="4 3" />
        <path d={line((deg) => p.relativeDb(deg, 0))} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
      </svg>
      <figcaption className="cap">
        By {p.kind === "measured cuts" ? "measured cuts" : p.kind === "aperture" ? "an aperture of its gain and beam" : "F.1336"}
        {p.beamwidthDerived ? ", beamwidth derived from the gain" : ""}: azimuth drawn through, elevation dashed, dB below the peak; grey
        the envelope ({hub ? "F.1336, peaks" : "F.699"}).
      </figcaption>
    </figure>
  );
};
