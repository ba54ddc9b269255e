import { BlockList, isIPv4 } from "node:net";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { seededRandom } from "../units";
import {
  type AddressAsker,
  addressFaults,
  assignAddresses,
  clearSkyHours,
  type EarthPlan,
  ipv4Text,
  type JudgedWiring,
  jobNetworkFindings,
  judgeSun,
  judgeWiring,
  keptFrom,
  type Lead,
  laptopFor,
  mendsOf,
  type NetPlan,
  type Place,
  parseIpv4,
  parseSubnet,
  proposeWiring,
  type SunPlan,
  UNIT_ROLES,
  WIRING_CODES,
  type WiringCode,
  type WiringGraph,
  wire,
} from ".";
import { solveCircuit } from "./circuit";
import { loopOhm } from "./feeds";
import { coldShare } from "./sun";
import { cleanEnd, EARTH_DONE, lead, PARTS, place } from "./testing/ends";
import { type NodalBranch, solveNodal } from "./testing/nodal";

const sheet = (id: string) => PARTS.get(id)!;
let made = 0;
const newId = () => `new-${++made}`;

describe("volts at the load", () => {
  // IEEE 802.3-2018 clause 33 and 802.3bt clause 145: least source volts, channel resistance, most watts of a device.
  test.each([
    [44, 20, 12.95, 37.0],
    [50, 12.5, 25.5, 42.5],
    [50, 6.25, 51, 42.5],
    [52, 6.25, 71.3, 41.2],
  ])("%d V over %d ohm into %d W leaves %d V", (sourceV, ohm, loadW, volts) => {
    const [v] = solveCircuit(sourceV, [{ above: -1, ohm, loadW }]).volts!;
    expect(v).toBeCloseTo(volts, 1);
    // By hand: V^2 - Vs V + R P = 0, the greater root.
    expect(v).toBeCloseTo(sourceV / 2 + Math.sqrt(sourceV ** 2 / 4 - ohm * loadW), 8);
  });

  test("24 V, 95 m, 10 W at 40 °C on two pairs: 24 gauge leaves 19.6, 26 leaves 14.6, 28 never starts", () => {
    const volts = (awg: number) =>
      solveCircuit(24, [
        {
          above: -1,
          ohm: loopOhm({ awg, material: "copper", shield: false, outdoor: false, cord: false, metal: false }, 95, 2, 40)!,
          loadW: 10,
        },
      ]).volts?.[0];
    expect(volts(24)).toBeCloseTo(19.6, 1);
    expect(volts(26)).toBeCloseTo(14.6, 1);
    expect(volts(28)).toBeUndefined();
  });

  test("copper-clad aluminium has 1.6 times the ohms", () => {
    const cable = sheet("kelp-outdoor-clad").cable!;
    expect(loopOhm(cable, 50, 2, 40)! / loopOhm({ ...cable, material: "copper" }, 50, 2, 40)!).toBeCloseTo(1.6, 9);
  });

  test("200 seeded trees of leads with loads on the way, against a circuit solved node by node", () => {
    let solved = 0;
    for (let seed = 1; seed <= 200; seed++) {
      const random = seededRandom(seed);
      const n = 1 + Math.floor(random() * 9);
      const nodes = Array.from({ length: n }, (_, i) => ({
        above: i === 0 ? -1 : Math.floor(random() * (i + 1)) - 1,
        ohm: 0.2 + random() * 6,
        loadW: random() < 0.3 ? 0 : random() * 9,
      }));
      const sourceV = random() < 0.5 ? 24 : 48;
      const branches: NodalBranch[] = nodes.map((x, i) => ({ from: x.above + 1, to: i + 1, ohm: x.ohm }));
      const mine = solveCircuit(sourceV, nodes).volts;
      const other = solveNodal(sourceV, [0, ...nodes.map((x) => x.loadW)], branches);
      if (mine === null) expect(other, `seed ${seed}`).toBeNull();
      else {
        solved++;
        for (const [i, v] of mine.entries()) expect(v, `seed ${seed}, node ${i}`).toBeCloseTo(other![i + 1]!, 6);
      }
    }
    expect(solved).toBeGreaterThan(120);
    expect(solved).toBeLessThan(200);
  });

  test("what a radio hands on is drawn through its own lead: the camera behind it lowers the radio's volts too", () => {
    const g = cleanEnd();
    const with24: WiringGraph = {
      ...g,
      places: [...g.places, place("yard", "camera", "capstan-24", { where: "outside" })],
      leads: [...g.leads, lead("y", "radio/2", "yard/1", "kelp-outdoor", 12, { way: "outside", temperatureC: 60 })],
    };
    const volts = (graph: WiringGraph, key: string) => judgeWiring(graph, PARTS).feeds.arrivals.get(key)!.volts!;
    expect(volts(with24, "radio/1")).toBeLessThan(volts(g, "radio/1") - 0.2);
    // By hand: 2 m of 26 gauge, 22 m of 24 gauge on four pairs at 12.5 + 6 W and what 12 m on two pairs lose.
    const cord = loopOhm(sheet("kelp-cord").cable!, 2, 4, 40)!;
    const out = loopOhm(sheet("kelp-outdoor").cable!, 22, 4, 60)!;
    const yard = loopOhm(sheet("kelp-outdoor").cable!, 12, 2, 60)!;
    const nodal = solveNodal(
      24,
      [0, 12.5, 6],
      [
        { from: 0, to: 1, ohm: cord + out },
        { from: 1, to: 2, ohm: yard },
      ],
    )!;
    expect(volts(with24, "radio/1")).toBeCloseTo(nodal[1]!, 6);
    expect(volts(with24, "yard/1")).toBeCloseTo(nodal[2]!, 6);
  });
});

