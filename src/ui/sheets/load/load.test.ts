import { describe, expect, test } from "vitest";
import type { LinkVerdict } from "@/contract";
import {
  type BriefDto,
  briefSchema,
  type HubDto,
  type JobBundle,
  loadInputOf,
  type NetworkFields,
  networkSchema,
  sectorsShared,
} from "@/contract";
import type { Carried } from "@/core/load";
import { mismatchesOf, moreKinds } from "./load-ends";
import { mendsOf } from "./load-mends";
import { loadTree } from "./load-tree";
import { endThrough, hangsAt, listedPlaces, loadView, moreAt, narrowestTo, pipeTo, yearsOf } from "./load-view";
import { freeText, fullYearText, loadReason, readingText, usesUnder } from "./load-words";

const ID = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const [OFFICE, TOWER, BERTH, STORE, SHED] = [1, 2, 3, 4, 5].map(ID) as [string, string, string, string, string];

const carries = (mbps: number): Carried => ({
  access: "contention",
  shared: true,
  toFar: { airMbps: mbps, phyMbps: mbps * 2, portMbps: 1000, burstUs: 2000 },
  toNear: { airMbps: mbps, phyMbps: mbps * 2, portMbps: 1000, burstUs: 2000 },
});
const design = (fields: object = {}) => ({
  id: ID(90),
  version: 3,
  nearRadioId: "r",
  farRadioId: "r",
  nearAntennaId: null,
  farAntennaId: null,
  nearAimAzimuthDeg: null,
  farAimAzimuthDeg: null,
  nearAimTiltDeg: null,
  farAimTiltDeg: null,
  centreMhz: 5600,
  widthMhz: 20,
  needToFarMbps: null,
  needToNearMbps: null,
  ...fields,
});
const link = (n: number, nearSiteId: string, farSiteId: string, fields: object = {}) => ({
  id: ID(10 + n),
  number: n,
  label: "",
  nearSiteId,
  farSiteId,
  design: design(fields),
});
const names: readonly (readonly [string, string])[] = [
  [OFFICE, "Office"],
  [TOWER, "Tower"],
  [BERTH, "Berth"],
  [STORE, "Store"],
  [SHED, "Shed"],
];
const job = (links: readonly object[]): JobBundle =>
  ({
    job: { id: ID(0), throughputSchool: "full", freeShare: 0.3, horizonYears: 5, visitOn: "2026-12-03" },
    sites: names.map(([id, name]) => ({ id, name })),
    links,
  }) as unknown as JobBundle;
const SECTOR = { nearAimAzimuthDeg: 200, nearAimTiltDeg: -3 };
const LINKS = [link(1, OFFICE, TOWER), link(2, TOWER, BERTH, SECTOR), link(3, TOWER, STORE, SECTOR), link(4, OFFICE, SHED)];
const brief = (fields: object = {}): BriefDto =>
  ({
    id: ID(0),
    version: 1,
    ...briefSchema.parse({
      feed: { name: "fibre", downMbps: 500, upMbps: 500 },
      devices: [
        { id: "c", siteId: BERTH, kind: "camera", count: 2, framesPerS: 25 },
        { id: "n", siteId: STORE, kind: "internet", count: 1, downMbps: 20, upMbps: 5 },
        { id: "s", siteId: SHED, kind: "internet", count: 1, downMbps: 20, upMbps: 5 },
      ],
      ...fields,
    }),
  }) as BriefDto;
const network = (fields: Partial<NetworkFields> = {}): NetworkFields => ({ ...networkSchema.parse({}), ...fields });
const verdicts = (rates: readonly (number | null)[]): LinkVerdict[] =>
  rates.map((mbps, i) => ({
    linkId: ID(11 + i),
    carries: mbps === null ? null : carries(mbps),
    widths: mbps === null ? [] : [{ widthMhz: 40, carried: carries(mbps * 1.9) }],
  })) as unknown as LinkVerdict[];

const RATES = [300, 60, 60, 100];
const LOOK = { moment: "worst", times: 1 } as const;
const scene = (
  of: { rates?: (number | null)[]; brief?: BriefDto; network?: NetworkFields; hubs?: HubDto[]; links?: typeof LINKS } = {},
) => {
  const read = { job: job(of.links ?? LINKS), brief: of.brief ?? brief(), hubs: of.hubs ?? [] };
  const listed = verdicts(of.rates ?? RATES);
  const input = loadInputOf(read.job, read.brief, of.network ?? network(), read.hubs, listed)!;
  return { read, input, listed, view: loadView(input, read, LOOK) };
};

