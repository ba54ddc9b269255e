"use client";
import type { FarPosition, LatLon } from "@/core/geo";
import { distanceText, latLonText, type Units } from "../wording/numbers";

/** Asks about a position far from the job before it is kept; a likely slip is offered. */
export const FarQuestion = ({
  far,
  units,
  takeMeant,
  keep,
}: {
  far: FarPosition;
  units: Units;
  takeMeant: (p: LatLon) => void;
  keep: () => void;
}) => (
  <div role="alert" className="grid gap-1.5 border-l-[3px] border-ink py-1 pl-3 text-body">
    <p className="m-0">
      This lies <strong>{distanceText(units, far.distanceM)}</strong> from the nearest place of this job. Is it right?
    </p>
    {far.meant !== null && (
      <button type="button" className="press justify-self-start" onClick={() => takeMeant(far.meant!)}>
        Use {latLonText(far.meant)}
      </button>
    )}
    <button type="button" className="press justify-self-start" onClick={keep}>
      It is right, keep it
    </button>
  </div>
);