/** One break of a clean end, and the one finding that it must raise. */
interface Break {
  readonly code: WiringCode;
  readonly does: (g: WiringGraph) => WiringGraph;
  readonly sun?: Partial<SunPlan> | null;
  readonly from?: () => WiringGraph;
}
const onLead =
  (id: string, set: Partial<Lead>) =>
  (g: WiringGraph): WiringGraph => ({ ...g, leads: g.leads.map((l) => (l.id === id ? { ...l, ...set } : l)) });
const onPlace =
  (id: string, set: Partial<Place>) =>
  (g: WiringGraph): WiringGraph => ({ ...g, places: g.places.map((p) => (p.id === id ? { ...p, ...set } : p)) });
const onEarth =
  (set: Partial<EarthPlan>) =>
  (g: WiringGraph): WiringGraph => ({ ...g, earth: { ...g.earth, ...set } });
const without =
  (...ids: string[]) =>
  (g: WiringGraph): WiringGraph => ({ ...g, leads: g.leads.filter((l) => !ids.includes(l.id)) });
const add =
  (places: Place[], leads: Lead[]) =>
  (g: WiringGraph): WiringGraph => ({ ...g, places: [...g.places, ...places], leads: [...g.leads, ...leads] });
const then =
  (...all: ((g: WiringGraph) => WiringGraph)[]) =>
  (g: WiringGraph): WiringGraph =>
    all.reduce((x, f) => f(x), g);

const SUN: SunPlan = {
  hoursByMonth: [1.4, 2, 3, 4, 5, 5.5, 5.5, 5, 4, 2.5, 1.5, 1.2],
  clearShare: 0.5,
  tiltDeg: 60,
  bearingDeg: 180,
  daysWithoutSun: 5,
  lowestC: -2,
  comesBack: true,
  shareByHour: null,
};
/** A light on battery and sun as it should be. */
const cleanLight = (): WiringGraph => ({
  places: [
    place("battery", "battery", "ballast-400"),
    place("fuse", "fuse", "flint-15"),
    place("charger", "charger", "sedge-20"),
    place("panel", "panel", "sundew-400", { where: "outside" }),
    place("injector", "injector", "samphire-boat-24"),
    place("entry", "surge", "limpet-60", { bond: "joined" }),
    place("top", "surge", "limpet-60", { where: "mast", bond: "joined" }),
    place("radio", "radio", "razorbill-small", { where: "mast" }),
  ],
  leads: [
    lead("d1", "battery/dc", "fuse/1", "kelp-core-2", 0.3),
    lead("d2", "fuse/2", "charger/battery", "kelp-core-2", 1),
    lead("d3", "panel/dc", "charger/panel", "kelp-core-2", 6, { way: "both", dripLoop: true }),
    lead("d4", "charger/load", "injector/dc", "kelp-core-2", 1),
    lead("l2", "injector/fed", "entry/1", "kelp-cord", 1),
    lead("l3", "entry/2", "top/1", "kelp-outdoor", 12, { way: "both", dripLoop: true, temperatureC: 60 }),
    lead("l4", "top/2", "radio/1", "kelp-outdoor", 2, { way: "outside", temperatureC: 60 }),
  ],
  earth: { ...EARTH_DONE, mains: "none" },
});

