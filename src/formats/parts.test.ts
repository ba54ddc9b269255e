import fc from "fast-check";
import { expect, test } from "vitest";
import shipped from "../../demo/parts.json" with { type: "json" };
import { type PartSheet, powerKind } from "../core/wiring";
import { readHardwareFile } from "./hardware";
import { partSchema } from "./parts";

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
