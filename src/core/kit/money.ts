/*
 * Money as whole cents: a price of two decimals times a quantity is rounded once, half up, and sums are sums of whole numbers. Prices
 * are read as decimals and not as binary fractions, so that 1.005 is not 1.00499999.
 */

/** A decimal as a whole number of parts of ten to a power. @throws RangeError for what is no finite decimal. */
const decimalOf = (value: number): { readonly units: bigint; readonly scale: number } => {
  if (!Number.isFinite(value)) throw new RangeError(`${value} is no amount`);
  // As many digits as JavaScript writes; exponents are written out.
  const text = value.toString().includes("e") ? value.toFixed(12) : value.toString();
  const [whole = "0", part = ""] = text.replace("-", "").split(".");
  const units = BigInt(whole + part) * (value < 0 ? -1n : 1n);
  return { units, scale: part.length };
};

const power = (n: number): bigint => 10n ** BigInt(n);

/** Divided and rounded, half away from nought. */
const rounded = (value: bigint, by: bigint): bigint => {
  const sign = value < 0n ? -1n : 1n;
  const size = value < 0n ? -value : value;
  return sign * ((size * 2n + by) / (by * 2n));
};

/** A price times a quantity, in cents. @param price with any number of decimals; @param quantity likewise. */
export const amountCents = (price: number, quantity: number): number => {
  const [p, q] = [decimalOf(price), decimalOf(Math.round(quantity * 1e6) / 1e6)];
  return Number(rounded(p.units * q.units * 100n, power(p.scale + q.scale)));
};

/** A share of an amount, in cents. */
export const shareCents = (cents: number, share: number): number => {
  const s = decimalOf(share);
  return Number(rounded(BigInt(cents) * s.units, power(s.scale)));
};

/** "1234.50"; a currency stands beside it as it was typed. */
export const centsText = (cents: number): string => {
  const size = Math.abs(cents);
  return `${cents < 0 ? "−" : ""}${Math.floor(size / 100)}.${String(size % 100).padStart(2, "0")}`;
};

export interface QuoteInput {
  readonly materialCents: number;
  readonly labourHours: number;
  readonly labourPerHour: number;
  readonly travelKm: number;
  readonly travelPerKm: number;
  /** Of material and labour, put on top. */
  readonly marginShare: number;
  readonly taxShare: number;
}

export interface Quote {
  readonly materialCents: number;
  readonly labourCents: number;
  readonly travelCents: number;
  readonly marginCents: number;
  readonly netCents: number;
  readonly taxCents: number;
  readonly totalCents: number;
}

export const quoteOf = (q: QuoteInput): Quote => {
  const labourCents = amountCents(q.labourPerHour, q.labourHours);
  const travelCents = amountCents(q.travelPerKm, q.travelKm);
  const marginCents = shareCents(q.materialCents + labourCents, q.marginShare);
  const netCents = q.materialCents + labourCents + travelCents + marginCents;
  const taxCents = shareCents(netCents, q.taxShare);
  return { materialCents: q.materialCents, labourCents, travelCents, marginCents, netCents, taxCents, totalCents: netCents + taxCents };
};

/**
 * What a customer sees of a quote: the margin stands within material and labour and not by itself, and the sums are the same cents.
 */
export const customerQuote = (q: Quote, marginShare: number): Omit<Quote, "marginCents"> => {
  const onMaterial = shareCents(q.materialCents, marginShare);
  const { marginCents, ...rest } = q;
  return { ...rest, materialCents: q.materialCents + onMaterial, labourCents: q.labourCents + marginCents - onMaterial };
};

/** Months until it has cost less than what it replaces a month; null where it never does within ten years. */
export const paybackMonths = (totalCents: number, monthly: number): number | null => {
  const each = amountCents(monthly, 1);
  if (each <= 0) return null;
  const months = Math.ceil(totalCents / each);
  return months <= 120 ? months : null;
};