const BREAKS: readonly Break[] = [
  // Passive 24 V from the radio's second port into a camera of IEEE 802.3af.
  {
    code: "unfit",
    does: add([place("camera-4", "camera", "capstan", { where: "inside" })], [lead("c4", "radio/2", "camera-4/1", "kelp-indoor", 12)]),
    from: () => indoors(),
  },
  { code: "dark", does: onPlace("camera-1", { partId: "capstan-24" }) },
  { code: "pairs", does: onPlace("injector", { partId: "samphire-24" }) },
  {
    code: "polarity",
    does: onPlace("injector", { partId: "samphire-24-turned" }),
    from: () => ({
      ...cleanEnd(),
      places: cleanEnd().places.map((p) =>
        p.id === "radio" ? { ...p, partId: "razorbill-small" } : p.id === "injector" ? { ...p, partId: "samphire-24" } : p,
      ),
    }),
  },
  { code: "no-start", does: onLead("l3", { lengthM: 88 }), from: () => weak("hungry-radio") },
  { code: "volts-low", does: onLead("l3", { lengthM: 86, temperatureC: 75 }), from: () => weak("steady") },
  { code: "start-low", does: onLead("l3", { lengthM: 60 }), from: () => weak("slow-starter") },
  { code: "volts-tight", does: onLead("l3", { lengthM: 77 }), from: () => weak("steady") },
  { code: "volts-high", does: (g) => g, from: () => weak("gentle-radio") },
  { code: "window-silent", does: (g) => g, from: () => weak("silent-window") },
  {
    code: "volts-kind",
    does: onPlace("injector", { partId: "samphire-24" }),
    from: () => then(onPlace("injector", { partId: "samphire-48" }), onPlace("radio", { partId: "only-48" }))(cleanEnd()),
  },
  {
    code: "no-wake",
    does: onPlace("injector", { partId: "weak-af" }),
    from: () => then(onPlace("injector", { partId: "samphire-af" }), onPlace("radio", { partId: "scoter-remote" }))(cleanEnd()),
  },
  { code: "start-over", does: onPlace("injector", { partId: "small-24" }), from: () => weak("slow-starter") },
  { code: "switch-over", does: onPlace("switch", { partId: "faint-switch", countsDrawn: true }) },
  { code: "injector-turned", does: turned, from: () => weak("dc-too") },
  { code: "load-silent", does: onPlace("camera-1", { partId: "silent-camera" }) },
  { code: "sheet-unknown", does: onPlace("camera-1", { partId: null }) },
  { code: "unfed", does: onLead("c1", { from: { placeId: "switch", port: "10" } }) },
  { code: "port-over", does: onPlace("camera-1", { partId: "capstan-turn" }) },
  { code: "reserved-over", does: add([place("camera-5", "camera", "capstan")], [lead("c5", "switch/5", "camera-5/1", "kelp-indoor", 12)]) },
  {
    code: "pass-over",
    does: add([place("y", "camera", "hungry-24")], [lead("y1", "radio/2", "y/1", "kelp-indoor", 5)]),
    from: () => indoors(),
  },
  {
    code: "pass-fed",
    does: then(
      onPlace("injector", { partId: "samphire-at" }),
      add([place("y", "camera", "capstan-24")], [lead("y1", "radio/2", "y/1", "kelp-indoor", 5)]),
    ),
    from: () => indoors(),
  },
  { code: "port-gone", does: onLead("p1", { from: { placeId: "switch", port: "44" } }) },
  { code: "port-taken", does: onLead("p1", { from: { placeId: "switch", port: "3" } }) },
  { code: "cable-unknown", does: onLead("p1", { cableId: null }) },
  { code: "copper-clad", does: onLead("l3", { cableId: "kelp-outdoor-clad" }) },
  { code: "thin-cord", does: onLead("c1", { cableId: "kelp-cord-thin" }) },
  { code: "too-long", does: onLead("c1", { lengthM: 101 }) },
  { code: "slow-lead", does: onLead("l1", { cableId: "kelp-two-pair" }) },
  {
    code: "slow-injector",
    does: onPlace("injector", { partId: "samphire-24-slow" }),
    from: () => then(onPlace("injector", { partId: "samphire-24" }), onPlace("radio", { partId: "razorbill-small" }))(cleanEnd()),
  },
  { code: "indoor-outside", does: onLead("l4", { cableId: "kelp-indoor" }) },
  { code: "part-outside", does: onPlace("phone", { where: "outside" }) },
  { code: "no-drip-loop", does: onLead("l3", { dripLoop: false }) },
  { code: "drip-unseen", does: onLead("l3", { dripLoop: null }) },
  { code: "near-mains", does: onLead("p1", { nearMains: { gapMm: 80, alongM: 3 } }) },
  { code: "gap-unseen", does: onLead("p1", { nearMains: { gapMm: null, alongM: 3 } }) },
  { code: "gap-unasked", does: then(onLead("p1", { nearMains: { gapMm: 80, alongM: 3 } }), onEarth({ mainsGapMm: null })) },
  { code: "screen-open", does: onLead("l3", { screen: "none" }) },
  { code: "screen-unseen", does: onLead("l3", { screen: "unseen" }) },
  { code: "screen-practice", does: onLead("l3", { screen: "both" }) },
  { code: "screen-unasked", does: onEarth({ screens: null }) },
  {
    code: "surge-missing",
    does: then(
      without("l2", "l4"),
      onLead("l3", { from: { placeId: "injector", port: "fed" }, to: { placeId: "radio", port: "1" } }),
      (g) => ({ ...g, places: g.places.filter((p) => p.kind !== "surge") }),
    ),
  },
  {
    code: "surge-one",
    does: then(without("l4"), onLead("l3", { to: { placeId: "radio", port: "1" } }), (g) => ({
      ...g,
      places: g.places.filter((p) => p.id !== "top"),
    })),
  },
  {
    code: "surge-volts",
    does: onPlace("entry", { partId: "limpet-30" }),
    from: () => then(onPlace("injector", { partId: "samphire-48" }), onPlace("radio", { partId: "scoter-remote" }))(cleanEnd()),
  },
  { code: "surge-pairs", does: onPlace("entry", { partId: "limpet-60-two" }) },
  { code: "surge-speed", does: onPlace("entry", { partId: "limpet-old" }) },
  {
    code: "surge-kind",
    does: onPlace("entry", { partId: "passive-only" }),
    from: () => onPlace("injector", { partId: "samphire-at" })(cleanEnd()),
  },
  { code: "bond-open", does: onPlace("entry", { bond: "open" }) },
  { code: "bond-unseen", does: onPlace("entry", { bond: "unseen" }) },
  { code: "bar-open", does: onEarth({ bar: "open" }) },
  { code: "bar-unseen", does: onEarth({ bar: "unseen" }) },
  { code: "mast-open", does: onEarth({ mast: "open" }) },
  { code: "mast-unseen", does: onEarth({ mast: "unseen" }) },
  { code: "rod-open", does: onEarth({ rod: "open" }) },
  { code: "rod-unseen", does: onEarth({ rod: "unseen" }) },
  { code: "earth-unasked", does: onEarth({ sizeMm2: null }) },
  { code: "earth-unasked", does: onEarth({ source: "" }) },
  { code: "mains-unasked", does: onEarth({ mains: null }) },
  { code: "mains-specialist", does: onEarth({ mains: "TN-C-S" }) },
  { code: "lightning-unasked", does: onEarth({ lightning: null }) },
  { code: "lightning-specialist", does: onEarth({ lightning: "there" }) },
  { code: "two-earths", does: onPlace("camera-3", { earth: "gatehouse" }) },
  {
    code: "data-loop",
    does: add(
      [place("second", "switch", "thrift-5")],
      [
        lead("s0", "mains/ac", "second/ac", null, 1),
        lead("s1", "switch/10", "second/1", "kelp-cord", 2),
        lead("s2", "switch/8", "second/2", "kelp-cord", 2),
      ],
    ),
  },
  {
    code: "power-round",
    does: add([place("round", "converter", "round")], [lead("r1", "round/out", "round/in", "kelp-core-2", 1)]),
    from: cleanLight,
    sun: SUN,
  },
  { code: "medium-unfit", does: onLead("p1", { cableId: "eelgrass" }) },
  { code: "sun-unasked", does: (g) => g, from: cleanLight, sun: null },
  { code: "panel-small", does: onPlace("panel", { partId: "sundew-100" }), from: cleanLight, sun: SUN },
  { code: "battery-small", does: onPlace("battery", { partId: "ballast-100" }), from: cleanLight, sun: SUN },
  { code: "frost-charge", does: onPlace("battery", { partId: "frosty" }), from: cleanLight, sun: SUN },
  {
    code: "fuse-missing",
    does: then(without("d2"), onLead("d1", { to: { placeId: "charger", port: "battery" } })),
    from: cleanLight,
    sun: SUN,
  },
  { code: "cut-out-missing", does: onPlace("charger", { partId: "sedge-10-plain" }), from: cleanLight, sun: SUN },
  { code: "return-unseen", does: (g) => g, from: cleanLight, sun: { ...SUN, comesBack: null } },
  { code: "return-never", does: (g) => g, from: cleanLight, sun: { ...SUN, comesBack: false } },
];

