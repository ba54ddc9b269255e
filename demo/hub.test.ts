/* What the hub makes of the demo's water tower; mirrored and renamed it comes out the same. */
import { beforeAll, describe, expect, test } from "vitest";
import { patternOf } from "../src/core/antenna";
import { type HubRemote, judgeSector, openShapes, type TriedRemote } from "../src/core/hub";
import { pathStateOf, preparePath } from "../src/core/link";
import { unitsOf } from "../src/core/rack";
import { type DemoOptions, generateDemo } from "./generate";
import { gridsOf, plannedPath } from "./plans";
import { demoHardware } from "./seed";

const hardware = demoHardware();
const units = unitsOf(hardware.radios, hardware.antennas);
const AIR = { school: "headroom", freeShare: 0.3, grant: true, hearEachOther: null } as const;

const towerOf = (options?: DemoOptions) => {
  const demo = generateDemo(options);
  const grids = gridsOf(demo);
  const links = demo.links.filter((l) => l.near === "tower");
  const aims = links.map((l) => l.nearAim!);
  const tried = links.map((l): TriedRemote => {
    const { planned, profile } = plannedPath(demo, grids, l);
    return { linkId: l.far, name: l.far, plan: planned, profile, hubIsNear: true };
  });
  const south = tried.filter((_, i) => aims[i]!.azimuthDeg === aims[0]!.azimuthDeg);
  const unit = units.find((u) => u.key === links[0]!.radio[0])!;
  const pattern = patternOf(unit.radio.antenna as Parameters<typeof patternOf>[0], links[0]!.centreMhz / 1000);
  const judged = (tiltDeg: number) => {
    const aim = { azimuthDeg: aims[0]!.azimuthDeg, tiltDeg };
    const remotes = south.map((r): HubRemote => {
      const plan = { ...r.plan, near: { ...r.plan.near, aim } };
      return { ...r, plan, state: pathStateOf(plan, preparePath(plan, r.profile), false) };
    });
    return judgeSector(remotes, pattern, aim, AIR, null);
  };
  const sectors = [...new Set(aims.map((a) => a.azimuthDeg))].map((azimuthDeg) => ({
    unit,
    azimuthDeg,
    tiltDeg: aims[0]!.tiltDeg,
    linkIds: tried.filter((_, i) => aims[i]!.azimuthDeg === azimuthDeg).map((r) => r.linkId),
  }));
  return { tried, judged, shapes: openShapes({ remotes: tried, sectors, units, policy: AIR }), tiltDeg: aims[0]!.tiltDeg };
};

describe("the demo's water tower", () => {
  let tower: ReturnType<typeof towerOf>;
  beforeAll(() => {
    tower = towerOf();
  }, 120_000);
  const remote = (of: ReturnType<ReturnType<typeof towerOf>["judged"]>, id: string) => of.remotes.find((r) => r.linkId === id)!;

  test("the Weighbridge lies under the beam by as many degrees as geometry says; the tilt that takes it in costs the others", () => {
    const now = tower.judged(tower.tiltDeg);
    const weigh = remote(now, "weigh");
    // From 54 m down to 8 m at 200 m: 13 degrees; the beam ends 3.45 under its tilt of 3.
    const downDeg = (Math.atan2(54 - 8, 200) * 180) / Math.PI;
    expect(weigh.place.where).toBe("under");
    expect(weigh.place.byDeg).toBeCloseTo(downDeg - 3 - 3.45, 0);
    expect(weigh.service).not.toBe("clear");
    const tilted = tower.judged(-10);
    expect(remote(tilted, "weigh").place.where).toBe("in");
    for (const id of ["fuel", "ferry"]) expect(remote(tilted, id).place.lossDb, id).toBeLessThan(remote(now, id).place.lossDb - 3);
  });

  test("the remote hidden by a roof is left over by every set of sectors, and the slow one eats the pool", () => {
    const fewest = tower.shapes.each.fewest()!;
    expect(fewest.leftOver).toEqual(["net"]);
    expect(tower.shapes.each.narrow()!.leftOver).toEqual(["net"]);
    const { air } = tower.judged(tower.tiltDeg);
    const share = (id: string): number => air.remotes.filter((r) => r.linkId === id).reduce((n, r) => n + r.there + r.back, 0);
    expect(share("net")).toBeGreaterThan(air.asked / 2);
    expect(air.asked).toBeGreaterThan(air.mayUse);
  });

  test("a pair for each is clear where sectors are not; one omni reaches less far than the sector it would replace", () => {
    expect(tower.shapes.each.pairs()).toMatchObject({ verdict: "clear", served: 5, units: 5 });
    expect(tower.shapes.each.planned().verdict).toBe("short");
    expect(tower.shapes.each.omni()!.reachM!).toBeLessThan(tower.shapes.each.planned().reachM!);
    expect(tower.shapes.each.faces()!.served).toBe(0);
  });

  test("mirrored and renamed it is the same tower", () => {
    const other = towerOf({ mirror: true, rename: (name) => [...name].reverse().join("") });
    for (const kind of ["planned", "pairs", "omni"] as const) {
      const [a, b] = [tower.shapes.each[kind]()!, other.shapes.each[kind]()!];
      expect([b.served, b.units, b.priceEur, b.verdict], kind).toEqual([a.served, a.units, a.priceEur, a.verdict]);
    }
    expect(other.shapes.each.fewest()!.leftOver).toEqual(["net"]);
  }, 120_000);
});
