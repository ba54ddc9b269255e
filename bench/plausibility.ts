// Sixteen kinds of link as an installer meets them, for reading against experience: docs/plausibility.md.
import hardware from "../demo/hardware.json" with { type: "json" };
import { evaluatePrepared, type LinkPlan, monteCarlo, preparePath } from "../src/core/link";
import { body, box, end, POLICY, permission, plan, profile } from "../src/core/testing/scene";
import { hardwareFileSchema } from "../src/formats";

const { radios } = hardwareFileSchema.parse(hardware);
const radio = (id: string) => radios.find((r) => r.id === id)!;
const tree = (fromM: number, toM: number, heightM: number) =>
  body({ ...box(fromM, toM, -6, 6), kind: "crown", name: "tree", heightM, heightSigmaM: 0.1 * heightM, crownBaseM: 2, baseAmslM: 5 });
const through = { policy: { ...POLICY, trees: "through" as const } };

interface Case {
  readonly name: string;
  readonly pathM: number;
  readonly id: string;
  readonly powerDbm: number;
  readonly centreMhz: number;
  readonly widthMhz: number;
  readonly masts: readonly [number, number];
  readonly ground?: (x: number) => number;
  readonly bodies?: Parameters<typeof profile>[2];
  readonly fields?: Partial<LinkPlan>;
}

const CASES: readonly Case[] = [
  { name: "yard, two small panels", pathM: 95, id: "guillemot-flat", powerDbm: 23, centreMhz: 5765, widthMhz: 40, masts: [5, 5] },
  { name: "yard, lowest power", pathM: 70, id: "guillemot-flat", powerDbm: 0, centreMhz: 5765, widthMhz: 20, masts: [4, 4] },
  { name: "2.4 GHz pair over a garden", pathM: 120, id: "dovekie-long", powerDbm: 10, centreMhz: 2437, widthMhz: 20, masts: [4, 4] },
  { name: "street, ac panels, clear", pathM: 430, id: "razorbill-small", powerDbm: 14, centreMhz: 5755, widthMhz: 40, masts: [11, 9] },
  { name: "street, ax panels, clear", pathM: 430, id: "kittiwake-panel", powerDbm: 14, centreMhz: 5755, widthMhz: 40, masts: [11, 9] },
  {
    name: "the same through one large tree in leaf",
    pathM: 430,
    id: "kittiwake-panel",
    powerDbm: 14,
    centreMhz: 5755,
    widthMhz: 40,
    masts: [11, 9],
    bodies: [tree(210, 218, 16)],
    fields: through,
  },
  {
    name: "the same, the tree bare",
    pathM: 430,
    id: "kittiwake-panel",
    powerDbm: 14,
    centreMhz: 5755,
    widthMhz: 40,
    masts: [11, 9],
    bodies: [tree(210, 218, 16)],
    fields: { policy: { ...through.policy, leaf: "out" } },
  },
  {
    name: "a roof 1 m into the line",
    pathM: 800,
    id: "kittiwake-dish",
    powerDbm: 12,
    centreMhz: 5755,
    widthMhz: 40,
    masts: [10, 10],
    bodies: [body({ ...box(500, 512, -8, 8), heightM: 11, baseAmslM: 5, name: "roof" })],
  },
  {
    name: "3 km over water, dishes",
    pathM: 3100,
    id: "kittiwake-dish",
    powerDbm: 5,
    centreMhz: 5500,
    widthMhz: 40,
    masts: [14.5, 15],
    ground: () => 0,
  },
  { name: "5 km, dishes, 80 MHz", pathM: 5000, id: "kittiwake-dish", powerDbm: 20, centreMhz: 5775, widthMhz: 80, masts: [25, 25] },
  { name: "20 km, large dishes", pathM: 20_000, id: "razorbill-grand", powerDbm: 24, centreMhz: 5755, widthMhz: 20, masts: [60, 60] },
  {
    name: "6 GHz panels, 1.5 km, permission recorded",
    pathM: 1500,
    id: "shearwater-panel",
    powerDbm: 15,
    centreMhz: 6105,
    widthMhz: 80,
    masts: [15, 15],
    fields: { permissions: [permission()] },
  },
  { name: "24 GHz dish, 2 km", pathM: 2000, id: "phalarope", powerDbm: -8, centreMhz: 24_150, widthMhz: 50, masts: [15, 15] },
  { name: "60 GHz small, 140 m", pathM: 140, id: "eider-small", powerDbm: 15, centreMhz: 60_480, widthMhz: 2160, masts: [11, 9] },
  { name: "60 GHz dish, 900 m", pathM: 900, id: "eider-dish", powerDbm: 10, centreMhz: 64_800, widthMhz: 2160, masts: [15, 15] },
  {
    name: "80 GHz, 3 km, licensed",
    pathM: 3000,
    id: "noddy-grand",
    powerDbm: 10,
    centreMhz: 73_500,
    widthMhz: 500,
    masts: [20, 20],
    fields: { permissions: [permission()] },
  },
];

const cell = (value: string | number, width: number): string => String(value).padEnd(width);
console.log("| link | m | level a chain, dBm | 80 % of readings | modulation | usable TCP, Mbps | lost, min a year | verdict |");
console.log("| --- | --- | --- | --- | --- | --- | --- | --- |");
for (const c of CASES) {
  const at = (name: string, mount: number) => end(name, mount, { radio: radio(c.id), txPowerDbm: c.powerDbm });
  const p = plan(at("A", c.masts[0]), at("B", c.masts[1]), { centreMhz: c.centreMhz, widthMhz: c.widthMhz, ...c.fields });
  const path = preparePath(p, profile(c.pathM, c.ground ?? (() => 5), c.bodies ?? [], 1000));
  const r = evaluatePrepared(p, path);
  const d = r.service.toFar;
  const spread = monteCarlo(p, path)?.levelToFarDbm;
  if (d === null) {
    console.log(`| ${c.name} | ${c.pathM} | ${JSON.stringify(r.service.faults)} |`);
    continue;
  }
  const row = [
    cell(c.name, 44),
    cell(c.pathM, 6),
    cell(d.levelDbm.toFixed(1), 6),
    cell(spread === undefined ? "" : `${spread.p10.toFixed(0)} to ${spread.p90.toFixed(0)}`, 12),
    cell(d.held === null ? "none" : `${d.held.modulation} ${d.held.codeRate}`, 18),
    cell(d.airtime?.tcpMbps.toFixed(0) ?? "0", 5),
    cell(d.outage?.minutesAYear?.toFixed(0) ?? "over 1 %", 7),
    `${r.clearance.verdict}, ${r.service.verdict}`,
  ];
  console.log(`| ${row.join(" | ")} |`);
}
