import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seededRandom } from "../units";
import { type LoadDevice, type LoadInput, loadOf } from "./load";
import {
  fillOf,
  fitsOfPlace,
  freeAlong,
  judgePlace,
  moreDevices,
  multipleOfPlace,
  narrowestOf,
  placesAlong,
  takenOf,
  yearsUntilFull,
} from "./narrowest";
import { type Carried, chainOf, type LoadLink, treeOf } from "./network";
import { BACK, PAYLOAD_SHARE, THERE } from "./places";
import { readingsAt } from "./readings";
import { hoursKept, recorderAnswers } from "./recorder";
import { greatest } from "./testing/simplex";

const carried = (mbps: number, fields: Partial<Carried> = {}): Carried => ({
  access: "contention",
  shared: true,
  toFar: { airMbps: mbps, phyMbps: mbps * 1.6, portMbps: 1000, burstUs: 2000 },
  toNear: { airMbps: mbps, phyMbps: mbps * 1.6, portMbps: 1000, burstUs: 2000 },
  ...fields,
});
const link = (id: string, nearSiteId: string, farSiteId: string, mbps: number | null, sector: LoadLink["sector"] = null): LoadLink => ({
  id,
  nearSiteId,
  farSiteId,
  carries: mbps === null ? null : carried(mbps),
  sector,
});
const device = (id: string, siteId: string, there: number, back: number, fields: Partial<LoadDevice> = {}): LoadDevice => ({
  id,
  siteId,
  name: id,
  class: "users",
  count: 1,
  usual: { there: there / 2, back: back / 2 },
  worst: { there, back },
  talksTo: { kind: "feed" },
  portMbps: 1000,
  ...fields,
});
const scene = (fields: Partial<LoadInput> = {}): LoadInput => ({
  school: "full",
  freeShare: 0.3,
  siteIds: ["office", "tower", "berth", "store"],
  links: [link("l1", "office", "tower", 300), link("l2", "tower", "berth", 100), link("l3", "store", "tower", 100)],
  feeds: [{ siteId: "office", name: "fibre", downMbps: 500, upMbps: 500 }],
  devices: [device("d1", "berth", 10, 20), device("d2", "store", 5, 15)],
  recorder: { at: "site", siteId: "office" },
  recorderPortMbps: 1000,
  ports: new Map(),
  uplinks: new Map(),
  growth: { cameras: 0, users: 0, rest: 0 },
  needs: new Map(),
  ...fields,
});
const at = (load: ReturnType<typeof loadOf>, id: string): number => {
  const i = load.places.findIndex((p) => p.id === id);
  if (i < 0) throw new RangeError(`no place ${id}`);
  return i;
};
const leastMultiple = (load: ReturnType<typeof loadOf>): number =>
  Math.min(...load.places.map((_, i) => multipleOfPlace(load, "worst", i)));

describe("the tree", () => {
  it("leads each site over the fewest hops, of links alike in that over the one that carries most, and names what closes a loop", () => {
    const links = [
      link("a", "o", "t", 100),
      link("b", "o", "t", 200),
      link("c", "t", "s", 50),
      link("d", "o", "s", 20),
      link("e", "s", "x", null),
    ];
    const tree = treeOf(["o", "t", "s", "x"], links, "o");
    expect([...tree.up].map(([id, u]) => [id, u.linkId])).toEqual([
      ["t", "b"],
      ["s", "d"],
    ]);
    expect(tree.idle).toEqual(["a", "c"]);
    expect(tree.unreached).toEqual(["x"]);
  });

  it("follows a way set by hand, and says when it leads nowhere", () => {
    const links = [link("a", "o", "t", 100), link("c", "t", "s", 50), link("d", "o", "s", 20)];
    expect(treeOf(["o", "t", "s"], links, "o", new Map([["s", "c"]])).up.get("s")?.linkId).toBe("c");
    const lost = treeOf(["o", "t", "s"], links, "o", new Map([["s", "gone"]]));
    expect([lost.unreached, lost.lost]).toEqual([["s"], ["s"]]);
  });

  it("is of shortest hops on 200 seeded meshes, told by trying all pairs", () => {
    for (let seed = 1; seed <= 200; seed++) {
      const input = mesh(seed);
      const tree = treeOf(input.siteIds, input.links, input.siteIds[0]!);
      const n = input.siteIds.length;
      const far = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => (i === j ? 0 : 99) as number));
      const index = (id: string): number => input.siteIds.indexOf(id);
      for (const l of input.links)
        if (l.carries !== null) {
          far[index(l.nearSiteId)]![index(l.farSiteId)] = 1;
          far[index(l.farSiteId)]![index(l.nearSiteId)] = 1;
        }
      for (let k = 0; k < n; k++)
        for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) far[i]![j] = Math.min(far[i]![j]!, far[i]![k]! + far[k]![j]!);
      for (const id of input.siteIds) {
        const want = far[0]![index(id)]!;
        expect(tree.hops.get(id) ?? 99, `seed ${seed}, ${id}`).toBe(want);
        expect(chainOf(tree, id)).toHaveLength(want === 99 ? 0 : want + 1);
      }
    }
  });
});

