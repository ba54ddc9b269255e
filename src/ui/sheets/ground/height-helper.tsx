"use client";
import { useState } from "react";
import type { ObstacleDto } from "@/contract";
import { heightBySighting, heightByTwoSightings, type SightedHeight } from "@/core/geo";
import { Choice, Field } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";
import { lengthText, readNumber, type Units } from "../../wording/numbers";
import { KIND_NAME } from "./draw-kinds";

export type HeightWay = "typed" | "like another" | "two sightings" | "surface model";

export interface FoundHeight {
  readonly heightM: number;
  readonly sigmaM: number;
  readonly way: HeightWay;
}

const degrees = (text: string): number => readNumber(text) ?? Number.NaN;

const sighted = (make: () => SightedHeight): SightedHeight | null => {
  try {
    const found = make();
    return Number.isFinite(found.heightM) ? found : null;
  } catch {
    return null;
  }
};

/** Ways to a height besides typing it: as high as something known, or by angles. */
export const HeightHelper = ({
  others,
  units,
  onFound,
}: {
  others: readonly ObstacleDto[];
  units: Units;
  onFound: (found: FoundHeight) => void;
}) => {
  const [way, setWay] = useState<"" | "like" | "one" | "two">("");
  const [likeId, setLikeId] = useState("");
  const [factor, setFactor] = useState("1");
  const [distanceM, setDistanceM] = useState<number | null>(20);
  const [baselineM, setBaselineM] = useState<number | null>(10);
  const [eyeM, setEyeM] = useState<number | null>(1.6);
  const [angles, setAngles] = useState({ top: "", foot: "", near: "", far: "" });
  const like = others.find((o) => o.id === likeId);
  const times = degrees(factor);
  const found: FoundHeight | null =
    way === "like"
      ? like === undefined || !(times > 0)
        ? null
        : { heightM: like.heightM * times, sigmaM: Math.hypot(like.heightSigmaM * times, 0.1 * like.heightM * times), way: "like another" }
      : way === "one" && distanceM !== null
        ? withWay(sighted(() => heightBySighting(distanceM, degrees(angles.top), degrees(angles.foot))))
        : way === "two" && baselineM !== null
          ? withWay(sighted(() => heightByTwoSightings(baselineM, degrees(angles.near), degrees(angles.far), eyeM ?? 1.6)))
          : null;
  const angle = (key: keyof typeof angles, label: string) => (
    <Field label={label} inputMode="decimal" value={angles[key]} onChange={(e) => setAngles({ ...angles, [key]: e.target.value })} />
  );
  return (
    <div className="grid gap-2">
      <Choice label="Height told by" value={way} onChange={(e) => setWay(e.target.value as typeof way)}>
        <option value="">typing it</option>
        <option value="like">it is as high as</option>
        <option value="one">angles from one place, distance known</option>
        <option value="two">angles from two places in line</option>
      </Choice>
      {way === "like" && (
        <div className="grid grid-cols-[1fr_56px] gap-2">
          <Choice label="A known thing" value={likeId} onChange={(e) => setLikeId(e.target.value)}>
            <option value="">choose</option>
            {others
              .filter((o) => o.name !== "")
              .slice(0, 300)
              .map((o) => (
                <option key={o.id} value={o.id}>
                  {o.name} ({KIND_NAME[o.kind].toLowerCase()}), {lengthText(units, o.heightM)}
                </option>
              ))}
          </Choice>
          <Field label="times" inputMode="decimal" value={factor} onChange={(e) => setFactor(e.target.value)} />
        </div>
      )}
      {way === "one" && (
        <div className="grid grid-cols-2 gap-2">
          <div className="col-span-2">
            <UnitField label="Distance to it" quantity="distance" value={distanceM} onChange={setDistanceM} most={2000} least={0.5} />
          </div>
          {angle("top", "Up to the top, °")}
          {angle("foot", "To the foot, ° (down is −)")}
        </div>
      )}
      {way === "two" && (
        <div className="grid grid-cols-2 gap-2">
          <div className="col-span-2">
            <UnitField
              label="Way between the two places"
              quantity="distance"
              value={baselineM}
              onChange={setBaselineM}
              most={1000}
              least={0.5}
            />
          </div>
          {angle("near", "Top from the nearer, °")}
          {angle("far", "Top from the farther, °")}
          <div className="col-span-2">
            <UnitField label="Eye above ground" quantity="height" value={eyeM} onChange={setEyeM} most={5} />
          </div>
        </div>
      )}
      {way !== "" && (
        <div className="flex items-baseline gap-3" aria-live="polite">
          <span className="flex-1">
            {found === null ? "Not enough for a height yet." : `${lengthText(units, found.heightM)} ± ${lengthText(units, found.sigmaM)}`}
          </span>
          <button type="button" className="press" disabled={found === null} onClick={() => found !== null && onFound(found)}>
            Use it
          </button>
        </div>
      )}
    </div>
  );
};

const withWay = (found: SightedHeight | null): FoundHeight | null => (found === null ? null : { ...found, way: "two sightings" });
