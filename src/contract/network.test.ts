import { describe, expect, test } from "vitest";
import { briefSchema } from "./brief";
import { hubFaults, hubMountsSchema, hubSchema } from "./hub";
import { feedSiteOf, loadDevice, recorderOf } from "./load";
import { networkSchema } from "./network";

const ID = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const faultOf = (fields: object): string => {
  const parsed = networkSchema.safeParse(fields);
  return parsed.success ? "" : `${parsed.error.issues[0]!.path.join(".")}: ${parsed.error.issues[0]!.message}`;
};

describe("the network of a job, as it is written down", () => {
  test("what nobody said has a start value; what was written by an older program gains what came since", () => {
    const start = networkSchema.parse({});
    expect(start).toMatchObject({ recorder: "brief", recorderPortMbps: 1000, growth: { cameras: 0.1 }, bounds: { voiceMs: 150 } });
    expect(networkSchema.parse({ growth: { cameras: 0.3 } }).growth).toEqual({ cameras: 0.3, users: 0.1, rest: 0.1 });
  });

  test.each([
    [{ ports: { [ID(1)]: { switchMbps: -3 } } }, `ports.${ID(1)}.switchMbps: the switch must be above 0 Mbps`],
    [{ ports: { somewhere: { switchMbps: 100 } } }, "ports.somewhere: Invalid key in record"],
    [{ growth: { cameras: 4 } }, "growth.cameras: growth must be 200 % a year or less"],
    [{ storeTb: 0 }, "storeTb: the store must be above 0 TB"],
    [{ bounds: { voiceMs: Number.NaN } }, "bounds.voiceMs: the delay of voice must be a number"],
    [{ recorderPortMbps: 1e7 }, "recorderPortMbps: the recorder's port must be 400 000 Mbps or less"],
  ])("%j is refused by its field", (fields, words) => {
    expect(faultOf(fields)).toContain(words);
  });

  test("a site that is nobody's, a recorder at no place and a talk with nobody are refused", () => {
    for (const fields of [{ recorder: "loft" }, { talks: { d1: "loft" } }, { uplinks: { [ID(1)]: "x" } }, { feedSiteId: "office" }])
      expect(networkSchema.safeParse(fields).success, JSON.stringify(fields)).toBe(false);
  });
});

describe("records as the load takes them", () => {
  const links = [
    [1, 2],
    [2, 3],
    [2, 4],
  ].map(([a, b], i) => ({ id: ID(20 + i), nearSiteId: ID(a!), farSiteId: ID(b!), design: {} as never }));
  const sites = [1, 2, 3, 4].map((n) => ({ id: ID(n) }));

  test("the feed is where most links end; of two as many, the first of the job; a job without a site has none", () => {
    expect(feedSiteOf({ sites, links }, { feedSiteId: null })).toBe(ID(2));
    expect(feedSiteOf({ sites, links: links.slice(0, 1) }, { feedSiteId: null })).toBe(ID(1));
    expect(feedSiteOf({ sites: [], links: [] }, { feedSiteId: ID(9) })).toBeNull();
  });

  test("the recorder stands as the brief says until the network says otherwise", () => {
    expect(recorderOf({ recorder: "near" }, { recorder: "brief" }, ID(2))).toEqual({ at: "site", siteId: ID(2) });
    expect(recorderOf({ recorder: "far" }, { recorder: "brief" }, ID(2))).toEqual({ at: "each" });
    expect(recorderOf({ recorder: "far" }, { recorder: ID(4) }, ID(2))).toEqual({ at: "site", siteId: ID(4) });
    expect(recorderOf({ recorder: "near" }, { recorder: "each" }, ID(2))).toEqual({ at: "each" });
  });

  test("a camera by pixels, frames and scene, half as much again at the worst; a rate read off it replaces the estimate", () => {
    const [camera, read] = briefSchema.parse({
      devices: [
        { id: "a", siteId: ID(3), kind: "camera", count: 3, widthPx: 1920, heightPx: 1080, framesPerS: 25 },
        { id: "b", siteId: ID(3), kind: "camera", count: 2, upMbps: 6 },
      ],
    }).devices;
    const one = loadDevice(camera!, {}, ID(2));
    expect(one).toMatchObject({ class: "cameras", count: 3, portMbps: 100, talksTo: { kind: "recorder" } });
    expect(one.usual.back).toBeCloseTo((1920 * 1080 * 25 * 0.1) / 1e6, 9);
    expect(one.worst.back / one.usual.back).toBeCloseTo(1.5, 9);
    expect(loadDevice(read!, { b: "feed" }, ID(2))).toMatchObject({ usual: { back: 6 }, worst: { back: 6 }, talksTo: { kind: "feed" } });
  });
});

describe("a hub, as it is written down", () => {
  const sector = { id: "s1", radioId: "r", azimuthDeg: 20, tiltDeg: -2, centreMhz: 5600, widthMhz: 20, powerDbm: 10 };
  test("a hub of an older program keeps no bearing and moves nobody", () => {
    const hub = hubSchema.parse({ mountAglM: 8 });
    expect(hub.later).toEqual([]);
    expect(hub.moving).toEqual({ from: "", gear: "", windowMin: 30, clients: [] });
  });
  test("a remote on no sector, twice, and two sectors of one name are named", () => {
    const of = (fields: object) =>
      hubFaults(hubSchema.parse({ mountAglM: 8, sectors: [sector], ...fields })).map((f) => `${f.path}: ${f.message}`);
    expect(of({ remotes: [{ linkId: ID(1), sectorId: "s9" }] })).toEqual(["remotes.0.sectorId: names a sector that the hub lacks"]);
    expect(of({ remotes: [1, 1].map((n) => ({ linkId: ID(n), sectorId: "s1" })) })).toEqual(["remotes.1.linkId: hangs on the hub already"]);
    expect(of({ sectors: [sector, sector] })).toEqual(["sectors: two sectors have one name"]);
  });
  test("other mounts are asked for between two heights the right way round, along something that there is", () => {
    expect(hubMountsSchema.safeParse({ along: "points", lowestM: 2, highestM: 2 }).success).toBe(true);
    for (const q of [
      { along: "moon", lowestM: 2, highestM: 3 },
      { along: "roof", lowestM: -1, highestM: 3 },
      { along: { featureId: "x" }, lowestM: 1, highestM: 2 },
    ])
      expect(hubMountsSchema.safeParse(q).success).toBe(false);
  });
});