/** A seeded mesh with loops, shared air, unlike rates each way and devices that talk to all kinds of ends. */
const mesh = (seed: number): LoadInput => {
  const random = seededRandom(seed);
  const pick = (n: number): number => Math.floor(random() * n);
  const n = 3 + pick(4);
  const siteIds = Array.from({ length: n }, (_, i) => `s${i}`);
  const links: LoadLink[] = [];
  const add = (a: number, b: number): void => {
    const way = () => ({ airMbps: 20 + 300 * random(), phyMbps: 50 + 400 * random(), portMbps: [100, 1000][pick(2)]!, burstUs: 2000 });
    links.push({
      id: `l${links.length}`,
      nearSiteId: siteIds[a]!,
      farSiteId: siteIds[b]!,
      carries: random() < 0.06 ? null : { access: "contention", shared: random() < 0.7, toFar: way(), toNear: way() },
      sector: random() < 0.4 ? { id: `hub${a}`, siteId: siteIds[a]! } : null,
    });
  };
  for (let i = 1; i < n; i++) add(pick(i), i);
  for (let k = pick(3); k > 0; k--) {
    const a = pick(n);
    const b = pick(n);
    if (a !== b) add(a, b);
  }
  // One air has one manner.
  const bySector = new Map<string, boolean>();
  const alike = links.map((l) => {
    if (l.sector === null || l.carries === null) return l;
    const known = bySector.get(l.sector.id) ?? l.carries.shared;
    bySector.set(l.sector.id, known);
    return { ...l, carries: { ...l.carries, shared: known } };
  });
  const devices = Array.from({ length: 2 + pick(3) }, (_, i) =>
    device(`d${i}`, siteIds[pick(n)]!, 5 + 40 * random(), 5 + 40 * random(), {
      count: 1 + pick(3),
      talksTo: [{ kind: "feed" as const }, { kind: "recorder" as const }, { kind: "site" as const, siteId: siteIds[pick(n)]! }][pick(3)]!,
      portMbps: [100, 1000][pick(2)]!,
    }),
  );
  return scene({
    school: (["full", "headroom", "third"] as const)[pick(3)]!,
    siteIds,
    links: alike,
    devices,
    feeds: [{ siteId: "s0", name: "", downMbps: 50 + 400 * random(), upMbps: 20 + 200 * random() }],
    recorder: random() < 0.7 ? { at: "site", siteId: siteIds[pick(n)]! } : { at: "each" },
    ports: new Map([[siteIds[pick(n)]!, { switchMbps: 100, injectorMbps: random() < 0.5 ? 100 : null }]]),
  });
};

/**
 * The same asked as a linear programme: how far can all flows be multiplied, each free to split over whatever links are not idle,
 * under conservation at every site and the capacity of every place. It knows no paths and no shares.
 */