/** Sheets that only a test needs: what no shipped part is. */
const MORE = new Map([
  ...PARTS,
  ["silent-camera", { ...sheet("capstan"), id: "silent-camera", drawMostW: undefined }],
  ["hungry-24", { ...sheet("capstan-24"), id: "hungry-24", drawMostW: 12.5, startW: 12.5 }],
  ["passive-only", { ...sheet("limpet-60"), id: "passive-only", surge: { ...sheet("limpet-60").surge!, schemes: ["passive" as const] } }],
  [
    "frosty",
    { ...sheet("ballast-400"), id: "frosty", battery: { volts: 12, ah: 400, chemistry: "lithium" as const, heater: false, depth: 0.5 } },
  ],
  [
    "hungry-radio",
    {
      ...sheet("razorbill-small"),
      id: "hungry-radio",
      drawMostW: 18,
      startW: 18,
      inputVolts: { "passive24-2pair": { low: 15, high: 28 } },
    },
  ],
  ["steady", { ...sheet("razorbill-grand"), id: "steady", startW: 9 }],
  ["slow-starter", { ...sheet("razorbill-small"), id: "slow-starter", startW: 15 }],
  ["gentle-radio", { ...sheet("razorbill-small"), id: "gentle-radio", inputVolts: { "passive24-2pair": { low: 20, high: 23.5 } } }],
  ["silent-window", { ...sheet("razorbill-small"), id: "silent-window", inputVolts: undefined }],
  [
    "only-48",
    {
      ...sheet("scoter-remote"),
      id: "only-48",
      ports: [{ id: "1", name: "1", medium: "copper" as const, speedMbps: 1000, takes: ["passive48"] }],
    },
  ],
  [
    "weak-af",
    { ...sheet("samphire-af"), id: "weak-af", ports: sheet("samphire-af").ports.map((p) => (p.id === "fed" ? { ...p, leastV: 41 } : p)) },
  ],
  [
    "small-24",
    { ...sheet("samphire-24"), id: "small-24", ports: sheet("samphire-24").ports.map((p) => (p.id === "fed" ? { ...p, giveW: 12 } : p)) },
  ],
  ["faint-switch", { ...sheet("thrift-8af"), id: "faint-switch", totalGiveW: 20 }],
  [
    "dc-too",
    {
      ...sheet("razorbill-small"),
      id: "dc-too",
      ports: [
        { id: "1", name: "1", medium: "copper" as const, speedMbps: 1000, takes: ["passive24-2pair"] },
        { id: "2", name: "2", medium: "copper" as const, speedMbps: 1000 },
      ],
    },
  ],
  [
    "round",
    {
      ...sheet("stonecrop-24-12"),
      id: "round",
      ports: [
        { id: "in", name: "in", medium: "dc" as const, takes: ["dc12"] },
        { id: "out", name: "out", medium: "dc" as const, gives: ["dc12"], giveW: 60 },
      ],
      inputVolts: { dc12: { low: 9, high: 16 } },
    },
  ],
]);

/** The clean end with a radio of passive 24 V on two pairs. */
function weak(radioId: string): WiringGraph {
  return then(onPlace("injector", { partId: "samphire-24" }), onPlace("radio", { partId: radioId }))(cleanEnd());
}
/** The radio behind a window: nothing of the end stands outside. */
function indoors(): WiringGraph {
  return then(onPlace("radio", { where: "inside" }), onPlace("top", { where: "inside" }), onLead("l4", { way: "inside" }))(cleanEnd());
}
/** The injector's two sides exchanged, the radio fed from elsewhere so that nothing but the turn is wrong. */
function turned(g: WiringGraph): WiringGraph {
  const swap = (e: Lead["from"]): Lead["from"] =>
    e.placeId !== "injector" || e.port === "ac" ? e : { ...e, port: e.port === "lan" ? "fed" : "lan" };
  return { ...g, leads: g.leads.map((l) => ({ ...l, from: swap(l.from), to: swap(l.to) })) };
}
const codes = (j: JudgedWiring): string[] => [...new Set(j.findings.map((f) => f.code))].sort();

