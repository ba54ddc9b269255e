"use client";
import { useState } from "react";
import { type Brief, type KitFields, type SiteKit, sitesCost, type TaskFields } from "@/contract";
import { centsText, paybackMonths } from "@/core/kit";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { ParsedField } from "../../controls/parsed-field";
import { readName } from "../../wording/read";

const MOST_NAMED = 8;
const hoursText = (hours: number): string => `${Math.round(hours * 100) / 100} h`;

/** What it costs, and how long until it has cost less than what it replaces. */
export const MoneyPanel = ({
  kit,
  now,
  change,
  ends,
  allSites,
  tasks,
  shapes,
  quote,
  busy,
}: {
  kit: KitFields;
  now: () => KitFields;
  change: (set: Partial<KitFields>) => void;
  ends: readonly SiteKit[];
  allSites: readonly SiteKit[];
  tasks: readonly TaskFields[];
  shapes: Brief["shapes"];
  /** A file is being written. */
  busy: boolean;
  /** Hands over the quote as a file. */
  quote: (as: "pdf" | "csv", isJob: boolean) => void;
}) => {
  const { money } = kit;
  const set = (fields: Partial<KitFields["money"]>): void => change({ money: { ...now().money, ...fields } });
  const [isJob, setIsJob] = useState(true);
  const cost = sitesCost(kit, isJob ? allSites : ends, tasks, isJob);
  const q = cost.quote;
  const byTask = money.labourBy === "tasks";
  const text = (cents: number): string => `${centsText(cents)} ${money.currency}`;
  const months = paybackMonths(q.totalCents, shapes.subscriptionPerMonth);
  const row = (label: string, cents: number, bold = false) => (
    <tr className={bold ? "border-t border-ink font-bold" : ""}>
      <td className="pr-6">{label}</td>
      <td className="text-right font-mono">{text(cents)}</td>
    </tr>
  );
  return (
    <section aria-label="Money" className="pt-2" data-testid="money">
      <div className="grid gap-x-10 gap-y-3 min-[900px]:grid-cols-[auto_minmax(0,1fr)]">
        <table className="h-fit border-collapse text-line">
          <tbody>
            {row("Material", q.materialCents)}
            {row(`Labour, ${hoursText(cost.labourHours)}`, q.labourCents)}
            {row(`Way, ${money.travelKm} km`, q.travelCents)}
            {row("Margin", q.marginCents)}
            {row("Together", q.netCents, true)}
            {row("Tax", q.taxCents)}
            {row("To pay", q.totalCents, true)}
          </tbody>
        </table>
        <div className="grid h-fit grid-cols-[repeat(auto-fill,minmax(140px,1fr))] gap-x-5 gap-y-2.5">
          <Choice label="Of" value={isJob ? "job" : "ends"} onChange={(e) => setIsJob(e.target.value === "job")}>
            <option value="job">all sites of the job</option>
            <option value="ends">the two ends of this link, with all that hangs there</option>
          </Choice>
          <ParsedField label="Currency" shown={money.currency} maxLength={8} read={readName} take={(currency) => set({ currency })} />
          <Choice label="Labour is" value={money.labourBy} onChange={(e) => set({ labourBy: e.target.value as typeof money.labourBy })}>
            <option value="hours">hours as typed</option>
            <option value="tasks">by the tasks of its days</option>
          </Choice>
          {!byTask && (
            <NumberField
              label="Labour"
              unit="h"
              value={money.labourHours}
              least={0}
              most={10_000}
              onChange={(v) => v !== null && set({ labourHours: v })}
            />
          )}
          <NumberField
            label="An hour costs"
            value={money.labourPerHour}
            least={0}
            most={10_000}
            onChange={(v) => v !== null && set({ labourPerHour: v })}
          />
          <NumberField
            label="Way"
            unit="km"
            value={money.travelKm}
            least={0}
            most={100_000}
            onChange={(v) => v !== null && set({ travelKm: v })}
          />
          <NumberField
            label="A kilometre costs"
            value={money.travelPerKm}
            least={0}
            most={1000}
            onChange={(v) => v !== null && set({ travelPerKm: v })}
          />
          <NumberField
            label="Margin"
            unit="%"
            value={money.marginShare * 100}
            least={0}
            most={500}
            onChange={(v) => v !== null && set({ marginShare: v / 100 })}
          />
          <NumberField
            label="Tax"
            unit="%"
            value={money.taxShare * 100}
            least={0}
            most={100}
            onChange={(v) => v !== null && set({ taxShare: v / 100 })}
          />
        </div>
      </div>
      {cost.unpriced.length > 0 && (
        <p className="m-0 mt-2 v-tight" data-testid="unpriced">
          Without a price, and not in the sums: {cost.unpriced.slice(0, MOST_NAMED).join("; ")}
          {cost.unpriced.length > MOST_NAMED && ` and ${cost.unpriced.length - MOST_NAMED} more`}.
        </p>
      )}
      {byTask && (
        <section aria-label="Labour by task" className="mt-3">
          <h3 className="m-0 text-body font-bold">Labour by task</h3>
          {cost.labour.length === 0 ? (
            <p className="m-0">No task is on the days of this link yet: plan them in Days.</p>
          ) : (
            <ul className="m-0 list-none p-0" data-testid="labour">
              {cost.labour.map((t) => (
                <li key={t.id} className="grid grid-cols-[64px_minmax(0,1fr)] gap-x-3">
                  <span className="text-right font-mono">{hoursText(t.hours)}</span>
                  <span>
                    {t.name}
                    {t.own.length > 0 && `, ${t.own.join(" and ")}`}
                    {t.others.length > 0 && <span className="cap"> {t.others.join(", ")}: of others, not counted here</span>}
                    {t.own.length + t.others.length === 0 && <span className="cap"> nobody yet, counted as one person's</span>}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
      <section aria-label="Quote" className="mt-3">
        <h3 className="m-0 text-body font-bold">Quote for the customer</h3>
        <div className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-x-5 gap-y-2.5">
          <Field label="For" value={money.quoteTo} maxLength={120} onChange={(e) => set({ quoteTo: e.target.value })} />
          <Field
            label="It holds until"
            type="date"
            value={money.validUntil ?? ""}
            onChange={(e) => set({ validUntil: e.target.value === "" ? null : e.target.value })}
          />
          <Field label="Terms" value={money.terms} maxLength={1000} onChange={(e) => set({ terms: e.target.value })} />
        </div>
        <p className="m-0 mt-1 flex flex-wrap gap-x-4">
          <button type="button" className="press min-h-6" disabled={busy} onClick={() => quote("pdf", isJob)}>
            Quote as PDF
          </button>
          <button type="button" className="press min-h-6" disabled={busy} onClick={() => quote("csv", isJob)}>
            Quote as CSV
          </button>
          <span className="cap">What things cost you and your margin stand in neither.</span>
        </p>
      </section>
      <p className="cap m-0 mt-2">
        {shapes.subscriptionPerMonth > 0
          ? months === null
            ? `Against ${shapes.subscriptionPerMonth} ${money.currency} a month it is not paid back within ten years.`
            : `It has paid for the line it replaces (${shapes.subscriptionPerMonth} ${money.currency} a month) in ${months} months.`
          : "No subscription that it replaces is told in the brief."}{" "}
        Prices are those of the sheets; whoever buys asks for today's.
      </p>
    </section>
  );
};
