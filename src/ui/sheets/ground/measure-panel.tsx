"use client";
import { useEffect, useMemo, useState } from "react";
import type { SiteDto } from "@/contract";
import { areaM2, bearingsBetween, declination, inverse, type LatLon, sunGlare } from "@/core/geo";
import { postJson } from "../../api/client";
import { Choice } from "../../controls/field";
import { bearingText, distanceText, figure, lengthText, type Units } from "../../wording/numbers";

const FEET2_PER_M2 = 10.763910416709722;
const areaText = (units: Units, m2: number): string =>
  units === "imperial"
    ? m2 > 10_000
      ? `${figure((m2 * FEET2_PER_M2) / 43_560, 2)} acres`
      : `${figure(m2 * FEET2_PER_M2)} ft²`
    : m2 >= 100_000
      ? `${figure(m2 / 1e6, 2)} km²`
      : `${figure(m2)} m²`;

const clock = (at: Date): string => at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

interface Height {
  readonly groundAmslM: number | null;
  readonly dataset: string | null;
  readonly sigmaM: number | null;
}

/** Distance, bearing, area, height difference and the sun along a line drawn on the plan. */
export const MeasurePanel = ({
  jobId,
  points,
  visitOn,
  units,
  sites,
  between,
  onFinish,
}: {
  jobId: string;
  points: readonly LatLon[];
  visitOn: string;
  units: Units;
  sites: readonly SiteDto[];
  between: (points: readonly LatLon[]) => void;
  onFinish: () => void;
}) => {
  const [heights, setHeights] = useState<readonly Height[]>([]);
  const first = points[0];
  const last = points[points.length - 1];
  const many = points.length >= 2 && first !== undefined && last !== undefined;
  // The height is asked once the hand rests.
  useEffect(() => {
    if (!many) return;
    const timer = setTimeout(() => {
      postJson<{ heights: Height[] }>(`/api/jobs/${jobId}/heights`, { points: [first, last].map((p) => [p.lonDeg, p.latDeg]) })
        .then((a) => setHeights(a.heights))
        .catch(() => setHeights([]));
    }, 150);
    return () => clearTimeout(timer);
  }, [jobId, many, first, last]);
  const glare = useMemo(() => {
    if (!many) return [];
    const [y, m, d] = visitOn.split("-").map(Number) as [number, number, number];
    return sunGlare(first, bearingsBetween(first, last).nearDeg, 0, new Date(y, m - 1, d));
  }, [many, first, last, visitOn]);
  if (!many) {
    return (
      <div className="grid gap-3">
        <p className="cap m-0">Press point after point on the drawing; press the last one twice to end. Corners snap to what is there.</p>
        <Between sites={sites} between={between} />
      </div>
    );
  }
  const total = points.slice(1).reduce((sum, p, i) => sum + inverse(points[i]!, p).distanceM, 0);
  const b = bearingsBetween(first, last);
  const day = new Date(`${visitOn}T12:00:00Z`);
  const there = declination(first, day).declinationDeg;
  const [from, to] = heights;
  const difference = from?.groundAmslM == null || to?.groundAmslM == null ? null : to.groundAmslM - from.groundAmslM;
  return (
    <dl aria-live="polite" className="m-0 grid grid-cols-[112px_1fr] gap-y-1.5 [&_dd]:m-0 [&_dt]:text-ink-2" data-testid="measured">
      <dt>Length</dt>
      <dd className="figure">{distanceText(units, total)}</dd>
      {points.length > 2 && (
        <>
          <dt>First to last</dt>
          <dd className="figure">{distanceText(units, b.distanceM)}</dd>
        </>
      )}
      <dt>Bearing</dt>
      <dd>
        {bearingText(b.nearDeg)} true, {bearingText(b.nearDeg - there + 360)} magnetic
      </dd>
      <dt>Back</dt>
      <dd>
        {bearingText(b.farDeg)} true, {bearingText(b.farDeg - declination(last, day).declinationDeg + 360)} magnetic
      </dd>
      {points.length > 2 && (
        <>
          <dt>Area inside</dt>
          <dd className="figure">{areaText(units, areaM2(points))}</dd>
        </>
      )}
      <dt>Ground</dt>
      <dd>
        {difference === null
          ? "not known at both ends"
          : `${lengthText(units, from!.groundAmslM!)} to ${lengthText(units, to!.groundAmslM!)}: ${lengthText(units, Math.abs(difference))} ${difference >= 0 ? "up" : "down"}`}
      </dd>
      <dt>Sun in the eyes</dt>
      <dd>
        {glare.length === 0
          ? `not on ${visitOn}, looking this way`
          : `${glare.map((g) => `${clock(g.from)} to ${clock(g.to)}`).join(", ")} on ${visitOn}, this machine's time`}
        <span className="cap block">Never look at the sun through optics.</span>
      </dd>
      <dt>
        <button type="button" className="press text-ink" onClick={onFinish}>
          End the line
        </button>
      </dt>
      <dd />
    </dl>
  );
};

/** The same between two sites, without the pointer. */
const Between = ({ sites, between }: { sites: readonly SiteDto[]; between: (points: readonly LatLon[]) => void }) => {
  const [fromId, setFromId] = useState("");
  const [toId, setToId] = useState("");
  const of = (id: string): SiteDto | undefined => sites.find((s) => s.id === id);
  const choice = (label: string, value: string, set: (v: string) => void) => (
    <Choice label={label} value={value} onChange={(e) => set(e.target.value)}>
      <option value="">choose a site</option>
      {sites.map((s) => (
        <option key={s.id} value={s.id}>
          {s.name}
        </option>
      ))}
    </Choice>
  );
  const [a, b] = [of(fromId), of(toId)];
  return (
    <div className="grid gap-2 border-t border-rule pt-2">
      {choice("Or from", fromId, setFromId)}
      {choice("And to", toId, setToId)}
      <button
        type="button"
        className="press justify-self-start"
        disabled={a === undefined || b === undefined || a === b}
        onClick={() => a !== undefined && b !== undefined && between([a, b])}
      >
        Measure it
      </button>
    </div>
  );
};