describe("breaks of a clean end", () => {
  test("the clean ends have nothing to say", () => {
    expect(codes(judgeWiring(cleanEnd(), MORE))).toEqual([]);
    expect(codes(judgeWiring(cleanLight(), MORE, SUN, 47.3))).toEqual([]);
  });
  test.each(BREAKS.map((b, i) => [b.code, i] as const))("%s, and nothing else (%i)", (code, i) => {
    const b = BREAKS[i]!;
    const start = (b.from ?? cleanEnd)();
    const sun = b.sun === undefined ? null : b.sun === null ? null : { ...SUN, ...b.sun };
    expect(codes(judgeWiring(b.does(start), MORE, sun, 47.3))).toEqual([code]);
  });
});

test("every code that an end can raise has its break here", () => {
  const jobs: WiringCode[] = ["second-router", "second-dhcp"];
  expect(WIRING_CODES.filter((c) => !jobs.includes(c) && !BREAKS.some((b) => b.code === c))).toEqual([]);
});

describe("mends", () => {
  const MENDED: Partial<Record<WiringCode, string>> = {
    unfit: "converter:rock-rose-af",
    dark: "converter:rock-rose-24",
    pairs: "part:",
    "volts-low": "cable:kelp-outdoor-thick",
    "no-start": "cable:",
    "reserved-over": "count-drawn",
    "copper-clad": "cable:kelp-outdoor",
    "thin-cord": "cable:kelp-indoor",
    "too-long": "glass",
    "indoor-outside": "cable:kelp-outdoor",
    "no-drip-loop": "drip-loop",
    "near-mains": "away-from-mains",
    "surge-missing": "protector:",
    "surge-one": "protector:",
    "surge-volts": "part:",
    "surge-pairs": "part:limpet-60",
    "surge-speed": "part:limpet-60",
    "two-earths": "glass",
    "data-loop": "take-off",
    "injector-turned": "turn",
    "panel-small": "part:sundew-",
    "battery-small": "part:ballast-",
    "frost-charge": "part:",
    "slow-lead": "cable:",
    "slow-injector": "part:",
  };
  test.each(Object.entries(MENDED) as [WiringCode, string][])("%s is mended by %s", (code, id) => {
    const b = BREAKS.find((x) => x.code === code)!;
    const sun = b.sun === undefined ? null : b.sun === null ? null : { ...SUN, ...b.sun };
    const broken = judgeWiring(b.does((b.from ?? cleanEnd)()), MORE, sun, 47.3);
    const mends = mendsOf(broken, broken.findings.find((f) => f.code === code)!, sun, 47.3, newId);
    expect(mends.map((m) => m.id).join(" ")).toContain(id);
    for (const m of mends) {
      // What is said to come of it is what comes of it.
      const again = judgeWiring(m.graph, MORE, sun, 47.3);
      expect(codes(again)).toEqual(codes(m.judged));
      expect(again.findings.filter((f) => f.code === code)).toHaveLength(0);
      // A mend leaves nothing that is short; a new protector has a bond to be seen.
      expect(again.findings.filter((f) => f.verdict === "short").map((f) => f.code)).toEqual([]);
    }
  });
  test("nothing is offered that makes another thing short", () => {
    // The only other switch port left is one of 802.3 for a camera of 24 V: no port is offered.
    const b = BREAKS.find((x) => x.code === "dark")!;
    const broken = judgeWiring(b.does(cleanEnd()), MORE);
    const mends = mendsOf(broken, broken.findings[0]!, null, 0, newId);
    expect(mends.some((m) => m.kind === "other-port")).toBe(false);
  });
});

describe("proposed ends", () => {
  const radio = (id: string, partId: string) => ({
    placeId: `radio-${id}`,
    name: `radio ${id}`,
    partId,
    injectorId: `injector-of:${partId}`,
    linkId: id,
    aglM: 11,
  });
  const base = { feed: false, recorder: false, parts: PARTS, newId, supply: "mains" as const };
  /** What is asked of people, and of devices whose sheets are not known, stays open; nothing else does. */
  const ASKED = [
    "bond-unseen",
    "bar-unseen",
    "mast-unseen",
    "earth-unasked",
    "mains-unasked",
    "lightning-unasked",
    "screen-unasked",
    "sheet-unknown",
  ];

  test.each([...PARTS.values()].filter((p) => p.kind === "radio" && PARTS.has(`injector-of:${p.id}`)).map((p) => p.id))(
    "%s from its own box: nothing is short",
    (id) => {
      const j = judgeWiring(proposeWiring({ ...base, radios: [radio("a", id)], devices: [] }), PARTS);
      const dcOnly = PARTS.get(`injector-of:${id}`)!.ports.find((p) => p.id === "fed")!.medium === "dc";
      if (dcOnly) expect(j.findings.some((f) => f.verdict === "short")).toBe(true);
      else expect(codes(j).filter((c) => !ASKED.includes(c))).toEqual([]);
    },
  );

  test("any number of devices: each has its own port, no port two plugs, and only what is asked stays open", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            kind: fc.constantFrom("camera" as const, "phone" as const, "access-point" as const, "control" as const),
            count: fc.integer({ min: 1, max: 9 }),
          }),
          { maxLength: 5 },
        ),
        fc.boolean(),
        fc.integer({ min: 1, max: 3 }),
        (rows, feed, radios) => {
          const g = proposeWiring({
            ...base,
            feed,
            recorder: feed,
            radios: Array.from({ length: radios }, (_, i) => radio(String(i), "kittiwake-panel")),
            devices: rows.map((r, i) => ({ ...r, id: `d${i}`, name: r.kind })),
          });
          const j = judgeWiring(g, PARTS);
          expect(codes(j).filter((c) => !ASKED.includes(c))).toEqual([]);
          expect(g.places.filter((p) => p.deviceId !== null)).toHaveLength(rows.reduce((s, r) => s + r.count, 0));
          for (const p of g.places.filter((x) => x.deviceId !== null))
            expect(g.leads.filter((l) => l.to.placeId === p.id || l.from.placeId === p.id)).toHaveLength(1);
        },
      ),
      { numRuns: 60 },
    );
  });

  test("on battery: panel, controller with cut-out, fuse first, and a supply that makes the radio's volts from twelve", () => {
    const g = proposeWiring({ ...base, supply: "battery", radios: [radio("a", "razorbill-small")], devices: [] });
    const j = judgeWiring(g, PARTS, SUN, 47.3);
    expect(codes(j).filter((c) => !ASKED.includes(c) && c !== "panel-small" && c !== "battery-small" && c !== "cut-out-missing")).toEqual(
      [],
    );
    expect(j.feeds.arrivals.get("radio-a/1")!.volts).toBeGreaterThan(23);
  });
});

