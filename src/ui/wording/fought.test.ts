import { expect, test } from "vitest";
import { foughtOf } from "./fought";

test("a group tells each figure that differs, a list each row by its name, anything else its value", () => {
  const money = { currency: "€", labourHours: 14, labourPerHour: 52 };
  expect(foughtOf("kit", "metric", "money", money, { ...money, labourHours: 15 })).toEqual([
    { name: "money, labour hours", mine: "14", theirs: "15" },
  ]);
  const lead = { id: "1", name: "down the mast", lengthM: 20 };
  const other = { id: "2", name: "in the loft", lengthM: 3 };
  const leads = foughtOf("wiring", "metric", "leads", [lead, other], [{ ...lead, lengthM: 25 }]);
  expect(JSON.parse(JSON.stringify(leads).replace(/\s/g, " "))).toEqual([
    { name: "leads, down the mast", mine: "length 20 m", theirs: "length 25 m" },
    { name: "leads, in the loft", mine: "there", theirs: "not there" },
  ]);
  expect(foughtOf("kit", "metric", "fixingFactor", 3, 4)).toEqual([{ name: "factor on fixings", mine: "3", theirs: "4" }]);
});
