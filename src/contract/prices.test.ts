import { expect, test } from "vitest";
import type { z } from "zod";
import { visibleTo } from "./kind";
import { byPrice, PRICE_FIELDS, rankedWithoutPrices, withoutPrices } from "./prices";
import { kinds } from "./records";
import { ROLES, seesPrices } from "./roles";

/** Every name of a field in a schema, however deep, with the path to it. */
const namesIn = (schema: z.ZodType, at: string, seen = new Set<unknown>()): string[] => {
  if (seen.has(schema)) return [];
  seen.add(schema);
  const def = (schema as unknown as { def: Record<string, unknown> }).def;
  const inner = [
    def.innerType,
    def.element,
    def.valueType,
    def.in,
    def.out,
    ...((def.options as unknown[]) ?? []),
    ...((def.items as unknown[]) ?? []),
  ];
  const shape = (schema as unknown as { shape?: Record<string, z.ZodType> }).shape;
  return [
    ...Object.entries(shape ?? {}).flatMap(([name, s]) => [`${at}.${name}`, ...namesIn(s, `${at}.${name}`, seen)]),
    ...inner.flatMap((s) => (s !== null && typeof s === "object" && "def" in s ? namesIn(s as z.ZodType, at, seen) : [])),
  ];
};

test("each field that sounds like money is on the list of those that are taken out", () => {
  const money = kinds()
    .flatMap(([name, k]) => namesIn(k.fields, name))
    .filter((p) => /price|cost|eur|wage|margin|discount|budget/i.test(p.split(".").at(-1)!) && !p.endsWith("Db"));
  // The kit's money is taken out as a whole, whatever stands in it.
  const open = money.filter((p) => !PRICE_FIELDS.includes(p.split(".").at(-1)!) && !p.includes(".money."));
  expect(money.length).toBeGreaterThan(4);
  expect(open).toEqual([]);
});

test("a price is taken out wherever it stands, and nothing else is", () => {
  const told = { name: "x", priceEur: 12, rows: [{ cable: { pricePerM: 2, ohm: 3 }, mastCostPerM: 4 }], at: new Date(0), none: null };
  expect(withoutPrices(told)).toEqual({
    name: "x",
    priceEur: null,
    rows: [{ cable: { pricePerM: null, ohm: 3 }, mastCostPerM: null }],
    at: told.at,
    none: null,
  });
  expect(told.priceEur).toBe(12);
});

test("the order of prices stays for who sees none", () => {
  const sheets = [
    { id: "b", priceEur: 300, cable: { pricePerM: 2 } },
    { id: "a", priceEur: 20 },
    { id: "none" },
    { id: "c", priceEur: 300 },
  ];
  const ranked = rankedWithoutPrices(sheets);
  expect(JSON.stringify(ranked)).not.toMatch(/priceEur|300|"pricePerM"/);
  expect([...ranked].sort(byPrice).map((s) => s.id)).toEqual([...sheets].sort(byPrice).map((s) => s.id));
});

test("a row told to a role that sees no prices still reads as a row of its kind", () => {
  for (const [name, k] of kinds()) {
    const start = k.fields.safeParse({});
    if (!start.success) continue;
    for (const role of ROLES) {
      const seen = visibleTo(role, k, start.data as Record<string, unknown>);
      const secrets = new Set<string>(k.secrets ?? []);
      const expected = Object.keys(start.data as object).filter((key) => !secrets.has(key));
      expect(Object.keys(seen), `${name} for ${role}`).toEqual(expected);
    }
  }
  expect(ROLES.filter(seesPrices)).toEqual(["owner", "planner"]);
});