describe("a wiring proposed anew", () => {
  const input = {
    devices: [
      { id: "cams", name: "Yard camera", kind: "camera" as const, count: 3 },
      { id: "till", name: "Till", kind: "other" as const, count: 1 },
    ],
    radios: [{ placeId: "r1", name: "Far radio", partId: "kittiwake-panel", injectorId: null, linkId: "one", aglM: 8 }],
    supply: "mains" as const,
    feed: true,
    recorder: true,
    parts: PARTS,
    newId,
  };
  test("the same things keep their ids, names, earths, bonds and types that the proposal does not know; leads run into their ports", () => {
    const first = proposeWiring(input);
    const camera = first.places.filter((p) => p.kind === "camera");
    const before: WiringGraph = {
      ...first,
      places: first.places
        // The second camera was taken away, the third has a name, a type and an earth of its own.
        .filter((p) => p !== camera[1])
        .map((p) => (p === camera[2] ? { ...p, name: "Gate", partId: "capstan", earth: "gate" } : p))
        .map((p) => (p.kind === "radio" ? { ...p, name: "the old dish", bond: "joined" as const } : p)),
    };
    const again = keptFrom(proposeWiring({ ...input, radios: [{ ...input.radios[0]!, placeId: "r2", aglM: 9 }] }), before, PARTS);
    const ids = (g: WiringGraph): string[] => g.places.map((p) => p.id).sort();
    expect(again.places).toHaveLength(first.places.length);
    expect(ids(again).filter((id) => !ids(before).includes(id))).toHaveLength(1);
    expect(again.places.find((p) => p.linkId === "one")).toMatchObject({ id: "r1", name: "the old dish", bond: "joined", aglM: 9 });
    expect(again.places.find((p) => p.id === camera[2]!.id)).toMatchObject({ name: "Gate", partId: "capstan", earth: "gate" });
    const w = wire(again, PARTS);
    for (const l of again.leads)
      for (const e of [l.from, l.to]) expect(w.sheetOf(e.placeId) === null || w.portOf(e) !== null, `${e.placeId}/${e.port}`).toBe(true);
    expect(judgeWiring(again, PARTS).findings.filter((f) => f.code === "port-gone")).toEqual([]);
    // Once more over itself, nothing changes but the ids of leads.
    const places = keptFrom(proposeWiring({ ...input, radios: [{ ...input.radios[0]!, aglM: 9 }] }), again, PARTS).places;
    expect(places).toEqual(again.places);
  });
});

