"use client";
import type { Brief, KitFields } from "@/contract";
import { centsText, paybackMonths, quoteOf } from "@/core/kit";
import { Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";

/** What it costs, and how long until it has cost less than what it replaces. */
export const MoneyPanel = ({
  kit,
  now,
  change,
  materialCents,
  shapes,
}: {
  kit: KitFields;
  now: () => KitFields;
  change: (set: Partial<KitFields>) => void;
  materialCents: number;
  shapes: Brief["shapes"];
}) => {
  const { money } = kit;
  const set = (fields: Partial<KitFields["money"]>): void => change({ money: { ...now().money, ...fields } });
  const q = quoteOf({ materialCents, ...money });
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
            {row(`Labour, ${money.labourHours} h`, q.labourCents)}
            {row(`Way, ${money.travelKm} km`, q.travelCents)}
            {row("Margin", q.marginCents)}
            {row("Together", q.netCents, true)}
            {row("Tax", q.taxCents)}
            {row("To pay", q.totalCents, true)}
          </tbody>
        </table>
        <div className="grid h-fit grid-cols-[repeat(auto-fill,minmax(140px,1fr))] gap-x-5 gap-y-2.5">
          <Field
            label="Currency"
            value={money.currency}
            maxLength={8}
            onChange={(e) => e.target.value.trim() !== "" && set({ currency: e.target.value })}
          />
          <NumberField
            label="Labour"
            unit="h"
            value={money.labourHours}
            least={0}
            most={10_000}
            onChange={(v) => v !== null && set({ labourHours: v })}
          />
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
