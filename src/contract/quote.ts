import { customerQuote, KIT_PLACES, type Quote, quoteOf } from "../core/kit";
import type { TaskFields } from "./days";
import type { KitFields } from "./kit";
import type { SiteKit } from "./kit-job";
import { PART_KIND_WORDS } from "./wiring";

/* What sites cost: their material, labour as typed or by task, the way; and what of it a customer sees. */

export interface LabourRow {
  readonly id: string;
  readonly name: string;
  /** Hours of one's own people together. */
  readonly hours: number;
  readonly own: readonly string[];
  /** People of others: they are paid otherwise. */
  readonly others: readonly string[];
}

/** Hours by task of what is done for some sites, or for all (null): each of one's own people counts; a task that nobody has yet counts as one person's. */
export const labourRows = (tasks: readonly TaskFields[], crew: readonly string[], siteIds: ReadonlySet<string> | null): LabourRow[] => {
  const known = new Set(crew.map((p) => p.toLowerCase()));
  return tasks
    .filter((t) => siteIds === null || t.siteId === null || siteIds.has(t.siteId))
    .map((t) => {
      const own = t.people.filter((p) => known.has(p.toLowerCase()));
      const others = t.people.filter((p) => !known.has(p.toLowerCase()));
      return { id: t.id, name: t.name, own, others, hours: t.hours * (t.people.length === 0 ? 1 : own.length) };
    });
};

export interface SitesCost {
  readonly labour: readonly LabourRow[];
  readonly labourHours: number;
  /** Names of what has no price and counts nothing in the sums; tools go home again. */
  readonly unpriced: readonly string[];
  readonly quote: Quote;
}

/** @param isJob all of the job: tasks of sites without a wiring count, too. */
export const sitesCost = (
  kit: Pick<KitFields, "money" | "crew">,
  sites: readonly SiteKit[],
  tasks: readonly TaskFields[],
  isJob: boolean,
): SitesCost => {
  const labour = labourRows(tasks, kit.crew, isJob ? null : new Set(sites.map((s) => s.siteId)));
  const labourHours = kit.money.labourBy === "tasks" ? labour.reduce((h, r) => h + r.hours, 0) : kit.money.labourHours;
  const materialCents = sites.reduce((c, s) => c + s.materialCents, 0);
  const unpriced = [
    ...new Set(
      sites.flatMap((s) => s.rows.flatMap((r) => (r.costCents === null && r.state !== "there" && r.where !== "tools" ? [r.name] : []))),
    ),
  ];
  return { labour, labourHours, unpriced, quote: quoteOf({ ...kit.money, materialCents, labourHours }) };
};

/** A line of a quote: what is delivered, without what it cost. */
export interface QuoteLine {
  readonly siteId: string;
  readonly name: string;
  readonly quantity: number;
  readonly unit: string;
}

/** What is delivered, each thing once a site: neither tools, which go home again, nor what is there already. */
export const quoteLines = (sites: readonly SiteKit[]): QuoteLine[] => {
  const lines = new Map<string, QuoteLine>();
  const ordered = KIT_PLACES.flatMap((where) => sites.flatMap((s) => s.rows.filter((r) => r.where === where)));
  for (const r of ordered) {
    if (r.state === "there" || (r.where === "tools" && r.costCents === null)) continue;
    const key = `${r.siteId}|${r.part?.id ?? r.name}|${r.unit}`;
    const kind = r.part === null || r.part.kind === "other" ? "" : PART_KIND_WORDS[r.part.kind];
    const name = kind === "" || r.name.toLowerCase().includes(kind) ? r.name : `${r.name}, ${kind}`;
    const was = lines.get(key);
    lines.set(key, { siteId: r.siteId, name: was?.name ?? name, unit: r.unit, quantity: (was?.quantity ?? 0) + r.quantity });
  }
  return [...lines.values()];
};

/** Sums as a customer sees them. */
export const customerSums = (kit: Pick<KitFields, "money">, cost: SitesCost): ReturnType<typeof customerQuote> =>
  customerQuote(cost.quote, kit.money.marginShare);
