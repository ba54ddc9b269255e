"use client";
import { useState } from "react";
import { CAUSES, type PlaceFields, recordPath, roleOfPlace, type UnitFields, unitAt } from "@/contract";
import { bodyOf } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import { AddRow, RemoveRow } from "../../controls/rows";
import { sendEdit } from "../../state/browser-outbox";
import { useKeptDraft } from "../../state/use-kept-draft";
import { errorSentence } from "../../wording/errors";
import type { OpenWiring } from "./use-open-wiring";

const CAUSE_WORDS: Readonly<Record<(typeof CAUSES)[number], string>> = {
  water: "water",
  surge: "surge",
  cable: "its cable",
  heat: "heat or frost",
  supply: "its supply",
  fall: "a fall or a blow",
  unknown: "nobody knows",
};
/** Services that a unit often comes with. */
const USUAL = ["web page", "SSH", "Telnet", "SNMP", "discovery", "time", "cloud"] as const;
const STATES = [
  ["planned", "planned"],
  ["stock", "from stock"],
  ["fitted", "fitted"],
  ["spare", "kept as a spare"],
  ["moved", "moved elsewhere"],
  ["removed", "removed"],
  ["dead", "dead"],
] as const;

/** What runs on it beside its work: on or off, and why. */
const Services = ({ services, change }: { services: UnitFields["services"]; change: (services: UnitFields["services"]) => void }) => {
  const set = (at: number, fields: Partial<UnitFields["services"][number]>): void =>
    change(services.map((s, i) => (i === at ? { ...s, ...fields } : s)));
  return (
    <fieldset className="m-0 mt-2 border-0 p-0" data-testid="services">
      <legend className="p-0 text-note text-ink-2">Services on it: what runs, what is switched off, and why</legend>
      {services.map((s, i) => (
        <div key={i} className="grid grid-cols-[minmax(90px,140px)_76px_minmax(0,1fr)_28px] items-end gap-x-4 pt-1">
          <Field label="Service" value={s.name} maxLength={40} onChange={(e) => set(i, { name: e.target.value })} />
          <Choice label="It is" value={s.on ? "on" : "off"} onChange={(e) => set(i, { on: e.target.value === "on" })}>
            <option value="off">off</option>
            <option value="on">on</option>
          </Choice>
          <Field label="Why" value={s.why} maxLength={120} onChange={(e) => set(i, { why: e.target.value })} />
          <RemoveRow label={`Take ${s.name || "this service"} away`} onClick={() => change(services.filter((_, k) => k !== i))} />
        </div>
      ))}
      <div className="flex flex-wrap gap-x-4">
        {USUAL.filter((name) => !services.some((s) => s.name === name)).map((name) => (
          <AddRow key={name} disabled={services.length >= 20} onClick={() => change([...services, { name, on: false, why: "" }])}>
            {name}
          </AddRow>
        ))}
        <AddRow disabled={services.length >= 20} onClick={() => change([...services, { name: "", on: false, why: "" }])}>
          Another
        </AddRow>
      </div>
    </fieldset>
  );
};

/** The physical thing that stands at a place: what is written on it, and its life. */
export const UnitForm = ({ open, siteId, place, today }: { open: OpenWiring; siteId: string; place: PlaceFields; today: string }) => {
  const refresh = useRefresh();
  const own = open.units.filter((u) => u.placeId === place.id);
  const unit = unitAt(own, place.id);
  const [draft, setDraft] = useKeptDraft<UnitFields>(`unit.${place.id}`);
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
      await sendEdit(open.jobId, "POST", `/api/jobs/${open.jobId}/replace-unit`, {
        siteId,
        placeId: place.id,
        dead:
          unit === null ? { id: own.length === 0 ? place.id : crypto.randomUUID(), version: 0 } : { id: unit.id, version: unit.version },
        fields: draft,
        cause: cause === "" ? "unknown" : cause,
        on: today,
        newId: crypto.randomUUID(),
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
      {roleOfPlace(place.kind) !== null && (
        <Services services={value("services", [])} change={(services) => setDraft({ ...draft, services })} />
      )}
      <p className="m-0 mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <button type="submit" className="press min-h-6 text-line" disabled={busy || Object.keys(draft).length === 0}>
          Write it down
        </button>
        {Object.keys(draft).length > 0 && (
          <span className="text-line">
            Typed, not written down yet.{" "}
            <button type="button" className="press min-h-6 text-line" disabled={busy} onClick={() => setDraft({})}>
              Put it back
            </button>
          </span>
        )}
        <Choice label="It died of" value={cause} onChange={(e) => setCause(e.target.value as typeof cause)}>
          <option value="">it did not</option>
          {CAUSES.map((key) => (
            <option key={key} value={key}>
              {CAUSE_WORDS[key]}
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
              {u.state === "dead" ? `, died of ${CAUSE_WORDS[u.cause ?? "unknown"]}` : `, ${u.state}`}
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