describe("the network of a job", () => {
  const router = (id: string): WiringGraph => ({
    places: [place("mains", "mains", "socket"), place("router", "router", "marram"), place("radio", "radio", "kittiwake-panel")],
    leads: [lead("m", "mains/ac", "router/ac", null, 1), lead(id, "router/1", "radio/2", "kelp-cord", 1)],
    earth: EARTH_DONE,
  });
  const second = (port: string): WiringGraph => {
    const g = cleanEnd();
    return {
      ...g,
      places: [...g.places, place("own", "router", "marram-yard")],
      leads: [...g.leads, lead("r0", "mains/ac", "own/ac", null, 1), lead("r1", "switch/10", `own/${port}`, "kelp-cord", 1)],
    };
  };
  const LINK = { id: "one", nearSiteId: "a", farSiteId: "b" };
  const found = (far: WiringGraph, links = [LINK]) =>
    jobNetworkFindings(
      [
        { siteId: "a", wired: wire(router("x"), PARTS) },
        { siteId: "b", wired: wire(far, PARTS) },
      ],
      links,
    ).map((f) => [f.siteId, f.code, f.verdict, f.figures.first]);

  test("a router plugged in by its inside behind a bridge is a second server of addresses; by its wan it translates a second time", () => {
    expect(found(cleanEnd())).toEqual([]);
    expect(found(second("1"))).toEqual([["b", "second-dhcp", "short", "router"]]);
    expect(found(second("wan"))).toEqual([["b", "second-router", "tight", "router"]]);
    expect(found(second("1"), [])).toEqual([]);
    expect(found(second("wan"), [])).toEqual([]);
  });

  test("one that hands out nothing only translates, and what is no router has no wan side", () => {
    const quiet = new Map([...PARTS, ["marram-yard", { ...sheet("marram-yard"), handsOutAddresses: false }]]);
    const plain = new Map([...PARTS, ["marram-yard", { ...sheet("marram-yard"), routes: false }]]);
    const at = (parts: typeof PARTS, port: string) =>
      jobNetworkFindings(
        [
          { siteId: "a", wired: wire(router("x"), parts) },
          { siteId: "b", wired: wire(second(port), parts) },
        ],
        [LINK],
      ).map((f) => f.code);
    expect(at(quiet, "1")).toEqual(["second-router"]);
    expect(at(plain, "wan")).toEqual(["second-dhcp"]);
  });

  test("two links at one site meet only where its radios do; one without a radio of its own hangs on those that are there", () => {
    const two = (joined: boolean): WiringGraph => ({
      places: [
        { ...place("radio", "radio", "kittiwake-panel"), linkId: "one" },
        { ...place("other", "radio", "kittiwake-panel"), linkId: "two" },
        place("switch", "switch", "thrift-5"),
      ],
      leads: [lead("p", "switch/1", "radio/1", "kelp-cord", 1), ...(joined ? [lead("q", "switch/2", "other/1", "kelp-cord", 1)] : [])],
      earth: EARTH_DONE,
    });
    const relay = (joined: boolean, far: string) =>
      jobNetworkFindings(
        [
          {
            siteId: "a",
            wired: wire(
              { ...router("x"), places: router("x").places.map((p) => (p.kind === "radio" ? { ...p, linkId: "one" } : p)) },
              PARTS,
            ),
          },
          { siteId: "mid", wired: wire(two(joined), PARTS) },
          { siteId: "c", wired: wire(router("y"), PARTS) },
        ],
        [
          { id: "one", nearSiteId: "a", farSiteId: "mid" },
          { id: far, nearSiteId: "mid", farSiteId: "c" },
        ],
      ).map((f) => [f.siteId, f.code]);
    expect(relay(true, "two")).toEqual([["c", "second-dhcp"]]);
    expect(relay(false, "two")).toEqual([]);
    expect(relay(false, "mate")).toEqual([["c", "second-dhcp"]]);
  });
});

describe("addresses", () => {
  test("IPv4 against Node's own: read, written, in a subnet or not", () => {
    fc.assert(
      fc.property(fc.ipV4(), fc.integer({ min: 8, max: 30 }), fc.ipV4(), (address, bits, other) => {
        const n = parseIpv4(address)!;
        expect(ipv4Text(n)).toBe(address);
        const net = parseSubnet(`${address}/${bits}`)!;
        const list = new BlockList();
        list.addSubnet(address, bits);
        expect(list.check(other)).toBe(parseIpv4(other)! >= net.base && parseIpv4(other)! <= net.last + 1);
      }),
    );
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom("0", "1", "2", "5", "9", ".", " ", "-", "a"), maxLength: 16 }), (text) => {
        expect(parseIpv4(text) !== null).toBe(isIPv4(text.trim()));
      }),
      { numRuns: 2000 },
    );
  });

  test("10,000 seeded plans: nobody twice, nobody on what is taken, in the pool, or outside; and the faults of a plan are found", () => {
    for (let seed = 1; seed <= 10_000; seed++) {
      const random = seededRandom(seed);
      const bits = 24 + Math.floor(random() * 5);
      const nets: NetPlan[] = Array.from({ length: 1 + Math.floor(random() * 3) }, (_, i) => {
        const subnet = `10.${i}.${Math.floor(random() * 250)}.0/${bits}`;
        const s = parseSubnet(subnet)!;
        const from = s.first + Math.floor((s.last - s.first) / 2);
        return {
          key: `n${i}`,
          subnet,
          gateway: random() < 0.8 ? ipv4Text(s.first) : null,
          poolFrom: ipv4Text(from),
          poolTo: ipv4Text(from + Math.floor((s.last - from) / 2)),
        };
      });
      const taken = new Set(
        Array.from({ length: Math.floor(random() * 6) }, () => {
          const s = parseSubnet(nets[Math.floor(random() * nets.length)]!.subnet)!;
          return ipv4Text(s.first + Math.floor(random() * (s.last - s.first)));
        }),
      );
      const askers: AddressAsker[] = Array.from({ length: Math.floor(random() * 14) }, (_, i) => ({
        id: `u${i}`,
        role: UNIT_ROLES[Math.floor(random() * UNIT_ROLES.length)]!,
        net: nets[Math.floor(random() * nets.length)]!.key,
        address: null,
      }));
      const { given, faults } = assignAddresses(nets, askers, taken);
      const all = [...given.values()];
      expect(new Set(all).size, `seed ${seed}`).toBe(all.length);
      expect(all.some((a) => taken.has(a))).toBe(false);
      expect(given.size + faults.length).toBe(askers.length);
      expect(
        addressFaults(
          nets,
          askers.map((a) => ({ ...a, address: given.get(a.id) ?? null })),
          taken,
        ),
        `seed ${seed}`,
      ).toEqual([]);
    }
  });

  test("the rule can be read: the router at the gateway, radios from 11, cameras from 31; one given before keeps it", () => {
    const nets: NetPlan[] = [
      { key: "all", subnet: "192.168.41.0/24", gateway: "192.168.41.1", poolFrom: "192.168.41.100", poolTo: "192.168.41.199" },
    ];
    const ask = (id: string, role: AddressAsker["role"], address: string | null = null): AddressAsker => ({
      id,
      role,
      net: "all",
      address,
    });
    const { given } = assignAddresses(
      nets,
      [
        ask("r", "router"),
        ask("a", "radio"),
        ask("b", "radio"),
        ask("c1", "camera"),
        ask("c2", "camera", "192.168.41.31"),
        ask("c3", "camera"),
      ],
      new Set(["192.168.41.12"]),
    );
    expect(Object.fromEntries(given)).toEqual({
      r: "192.168.41.1",
      a: "192.168.41.11",
      b: "192.168.41.13",
      c1: "192.168.41.32",
      c3: "192.168.41.33",
    });
    const faults = addressFaults(
      nets,
      [
        ask("x", "camera", "192.168.41.120"),
        ask("y", "camera", "192.168.42.3"),
        ask("z", "camera", "192.168.41.7"),
        ask("w", "camera", "192.168.41.7"),
        ask("v", "radio", "192.168.41.1"),
        ask("u", "radio", "192.168.41.300"),
        ask("t", "radio", "192.168.41.255"),
        ask("s", "radio", "192.168.41.12"),
      ],
      new Set(["192.168.41.12"]),
    );
    expect(faults.map((f) => [f.id, f.code])).toEqual([
      ["x", "in-pool"],
      ["y", "outside"],
      ["w", "twice"],
      ["v", "gateway"],
      ["u", "not-an-address"],
      ["t", "network"],
      ["s", "taken"],
    ]);
  });

  test("the laptop stands in the unit's own subnet as it comes from the box, and not in its place", () => {
    expect(laptopFor({ address: "192.168.1.20", bits: 24 })).toBe("192.168.1.10");
    expect(laptopFor({ address: "192.168.1.10", bits: 24 })).toBe("192.168.1.11");
    expect(laptopFor({ address: "10.0.0.1", bits: 30 })).toBe("10.0.0.2");
  });
});