const byProgramme = (input: LoadInput): number => {
  const tree = treeOf(input.siteIds, input.links, input.feeds[0]!.siteId, input.uplinks);
  const idle = new Set(tree.idle);
  const links = input.links.filter(
    (l) => l.carries !== null && !idle.has(l.id) && tree.hops.has(l.nearSiteId) && tree.hops.has(l.farSiteId),
  );
  const arcs = links.flatMap((l) => [
    { l, from: l.nearSiteId, to: l.farSiteId, way: l.carries!.toFar },
    { l, from: l.farSiteId, to: l.nearSiteId, way: l.carries!.toNear },
  ]);
  interface Flow {
    readonly from: string;
    readonly to: string;
    readonly mbps: number;
    readonly crosses: "down" | "up" | "in" | null;
    readonly device: LoadDevice;
  }
  const feed = input.feeds[0]!;
  const recorderAt = input.recorder.at === "site" ? input.recorder.siteId : feed.siteId;
  const flows = input.devices.flatMap((d): Flow[] => {
    const other = d.talksTo.kind === "feed" ? feed.siteId : d.talksTo.kind === "site" ? d.talksTo.siteId : recorderAt;
    if (!tree.hops.has(d.siteId) || !tree.hops.has(other)) return [];
    const watched = d.talksTo.kind === "recorder" && input.recorder.at === "each" ? 0.25 : 1;
    const recorded = d.talksTo.kind === "recorder" && input.recorder.at === "site";
    return [
      { from: other, to: d.siteId, mbps: d.worst.there * d.count, crosses: d.talksTo.kind === "feed" ? "down" : null, device: d },
      {
        from: d.siteId,
        to: other,
        mbps: d.worst.back * d.count * watched,
        crosses: d.talksTo.kind === "feed" ? "up" : recorded ? "in" : null,
        device: d,
      },
    ];
  });
  const variables = 1 + flows.length * arcs.length;
  const v = (f: number, a: number): number => 1 + f * arcs.length + a;
  const rows: number[][] = [];
  const bounds: number[] = [];
  const row = (fill: (r: number[]) => void, bound: number): void => {
    const r = Array.from({ length: variables }, () => 0);
    fill(r);
    rows.push(r);
    bounds.push(bound);
  };
  flows.forEach((f, fi) => {
    for (const id of input.siteIds) {
      const sent = id === f.from && f.from !== f.to ? f.mbps : id === f.to && f.from !== f.to ? -f.mbps : 0;
      for (const sign of [1, -1])
        row((r) => {
          arcs.forEach((a, ai) => {
            if (a.from === id) r[v(fi, ai)]! += sign;
            if (a.to === id) r[v(fi, ai)]! -= sign;
          });
          r[0]! -= sign * sent;
        }, 0);
    }
  });
  const usable = (w: (typeof arcs)[number]["way"]): number => (input.school === "third" ? Math.min(w.phyMbps / 3, w.airMbps) : w.airMbps);
  const mayUse = input.school === "headroom" ? 1 - input.freeShare : 1;
  const away = (a: (typeof arcs)[number]): boolean => tree.hops.get(a.to)! > tree.hops.get(a.from)!;
  // Air: one row for both ways where it is shared, else one each way.
  for (const air of new Set(links.map((l) => l.sector?.id ?? l.id))) {
    const own = links.filter((l) => (l.sector?.id ?? l.id) === air);
    for (const lanes of own[0]!.carries!.shared ? [[true, false]] : [[true], [false]])
      row((r) => {
        arcs.forEach((a, ai) => {
          if (own.includes(a.l) && lanes.includes(away(a))) for (let fi = 0; fi < flows.length; fi++) r[v(fi, ai)]! += 1 / usable(a.way);
        });
      }, mayUse);
  }
  // Ports of units: a sector has one, at its own site.
  const units = new Map<string, { site: string; mbps: number; links: LoadLink[] }>();
  for (const l of links)
    for (const site of [l.nearSiteId, l.farSiteId]) {
      const key = `${l.sector?.siteId === site ? l.sector.id : l.id}@${site}`;
      const unit = units.get(key) ?? { site, mbps: Number.POSITIVE_INFINITY, links: [] };
      if (unit.links.length === 0) {
        const own = input.ports.get(site);
        unit.mbps = Math.min(
          l.carries!.toFar.portMbps,
          l.carries!.toNear.portMbps,
          own?.switchMbps ?? 1000,
          own?.injectorMbps ?? Number.POSITIVE_INFINITY,
        );
      }
      unit.links.push(l);
      units.set(key, unit);
    }
  for (const unit of units.values())
    for (const direction of [true, false])
      row(
        (r) => {
          arcs.forEach((a, ai) => {
            if (unit.links.includes(a.l) && away(a) === direction) for (let fi = 0; fi < flows.length; fi++) r[v(fi, ai)]! += 1;
          });
        },
        unit.mbps * (1448 / 1538),
      );
  const whole = (of: (f: Flow) => boolean, mbps: number): void =>
    row(
      (r) => {
        for (const f of flows) if (of(f)) r[0]! += f.mbps;
      },
      mbps * (1448 / 1538),
    );
  whole((f) => f.crosses === "down", feed.downMbps!);
  whole((f) => f.crosses === "up", feed.upMbps!);
  if (input.recorder.at === "site") whole((f) => f.crosses === "in", input.recorderPortMbps);
  for (const d of input.devices)
    for (const way of ["there", "back"] as const)
      whole((f) => f.device === d && (way === "there") === (f.to === d.siteId && f.mbps === d.worst.there * d.count), d.portMbps * d.count);
  return greatest(rows, bounds);
};

