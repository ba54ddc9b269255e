"use client";
import { PART_KIND_WORDS, type PlaceFields } from "@/contract";
import { Choice, Field } from "../../controls/field";
import { ParsedField } from "../../controls/parsed-field";
import { UnitField } from "../../controls/unit-field";
import { readName } from "../../wording/read";
import { partText } from "../../wording/wiring";
import { UnitForm } from "./unit-form";
import type { OpenWiring } from "./use-open-wiring";

/** One place: which thing stands there, where, how it is bonded, and the unit itself. Every field is saved as it is typed. */
export const PlacePanel = ({ open, siteId, placeId }: { open: OpenWiring; siteId: string; placeId: string }) => {
  const end = open.endOf(siteId);
  const place = end.fields.places.find((p) => p.id === placeId);
  if (place === undefined) return null;
  const change = (set: Partial<PlaceFields>): void =>
    open.change(siteId, { places: end.now().places.map((p) => (p.id === placeId ? { ...p, ...set } : p)) });
  const types = [...open.all.values()].filter((p) => p.kind === place.kind && (p.retired !== true || p.id === place.partId));
  const isGiver = open.all.get(place.partId ?? "")?.totalGiveW !== undefined;
  return (
    <section aria-label="This place" className="mt-2" data-testid="place-panel">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h3 className="m-0 text-body font-bold">{place.name}</h3>
        <button
          type="button"
          className="press min-h-6 text-line"
          onClick={() => {
            const now = end.now();
            open.change(siteId, {
              places: now.places.filter((p) => p.id !== placeId),
              leads: now.leads.filter((l) => l.from.placeId !== placeId && l.to.placeId !== placeId),
            });
            open.setChosen(null);
          }}
        >
          Take it away with its leads
        </button>
      </div>
      <div className="mt-1.5 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
        <ParsedField label="Name" shown={place.name} maxLength={80} read={readName} take={(name) => change({ name })} />
        <Choice
          label={`Which ${PART_KIND_WORDS[place.kind]}`}
          value={place.partId ?? ""}
          onChange={(e) => change({ partId: e.target.value === "" ? null : e.target.value })}
        >
          <option value="">not known</option>
          {types.map((p) => (
            <option key={p.id} value={p.id}>
              {partText(p)}
            </option>
          ))}
        </Choice>
        <Choice label="Stands" value={place.where} onChange={(e) => change({ where: e.target.value as PlaceFields["where"] })}>
          <option value="inside">inside</option>
          <option value="outside">outside</option>
          <option value="mast">on the mast</option>
        </Choice>
        {place.where !== "inside" && (
          <UnitField quantity="height" label="Height above ground" value={place.aglM} most={500} onChange={(aglM) => change({ aglM })} />
        )}
        <Field
          label="On an earth of its own (name it)"
          value={place.earth}
          maxLength={80}
          onChange={(e) => change({ earth: e.target.value })}
        />
        <Choice label="Bond to the bar" value={place.bond} onChange={(e) => change({ bond: e.target.value as PlaceFields["bond"] })}>
          <option value="none">needs none</option>
          <option value="joined">joined</option>
          <option value="open">not joined</option>
          <option value="unseen">not seen</option>
        </Choice>
        {isGiver && (
          <Choice
            label="Its watts"
            value={place.countsDrawn ? "drawn" : "class"}
            onChange={(e) => change({ countsDrawn: e.target.value === "drawn" })}
          >
            <option value="class">set aside by class</option>
            <option value="drawn">counted as drawn (recorded)</option>
          </Choice>
        )}
      </div>
      <UnitForm key={placeId} open={open} siteId={siteId} place={place} today={new Date().toISOString().slice(0, 10)} />
    </section>
  );
};
