import { expect, test } from "vitest";
import { freeWordsAt, strayWords, VEILED_KINDS, wordsOf } from "./identity";
import { kinds } from "./records";

test("what is told all the same names fields that there are, and nothing that says who or where", () => {
  expect(strayWords()).toEqual([]);
  const told = kinds()
    .filter(([name]) => !VEILED_KINDS.includes(name as never))
    .flatMap(([name]) => [...wordsOf(name)].flatMap(([path, use]) => (use === "keep" ? [`${name}.${path}`] : [])));
  for (const path of told)
    expect(path).not.toMatch(/customer|contact|note|owner|holder|who|place$|serial|mac|address|gateway|\.name$|words\[/i);
});

test("a field is left out unless it stands in the table: a new one of words too", () => {
  expect(wordsOf("brief").get("customer")).toBe("words");
  expect(wordsOf("site").get("notes")).toBe("words");
  expect(wordsOf("site").get("mountingPoints[].name")).toBe("numbered");
  expect(wordsOf("design").get("nearRadioId")).toBe("keep");
  // Chosen from a list: no words.
  expect(wordsOf("design").get("clearancePolicy")).toBeUndefined();
  expect(wordsOf("link").get("nearSiteId")).toBeUndefined();
});

test("a record by keys has its fields under a star", () => {
  expect(freeWordsAt("kit", "sites", "9b1f")).toBe("sites.*");
  expect(freeWordsAt("kit", "sites.*", "behind")).toBe("sites.*.behind");
  expect(freeWordsAt("hub", "moving", "gear")).toBe("moving.gear");
});
