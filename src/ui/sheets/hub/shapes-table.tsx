"use client";
import { MOST_SECTORS } from "@/contract";
import type { Shape, ShapeKind } from "@/core/hub";
import { Euro } from "../../controls/euro";
import { VerdictMark } from "../../marks/verdict-mark";
import { rateText } from "../../wording/gear";
import { alongText, figure, type Units } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";

const KIND_WORDS: Readonly<Record<ShapeKind, string>> = {
  planned: "As planned",
  turned: "The same, turned",
  fewest: "Fewest sectors",
  narrow: "Narrow sectors",
  "one-sector": "One sector",
  omni: "One omni",
  pairs: "A pair for each",
  faces: "Four-faced node, 60 GHz",
};

/** What a shape is made of: "2 × Gannet Ninety". */
const madeOf = (s: Shape): string => {
  const counts = new Map<string, number>();
  for (const x of s.sectors) counts.set(x.unit.name, (counts.get(x.unit.name) ?? 0) + 1);
  return [...counts].map(([name, n]) => (n === 1 || s.units === 1 ? name : `${n} × ${name}`)).join(", ");
};

/** Small plan of a shape: north up, each sector's axis with its half-power width. */
const Sketch = ({ shape: s }: { shape: Shape }) => (
  <svg width="34" height="34" viewBox="-17 -17 34 34" aria-hidden="true" className="flex-none">
    {s.sectors.map((x, i) => {
      const at = x.azimuthDeg;
      const wide = x.unit.antenna?.azimuthBeamwidthDeg ?? x.unit.radio.antenna.azimuthBeamwidthDeg ?? 20;
      const point = (deg: number): string => `${15 * Math.sin((deg * Math.PI) / 180)} ${-15 * Math.cos((deg * Math.PI) / 180)}`;
      const key = `${x.unit.key}-${i}`;
      if (wide >= 360) return <circle key={key} r="15" fill="var(--zone)" stroke="var(--ink)" />;
      if (at === null) return <path key={key} d={`M0 0L${point((360 / s.sectors.length) * i)}`} stroke="var(--ink)" strokeWidth="1.4" />;
      return (
        <path key={key} d={`M0 0L${point(at - wide / 2)}A15 15 0 0 1 ${point(at + wide / 2)}Z`} fill="var(--zone)" stroke="var(--ink)" />
      );
    })}
    <rect x="-2" y="-2" width="4" height="4" fill="var(--ink)" />
  </svg>
);

/** Other shapes of a hub for the same remotes: beam and air judged, sight apart. */
export const ShapesTable = ({
  shapes,
  busy,
  drawn,
  draw,
  units,
}: {
  shapes: readonly (readonly [ShapeKind, Shape | null])[];
  busy: boolean;
  /** Which is drawn over the plan. */
  drawn: ShapeKind | null;
  draw: (shape: Shape | null) => void;
  units: Units;
}) => (
  <section aria-label="Other shapes for the same remotes" className="border-t border-rule px-4 py-2" data-testid="shapes">
    <h3 className="m-0 flex flex-wrap items-baseline gap-x-3 text-body font-bold">
      Other shapes for the same remotes
      <span className="text-line font-said text-ink-2" role="status">
        {busy ? "still being worked out" : "beam and air judged; sight is judged once, in the findings"}
      </span>
    </h3>
    <div className="overflow-x-auto">
      <table className="mt-1 w-full border-collapse text-line">
        <thead>
          <tr className="text-label text-ink-2">
            {["Shape", "served", "fullest air", "each, all send", "reach", "price, both ends", "on the mast", "channels", ""].map(
              (h, i) => (
                <th key={h} scope="col" className={`whitespace-nowrap pr-3 font-normal ${i === 0 ? "text-left" : "text-right"}`}>
                  {h === "" ? <span className="sr-only">Verdict and what to do</span> : h}
                </th>
              ),
            )}
          </tr>
        </thead>
        <tbody>
          {shapes.map(([kind, s]) =>
            s === null ? (
              <tr key={kind} className="border-t border-rule text-ink-2">
                <td className="py-1 pr-3">{KIND_WORDS[kind]}</td>
                <td colSpan={8} className="text-right">
                  nothing in the catalogue makes it, it serves nobody, or more remotes hang here than are searched for at once (24)
                </td>
              </tr>
            ) : (
              <tr key={kind} className={`border-t border-rule ${kind === (drawn ?? "planned") ? "bg-band" : ""}`} data-shape={kind}>
                <td className="py-1 pr-3">
                  <span className="flex items-center gap-2">
                    <Sketch shape={s} />
                    <span>
                      <span className="block font-figure">{KIND_WORDS[kind]}</span>
                      <span className="cap">{madeOf(s)}</span>
                    </span>
                  </span>
                </td>
                <td className="whitespace-nowrap pr-3 text-right">
                  <span className="font-mono">
                    {s.served} of {s.of}
                  </span>
                  {s.onLobes > 0 && <span className="cap block">and {s.onLobes} on a lobe</span>}
                </td>
                <td className={`whitespace-nowrap pr-3 text-right font-mono ${s.fullest > s.mayUse + 1e-9 ? "v-short font-figure" : ""}`}>
                  {Number.isFinite(s.fullest) ? `${figure(s.fullest * 100)} of ${figure(s.mayUse * 100)} %` : "over"}
                </td>
                <td className="whitespace-nowrap pr-3 text-right font-mono">{rateText(s.leastEachMbps)} Mbps</td>
                <td className="whitespace-nowrap pr-3 text-right font-mono">{s.reachM === null ? "" : alongText(units, s.reachM)}</td>
                <td className="whitespace-nowrap pr-3 text-right font-mono">
                  <Euro of={s.priceEur} />
                </td>
                <td className="pr-3 text-right font-mono">{s.units}</td>
                <td className="pr-3 text-right font-mono">{s.channels}</td>
                <td className="whitespace-nowrap py-1 text-right">
                  <span className="inline-flex items-center gap-1.5">
                    <VerdictMark verdict={s.verdict} a={7} />
                    <span className={`v-${s.verdict}`}>{VERDICT_WORD[s.verdict]}</span>
                  </span>
                  {kind !== "planned" && s.remoteUnit === null && s.sectors.length <= MOST_SECTORS && (
                    <button
                      type="button"
                      className="press ml-3 min-h-6 text-line"
                      aria-pressed={drawn === kind}
                      onClick={() => draw(drawn === kind ? null : s)}
                    >
                      {drawn === kind ? "Leave it" : "Draw it"}
                      <span className="sr-only">: {KIND_WORDS[kind]}</span>
                    </button>
                  )}
                </td>
              </tr>
            ),
          )}
        </tbody>
      </table>
    </div>
    <p className="cap m-0 mt-1">
      Reach: how far in the open, on the axis, a remote could stand that asks as much as the one that asks most. What is radiated stays as
      planned. A node with faces needs other units at the remotes, so that it is only compared. Which channels are free is not judged here.
    </p>
  </section>
);
