/* What taking a mend changes of a design: so much and no more. */
import { expect, test } from "vitest";
import { type DesignFields, RECORDS } from "@/contract";
import type { DesignAction } from "@/core/link";
import { changeOf } from "./design-actions";

const ROW = "11111111-1111-4111-8111-111111111111";
const OAK = "22222222-2222-4222-8222-222222222222";

const design: DesignFields = RECORDS.design.fields.parse({
  nearMountAglM: 8,
  farMountAglM: 9,
  nearRadioId: "a",
  farRadioId: "b",
  nearPowerDbm: 11,
  farPowerDbm: 12,
  centreMhz: 5500,
  widthMhz: 40,
  trimsM: { [ROW]: 6 },
});

test.each<[DesignAction, Partial<DesignFields> | null]>([
  [{ type: "mount", end: "near", mountAglM: 10 }, { nearMountAglM: 10 }],
  [{ type: "mount", end: "far", mountAglM: 10 }, { farMountAglM: 10 }],
  [
    { type: "power", nearDbm: 3, farDbm: 4 },
    { nearPowerDbm: 3, farPowerDbm: 4 },
  ],
  // Another tree is cut beside those that are; a whole list of cuts takes the place of the one before.
  [{ type: "trim", bodyId: OAK, heightM: 5 }, { trimsM: { [ROW]: 6, [OAK]: 5 } }],
  [{ type: "trims", trimsM: { [OAK]: 5 } }, { trimsM: { [OAK]: 5 } }],
  [
    { type: "aim", end: "far" },
    { farAimAzimuthDeg: null, farAimTiltDeg: null },
  ],
  [{ type: "look", view: "gear" }, null],
  [
    {
      type: "together",
      actions: [
        { type: "mount", end: "near", mountAglM: 10 },
        { type: "width", widthMhz: 20 },
      ],
    },
    { nearMountAglM: 10, widthMhz: 20 },
  ],
])("%j", (action, fields) => {
  expect(changeOf(design, action)).toEqual(fields);
});
