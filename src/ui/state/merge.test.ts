import fc from "fast-check";
import { expect, test } from "vitest";
import { mergePatch, mergeValue } from "./merge";

const row = (id: string, more: object = {}) => ({ id, lengthM: 1, name: id, ...more });

test.each<[string, unknown, unknown, unknown, unknown]>([
  ["other figures of a group", { a: 1, b: 2 }, { a: 5, b: 2 }, { a: 1, b: 6 }, { a: 5, b: 6 }],
  ["a key that came and one that went", { a: 1, b: 2 }, { a: 1, b: 2, c: 3 }, { a: 1 }, { a: 1, c: 3 }],
  [
    "other rows of a list",
    [row("x"), row("y")],
    [row("x", { lengthM: 9 }), row("y")],
    [row("x"), row("y"), row("z")],
    [row("x", { lengthM: 9 }), row("y"), row("z")],
  ],
  [
    "a row that one took away, another changed by the other",
    [row("x"), row("y")],
    [row("y")],
    [row("x"), row("y", { lengthM: 3 })],
    [row("y", { lengthM: 3 })],
  ],
  [
    "other figures of one row",
    [row("x")],
    [row("x", { lengthM: 2 })],
    [row("x", { name: "new" })],
    [row("x", { lengthM: 2, name: "new" })],
  ],
  ["words of a set", ["a", "b"], ["a", "b", "c"], ["b", "d"], ["b", "c", "d"]],
  ["rows from nothing", [], [row("x")], [row("y")], [row("y"), row("x")]],
  [
    "an order that one changed, a figure that the other did",
    [row("x"), row("y")],
    [row("x", { lengthM: 5 }), row("y")],
    [row("y"), row("x")],
    [row("y"), row("x", { lengthM: 5 })],
  ],
  [
    "one's own order, and a row that the other added",
    [row("x"), row("y")],
    [row("y"), row("x")],
    [row("x"), row("y"), row("z")],
    [row("y"), row("x"), row("z")],
  ],
  [
    "deep within",
    { m: { s: { pole: 1, wall: "brick" } } },
    { m: { s: { pole: 2, wall: "brick" } } },
    { m: { s: { pole: 1, wall: "steel" } } },
    { m: { s: { pole: 2, wall: "steel" } } },
  ],
  ["the same by both", 1, 2, 2, 2],
])("%s go together", (_, base, mine, theirs, want) => {
  expect(mergeValue(base, mine, theirs)).toEqual({ value: want, fought: false });
});

test.each<[string, unknown, unknown, unknown, unknown]>([
  ["one figure", 1, 2, 3, 2],
  ["one figure of a group, beside one that is not", { a: 1, b: 1 }, { a: 2, b: 1 }, { a: 3, b: 9 }, { a: 2, b: 9 }],
  ["a row changed here and taken away there", [row("x")], [row("x", { lengthM: 2 })], [], [row("x", { lengthM: 2 })]],
  ["a row taken away here and changed there", [row("x")], [], [row("x", { lengthM: 2 })], []],
  [
    "an outline",
    [
      [1, 2],
      [3, 4],
    ],
    [
      [1, 2],
      [3, 5],
    ],
    [
      [1, 9],
      [3, 4],
    ],
    [
      [1, 2],
      [3, 5],
    ],
  ],
  ["rows of one id, of which none may be lost", [row("x")], [row("x"), row("x", { lengthM: 2 })], [], [row("x"), row("x", { lengthM: 2 })]],
  ["figures in a row", [1, 2], [1, 3], [4, 2], [1, 3]],
])("%s is fought over, and one's own is shown", (_, base, mine, theirs, want) => {
  expect(mergeValue(base, mine, theirs)).toEqual({ value: want, fought: true });
});

const leaf = fc.nat(4);
const record = fc.record({
  a: leaf,
  group: fc.record({ b: leaf, c: leaf }),
  rows: fc.uniqueArray(fc.record({ id: fc.constantFrom("x", "y", "z"), v: leaf, w: leaf }), { selector: (r) => r.id }),
});

test("whoever is first, what goes together comes to the same but for order; nothing that one alone changed is lost", () => {
  const inOrder = (v: { rows?: readonly { id: string }[] }) => ({
    ...v,
    rows: [...(v.rows ?? [])].sort((a, b) => a.id.localeCompare(b.id)),
  });
  fc.assert(
    fc.property(record, record, record, (base, mine, theirs) => {
      const [one, two] = [mergePatch(base, mine, theirs), mergePatch(base, theirs, mine)];
      expect(one.fought).toBe(two.fought);
      if (!one.fought) expect(inOrder(one.value)).toEqual(inOrder(two.value));
      for (const path of ["b", "c"] as const) {
        const [was, now, other] = [base.group[path], mine.group[path], theirs.group[path]];
        if (now === was) expect(one.value.group![path]).toBe(other);
        if (other === was) expect(one.value.group![path]).toBe(now);
      }
      // Against what nobody changed a patch is itself.
      expect(mergePatch(base, mine, base)).toEqual({ value: mine, fought: false });
    }),
    { numRuns: 500 },
  );
});