describe("battery and sun", () => {
  /** Day by day: what the sun gives, what is drawn, what is left; starts full before the days without sun. */
  const runs = (
    panelW: number,
    usableWh: number,
    dailyWh: number,
    sunHours: number,
    dark: number,
  ): { lowest: number; recovers: boolean } => {
    let left = usableWh;
    let lowest = left;
    for (let day = 0; day < dark; day++) {
      left -= dailyWh;
      lowest = Math.min(lowest, left);
    }
    const start = left;
    for (let day = 0; day < 120; day++) {
      left = Math.min(usableWh, left - dailyWh + panelW * sunHours * 0.8 * 0.87);
      lowest = Math.min(lowest, left);
    }
    return { lowest, recovers: left >= start };
  };

  test("Skarn Light: 9 W at one hour of sun wants about 310 W of panel; day by day it holds, with 5 % less it never comes back", () => {
    const plan: SunPlan = { ...SUN, hoursByMonth: [1, 2, 3, 4, 5, 5, 5, 5, 4, 3, 2, 1.1], lowestC: 25 };
    const g = cleanLight();
    const j = judgeWiring(g, PARTS, plan, 47.3);
    const sun = judgeSun(j.wired, j.feeds, plan, 47.3)!;
    const nine = sun.supply.panelW * (9 / sun.loadW);
    expect(nine).toBeCloseTo(310, 0);
    const usable = sun.supply.batteryAh * 12 * 0.5;
    const right = runs(sun.supply.panelW + 1e-6, usable, sun.supply.dailyWh, 1, plan.daysWithoutSun);
    expect(right.lowest).toBeGreaterThanOrEqual(-1e-6);
    expect(right.recovers).toBe(true);
    expect(runs(sun.supply.panelW * 0.95, usable, sun.supply.dailyWh, 1, plan.daysWithoutSun).recovers).toBe(false);
    expect(runs(sun.supply.panelW, usable * 0.95, sun.supply.dailyWh, 1, plan.daysWithoutSun).lowest).toBeLessThan(0);
  });

  test("clear sky: an upright winter panel beats a flat one in the north, mirrored in the south; nothing in the polar night", () => {
    const DECEMBER = 344;
    const JUNE = 162;
    expect(clearSkyHours(47.3, 65, 180, DECEMBER)).toBeGreaterThan(1.8 * clearSkyHours(47.3, 0, 180, DECEMBER));
    expect(clearSkyHours(-47.3, 65, 0, JUNE)).toBeCloseTo(clearSkyHours(47.3, 65, 180, DECEMBER), 0);
    expect(clearSkyHours(80, 60, 180, DECEMBER)).toBe(0);
    // A flat field under the whole sun of midsummer at the equinox line: Haurwitz and others give 6 to 8 hours.
    expect(clearSkyHours(0, 0, 0, 80)).toBeGreaterThan(6);
    expect(clearSkyHours(0, 0, 0, 80)).toBeLessThan(8.5);
    expect(() => clearSkyHours(91, 0, 0, 1)).toThrow(RangeError);
  });
});

test.each([
  ["lead", 25, 1],
  ["lead", 35, 1],
  ["lead", 0, 0.8],
  ["lead", -20, 0.64],
  ["lithium", 0, 0.875],
  ["lithium", -20, 0.775],
  // However cold: three tenths are left.
  ["lead", -80, 0.3],
] as const)("a %s battery at %d °C has %d of its capacity", (chemistry, lowestC, share) => {
  expect(coldShare(chemistry, lowestC)).toBeCloseTo(share, 12);
});
