/* What the load makes of the demo's network; mirrored and renamed it comes out the same. */
import { beforeAll, describe, expect, test } from "vitest";
import { type JobForLoad, loadInputOf, networkSchema } from "../src/contract";
import { evaluatePrepared, preparePath } from "../src/core/link";
import { carriedOf, fillOf, type Load, loadOf, moreDevices, narrowestOf, placesAlong } from "../src/core/load";
import { demoBrief } from "./brief";
import { type DemoOptions, generateDemo } from "./generate";
import { gridsOf, plannedPath } from "./plans";

const idOf = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;

const loadOfDemo = (options?: DemoOptions, moreFields: object = {}): { load: Load; at: (key: string) => string } => {
  const demo = generateDemo(options);
  const grids = gridsOf(demo);
  const site = (key: string): string => idOf(demo.sites.findIndex((s) => s.key === key));
  const carried = demo.links.map((l) => {
    const { planned, profile } = plannedPath(demo, grids, l);
    return { planned, carries: carriedOf(planned, evaluatePrepared(planned, preparePath(planned, profile)).service) };
  });
  const job: JobForLoad = {
    job: { throughputSchool: "headroom", freeShare: 0.3 },
    sites: demo.sites.map((_, i) => ({ id: idOf(i) })),
    links: demo.links.map((l, i) => ({
      id: idOf(100 + i),
      nearSiteId: site(l.near),
      farSiteId: site(l.far),
      design: {
        nearRadioId: l.radio[0],
        farRadioId: l.radio[1],
        nearAntennaId: null,
        farAntennaId: null,
        nearAimAzimuthDeg: l.nearAim?.azimuthDeg ?? null,
        farAimAzimuthDeg: null,
        nearAimTiltDeg: l.nearAim?.tiltDeg ?? null,
        farAimTiltDeg: null,
        centreMhz: l.centreMhz,
        widthMhz: l.widthMhz,
        needToFarMbps: l.needMbps[0],
        needToNearMbps: l.needMbps[1],
      },
    })),
  };
  const network = networkSchema.parse({ ports: { [site("exchange")]: { switchMbps: 100 } }, ...moreFields });
  const verdicts = job.links.map((l, i) => ({ linkId: l.id, carries: carried[i]!.carries, inAir: null }));
  return { load: loadOf(loadInputOf(job, demoBrief(site), network, [], verdicts)!), at: site };
};

const narrowestTo = (load: Load, siteId: string): string => load.places[narrowestOf(load, "worst", placesAlong(load, siteId))!]!.id;

describe("the demo's network", () => {
  let demo: ReturnType<typeof loadOfDemo>;
  beforeAll(() => {
    demo = loadOfDemo();
  }, 120_000);

  test("one chain is narrowest at the feed, one at a port of 100, one in its air, one in a shared sector", () => {
    const { load, at } = demo;
    expect(narrowestTo(load, at("ice"))).toBe(`feed:${at("office")}`);
    expect(narrowestTo(load, at("exchange"))).toMatch(new RegExp(`^port:.*:${at("exchange")}$`));
    expect(narrowestTo(load, at("pilot"))).toMatch(/^air:/);
    for (const key of ["fuel", "ferry", "weigh", "net"])
      expect(load.places[narrowestOf(load, "worst", placesAlong(load, at(key)))!]!.sectorId, key).not.toBeNull();
  });

  test("one slow remote eats the pool: without what it asks the sector has room", () => {
    const { load, at } = demo;
    const sector = load.places.findIndex((p) => p.sectorId !== null && p.linkIds.length === 4);
    expect(fillOf(load, "worst", sector)).toBeGreaterThan(load.places[sector]!.mayUse);
    const others = loadOf({ ...load.input, devices: load.input.devices.filter((d) => d.siteId !== at("net")), needs: new Map() });
    expect(
      fillOf(
        others,
        "worst",
        others.places.findIndex((p) => p.id === load.places[sector]!.id),
      ),
    ).toBeLessThan(0.7);
  });

  test("the ice house's cameras and the 500/500 feed leave room for many more of them, and the feed's other users for fewer", () => {
    const { load, at } = demo;
    const ways = load.hopsTo(at("ice"), { kind: "recorder" })!;
    // 2560 x 1440 at 15 frames: 5.53 Mbps, half as much again at the worst.
    const more = moreDevices(load, "worst", ways, { there: 0.05, back: 8.29 });
    expect(more.count).toBeGreaterThan(50);
    expect(load.places[more.place!]!.kind).not.toBe("feed");
    const users = moreDevices(load, "worst", load.hopsTo(at("ice"), { kind: "feed" })!, { there: 10, back: 2 });
    expect(load.places[users.place!]!.id).toBe(`feed:${at("office")}`);
  });

  test("the far observatory and the hulk without a link are named, not counted", () => {
    const { load, at } = demo;
    expect(new Set(load.uncounted.map((d) => d.siteId))).toEqual(new Set([at("tarrow"), at("hulk")]));
  });

  test("mirrored it is the same network", () => {
    const mirrored = loadOfDemo({ mirror: true });
    for (const key of ["ice", "exchange", "pilot", "ferry"])
      expect(narrowestTo(mirrored.load, mirrored.at(key)).split(":")[0], key).toBe(narrowestTo(demo.load, demo.at(key)).split(":")[0]);
  }, 120_000);
});
