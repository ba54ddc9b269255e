"use client";
import { useState } from "react";
import type { OtherRadioFields } from "@/contract";
import { Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { figure } from "../../wording/numbers";
import { channelText, percent } from "./air-words";
import { SiteChoice } from "./site-choice";
import type { OpenAir } from "./use-open-air";

/** Sites at which two own radios or more hang: where isolation counts. */
const mastsOf = (
  open: OpenAir,
): { readonly id: string; readonly name: string; readonly count: number; readonly estimate: readonly [number, number] | null }[] => {
  const { field } = open.built.job;
  const by = new Map<string, number[]>();
  field.radios.forEach((r, i) => {
    if (r.siteId !== null) by.set(r.siteId, [...(by.get(r.siteId) ?? []), i]);
  });
  return [...by]
    .filter(([, list]) => list.length > 1)
    .map(([id, list]) => {
      const all = list.flatMap((a) => list.filter((b) => b !== a && field.isGuessed(a, b)).map((b) => -field.couplingDb(a, b)));
      return {
        id,
        name: open.names.get(id) ?? "",
        count: list.length,
        estimate: all.length === 0 ? null : ([Math.min(...all), Math.max(...all)] as const),
      };
    })
    .sort((a, b) => b.count - a.count);
};

/** Isolation on masts, and radios that are no link of the job. */
export const OthersPanel = ({ open }: { open: OpenAir }) => {
  const { fields, change, job, names } = open;
  const [next, setNext] = useState<Omit<OtherRadioFields, "id">>({
    name: "",
    siteId: job.sites[0]?.id ?? "",
    aglM: 5,
    centreMhz: 5500,
    widthMhz: 20,
    eirpDbm: 20,
    bearingDeg: null,
    beamwidthDeg: 60,
    wallDb: 0,
    activity: 0.3,
  });
  const masts = mastsOf(open);
  return (
    <div className="py-2" data-testid="others">
      <h3 className="m-0 text-body font-bold">Isolation on masts</h3>
      {masts.length === 0 && <p className="m-0">No site carries two radios.</p>}
      <div className="grid grid-cols-[repeat(auto-fit,minmax(230px,1fr))] gap-x-5 gap-y-2">
        {masts.map((m) => (
          <div key={m.id}>
            <NumberField
              label={`${m.name}, ${m.count} radios, port to port`}
              unit="dB"
              optional
              value={fields.isolations[m.id] ?? null}
              least={10}
              most={140}
              onChange={(v) => {
                const { [m.id]: _gone, ...others } = fields.isolations;
                change({ isolations: v === null ? others : { ...others, [m.id]: v } });
              }}
            />
            <p className="cap m-0">
              {m.estimate === null
                ? "typed"
                : `empty: estimated at ${figure(m.estimate[0])} to ${figure(m.estimate[1])} dB by distance and patterns, ±10`}
            </p>
          </div>
        ))}
      </div>
      <h3 className="m-0 mt-3 text-body font-bold">Other radios</h3>
      <ul className="m-0 list-none p-0" aria-label="Other radios">
        {fields.others.map((o) => (
          <li key={o.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-0.5">
            <b>{o.name}</b>
            <span>{names.get(o.siteId) ?? "?"}</span>
            <span className="font-mono">{channelText(o)}</span>
            <span>
              {figure(o.eirpDbm)} dBm EIRP, sends {percent(o.activity)}
              {o.bearingDeg === null ? ", all ways" : `, towards ${figure(o.bearingDeg)}°`}
              {o.wallDb === 0 ? "" : `, behind ${figure(o.wallDb)} dB`}
            </span>
            <button
              type="button"
              className="press min-h-6"
              aria-label={`Take ${o.name} away`}
              onClick={() => change({ others: fields.others.filter((x) => x.id !== o.id) })}
            >
              Take it away
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(130px,1fr))] items-end gap-x-4 gap-y-2">
        <Field label="Name" value={next.name} maxLength={80} onChange={(e) => setNext({ ...next, name: e.target.value })} />
        <SiteChoice label="At" sites={job.sites} value={next.siteId} choose={(id) => setNext({ ...next, siteId: id })} />
        <NumberField
          label="Height"
          unit="m"
          value={next.aglM}
          least={0}
          most={500}
          onChange={(v) => v !== null && setNext({ ...next, aglM: v })}
        />
        <NumberField
          label="Centre"
          unit="MHz"
          value={next.centreMhz}
          least={1000}
          most={350_000}
          onChange={(v) => v !== null && setNext({ ...next, centreMhz: v })}
        />
        <NumberField
          label="Width"
          unit="MHz"
          value={next.widthMhz}
          least={1}
          most={10_000}
          onChange={(v) => v !== null && setNext({ ...next, widthMhz: v })}
        />
        <NumberField
          label="EIRP"
          unit="dBm"
          value={next.eirpDbm}
          least={-60}
          most={100}
          onChange={(v) => v !== null && setNext({ ...next, eirpDbm: v })}
        />
        <NumberField
          label="Towards, empty all ways"
          unit="°"
          optional
          value={next.bearingDeg}
          least={0}
          most={360}
          onChange={(v) => setNext({ ...next, bearingDeg: v })}
        />
        <NumberField
          label="Behind a wall of"
          unit="dB"
          value={next.wallDb}
          least={0}
          most={60}
          onChange={(v) => v !== null && setNext({ ...next, wallDb: v })}
        />
        <NumberField
          label="Sends"
          unit="%"
          value={next.activity * 100}
          least={0}
          most={100}
          onChange={(v) => v !== null && setNext({ ...next, activity: v / 100 })}
        />
        <button
          type="button"
          className="press min-h-6"
          disabled={next.name.trim() === "" || next.siteId === ""}
          onClick={() => {
            change({ others: [...fields.others, { ...next, name: next.name.trim(), id: `o${Date.now().toString(36)}` }] });
            setNext({ ...next, name: "" });
          }}
        >
          Add it
        </button>
      </div>
    </div>
  );
};
