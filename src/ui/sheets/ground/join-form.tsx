"use client";
import type { SiteDto } from "@/contract";
import { bearingsBetween } from "@/core/geo";
import { Choice } from "../../controls/field";
import { bearingText, distanceText, type Units } from "../../wording/numbers";

/** Two sites chosen as the ends of a new link, with how they lie to each other. */
export const JoinForm = ({
  sites,
  units,
  fromId,
  toId,
  setFrom,
  setTo,
  onJoin,
}: {
  sites: readonly SiteDto[];
  units: Units;
  fromId: string | null;
  toId: string;
  setFrom: (id: string | null) => void;
  setTo: (id: string) => void;
  onJoin: (nearSiteId: string, farSiteId: string) => void;
}) => {
  const options = sites.map((s) => (
    <option key={s.id} value={s.id}>
      {s.name}
    </option>
  ));
  return (
    <div className="grid gap-2.5 border-b border-ink px-3.5 py-3">
      <Choice label="Near end" value={fromId ?? ""} onChange={(e) => setFrom(e.target.value || null)}>
        <option value="">press a site, or choose</option>
        {options}
      </Choice>
      <Choice label="Far end" value={toId} onChange={(e) => setTo(e.target.value)}>
        <option value="">press a site, or choose</option>
        {options}
      </Choice>
      <JoinFacts from={sites.find((s) => s.id === fromId)} to={sites.find((s) => s.id === toId)} units={units} />
      <button
        type="button"
        className="main-action"
        disabled={fromId === null || toId === ""}
        onClick={() => fromId !== null && onJoin(fromId, toId)}
      >
        Join them
      </button>
    </div>
  );
};

const JoinFacts = ({ from, to, units }: { from: SiteDto | undefined; to: SiteDto | undefined; units: "metric" | "imperial" }) => {
  if (from === undefined || to === undefined || from.id === to.id) return null;
  const b = bearingsBetween(from, to);
  return (
    <p className="m-0 text-line">
      {distanceText(units, b.distanceM)}, there {bearingText(b.nearDeg)} true, back {bearingText(b.farDeg)}
    </p>
  );
};
