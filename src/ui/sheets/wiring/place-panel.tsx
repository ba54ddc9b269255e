"use client";
import { useState } from "react";
import { type PlaceFields, recordPath, type UnitDto, type UnitFields, unitAt } from "@/contract";
import { bodyOf } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import type { OpenWiring } from "./use-open-wiring";
import { PLACE_WORDS, partText } from "./wiring-words";

const CAUSES = [
  ["water", "water"],
  ["surge", "surge"],
  ["cable", "its cable"],
  ["heat", "heat or frost"],
  ["supply", "its supply"],
  ["fall", "a fall or a blow"],
  ["unknown", "nobody knows"],
] as const;
const STATES = [
  ["planned", "planned"],
  ["stock", "from stock"],
  ["fitted", "fitted"],
  ["spare", "kept as a spare"],
  ["moved", "moved elsewhere"],
  ["removed", "removed"],
  ["dead", "dead"],
] as const;

/** The physical thing that stands at a place: what is written on it, and its life. */
const UnitForm = ({ open, siteId, place, today }: { open: OpenWiring; siteId: string; place: PlaceFields; today: string }) => {
  const refresh = useRefresh();
  const own = open.units.filter((u) => u.placeId === place.id);
  const unit = unitAt(own, place.id);
  const [draft, setDraft] = useState<Partial<UnitFields>>({});
  const [cause, setCause] = useState<NonNullable<UnitFields["cause"]> | "">("");
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const value = <K extends keyof UnitFields>(key: K, start: UnitFields[K]): UnitFields[K] => draft[key] ?? unit?.[key] ?? start;
  const send = async (work: () => Promise<unknown>): Promise<void> => {
    setBusy(true);
    setFault(null);
    try {
      await work();
      setDraft({});
      await refresh(open.jobId);
    } catch (error) {
      setFault(errorSentence(bodyOf(error), open.fieldUnits));
    } finally {
      setBusy(false);
    }
  };
  const save = (): Promise<void> =>
    send(() =>
      unit === null
        ? // The first at a place goes under the place's own id.
          sendEdit(open.jobId, "POST", `/api/jobs/${open.jobId}/units`, {
            id: own.length === 0 ? place.id : crypto.randomUUID(),
            siteId,
            placeId: place.id,
            ...draft,
          })
        : sendEdit(open.jobId, "PATCH", recordPath(open.jobId, "unit", unit.id), { version: unit.version, ...draft }),
    );
  const replace = (): Promise<void> =>
    send(async () => {
      const dead =
        unit ??
        ((await sendEdit(open.jobId, "POST", `/api/jobs/${open.jobId}/units`, {
          id: place.id,
          siteId,
          placeId: place.id,
          ...draft,
        })) as UnitDto);
      await sendEdit(open.jobId, "PATCH", recordPath(open.jobId, "unit", dead.id), {
        version: dead.version,
        state: "dead",
        cause: cause === "" ? "unknown" : cause,
        since: today,
      });
      await sendEdit(open.jobId, "POST", `/api/jobs/${open.jobId}/units`, {
        id: crypto.randomUUID(),
        siteId,
        placeId: place.id,
        state: "planned",
        replaces: dead.id,
        bracket: dead.bracket,
      });
      setCause("");
    });
  const text = (key: "serial" | "mac" | "firmware" | "bracket" | "note", label: string, most: number) => (
    <Field label={label} value={value(key, "")} maxLength={most} onChange={(e) => setDraft({ ...draft, [key]: e.target.value })} />
  );
  const gone = own.filter((u) => u !== unit);
  const sheet = open.all.get(place.partId ?? "");
  const radio = open.hardware.radios.find((r) => r.id === place.partId);
  return (
    <form
      className="mt-2"
      aria-label="The unit itself"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <h4 className="m-0 text-line font-bold">The unit itself</h4>
      <div className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
        {text("serial", "Serial number", 60)}
        {text("mac", "Address of its port (MAC)", 17)}
        {text("firmware", "Firmware", 40)}
        {(place.kind === "radio" || place.where !== "inside") && text("bracket", "Bracket", 60)}
        <Choice
          label="It is"
          value={value("state", "planned")}
          onChange={(e) => setDraft({ ...draft, state: e.target.value as UnitFields["state"] })}
        >
          {STATES.filter(([s]) => s !== "dead").map(([s, words]) => (
            <option key={s} value={s}>
              {words}
            </option>
          ))}
        </Choice>
        <Field
          label="Since"
          type="date"
          value={value("since", null) ?? ""}
          onChange={(e) => setDraft({ ...draft, since: e.target.value === "" ? null : e.target.value })}
        />
        {text("note", "Note", 500)}
      </div>
      <p className="m-0 mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <button type="submit" className="press min-h-6 text-line" disabled={busy || Object.keys(draft).length === 0}>
          Write it down
        </button>
        <Choice label="It died of" value={cause} onChange={(e) => setCause(e.target.value as typeof cause)}>
          <option value="">it did not</option>
          {CAUSES.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </Choice>
        {cause !== "" && (
          <button type="button" className="press min-h-6 text-line" disabled={busy} onClick={() => void replace()}>
            Put a new one in its place
          </button>
        )}
      </p>
      {fault !== null && (
        <p role="alert" className="m-0 mt-1 v-short">
          {fault}
        </p>
      )}
      {gone.length > 0 && (
        <ul className="m-0 mt-1.5 list-none p-0 text-line" aria-label="Before it">
          {gone.map((u) => (
            <li key={u.id}>
              Before it: {u.serial === "" ? "one without a number" : u.serial}
              {u.state === "dead" ? `, died of ${CAUSES.find(([k]) => k === u.cause)?.[1] ?? "?"}` : `, ${u.state}`}
              {u.since === null ? "" : ` on ${u.since}`}.
              {unit !== null && unit.replaces === u.id && (
                <span className="cap">
                  {" "}
                  Like for like: bracket{" "}
                  {u.bracket === ""
                    ? "not written down"
                    : u.bracket === unit.bracket
                      ? "the same"
                      : `${u.bracket}, the new one ${unit.bracket === "" ? "not written down" : unit.bracket}`}
                  {radio?.connectorPlace === undefined ? "" : `, connector ${radio.connectorPlace}`}
                  {radio?.poleDiameterMm === undefined ? "" : `, straps for ${radio.poleDiameterMm.low} to ${radio.poleDiameterMm.high} mm`}
                  {sheet === undefined ? "" : `, supply ${sheet.ports.flatMap((p) => p.takes ?? []).join(" or ") || "none"}`}.
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
    </form>
  );
};

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
        <Field
          label="Name"
          value={place.name}
          maxLength={80}
          onChange={(e) => e.target.value.trim() !== "" && change({ name: e.target.value })}
        />
        <Choice
          label={`Which ${PLACE_WORDS[place.kind]}`}
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
