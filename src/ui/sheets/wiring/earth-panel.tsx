"use client";
import type { EarthFields } from "@/contract";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import type { EndRecord, OpenWiring } from "./use-open-wiring";

const JOINED = (
  <>
    <option value="unseen">not seen</option>
    <option value="joined">joined</option>
    <option value="open">not joined</option>
  </>
);

/** The one earth of a building: what is seen, what the local code asks, and who said so. Nothing here has a start value that could pass for an answer. */
const OfOne = ({ open, end }: { open: OpenWiring; end: EndRecord }) => {
  const { earth } = end.fields;
  const change = (set: Partial<EarthFields>): void => open.change(end.siteId, { earth: { ...end.now().earth, ...set } });
  const choice = <K extends "bar" | "mast" | "rod">(key: K, label: string, more: boolean) => (
    <Choice label={label} value={earth[key]} onChange={(e) => change({ [key]: e.target.value } as Partial<EarthFields>)}>
      {more && <option value="none">there is none</option>}
      {JOINED}
    </Choice>
  );
  return (
    <section aria-label={`Earth at ${open.job.sites.find((s) => s.id === end.siteId)?.name}`}>
      <h3 className={`m-0 text-body font-bold ${end.siteId === open.near.siteId ? "text-near" : "text-far"}`}>
        {open.job.sites.find((s) => s.id === end.siteId)?.name}
      </h3>
      <div className="mt-1.5 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
        <Choice
          label="Mains earthed as"
          value={earth.mains ?? ""}
          onChange={(e) => change({ mains: e.target.value === "" ? null : (e.target.value as NonNullable<EarthFields["mains"]>) })}
        >
          <option value="">not asked yet</option>
          {["TN-S", "TN-C-S", "TT", "IT"].map((m) => (
            <option key={m}>{m}</option>
          ))}
          <option value="none">no mains</option>
        </Choice>
        <Choice
          label="Lightning protection"
          value={earth.lightning ?? ""}
          onChange={(e) => change({ lightning: e.target.value === "" ? null : (e.target.value as NonNullable<EarthFields["lightning"]>) })}
        >
          <option value="">not asked yet</option>
          <option value="none">none on the building</option>
          <option value="there">there is one</option>
        </Choice>
        <Field
          label="What the specialist said, and who"
          value={earth.specialist}
          maxLength={400}
          onChange={(e) => change({ specialist: e.target.value })}
        />
        {choice("bar", "Bar to the main earth", false)}
        {choice("mast", "Mast to the bar", true)}
        {choice("rod", "A rod of its own", true)}
        <NumberField
          label="Cross-section by the local code"
          unit="mm²"
          optional
          value={earth.sizeMm2}
          least={0.1}
          most={400}
          onChange={(sizeMm2) => change({ sizeMm2 })}
        />
        <Field label="Where the code says so" value={earth.source} maxLength={200} onChange={(e) => change({ source: e.target.value })} />
        <Choice
          label="Screens by local practice"
          value={earth.screens ?? ""}
          onChange={(e) => change({ screens: e.target.value === "" ? null : (e.target.value as NonNullable<EarthFields["screens"]>) })}
        >
          <option value="">not asked yet</option>
          <option value="one">bonded at one end</option>
          <option value="both">bonded at both ends</option>
        </Choice>
        <NumberField
          label="Least gap to mains by the code"
          unit="mm"
          optional
          value={earth.mainsGapMm}
          least={0}
          most={10_000}
          onChange={(mainsGapMm) => change({ mainsGapMm })}
        />
      </div>
    </section>
  );
};

export const EarthPanel = ({ open }: { open: OpenWiring }) => (
  <div className="grid gap-4 py-2">
    <p className="cap m-0 max-w-[720px]">
      Mains, earthing and lightning protection are for qualified people, by the local code. Bond everything before anything is powered. What
      is asked here is asked of them; this program gives no figure of its own.
    </p>
    {open.ends
      .filter((e) => e.exists)
      .map((e) => (
        <OfOne key={e.siteId} open={open} end={e} />
      ))}
  </div>
);