describe("the narrowest place", () => {
  it("is what a linear programme finds on 200 seeded meshes with shared air and loops", () => {
    let finite = 0;
    for (let seed = 1; seed <= 200; seed++) {
      const input = mesh(seed);
      const own = leastMultiple(loadOf(input));
      const other = byProgramme(input);
      if (!Number.isFinite(own)) {
        expect(other, `seed ${seed}`).toBe(Number.POSITIVE_INFINITY);
        continue;
      }
      finite += 1;
      expect(own / other, `seed ${seed}`).toBeCloseTo(1, 6);
    }
    expect(finite).toBeGreaterThan(180);
  });

  it("is the feed, a port, the air or a sector, whichever is least", () => {
    const narrowest = (fields: Partial<LoadInput>): string => {
      const load = loadOf(scene(fields));
      return load.places[narrowestOf(load, "worst", placesAlong(load, "berth"))!]!.id;
    };
    expect(narrowest({})).toBe("air:l2");
    expect(narrowest({ feeds: [{ siteId: "office", name: "", downMbps: 16, upMbps: 500 }] })).toBe("feed:office");
    expect(narrowest({ ports: new Map([["berth", { switchMbps: 100, injectorMbps: 10 }]]) })).toBe("port:l2:berth");
    const sector = { id: "south", siteId: "tower" };
    expect(
      narrowest({
        links: [link("l1", "office", "tower", 300), link("l2", "tower", "berth", 100, sector), link("l3", "store", "tower", 100, sector)],
      }),
    ).toBe("sector:south");
  });

  it("has one air for both ways and a lane each way in a wire", () => {
    const load = loadOf(scene());
    // 30 of 100 both ways; in the port 10 of 941 there and 20 back.
    expect(fillOf(load, "worst", at(load, "air:l2"))).toBeCloseTo(0.3, 9);
    expect(takenOf(load, "worst", at(load, "port:l2:berth"), THERE)).toBeCloseTo(10 / (1000 * PAYLOAD_SHARE), 9);
    expect(takenOf(load, "worst", at(load, "port:l2:berth"), BACK)).toBeCloseTo(20 / (1000 * PAYLOAD_SHARE), 9);
    expect(fitsOfPlace(load, "worst", at(load, "air:l2")).back).toBeCloseTo((20 * 1) / 0.3, 6);
  });

  it("says of a feed that nobody told the rates of that nothing is known, and judges what lies behind it", () => {
    const load = loadOf(scene({ feeds: [{ siteId: "office", name: "", downMbps: null, upMbps: null }] }));
    expect(judgePlace(load, "worst", at(load, "feed:office"), 5).verdict).toBe("unknown");
    expect(judgePlace(load, "worst", at(load, "air:l2"), 5).verdict).toBe("clear");
  });

  it("free is what one way can add until exactly then a place is full", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.double({ min: 1, max: 60, noNaN: true }), (seed, mbps) => {
        const input = mesh(seed);
        const load = loadOf(input);
        const target = input.devices.find((d) => load.flows.some((f) => f.device === d));
        if (target === undefined) return;
        const ways = load.hopsTo(target.siteId, { kind: "feed" })!;
        const free = freeAlong(load, "worst", ways[BACK]).mbps;
        const withMore = (back: number) =>
          leastMultiple(loadOf({ ...input, devices: [...input.devices, device("more", target.siteId, 0, back, { portMbps: 1e6 })] }));
        if (leastMultiple(load) < 1) expect(free).toBeGreaterThanOrEqual(0);
        else if (Number.isFinite(free)) {
          expect(withMore(free * 0.999)).toBeGreaterThanOrEqual(1 - 1e-9);
          expect(withMore(free + mbps)).toBeLessThan(1);
        }
      }),
      { seed: 7 },
    );
  });

  it("as many more of a device fit as can be added one by one, and one more does not", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const input = mesh(seed);
      const load = loadOf(input);
      if (leastMultiple(load) < 1) continue;
      const siteId = input.siteIds[1]!;
      const ways = load.hopsTo(siteId, { kind: "recorder" });
      if (ways === null) continue;
      const each = { there: 0.3, back: 4 };
      const { count } = moreDevices(load, "worst", ways, each);
      if (!Number.isFinite(count)) continue;
      // Recorded where they are filmed only a part crosses: such rows are not added here.
      if (input.recorder.at === "each") continue;
      const withMore = (n: number) =>
        leastMultiple(
          loadOf({
            ...input,
            devices: [
              ...input.devices,
              ...Array.from({ length: n }, (_, i) =>
                device(`m${i}`, siteId, each.there, each.back, { talksTo: { kind: "recorder" }, portMbps: 1e6 }),
              ),
            ],
          }),
        );
      expect(withMore(count), `seed ${seed}`).toBeGreaterThanOrEqual(1 - 1e-9);
      expect(withMore(count + 1), `seed ${seed}`).toBeLessThan(1);
    }
  });

  it("a device more never frees anything, and a faster link never costs anything", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        (seed, mbps, better) => {
          const input = mesh(seed);
          const before = leastMultiple(loadOf(input));
          const more = { ...input, devices: [...input.devices, device("more", input.siteIds.at(-1)!, mbps, mbps)] };
          expect(leastMultiple(loadOf(more))).toBeLessThanOrEqual(before + 1e-9);
          // Faster where the tree stays as it is: all of them alike.
          const faster = input.links.map((l) =>
            l.carries === null
              ? l
              : {
                  ...l,
                  carries: {
                    ...l.carries,
                    toFar: { ...l.carries.toFar, airMbps: l.carries.toFar.airMbps * better, phyMbps: l.carries.toFar.phyMbps * better },
                    toNear: { ...l.carries.toNear, airMbps: l.carries.toNear.airMbps * better, phyMbps: l.carries.toNear.phyMbps * better },
                  },
                },
          );
          const uplinks = new Map([...loadOf(input).tree.up].map(([id, u]) => [id, u.linkId]));
          expect(leastMultiple(loadOf({ ...input, links: faster, uplinks }))).toBeGreaterThanOrEqual(before - 1e-9);
        },
      ),
      { seed: 11 },
    );
  });

  it("names mean nothing, nor which end of a link is called near", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const input = mesh(seed);
      const renamed = (id: string): string => `x${id}`;
      const turned: LoadInput = {
        ...input,
        siteIds: input.siteIds.map(renamed),
        links: input.links.map((l) => ({
          ...l,
          nearSiteId: renamed(l.farSiteId),
          farSiteId: renamed(l.nearSiteId),
          carries: l.carries === null ? null : { ...l.carries, toFar: l.carries.toNear, toNear: l.carries.toFar },
          sector: l.sector === null ? null : { ...l.sector, siteId: renamed(l.sector.siteId) },
        })),
        feeds: input.feeds.map((f) => ({ ...f, siteId: renamed(f.siteId) })),
        devices: input.devices.map((d) => ({
          ...d,
          siteId: renamed(d.siteId),
          talksTo: d.talksTo.kind === "site" ? { kind: "site", siteId: renamed(d.talksTo.siteId) } : d.talksTo,
        })),
        recorder: input.recorder.at === "site" ? { at: "site", siteId: renamed(input.recorder.siteId) } : input.recorder,
        ports: new Map([...input.ports].map(([id, p]) => [renamed(id), p])),
      };
      const [a, b] = [leastMultiple(loadOf(input)), leastMultiple(loadOf(turned))];
      if (Number.isFinite(a)) expect(b / a, `seed ${seed}`).toBeCloseTo(1, 9);
      else expect(b).toBe(a);
    }
  });
});

