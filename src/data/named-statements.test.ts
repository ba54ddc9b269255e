import { expect, test } from "vitest";
import { named, statementNames } from "./named-statements";

test("a statement is named when it comes for the third time, and keeps that name", () => {
  const nameOf = statementNames();
  expect(["a", "a", "b", "a", "b", "b", "a"].map(nameOf)).toEqual([null, null, null, "dryarc_0", null, "dryarc_1", "dryarc_0"]);
});

test("there are never more names than were asked for, and what comes but once is forgotten", () => {
  const nameOf = statementNames(2, 3);
  for (const text of ["a", "b", "c"]) for (let i = 0; i < 3; i++) nameOf(text);
  expect([nameOf("a"), nameOf("b"), nameOf("c")]).toEqual(["dryarc_0", "dryarc_1", null]);

  const few = statementNames(9, 3);
  // Seen twice, then forgotten by three others: it begins anew.
  for (const text of ["old", "old", "x", "y", "z", "old"]) few(text);
  expect([few("old"), few("old")]).toEqual([null, "dryarc_0"]);
});

test("only what has values and no name is named; how its rows are read stays with it", () => {
  const reads = { text: "SELECT $1::text AS named_here", rowMode: "array" };
  const told = Array.from({ length: 4 }, () => named([reads, ["x"]]));
  expect(told.slice(0, 2)).toEqual(Array(2).fill([reads, ["x"]]));
  expect(told[3]).toEqual([{ ...reads, name: expect.stringMatching(/^dryarc_\d+$/) }, ["x"]]);
  for (const given of [["BEGIN; SELECT 1"], [{ text: "SELECT 2" }, []], [{ ...reads, name: "mine" }, ["x"]], ["SELECT $1", ["x"]]])
    for (let i = 0; i < 5; i++) expect(named(given)).toBe(given);
});