describe("what the records of a job make of its load", () => {
  test("ends set alike at one site share one air; a hub on record says so itself, and an end without an axis is alone", () => {
    expect([...sectorsShared(LINKS as never, [])].map(([id]) => id)).toEqual([ID(12), ID(13)]);
    const hub = { id: ID(70), siteId: TOWER, remotes: [{ linkId: ID(12), sectorId: "s1" }] };
    expect(sectorsShared(LINKS as never, [hub]).get(ID(12))).toEqual({ id: `${ID(70)}/s1`, siteId: TOWER });
    const apart = [LINKS[0]!, link(2, TOWER, BERTH, SECTOR), link(3, TOWER, STORE, { ...SECTOR, centreMhz: 5700 })];
    expect(sectorsShared(apart as never, []).size).toBe(0);
  });

  test("the feed comes in where most links end until somebody says where, and a site that is gone is not believed", () => {
    expect(scene().input.feeds[0]!.siteId).toBe(TOWER);
    expect(scene({ network: network({ feedSiteId: OFFICE }) }).input.feeds[0]!.siteId).toBe(OFFICE);
    expect(scene({ network: network({ feedSiteId: ID(66) }) }).input.feeds[0]!.siteId).toBe(TOWER);
  });

  test("cameras go to the recorder, controls to the feed's site, all else outside, unless it is said otherwise", () => {
    const devices = ["camera", "access-point", "phone", "control"].map((kind, i) => ({
      id: `d${i}`,
      siteId: BERTH,
      kind,
      count: 1,
      users: 2,
    }));
    const { input } = scene({ brief: brief({ devices }), network: network({ feedSiteId: OFFICE, talks: { d1: SHED } }) });
    expect(input.devices.map((d) => d.talksTo)).toEqual([
      { kind: "recorder" },
      { kind: "site", siteId: SHED },
      { kind: "feed" },
      { kind: "site", siteId: OFFICE },
    ]);
  });
});

const FED = network({ feedSiteId: OFFICE });

describe("the narrowest place, shown", () => {
  test("two remotes of a sector share its air: asked, fits, free, the year and the sentence", () => {
    const { view, read } = scene({ network: FED });
    // Two cameras of 7.776 Mbps and 0.05 back each, 20 and 5 of the other, over 60.
    const asked = 2 * (7.776 + 0.05) + 25;
    expect(view.narrowest!.id.startsWith("sector:")).toBe(true);
    expect(view.narrowest!.name).toBe("shared air at Tower");
    expect(view.narrowest!.figures.askedMbps).toBeCloseTo(asked, 6);
    expect(view.narrowest!.figures.fitsMbps).toBeCloseTo(60, 6);
    expect(freeText(view.narrowest!)).toBe("19 Mbps free");
    // ln(60 / 40.652) / ln(1.1) = 4.08 years
    expect(view.verdict).toBe("tight");
    expect(fullYearText(view.narrowest!, 2026)).toBe("full in 2030");
    expect(loadReason(view, 2026, 5)).toBe("Full in 2030: shared air at Tower has 19 Mbps left");
    expect(read.job.sites).toHaveLength(5);
  });

  test("by its hub's own name once there is one", () => {
    const hub = {
      id: ID(70),
      siteId: TOWER,
      name: "",
      sectors: [{ id: "s1", azimuthDeg: 200 }],
      remotes: [ID(12), ID(13)].map((linkId) => ({ linkId, sectorId: "s1" })),
    } as unknown as HubDto;
    expect(scene({ network: FED, hubs: [hub] }).view.narrowest!.name).toBe("south sector of Tower");
  });

  test("over it is short, with what is missing; nothing asked has no narrowest place", () => {
    const { view } = scene({ network: FED, rates: [300, 30, 30, 100] });
    expect(view.verdict).toBe("short");
    expect(freeText(view.narrowest!)).toBe("11 Mbps short");
    expect(fullYearText(view.narrowest!, 2026)).toBe("full now");
    const none = scene({ network: FED, brief: brief({ devices: [] }) }).view;
    expect(none.narrowest).toBeNull();
    expect(none.verdict).toBe("clear");
  });

  test("a feed of which nobody said the rates leaves the whole unknown, and is named", () => {
    const { view } = scene({ network: FED, brief: brief({ feed: { name: "", downMbps: null, upMbps: null } }) });
    expect(view.verdict).toBe("unknown");
    expect(listedPlaces(view).find((p) => p.verdict === "unknown")!.name).toBe("the feed at Office");
    // The narrowest that is known is another; what makes the whole unknown is said.
    expect(view.narrowest!.verdict).not.toBe("unknown");
    expect(loadReason(view, 2026, 5)).toBe("Nobody said what the feed at Office carries");
    const slow = scene({ network: FED, brief: brief({ feed: { name: "line", downMbps: 500, upMbps: 5 } }) }).view;
    expect(loadReason(slow, 2026, 5)).toBe("Line: 10 Mbps back asked, 4.7 fit");
  });

  test("an end behind a link that holds nothing is named and not counted", () => {
    const { view } = scene({ network: FED, rates: [300, 60, null, 100] });
    expect(view.uncounted).toEqual(["Store"]);
    // A recorder where no link leads: it is the recorder's place that is named, not the cameras'.
    const lost = scene({ network: { ...FED, recorder: STORE }, rates: [300, 60, null, 100] }).view;
    expect([lost.uncounted, lost.partnersLost]).toEqual([["Store"], ["Store"]]);
    expect(scene({ network: { ...FED, recorder: STORE } }).view.partnersLost).toEqual([]);
  });

  test("what if more were asked: all of it, multiplied", () => {
    const { input, read, view } = scene({ network: FED });
    const twice = loadView(input, read, { moment: "worst", times: 2 });
    expect(twice.narrowest!.figures.askedMbps).toBeCloseTo(2 * view.narrowest!.figures.askedMbps, 6);
    expect(twice.verdict).toBe("short");
  });
});

