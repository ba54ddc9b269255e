"use client";
import { bearingsBetween, type LatLon } from "@/core/geo";
import type { MapMode } from "../../map/ground-map";
import { bearingText, distanceText, figure, lengthText, type Units } from "../../wording/numbers";
import { MODES } from "./ground-modes";

export interface Knowledge {
  readonly datasets: readonly { readonly name: string; readonly cellM: number; readonly sigmaM: number; readonly leftOut: boolean }[];
  readonly intervalM: number;
}

/** What of the drawn things is in view: how many are shown, of how many. */
export interface InView {
  readonly shown: number;
  readonly total: number;
}

/** What lies over the drawing: what is known of the ground, what the pointer does, and how far a drag reaches. */
export const GroundHead = ({
  knowledge,
  units,
  mode,
  enter,
  reach,
  declinationAt,
  inView,
}: {
  inView: InView | null;
  knowledge: Knowledge | null;
  units: Units;
  mode: MapMode;
  enter: (mode: MapMode) => void;
  reach: { readonly from: LatLon; readonly to: LatLon } | null;
  declinationAt: (p: LatLon) => number;
}) => {
  const span = reach === null ? null : bearingsBetween(reach.from, reach.to);
  const finest = knowledge?.datasets.find((d) => !d.leftOut);
  const tooFine = knowledge?.datasets.filter((d) => d.leftOut).map((d) => d.name) ?? [];
  return (
    <>
      <div className="absolute left-0 top-0 border-b border-r border-ink bg-paper px-4 py-2">
        <h1 className="m-0 text-title font-heading leading-7">Ground</h1>
        <p className="cap m-0">
          {knowledge === null
            ? "Drawing the ground."
            : finest === undefined
              ? tooFine.length > 0
                ? "Zoom in to see the ground."
                : "No terrain is known here: paths stay Unknown."
              : `Contours every ${lengthText(units, knowledge.intervalM, units === "metric" ? 0 : 1)}; ${finest.name}, ±${lengthText(units, finest.sigmaM, 2)}`}
        </p>
        {tooFine.length > 0 && <p className="cap m-0">{tooFine.join(", ")}: too fine for so wide a view. Zoom in to see it.</p>}
        {inView !== null && inView.total > inView.shown && (
          <p className="cap m-0" data-testid="not-all-drawn">
            The widest {figure(inView.shown)} of {figure(inView.total)} obstacles are drawn. Zoom in for all; links are judged by all of
            them.
          </p>
        )}
      </div>
      <div
        role="toolbar"
        aria-label="What the pointer does"
        className="no-print absolute bottom-3 left-1/2 flex -translate-x-1/2 border border-ink bg-paper"
      >
        {MODES.map((m) => (
          <button
            key={m.mode}
            type="button"
            aria-pressed={mode === m.mode}
            onClick={() => enter(m.mode)}
            className={`whitespace-nowrap border-r border-ink px-2.5 py-1.5 text-body last:border-r-0 ${mode === m.mode ? "bg-ink font-bold text-paper" : ""}`}
          >
            {m.name}
          </button>
        ))}
      </div>
      {span !== null && reach !== null && (
        <div className="absolute right-3 top-3 border border-ink bg-paper px-3 py-2" aria-live="polite" data-testid="reach">
          <div className="figure text-head leading-6">{distanceText(units, span.distanceM)}</div>
          <div className="text-line">
            there {bearingText(span.nearDeg)} true, {bearingText(span.nearDeg - declinationAt(reach.from) + 360)} magnetic
          </div>
          <div className="text-line">
            back {bearingText(span.farDeg)} true, {bearingText(span.farDeg - declinationAt(reach.to) + 360)} magnetic
          </div>
        </div>
      )}
    </>
  );
};