describe("ends without devices, and ends without a path", () => {
  it("an end at which nobody named a device stands for what its link is asked to carry, seen from either end", () => {
    const needs = new Map<string, readonly [number, number]>([
      ["l2", [7, 9]],
      ["l3", [7, 9]],
    ]);
    const load = loadOf(scene({ devices: [], needs }));
    expect(load.flows.map((f) => [f.device.siteId, f.device.worst.there, f.device.worst.back])).toEqual([
      ["berth", 7, 9],
      // Its link is drawn from the store: to far is towards the tower.
      ["store", 9, 7],
    ]);
  });

  it("what no link that holds leads to is named and not counted", () => {
    const load = loadOf(
      scene({ links: [link("l1", "office", "tower", 300), link("l2", "tower", "berth", null)], needs: new Map([["l2", [5, 5]]]) }),
    );
    expect(load.uncounted.map((d) => d.siteId)).toEqual(["berth", "store"]);
    expect(load.flows).toEqual([]);
  });

  it("a second feed takes over what is nearer to it, and its own rates hold there", () => {
    const feeds = [...scene().feeds, { siteId: "tower", name: "line", downMbps: 50, upMbps: 10 }];
    const load = loadOf(scene({ feeds }));
    expect(fillOf(load, "worst", at(load, "air:l2"))).toBeCloseTo(0.3, 9);
    expect(fillOf(load, "worst", at(load, "feed:office"))).toBe(0);
    expect(takenOf(load, "worst", at(load, "feed:tower"), BACK)).toBeCloseTo(35 / (10 * PAYLOAD_SHARE), 9);
  });
});