describe("the pipe", () => {
  test("goes from the feed through every building to the end, with what else hangs on each", () => {
    const { view, read } = scene({ network: FED });
    const parts = pipeTo(view, read, "worst", BERTH);
    expect(parts.map((p) => (p.kind === "box" ? p.name : p.place.id.split(":")[0]))).toEqual([
      "feed",
      "Office",
      "air",
      "Tower",
      "sector",
      "Berth",
    ]);
    const boxes = parts.flatMap((p) => (p.kind === "box" ? [p] : []));
    expect(boxes[0]!.others).toEqual({ ends: 1, there: 20, back: 5 });
    expect(boxes[1]!.others).toEqual({ ends: 1, there: 20, back: 5 });
    expect(boxes[0]!.recorderMbps).toBeCloseTo(2 * 7.776, 6);
  });

  test("a slow switch stands in it as a collar and is what is narrowest on that way", () => {
    const { view, read } = scene({ network: { ...FED, ports: { [SHED]: { switchMbps: 30, injectorMbps: null } } } });
    expect(narrowestTo(view, "worst", SHED)!.name).toBe("switch at Shed");
    expect(pipeTo(view, read, "worst", SHED).map((p) => (p.kind === "box" ? "box" : p.place.id.split(":")[0]))).toEqual([
      "feed",
      "box",
      "air",
      "port",
      "box",
    ]);
  });

  test("a place leads to the end of its air, a sector to whoever asks most, and an end that passes it stays", () => {
    const { view } = scene({ network: FED });
    const at = (id: string): number => view.places.find((p) => p.id.startsWith(id))!.place;
    expect(endThrough(view, "worst", at(`air:${ID(11)}`), null)).toBe(TOWER);
    expect(endThrough(view, "worst", at("sector:"), null)).toBe(STORE);
    expect(endThrough(view, "worst", at("sector:"), BERTH)).toBe(BERTH);
  });

  test("what hangs at an end is told by row and moment", () => {
    const { view, read } = scene({ network: FED });
    expect(hangsAt(view, read, "usual", BERTH)).toEqual([{ name: "2 × camera", there: 0.1, back: 2 * 5.184 }]);
  });
});

describe("the tree", () => {
  test("is the job from its feed, each end once, with what is asked on its way and the worst of its places", () => {
    const { view, read } = scene({ network: FED, rates: [300, 30, 30, 100] });
    const tree = loadTree(view, read.job)!;
    expect(tree.name).toBe("Office");
    expect(tree.children.map((c) => [c.name, c.verdict])).toEqual([
      ["Tower", "clear"],
      ["Shed", "clear"],
    ]);
    const [tower] = tree.children;
    expect(tower!.children.map((c) => [c.name, c.verdict])).toEqual([
      ["Berth", "short"],
      ["Store", "short"],
    ]);
    // What hangs beneath is asked on the way to the tower, too.
    expect(tower!.askedMbps).toBeCloseTo(2 * (7.776 + 0.05) + 25, 6);
    expect(tower!.children[1]!.askedMbps).toBeCloseTo(25, 6);
  });
});

