"use client";
import { useState } from "react";
import { type FarPosition, farFromJob, type LatLon } from "@/core/geo";
import { FarQuestion } from "../../controls/far-question";
import { usePreferences } from "../../state/preferences";
import { lengthText } from "../../wording/numbers";

/** Takes the position that the phone gives; one far from the rest of the job is asked about first. */
export const PhonePosition = ({ others, take }: { others: readonly LatLon[]; take: (at: LatLon) => void }) => {
  const { units } = usePreferences();
  const [said, setSaid] = useState<string | null>(null);
  const [farOff, setFarOff] = useState<{ readonly at: LatLon; readonly far: FarPosition } | null>(null);
  const locate = (): void => {
    setSaid("Asking the phone for its position.");
    navigator.geolocation.getCurrentPosition(
      (p) => {
        const at = { latDeg: p.coords.latitude, lonDeg: p.coords.longitude };
        const far = farFromJob(at, others);
        if (far !== null) {
          setFarOff({ at, far });
          setSaid(null);
          return;
        }
        take(at);
        setSaid(
          `Position taken, ± ${lengthText(units, p.coords.accuracy, 0)}. Check it on the drawing: a map is often better than a phone beside a wall.`,
        );
      },
      (error) => setSaid(`The phone gave no position: ${error.message || "not allowed"}.`),
      { enableHighAccuracy: true, timeout: 20_000, maximumAge: 0 },
    );
  };
  const settle = (at: LatLon): void => {
    take(at);
    setFarOff(null);
  };
  return (
    <>
      <button type="button" className="min-h-12 border-[1.6px] border-ink font-figure" onClick={locate}>
        Take the phone's position
      </button>
      {farOff !== null && <FarQuestion far={farOff.far} units={units} takeMeant={settle} keep={() => settle(farOff.at)} />}
      {said !== null && (
        <p role="status" className="m-0 text-press">
          {said}
        </p>
      )}
    </>
  );
};
