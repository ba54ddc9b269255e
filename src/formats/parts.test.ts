import fc from "fast-check";
import { describe, expect, test } from "vitest";
import shipped from "../../demo/parts.json" with { type: "json" };
import { type PartSheet, powerKind } from "../core/wiring";
import { readHardwareFile } from "./hardware";
import { partSchema } from "./parts";
import { isPartsTable, readPartsCsv } from "./parts-csv";

const parts = shipped.parts as unknown as PartSheet[];
const faultsOf = (sheet: object): string[] => {
  const read = readHardwareFile(JSON.stringify({ parts: [sheet] }));
  return "faults" in read ? read.faults.map((f) => `${f.where}: ${f.reason}`) : [];
};
const camera = parts.find((p) => p.id === "capstan")!;
const surge = parts.find((p) => p.id === "limpet-60")!;

test("every shipped part is as its schema asks, each once, and its supplies are kinds that are known", () => {
  for (const p of parts) expect(partSchema.safeParse(p).error?.issues ?? [], p.id).toEqual([]);
  expect(new Set(parts.map((p) => p.id)).size).toBe(parts.length);
  expect(new Set(parts.map((p) => p.name)).size).toBe(parts.length);
  for (const port of parts.flatMap((p) => p.ports))
    for (const k of [...(port.gives ?? []), ...(port.takes ?? [])]) expect(powerKind(k), k).not.toBeNull();
  // Every kind that the wiring knows by name can be had.
  for (const kind of [
    "switch",
    "injector",
    "surge",
    "cable",
    "plug",
    "gland",
    "converter",
    "media",
    "fibre",
    "router",
    "battery",
    "charger",
    "panel",
    "fuse",
    "box",
  ])
    expect(
      parts.some((p) => p.kind === kind),
      kind,
    ).toBe(true);
});

test("a file of one's own: faults name the row, the field and what is allowed", () => {
  expect(faultsOf(camera)).toEqual([]);
  expect(faultsOf({ ...camera, ports: [{ ...camera.ports[0], takes: ["24 volts"] }] })[0]).toMatch(
    /^parts\[0\] capstan: ports\.0\.takes\.0: is no kind of supply: 802\.3af/,
  );
  expect(faultsOf({ ...camera, drawMostW: -1 })[0]).toContain("watts are 0 or above");
  expect(faultsOf({ ...surge, surge: undefined })[0]).toContain("a surge needs it");
  expect(faultsOf({ ...surge, ports: [surge.ports[0]] })[0]).toContain("names a port that is not there");
  expect(faultsOf({ ...surge, ports: [surge.ports[0], surge.ports[0]] }).join()).toContain("two ports have one id");
  expect(faultsOf({ ...camera, ports: [{ ...camera.ports[0], gives: ["802.3af"] }] }).join()).toContain("gives or takes, not both");
  expect(faultsOf({ ...camera, kind: "toaster" })).toHaveLength(1);
});

test("own kinds of supply are read as they are written, and nothing else is taken for one", () => {
  expect(powerKind("own56-4pair:Skerry")).toMatchObject({ scheme: "own", volts: 56, pairs: 4, maker: "Skerry" });
  expect(powerKind("passive24-2pair-reversed")).toMatchObject({ pins: "reversed", pairs: 2 });
  expect(powerKind("802.3bt4")).toMatchObject({ type: 4, pairs: 4 });
  fc.assert(
    fc.property(fc.string({ maxLength: 24 }), (text) => {
      const kind = powerKind(text);
      if (kind !== null) expect(kind.volts).toBeGreaterThanOrEqual(0);
      expect(kind === null || /^(802\.3|passive|own|dc|mains)/.test(text)).toBe(true);
    }),
    { numRuns: 2000 },
  );
});

