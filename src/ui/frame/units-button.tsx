"use client";
import { usePreferences } from "../state/preferences";

/** The units cell of the title strip: press to change. */
export const UnitsButton = () => {
  const { units, setUnits } = usePreferences();
  return (
    <button
      type="button"
      className="press text-body"
      onClick={() => setUnits(units === "metric" ? "imperial" : "metric")}
      aria-label={`Units: ${units}. Press to change.`}
    >
      {units === "metric" ? "m, dBm, °" : "ft, dBm, °"}
    </button>
  );
};