describe("mends", () => {
  const tried = (of: Parameters<typeof scene>[0] = {}) => {
    const s = scene({ network: FED, rates: [300, 30, 30, 100], ...of });
    return mendsOf(s.input, s.read, of.network ?? FED, s.listed, s.view, LOOK, BERTH, narrowestTo(s.view, "worst", BERTH)!);
  };
  test("each is worked out through the same load, helps the place, and the most helpful comes first", () => {
    const mends = tried();
    const multiples = mends.map((m) => m.place?.multiple ?? Number.POSITIVE_INFINITY);
    expect(multiples).toEqual([...multiples].sort((a, b) => b - a));
    expect(mends.map((m) => m.id)).toEqual(expect.arrayContaining(["width:40", "codec", "recorder:each"]));
    // What hangs at this end is recorded at the office: a line of its own would take nothing off.
    expect(mends.map((m) => m.id)).not.toContain(`feed:${BERTH}`);
    // A recorder at the tower does not take anything off the air behind it.
    expect(mends.map((m) => m.id)).not.toContain(`recorder:${TOWER}`);
  });

  test("H.265 takes two fifths off the cameras and leaves a rate that was read off a device", () => {
    const codec = tried().find((m) => m.id === "codec")!;
    expect(codec.place!.figures.askedMbps).toBeCloseTo(2 * (7.776 * 0.6 + 0.05) + 25, 6);
    const read = brief({ devices: [{ id: "c", siteId: BERTH, kind: "camera", count: 4, upMbps: 12 }] });
    expect(tried({ brief: read }).map((m) => m.id)).not.toContain("codec");
  });

  test("of a feed it is a faster line, of a switch a faster switch", () => {
    const line = scene({ network: FED, brief: brief({ feed: { name: "line", downMbps: 30, upMbps: 10 } }) });
    expect(line.view.narrowest!.name).toBe("line");
    const mends = mendsOf(line.input, line.read, FED, line.listed, line.view, LOOK, SHED, line.view.narrowest!);
    expect(mends.find((m) => m.id === "line")!.words).toBe("A line of 50/50");
    const slow = { ...FED, ports: { [SHED]: { switchMbps: 15, injectorMbps: null } } };
    const port = scene({ network: slow });
    const best = mendsOf(port.input, port.read, slow, port.listed, port.view, LOOK, SHED, narrowestTo(port.view, "worst", SHED)!);
    expect(best.find((m) => m.id === "port")!.plan).toEqual({
      kind: "network",
      fields: { ports: { [SHED]: { switchMbps: 1000, injectorMbps: null } } },
    });
  });
});

describe("ends and figures", () => {
  test("a link planned for less or more than passes it is told, seen from the feed whichever end is near", () => {
    const links = [LINKS[0]!, LINKS[1]!, LINKS[2]!, link(4, SHED, OFFICE, { needToFarMbps: 50, needToNearMbps: 8 })];
    const { view, read } = scene({ network: FED, links });
    const shed = mismatchesOf(view, read.job).find((m) => m.name === "Shed")!;
    // Its near end is the shed: to near is away from the feed.
    expect(shed).toMatchObject({ asked: [8, 50], passes: [20, 5], isLess: true, toFar: 5, toNear: 20 });
  });

  test("how many more of a device fit at the ends of a place", () => {
    const { view } = scene({ network: FED });
    const sector = view.places.find((p) => p.id.startsWith("sector:"))!.place;
    expect(moreAt(view, "worst", sector, { there: 0, back: 6 }, "recorder")).toMatchObject({ least: 3, most: 3, place: sector });
    expect(moreKinds(brief().devices).map((k) => k.name)).toEqual(["camera of 7.8 Mbps", "user of an access point"]);
  });

  test("years grow by class: what does not grow stays", () => {
    const { view } = scene({ network: { ...FED, growth: { cameras: 0.5, users: 0, rest: 0 } } });
    const sector = view.places.find((p) => p.id.startsWith("sector:"))!.place;
    const { rows } = yearsOf(view, sector, 2026, 1);
    expect(rows.at(-1)!.worst - rows[0]!.worst).toBeCloseTo(0.5 * 2 * (7.776 + 0.05), 6);
    expect(rows.at(-1)!.year).toBe(2027);
  });

  test("voice fails by its jitter before its delay", () => {
    const bounds = networkSchema.parse({}).bounds;
    const uses = usesUnder({ mostMs: 60, jitterMs: 55 }, bounds);
    expect(uses.map((u) => [u.name, u.bears])).toEqual([
      ["control", false],
      ["voice", false],
      ["live picture", true],
    ]);
    expect(uses[1]!.why).toBe("jitter 55 ms against 30");
  });

  test("a test that the tester's own port holds is a floor and no more", () => {
    const r = { kind: "across", mbps: [94, 94], heldBy: [null, null], proves: [false, false] } as const;
    expect(readingText(r, () => "")).toBe("94 there, 94 back: shows the tester's port, a floor and no more");
    expect(readingText({ ...r, heldBy: [3, 3], proves: [true, true] }, () => "")).toBe("94 there, 94 back: proves the link");
  });
});
