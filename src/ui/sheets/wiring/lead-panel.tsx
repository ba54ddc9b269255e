"use client";
import type { LeadFields } from "@/contract";
import { type Lead, portKey } from "@/core/wiring";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { UnitField } from "../../controls/unit-field";
import { figure } from "../../wording/numbers";
import { partText } from "../../wording/wiring";
import { mayJoin } from "./joins";
import type { OpenWiring } from "./use-open-wiring";

const END = "|";

/** One lead: its ends, what it is of, how long, where it goes, and what the tester said. Every field is saved as it is typed. */
export const LeadPanel = ({ open, siteId, leadId }: { open: OpenWiring; siteId: string; leadId: string }) => {
  const end = open.endOf(siteId);
  const site = open.own.find((s) => s.siteId === siteId);
  const lead = end.fields.leads.find((l) => l.id === leadId);
  if (site === undefined || lead === undefined) return null;
  const { wired: w, feeds } = site.judged;
  const change = (set: Partial<LeadFields>): void =>
    open.change(siteId, { leads: end.now().leads.map((l) => (l.id === leadId ? { ...l, ...set } : l)) });
  const ports = (from: Lead["from"], own: Lead["from"]) =>
    w.graph.places.flatMap((p) => {
      const list = w.sheetOf(p.id)?.ports.map((x) => ({ id: x.id, name: x.name })) ?? [{ id: "1", name: "1" }];
      return list
        .map((x) => ({ end: { placeId: p.id, port: x.id }, name: `${p.name}, ${x.name}` }))
        .filter((x) => portKey(x.end) === portKey(own) || mayJoin(w, from, x.end, leadId));
    });
  const portChoice = (label: string, own: Lead["from"], other: Lead["from"], set: (e: Lead["from"]) => void) => (
    <Choice
      label={label}
      value={`${own.placeId}${END}${own.port}`}
      onChange={(e) => {
        const [placeId, port] = e.target.value.split(END);
        set({ placeId: placeId!, port: port! });
      }}
    >
      {ports(other, own).map((x) => (
        <option key={portKey(x.end)} value={`${x.end.placeId}${END}${x.end.port}`}>
          {x.name}
        </option>
      ))}
    </Choice>
  );
  const medium = w.portOf(lead.from)?.medium ?? w.portOf(lead.to)?.medium ?? "copper";
  const cables = [...open.all.values()].filter(
    (c) =>
      c.cable !== undefined &&
      (medium === "fibre" ? c.kind === "fibre" : c.kind === "cable") &&
      (c.retired !== true || c.id === lead.cableId),
  );
  const arrival = [lead.from, lead.to].map((e) => feeds.arrivals.get(portKey(e))).find((a) => a !== undefined);
  const isMains = medium === "mains";
  const { nearMains } = lead;
  return (
    <section aria-label="This lead" className="mt-2" data-testid="lead-panel">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h3 className="m-0 text-body font-bold">
          {w.placeOf.get(lead.from.placeId)?.name ?? "?"} to {w.placeOf.get(lead.to.placeId)?.name ?? "?"}
        </h3>
        <span className="flex gap-x-4">
          {arrival !== undefined && arrival.volts !== null && arrival.amps !== null && arrival.gives.scheme !== "mains" && (
            <span className="font-mono text-line">
              {figure(arrival.volts, 1)} V, {figure(arrival.amps, 2)} A
            </span>
          )}
          <button
            type="button"
            className="press min-h-6 text-line"
            onClick={() => {
              open.change(siteId, { leads: end.now().leads.filter((l) => l.id !== leadId) });
              open.setChosen(null);
            }}
          >
            Take this lead away
          </button>
        </span>
      </div>
      <div className="mt-1.5 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
        {portChoice("From", lead.from, lead.to, (from) => change({ from }))}
        {portChoice("To", lead.to, lead.from, (to) => change({ to }))}
        {!isMains && (
          <>
            <Choice
              label="Cable"
              value={lead.cableId ?? ""}
              onChange={(e) => change({ cableId: e.target.value === "" ? null : e.target.value })}
            >
              <option value="">not known</option>
              {cables.map((c) => (
                <option key={c.id} value={c.id}>
                  {partText(c)}
                </option>
              ))}
            </Choice>
            <UnitField
              quantity="height"
              label="Length"
              value={lead.lengthM}
              allowEmpty={false}
              most={2000}
              onChange={(v) => v !== null && change({ lengthM: v })}
            />
            <Choice label="Way" value={lead.way} onChange={(e) => change({ way: e.target.value as LeadFields["way"] })}>
              <option value="inside">inside</option>
              <option value="outside">outside</option>
              <option value="both">in from outside</option>
            </Choice>
            {lead.way !== "inside" && (
              <>
                <Field label="Goes through" value={lead.through} maxLength={120} onChange={(e) => change({ through: e.target.value })} />
                <Choice
                  label="Screen bonded"
                  value={lead.screen}
                  onChange={(e) => change({ screen: e.target.value as LeadFields["screen"] })}
                >
                  <option value="one">at one end</option>
                  <option value="both">at both ends</option>
                  <option value="none">nowhere</option>
                  <option value="unseen">not seen</option>
                </Choice>
                <Choice
                  label="Drip loop"
                  value={lead.dripLoop === null ? "" : lead.dripLoop ? "yes" : "no"}
                  onChange={(e) => change({ dripLoop: e.target.value === "" ? null : e.target.value === "yes" })}
                >
                  <option value="">not seen</option>
                  <option value="yes">it hangs below the hole</option>
                  <option value="no">none</option>
                </Choice>
              </>
            )}
            <NumberField
              label="Warmest"
              unit="°C"
              value={lead.temperatureC}
              least={-40}
              most={90}
              onChange={(v) => v !== null && change({ temperatureC: v })}
            />
            <Choice
              label="Beside mains"
              value={nearMains === null ? "no" : "yes"}
              onChange={(e) => change({ nearMains: e.target.value === "no" ? null : { gapMm: null, alongM: 1 } })}
            >
              <option value="no">no</option>
              <option value="yes">yes</option>
            </Choice>
            {nearMains !== null && (
              <>
                <NumberField
                  label="Gap"
                  unit="mm"
                  optional
                  value={nearMains.gapMm}
                  least={0}
                  most={10_000}
                  onChange={(gapMm) => change({ nearMains: { ...nearMains, gapMm } })}
                />
                <UnitField
                  quantity="height"
                  label="Along"
                  value={nearMains.alongM}
                  allowEmpty={false}
                  most={2000}
                  onChange={(v) => v !== null && change({ nearMains: { ...nearMains, alongM: v } })}
                />
              </>
            )}
            <Field label="Label on it" value={lead.label} maxLength={40} onChange={(e) => change({ label: e.target.value })} />
            <UnitField
              quantity="height"
              label="Measured length"
              value={lead.measuredM}
              most={2000}
              onChange={(measuredM) => change({ measuredM })}
            />
            <Choice label="Tester" value={lead.tested} onChange={(e) => change({ tested: e.target.value as LeadFields["tested"] })}>
              <option value="not yet">not yet</option>
              <option value="passed">passed</option>
              <option value="failed">failed</option>
            </Choice>
            <Field label="What it said" value={lead.testNote} maxLength={200} onChange={(e) => change({ testNote: e.target.value })} />
          </>
        )}
      </div>
    </section>
  );
};
