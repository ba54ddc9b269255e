"use client";
import { useState } from "react";
import type { SiteDto } from "@/contract";
import { destination, type LatLon } from "@/core/geo";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { UnitField } from "../../controls/unit-field";

const LONGEST_M = 100_000;

/** Where a site stands, told from another: so far from it, on such a bearing. */
export const ByBearing = ({ sites, onFound }: { sites: readonly SiteDto[]; onFound: (at: LatLon) => void }) => {
  const [fromId, setFromId] = useState(sites[0]?.id ?? "");
  const [distanceM, setDistanceM] = useState<number | null>(null);
  const [bearingDeg, setBearingDeg] = useState<number | null>(null);
  const from = sites.find((s) => s.id === fromId) ?? sites[0];
  if (from === undefined) return null;
  return (
    <details>
      <summary className="cursor-pointer font-figure">By distance and bearing</summary>
      <div className="grid grid-cols-2 gap-3 pt-2">
        <Choice label="From" value={from.id} onChange={(e) => setFromId(e.target.value)}>
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </Choice>
        <UnitField label="Distance" quantity="distance" value={distanceM} onChange={setDistanceM} most={LONGEST_M} />
        <NumberField label="Bearing, true" unit="°" optional value={bearingDeg} least={0} most={360} onChange={setBearingDeg} />
        <button
          type="button"
          className="press self-end justify-self-start"
          disabled={distanceM === null || bearingDeg === null}
          onClick={() => distanceM !== null && bearingDeg !== null && onFound(destination(from, bearingDeg, distanceM))}
        >
          Fill in the position
        </button>
      </div>
    </details>
  );
};
