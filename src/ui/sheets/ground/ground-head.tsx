"use client";
import { bearingsBetween, type LatLon } from "@/core/geo";
import { TYPE } from "../../drawing/type";
import type { MapMode } from "../../map/ground-map";
import { bearingText, distanceText, lengthText, type Units } from "../../wording/numbers";
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
  bringIn,
  fitAll,
}: {
  inView: InView | null;
  /** Opens what brings files in. */
  bringIn: () => void;
  fitAll: () => void;
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
                : "No terrain is known here: paths stay Unknown. The grid is in metres."
              : `Contours every ${lengthText(units, knowledge.intervalM, units === "metric" ? (knowledge.intervalM < 1 ? 2 : 0) : 1)}; ${finest.name}, ±${lengthText(units, finest.sigmaM, 2)}`}
        </p>
        {knowledge !== null && finest === undefined && tooFine.length === 0 && (
          <p className="m-0 flex flex-wrap items-baseline gap-x-4 text-line">
            <button type="button" className="press text-line" onClick={bringIn}>
              Bring in terrain
            </button>
            <span className="cap">or tell the ground of one link in its panel</span>
          </p>
        )}
        {tooFine.length > 0 && <p className="cap m-0">{tooFine.join(", ")}: too fine for so wide a view. Zoom in to see it.</p>}
        {inView !== null && inView.total > inView.shown && (mode === "draw" || mode === "edit" || mode === "cut" || mode === "measure") && (
          <p className="cap m-0" data-testid="too-many-to-snap">
            Too many obstacles in view for corners to snap to them. Zoom in first.
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
      <div className="absolute bottom-[112px] left-2.5 flex flex-col gap-2">
        <svg width="30" height="40" viewBox="-15 -20 30 40" role="img" aria-label="Grid north is up">
          <path d="M0 16V-8M-5 -4L0 -16L5 -4" fill="none" stroke="var(--paper)" strokeWidth="5" />
          <path d="M0 16V-8M-5 -4L0 -16L5 -4" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
          <text x="0" y="5" textAnchor="middle" fontSize={TYPE.note} className="halo" fontWeight="700">
            N
          </text>
        </svg>
        <button
          type="button"
          className="no-print h-[30px] w-[30px] border border-ink bg-paper text-note"
          onClick={fitAll}
          title="Fit all sites"
        >
          All
        </button>
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
