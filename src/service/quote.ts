import { writeFile } from "node:fs/promises";
import { customerSums, quoteLines, sitesCost } from "../contract";
import { localTime } from "../core/days";
import { centsText } from "../core/kit";
import { FEET_PER_METRE } from "../core/units";
import { NotFound } from "../data/clash";
import type { Db } from "../data/client";
import type { JobRow } from "../data/jobs";
import { csvText } from "../formats";
import { type QuoteSheet, quotePages } from "../pack/quote-pages";
import { fileName } from "./export";
import { readKit } from "./kit-read";

/* The quote of a job, or of one link's ends, as its customer sees it: what is delivered, the work, the sums; no price of a thing and no margin. */

type Units = "metric" | "imperial";

/** What is asked: both ends of a link, with all that hangs there; null: all sites of the job. */
export interface QuoteAsk {
  readonly linkId: string | null;
  readonly as: "pdf" | "csv";
  readonly units: Units;
}

export const quoteHead = (job: JobRow, as: QuoteAsk["as"]): { type: string; name: string } => ({
  type: as === "csv" ? "text/csv; charset=utf-8" : "application/pdf",
  name: `${fileName(job.name)}-quote.${as}`,
});

const trimmed = (n: number): string => String(Math.round(n * 100) / 100);
const quantityOf = (quantity: number, unit: string, units: Units): string => {
  if (unit === "m") return units === "metric" ? `${Math.ceil(quantity)} m` : `${Math.ceil(quantity * FEET_PER_METRE)} ft`;
  return unit === "" || unit === "pieces" ? trimmed(quantity) : `${trimmed(quantity)} ${unit}`;
};

/** @throws NotFound when the job has no such link. */
export const quoteOfJob = async (
  db: Db,
  row: JobRow,
  { linkId, units }: Omit<QuoteAsk, "as">,
): Promise<{ readonly sheet: QuoteSheet; readonly csv: string }> => {
  const { job, kit, days, kitsOf } = await readKit(db, row);
  const link = job.links.find((l) => l.id === linkId) ?? null;
  if (link === null && linkId !== null) throw new NotFound("link");
  const ends = kitsOf(link === null ? job.sites.map((s) => s.id) : [link.nearSiteId, link.farSiteId]);
  const cost = sitesCost(kit, ends, days.tasks, link === null);
  const sums = customerSums(kit, cost);
  const { money } = kit;
  const nameOf = (siteId: string): string => job.sites.find((s) => s.id === siteId)?.name ?? "";
  const lines = quoteLines(ends);
  const amount = (cents: number): string => `${centsText(cents)} ${money.currency}`;
  const own = cost.labour.filter((t) => t.hours > 0);
  const labour =
    money.labourBy === "tasks"
      ? own.map((t) => ({ quantity: `${trimmed(t.hours)} h`, name: t.name }))
      : cost.labourHours > 0
        ? [{ quantity: `${trimmed(cost.labourHours)} h`, name: "bringing up, wiring, aiming, proving" }]
        : [];
  const total = [
    ["Material", sums.materialCents],
    ["Work", sums.labourCents],
    ["Way", sums.travelCents],
    ["Together", sums.netCents],
    [`Tax, ${trimmed(money.taxShare * 100)} %`, sums.taxCents],
    ["To pay", sums.totalCents],
  ] as const;
  const sheet: QuoteSheet = {
    job: row.name,
    place: row.place,
    of: link === null ? "all sites" : `${nameOf(link.nearSiteId)} to ${nameOf(link.farSiteId)}`,
    to: money.quoteTo,
    day: localTime(new Date(), row.timeZone).day,
    validUntil: money.validUntil,
    sections: ends.map(({ siteId }) => ({
      name: nameOf(siteId),
      rows: lines.filter((l) => l.siteId === siteId).map((l) => ({ quantity: quantityOf(l.quantity, l.unit, units), name: l.name })),
    })),
    labour,
    sums: total.map(([name, cents], i) => ({ name, amount: amount(cents), isTotal: i === total.length - 1 })),
    terms: money.terms,
    notes: [
      "What a link comes to depends on weather, growth and what others build or send; what was promised is proven on the day and written down.",
      "Work at height and on the mains is done by people qualified for it, under the local codes; permissions are the owner's to give.",
    ],
  };
  const csv = csvText([
    ...lines.map((l) => ({
      site: nameOf(l.siteId),
      item: l.name,
      quantity: l.quantity,
      unit: l.unit === "" ? "pieces" : l.unit,
      amount: "",
      currency: "",
    })),
    ...labour.map((l) => ({ site: "", item: l.name, quantity: l.quantity.replace(" h", ""), unit: "h", amount: "", currency: "" })),
    ...total.map(([name, cents]) => ({
      site: "",
      item: name,
      quantity: "",
      unit: "",
      amount: centsText(cents).replace("−", "-"),
      currency: money.currency,
    })),
  ]);
  return { sheet, csv };
};

/** Writes the quote as a file. */
export const writeQuote = async (db: Db, row: JobRow, ask: QuoteAsk, path: string): Promise<void> => {
  const { sheet, csv } = await quoteOfJob(db, row, ask);
  if (ask.as === "csv") return writeFile(path, csv);
  // Laying out paper is code that nothing else needs.
  const { pagesPdf } = await import("../formats/pdf/page-pdf");
  const pages = quotePages(sheet, ask.units === "imperial" ? "letter" : "a4");
  await writeFile(path, await pagesPdf(pages, { title: `Quote, ${sheet.of}`, language: "en" }));
};
