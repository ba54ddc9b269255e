/* What is said of every kind of record holds together. */
import { describe, expect, test } from "vitest";
import { z } from "zod";
import { patchOf, visibleTo } from "./kind";
import { kindAt, kindOf, kinds, RECORDS, withKind } from "./records";
import { recordPath } from "./told";

test("kinds have addresses, files and words of their own", () => {
  const routes = kinds().map(([, k]) => k.route);
  expect(new Set(routes).size).toBe(routes.length);
  const files = kinds().flatMap(([, k]) => (k.bundle === null || k.bundle.form === "within" ? [] : [k.bundle.file]));
  expect(new Set(files).size).toBe(files.length);
  expect(kindAt("sites")).toBe("site");
  // A job is edited at an address of its own, never by the two that serve all kinds.
  expect(kindAt("jobs")).toBeNull();
  expect(kindAt("constructor")).toBeNull();
  expect(recordPath("J", "brief", "J")).toBe("/api/jobs/J/brief");
  expect(recordPath("J", "job", "J")).toBe("/api/jobs/J");
});

describe.each(kinds().map(([name]) => name))("%s", (name) => {
  const k = kindOf(name);
  const fields = Object.keys(k.fields.shape);

  test("says a word for each of its fields, and marks only fields it has", () => {
    expect(Object.keys(k.words.fields).sort()).toEqual([...fields].sort());
    for (const f of [...(k.secrets ?? []), ...(k.prices ?? [])]) expect(fields).toContain(f);
    for (const [f, other] of Object.entries(k.refs ?? {})) {
      expect([...fields, ...Object.keys(k.fixed.shape)]).toContain(f);
      // What it names can be written before it.
      const order = kinds().map(([n]) => n);
      // One of its own kind was written before.
      if (other !== name) expect(order.indexOf(other)).toBeLessThan(order.indexOf(name));
    }
  });

  test("an edit holds what it holds: no start value comes along, no field that there is none of", () => {
    expect(patchOf(k).parse({})).toEqual({});
    expect(() => patchOf(k).parse({ nobody: 1 })).toThrow(z.ZodError);
    for (const f of fields) expect(() => patchOf(k).parse({ [f]: Symbol("x") })).toThrow(z.ZodError);
  });

  test("a secret needs a start value: a bundle comes in without it", () => {
    for (const s of k.secrets ?? []) expect(k.fields.shape[s]!.safeParse(undefined).success).toBe(true);
  });
});

test("prices are for whom they are meant", () => {
  const site = { name: "A", mastCostPerM: 95 };
  expect(visibleTo("owner", kindOf("site"), site)).toEqual(site);
  expect(visibleTo("installer", kindOf("site"), site)).toEqual({ name: "A", mastCostPerM: null });
});

test("a kind is added once", () => {
  expect(() => withKind("site", RECORDS.site as never)).toThrow(RangeError);
  expect(() => kindOf("toString")).toThrow(RangeError);
});