describe("own parts as a table", () => {
  const table = [
    "part_kind,name,takes,gives,port_w,total_w,ports,powered_ports,port_mbps,draw_w,start_w,poe_class,low_v,high_v,most_v,pairs,schemes,awg,category,shield,outdoor,price_eur,price_per_m,stock",
    "camera,Own Camera,passive24-2pair,,,,,,100,6,7,,18,28,,,,,,,yes,99,,3",
    "switch,Own Switch,,802.3af;802.3at,30,60,6,4,1000,5,,,,,,,,,,,,89,,",
    "surge,Own Guard,,,,,,,1000,,,,,,60,4,802.3;passive,,,,yes,21,,",
    'cable,"Own Cable, blue",,,,,,,,,,,,,,4,,23,6,yes,yes,,"0,95",305',
    "injector,Own Feeder,,passive48,24,,,,1000,1,,,,,,,,,,,,15,,",
    "plug,Own Plug,,,,,,,,,,,,,,,,,,,,0.5,,100",
  ].join("\n");

  test("each row becomes a part that the wiring can judge", () => {
    expect(isPartsTable(table)).toBe(true);
    expect(isPartsTable("kind,name\nradio,x")).toBe(false);
    const read = readPartsCsv(table);
    if ("faults" in read) throw new Error(JSON.stringify(read.faults));
    const of = (name: string) => read.file.parts.find((p) => p.name === name)!;
    expect(of("Own Camera")).toMatchObject({
      drawMostW: 6,
      inputVolts: { "passive24-2pair": { low: 18, high: 28 } },
      stock: 3,
      outdoor: true,
    });
    expect(of("Own Switch").ports.filter((p) => p.gives !== undefined)).toHaveLength(4);
    expect(of("Own Switch").ports).toHaveLength(7);
    expect(of("Own Cable, blue").cable).toMatchObject({ awg: 23, category: "6", shield: true, outdoor: true, pricePerM: 0.95 });
    expect(of("Own Guard").surge).toEqual({ mostV: 60, pairs: 4, speedMbps: 1000, schemes: ["802.3", "passive"] });
    expect(of("Own Feeder").ports.find((p) => p.side === "fed")).toMatchObject({ gives: ["passive48"], giveW: 24 });
  });

  test("faults name the row and the column, and nothing is taken in then", () => {
    const faults = (rows: string): string[] => {
      const read = readPartsCsv(rows);
      return "faults" in read ? read.faults.map((f) => `${f.where}: ${f.reason}`) : [];
    };
    expect(faults("part_kind,name,draw_w\ncamera,A,six\ncamera,B,-1\n")).toEqual([
      'row 2, draw_w: "six" is not a number',
      "row 3, draw_w: watts are 0 or above",
    ]);
    expect(faults("part_kind,name,takes\ncamera,A,24V\n")[0]).toMatch(/^row 2, takes: is no kind of supply/);
    expect(faults("part_kind,name,wings\nplug,A,2\n")).toEqual(["the header: has columns that are not known: wings"]);
    expect(faults("part_kind,name\nplug,A\nplug,A\n")[0]).toMatch(/^row 3, id: ".+" is that of row 2, too$/);
    expect(faults("part_kind,name\n")).toEqual(["the table: holds no parts"]);
    expect(faults("part_kind,name\ntoaster,A\n")[0]).toMatch(/^row 2, part_kind/);
    expect(faults("part_kind,name,shield,awg\ncable,A,perhaps,24\n")).toEqual(['row 2, shield: "perhaps" is not yes or no']);
  });

  test("no table makes it fail: a sentence for every fault, or parts that are whole", () => {
    const cell = fc.oneof(fc.constantFrom("camera", "switch", "cable", "802.3af", "24", "-1", "yes", "", "x"), fc.string({ maxLength: 8 }));
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 5, maxLength: 5 }), { maxLength: 6 }), (rows) => {
        const text = `part_kind,name,takes,draw_w,outdoor\n${rows.map((r) => r.map((c) => `"${c.replaceAll('"', '""')}"`).join(",")).join("\n")}`;
        const read = readPartsCsv(text);
        if ("faults" in read)
          for (const f of read.faults) expect(`${f.where}: ${f.reason}`).toMatch(/^(row \d+, .+|the (header|table)): .+/);
        else for (const p of read.file.parts) expect(partSchema.safeParse(p).success).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
});
