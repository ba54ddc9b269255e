import { kitSchema } from "./kit";

/* Money in what travels. It is taken out at the one door that answers, whatever it stands in. */

/** Names of figures in money, wherever they stand. */
export const PRICE_FIELDS: readonly string[] = ["priceEur", "pricePerM", "mastCostPerM", "priceMost", "oneTypeMost"];

const isPlain = (v: object): v is Record<string, unknown> => {
  const proto: unknown = Object.getPrototypeOf(v);
  return proto === Object.prototype || proto === null;
};

/** A value as who may not see prices has it: each figure in money is null, as where nobody has written any. */
export const withoutPrices = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(withoutPrices);
  if (value === null || typeof value !== "object" || !isPlain(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, v]) => {
      if (key === "money" && v !== null && typeof v === "object") return [key, kitSchema.shape.money.parse({})];
      return [key, PRICE_FIELDS.includes(key) ? null : withoutPrices(v)];
    }),
  );
};

interface Priced {
  readonly priceEur?: number | undefined;
  readonly cable?: { readonly pricePerM?: number | undefined } | undefined;
}

/** Dearer than any price: sheets that name none come last. */
const NO_PRICE = Number.POSITIVE_INFINITY;

/**
 * Sheets without what they cost, each with its place in the order of prices instead: what is proposed by price stays the same for
 * who may not see any.
 */
export const rankedWithoutPrices = <T extends Priced>(sheets: readonly T[]): T[] => {
  const order = [...sheets].sort((a, b) => (a.priceEur ?? NO_PRICE) - (b.priceEur ?? NO_PRICE) || 0);
  const rank = new Map(order.map((s, i) => [s, i]));
  return sheets.map((s) => {
    const { priceEur, ...rest } = s;
    const cable = s.cable === undefined ? {} : { cable: { ...s.cable, pricePerM: undefined } };
    return { ...rest, ...cable, ...(priceEur === undefined ? {} : { priceRank: rank.get(s)! }) } as unknown as T;
  });
};

/** By price where it is known, else by its place in the order of prices; what names neither comes last. */
export const byPrice = (
  a: Priced & { readonly priceRank?: number | undefined },
  b: Priced & { readonly priceRank?: number | undefined },
): number => {
  const of = (p: typeof a): number => p.priceEur ?? p.priceRank ?? Number.MAX_VALUE;
  return of(a) - of(b);
};
