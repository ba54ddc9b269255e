import type { PartSheet, Parts } from "../wiring";
import { amountCents } from "./money";
import rules from "./rules.json" with { type: "json" };

/* A kit out of facts of the plan by rule rows: what is needed, how much, where it is used, and why. */

export const KIT_PLACES = ["mast", "wall", "through", "inside", "earth", "tools"] as const;
export type KitPlace = (typeof KIT_PLACES)[number];

export type FactKind = "place" | "lead" | "entry" | "bond" | "mount" | "site";
type Value = string | number | boolean | null;

export interface KitFact {
  readonly kind: FactKind;
  readonly name: string;
  readonly values: Readonly<Record<string, Value>>;
}

export interface RuleRow {
  readonly id: string;
  readonly from: FactKind;
  readonly when: Readonly<Record<string, Value>>;
  /** A sheet of the catalogue, or "$field" of the fact. */
  readonly part?: string | undefined;
  /** Words, with "$field" of the fact; beside a part, for where the catalogue has none. */
  readonly item?: string | undefined;
  readonly quantity: {
    readonly per?: number | string | undefined;
    readonly of?: string | undefined;
    readonly times?: number | undefined;
    readonly roundUp?: number | undefined;
  };
  readonly unit?: string | undefined;
  readonly size?: string | undefined;
  /** Price of one where no part has it, "$field" of the fact. */
  readonly price?: string | undefined;
  readonly once?: boolean | undefined;
  readonly where: string;
  readonly why: string;
}

export const KIT_RULES = rules.rows as unknown as readonly RuleRow[];

export interface KitLine {
  /** The same line of the same plan has the same key. */
  readonly key: string;
  readonly siteId: string;
  readonly where: KitPlace;
  readonly name: string;
  readonly part: PartSheet | null;
  readonly quantity: number;
  readonly unit: string;
  /** Every row and fact that asked for it. */
  readonly why: readonly string[];
  readonly ruleIds: readonly string[];
  /** Null where no price is known. */
  readonly costCents: number | null;
}

const filled = (words: string, fact: KitFact): string =>
  words
    .replace(/\{name\}/g, fact.name)
    .replace(/\{(\w+)\}/g, (_, key: string) => String(fact.values[key] ?? ""))
    .replace(/\$(\w+)/g, (_, key: string) => String(fact.values[key] ?? ""));

const numberOf = (x: number | string | undefined, fact: KitFact): number =>
  typeof x === "string" ? Number(fact.values[x.slice(1)] ?? 0) : (x ?? 0);

const quantityOf = ({ quantity: q }: RuleRow, fact: KitFact): number => {
  const raw = numberOf(q.per, fact) + (q.of === undefined ? 0 : Number(fact.values[q.of] ?? 0) * (q.times ?? 1));
  return q.roundUp === undefined ? raw : Math.ceil(raw / q.roundUp - 1e-9) * q.roundUp;
};

const isPlace = (text: string): text is KitPlace => (KIT_PLACES as readonly string[]).includes(text);
/** Ways of a lead and places of a thing, as places of the kit. */
const PLACE_OF: Readonly<Record<string, KitPlace>> = { outside: "wall", both: "wall" };

interface Draft {
  readonly where: KitPlace;
  readonly name: string;
  readonly part: PartSheet | null;
  readonly unit: string;
  readonly price: number | null;
  quantity: number;
  readonly why: string[];
  readonly ruleIds: Set<string>;
}

const priceOf = (part: PartSheet | null, row: RuleRow, fact: KitFact): number | null => {
  if (part === null) {
    const told = fact.values[row.price?.slice(1) ?? ""];
    return typeof told === "number" ? told : null;
  }
  return (part.cable !== undefined && !part.cable.cord ? part.cable.pricePerM : (part.priceEur ?? part.cable?.pricePerM)) ?? null;
};

/**
 * Lines of one site: what is used in one place and is the same is one line, with every reason for it.
 * @param rules the rows in force.
 */
export const kitLines = (siteId: string, facts: readonly KitFact[], parts: Parts, rows: readonly RuleRow[] = KIT_RULES): KitLine[] => {
  const drafts = new Map<string, Draft>();
  for (const row of rows)
    for (const fact of facts) {
      if (fact.kind !== row.from || !Object.entries(row.when).every(([key, v]) => fact.values[key] === v)) continue;
      const partId = row.part === undefined ? null : filled(row.part, fact);
      const part = partId === null ? null : (parts.get(partId) ?? null);
      // Of what the catalogue lacks the words stand in the list.
      if (row.part !== undefined && part === null && row.item === undefined) continue;
      const quantity = quantityOf(row, fact);
      if (!(quantity > 0)) continue;
      const where = filled(row.where, fact);
      const at = isPlace(where) ? where : (PLACE_OF[where] ?? "inside");
      const size = row.size === undefined ? "" : `, ${filled(row.size, fact)}`;
      const name = `${part?.name ?? filled(row.item ?? "", fact)}${size}`;
      const key = `${at}|${part?.id ?? ""}|${part === null ? name : size}`;
      const draft = drafts.get(key) ?? {
        where: at,
        name,
        part,
        unit: row.unit ?? "",
        price: priceOf(part, row, fact),
        quantity: 0,
        why: [],
        ruleIds: new Set<string>(),
      };
      draft.quantity = row.once === true ? Math.max(draft.quantity, quantity) : draft.quantity + quantity;
      const why = filled(row.why, fact);
      if (!draft.why.includes(why)) draft.why.push(why);
      draft.ruleIds.add(row.id);
      drafts.set(key, draft);
    }
  return [...drafts]
    .map(([key, d]) => ({
      key: `${siteId}|${key}`,
      siteId,
      where: d.where,
      name: d.name,
      part: d.part,
      quantity: Math.round(d.quantity * 100) / 100,
      unit: d.unit,
      why: d.why,
      ruleIds: [...d.ruleIds],
      costCents: d.price === null ? null : amountCents(d.price, d.quantity),
    }))
    .sort((a, b) => KIT_PLACES.indexOf(a.where) - KIT_PLACES.indexOf(b.where));
};