describe("growth", () => {
  it("fills a place in the year in which what is asked meets what fits: ln(1 / fill) / ln(1 + g)", () => {
    const load = loadOf(scene({ growth: { cameras: 0, users: 0.1, rest: 0 } }));
    expect(yearsUntilFull(load, "worst", at(load, "air:l2"))).toBeCloseTo(Math.log(1 / 0.3) / Math.log(1.1), 2);
    expect(yearsUntilFull(loadOf(scene()), "worst", at(load, "air:l2"))).toBeNull();
    expect(judgePlace(load, "worst", at(load, "air:l2"), 13).verdict).toBe("tight");
    expect(judgePlace(load, "worst", at(load, "air:l2"), 12).verdict).toBe("clear");
  });
});

describe("what a test would show", () => {
  it("proves a link only where its own air is what holds the reading", () => {
    const load = loadOf(scene());
    const [internet, across, radios] = readingsAt(load, "berth");
    expect(internet!.mbps[0]).toBeCloseTo(100, 6);
    expect(internet!.proves).toEqual([true, true]);
    expect(across!.proves).toEqual([true, true]);
    expect(radios!.mbps).toEqual([100, 100]);
    const byFeed = readingsAt(loadOf(scene({ feeds: [{ siteId: "office", name: "", downMbps: 80, upMbps: 110 }] })), "berth");
    expect(byFeed[0]!.mbps[0]).toBeCloseTo(80 * PAYLOAD_SHARE, 6);
    // The way back the feed lies within 15 % above the air: it is a floor and no proof.
    expect(byFeed[0]!.proves).toEqual([false, false]);
    expect(byFeed[1]!.proves).toEqual([true, true]);
    const slow = readingsAt(load, "berth", 100);
    expect(slow[1]!.heldBy).toEqual([null, null]);
    expect(slow[1]!.proves).toEqual([false, false]);
    expect(slow[2]!.proves).toEqual([true, true]);
    expect(readingsAt(load, "office")).toHaveLength(1);
  });
});

describe("where the recorder stands", () => {
  it("at each far end a quarter of the streams crosses, at the tower they cross once", () => {
    const cameras = ["berth", "store"].map((s) => device(s, s, 0, 20, { class: "cameras", talksTo: { kind: "recorder" }, portMbps: 100 }));
    const input = scene({ devices: cameras });
    const answers = recorderAnswers(input, [{ at: "site", siteId: "office" }, { at: "site", siteId: "tower" }, { at: "each" }], "air:l1");
    expect(answers.map((a) => a.atPlaceMbps)).toEqual([40, 0, 10]);
    expect(answers.map((a) => a.keepsWhenDown)).toEqual([false, false, true]);
    expect(answers[1]!.fullest).toEqual({ placeId: "air:l2", fill: 0.2 });
  });

  it("a store of 1 TB lasts 222 hours at 10 Mbps: 8e12 bits", () => {
    expect(hoursKept(1000, 10)).toBeCloseTo(8e12 / 1e7 / 3600, 6);
    expect(hoursKept(1000, 0)).toBeNull();
  });
});
