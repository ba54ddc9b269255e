import { describe, expect, test } from "vitest";
import type { AirBuilt, HubDto, JobBundle } from "@/contract";
import { type AirJob, type Channel, judgeAir } from "@/core/air";
import { rowsInForce } from "@/core/radio";
import { airJob, type MadeLink, randomLinks, wideRadio } from "@/core/testing/air-scene";
import { airCsv } from "./air-csv";
import { bandScale, stretchesOf } from "./air-scale";
import { airView, mastRows, proposedLanes, sheetVerdict } from "./air-view";
import { airReason, airText, channelText, provenText, scoreText, troubleText } from "./air-words";
import { changedUnits, takeBody } from "./take-channels";

const CO = { centreMhz: 5510, widthMhz: 40 };
const at = (site: string, eastM: number, northM: number) => ({ site, eastM, northM, amslM: 20 });
const scheduled = wideRadio({ duplex: "TDD, scheduled" });
const links = (channels: readonly Channel[]): MadeLink[] =>
  channels.map((channel, i) => ({
    id: `m${i}`,
    near: at("mast", 0, 0),
    far: at(`f${i}`, 900 * Math.sin(i * 2.1), 900 * Math.cos(i * 2.1)),
    channel,
    radio: scheduled,
    powerDbm: 18,
    needMbps: [70, 70] as const,
  }));
const builtOf = (job: AirJob): AirBuilt => ({ job, left: [], aside: [], endOf: new Map(), ways: [] });
const NAMES = new Map([
  ["mast", "mast"],
  ["f0", "f0"],
  ["f1", "f1"],
  ["f2", "f2"],
]);
const NONE = new Map<string, Channel>();
const viewOf = (channels: readonly Channel[], moved: ReadonlyMap<string, Channel> = NONE) => {
  const built = builtOf(airJob(links(channels), { isolationDb: 60 }));
  return { built, view: airView(built, judgeAir(built.job, moved), moved) };
};

describe("the axis of a band", () => {
  test("what no rule permits is closed up; every frequency has its place and is found there again", () => {
    const stretches = stretchesOf(rowsInForce("FCC-like"), "5", []);
    expect(stretches[0]![0]).toBe(5150);
    expect(stretches.length).toBe(2);
    const scale = bandScale(stretches, 100, 900);
    expect(scale.x(5150)).toBe(100);
    expect(scale.x(stretches.at(-1)![1])).toBeCloseTo(900, 6);
    for (const mhz of [5150, 5210, 5349, 5471, 5600, 5800]) expect(scale.mhzAt(scale.x(mhz))).toBeCloseTo(mhz, 6);
    // 120 MHz without a rule take no more than the gap.
    expect(scale.x(5470) - scale.x(5350)).toBeCloseTo(22, 6);
    const ticks = scale.ticks.map((t) => scale.x(t));
    for (let i = 1; i < ticks.length; i++) expect(ticks[i]! - ticks[i - 1]!).toBeGreaterThan(30);
  });

  test("what is set outside all rules widens the axis, and a band without anything is no axis", () => {
    expect(stretchesOf(rowsInForce("FCC-like"), "5", [[5380, 5400]]).flat()).toContain(5150);
    expect(stretchesOf([], "60", [])).toEqual([]);
    expect(() => bandScale([], 0, 100)).not.toThrow();
  });
});

describe("the air as it is drawn", () => {
  test("three on one channel of one mast: in lanes of their own, each with whom it meets, the worst receiver named", () => {
    const { built, view } = viewOf([CO, CO, CO]);
    const rows = mastRows(built, view, "5", NAMES);
    expect(rows).toHaveLength(1);
    expect(rows[0]).toMatchObject({ siteId: "mast", lanes: 3, verdict: "short" });
    expect(rows[0]!.blocks.map((b) => b.lane).sort()).toEqual([0, 1, 2]);
    expect(rows[0]!.blocks.every((b) => b.meets.length === 2)).toBe(true);
    expect(view.worst!.siteId).toBe("mast");
    expect(view.worst!.air.riseDb).toBe(Math.max(...view.receivers.map((r) => r.air.riseDb)));
    expect(airReason(built, view, view.worst)).toBe("3 of 3 cannot carry what is asked: radios on one mast blind each other");
    expect(view.bands).toMatchObject([{ band: "5", verdict: "short" }]);
  });

  test("moved apart they share a lane and meet nobody; a proposal is laid the same way", () => {
    const apart = new Map([
      ["m1", { centreMhz: 5550, widthMhz: 40 }],
      ["m2", { centreMhz: 5755, widthMhz: 40 }],
    ]);
    const { built, view } = viewOf([CO, CO, CO], apart);
    const [row] = mastRows(built, view, "5", NAMES);
    expect(row!.lanes).toBe(1);
    expect(row!.blocks.every((b) => b.meets.length === 0)).toBe(true);
    expect(proposedLanes(row!, apart).blocks).toHaveLength(2);
    expect(proposedLanes(row!, null)).toEqual({ blocks: [], lanes: 0 });
  });

  test("a link whose ends hang on no mast with others stands in a row of its own", () => {
    const made = randomLinks(2, 1, [CO]);
    const built = builtOf(airJob(made));
    const view = airView(built, judgeAir(built.job), NONE);
    expect(mastRows(built, view, "5", NAMES)).toMatchObject([{ siteId: null, name: "Own links" }]);
    expect(mastRows(built, view, "60", NAMES)).toEqual([]);
  });

  test("without a scan nothing is better than tight; without a link it is unknown", () => {
    const built = builtOf(airJob(randomLinks(2, 1, [CO]).map((l) => ({ ...l, needMbps: [1, 1] as const }))));
    const view = airView(built, judgeAir(built.job), NONE);
    const scan = { counts: true, rows: [{}] };
    expect(sheetVerdict(view, { scans: [] })).toBe("tight");
    expect(sheetVerdict(view, { scans: [scan] as never })).toBe("clear");
    expect(sheetVerdict(view, { scans: [{ ...scan, counts: false }] as never })).toBe("tight");
    const empty = builtOf(airJob([]));
    expect(sheetVerdict(airView(empty, judgeAir(empty.job), NONE), { scans: [] })).toBe("unknown");
  });
});

describe("words", () => {
  test("a trouble names who and by how much, and what is cut off says so", () => {
    const { built, view } = viewOf([CO, CO, CO]);
    const [row] = view.units;
    expect(troubleText(built, "mast to f0", row!.links[0]!)).toMatch(
      /^mast to f0: on one mast with it mast to f\d leaves its receiver nothing while it sends, noise up by \*\d+ dB\*\.$/,
    );
    expect(airText({ blinded: false, multiple: 1.25 })).toBe("80 %");
    expect(airText({ blinded: false, multiple: 0 })).toBe("cut off");
    expect(channelText({ centreMhz: 5502.5, widthMhz: 5 })).toBe("5502.5, 5");
  });

  test("how good a proposal is, and how sure", () => {
    const s = { short: 0, lackTenths: 0, meets: 0, spareQuarters: 5, radar: 2, changes: 3 };
    expect(scoreText(s)).toBe("none short by the air, 2 under radar duty, 3 changed");
    expect(scoreText({ ...s, short: 2, lackTenths: 45 })).toBe("2 short, 4.5 Mbps lacking, 2 under radar duty, 3 changed");
    expect(provenText(true, s, s, 6)).toBe("Nothing better is to be had: proven.");
    expect(provenText(false, { ...s, short: 2 }, s, 6)).toBe("Best of 6 starts, not proven: at most 2 fewer short.");
    expect(provenText(false, s, { ...s, spareQuarters: 7 }, 6)).toContain("0.50 times the need more spare");
    expect(provenText(false, { ...s, meets: 4 }, s, 6)).toContain("2 fewer overlaps on a mast");
    expect(provenText(false, s, { ...s, radar: 0 }, 6)).toContain("2 fewer under radar duty");
    expect(provenText(false, s, { ...s, changes: 0 }, 6)).toContain("fewer changes");
  });

  test("as a table, with what is proposed beside today's", () => {
    const { view } = viewOf([CO, CO, CO]);
    const after = viewOf([CO, CO, CO], new Map([["m1", { centreMhz: 5755, widthMhz: 40 }]])).view;
    const csv = airCsv(view.units, new Map(after.units.map((u) => [u.unit.id, u])));
    const [head, ...rows] = csv.split(/\r?\n/).filter((l) => l !== "");
    expect(head).toContain("centre_mhz");
    expect(rows).toHaveLength(3);
    expect(rows.some((r) => r.includes("5510") && r.includes("5755"))).toBe(true);
  });
});

describe("channels that are taken", () => {
  const design = (i: number) => ({ id: `d${i}`, version: 3, nearPowerDbm: 18, farPowerDbm: 18 });
  const job = (aim: number | null): JobBundle =>
    ({
      job: {},
      sites: [],
      links: [0, 1].map((i) => ({
        id: `m${i}`,
        nearSiteId: "mast",
        farSiteId: `f${i}`,
        design: {
          ...design(i),
          nearRadioId: "r",
          nearAntennaId: null,
          nearAimAzimuthDeg: aim,
          nearAimTiltDeg: 0,
          farAimAzimuthDeg: null,
          ...CO,
        },
      })),
    }) as unknown as JobBundle;

  test("of links by themselves their designs, each as it stands, with less power where the rules ask for it", () => {
    const { built } = viewOf([CO, CO]);
    const to = new Map([["m0", { centreMhz: 5755, widthMhz: 40 }]]);
    expect(changedUnits(built.job.units, to).map((u) => u.id)).toEqual(["m0"]);
    const body = takeBody(job(null), [], built.job.units, to);
    expect(body.hubs).toEqual([]);
    expect(body.designs).toEqual([{ id: "d0", version: 3, fields: { centreMhz: 5755, widthMhz: 40 } }]);
    // Under 30 dBm EIRP only 11 of its 18 dBm may be sent.
    const radar = takeBody(job(null), [], built.job.units, new Map([["m1", { centreMhz: 5590, widthMhz: 40 }]]));
    expect(radar.designs[0]!.fields).toMatchObject({ centreMhz: 5590, nearPowerDbm: 11, farPowerDbm: 11 });
    expect(changedUnits(built.job.units, new Map([["m0", CO]]))).toEqual([]);
  });

  test("of a sector its hub, once, and not the designs that follow it", () => {
    const made = airJob(links([CO, CO]), { isolationDb: 60 });
    const hub = {
      id: "h",
      version: 7,
      siteId: "mast",
      sectors: [
        { id: "a", centreMhz: 5510, widthMhz: 40, powerDbm: 18 },
        { id: "b", centreMhz: 5190, widthMhz: 40, powerDbm: 9 },
      ],
      remotes: [
        { linkId: "m0", sectorId: "a" },
        { linkId: "m1", sectorId: "a" },
      ],
    } as unknown as HubDto;
    const unit = { ...made.units[0]!, id: "h/a", links: made.units.flatMap((u) => u.links) };
    const body = takeBody(job(40), [hub], [unit], new Map([["h/a", { centreMhz: 5755, widthMhz: 20 }]]));
    expect(body.designs).toEqual([]);
    expect(body.hubs).toHaveLength(1);
    expect(body.hubs[0]).toMatchObject({ id: "h", version: 7 });
    expect((body.hubs[0]!.fields as { sectors: object[] }).sectors).toMatchObject([
      { id: "a", centreMhz: 5755, widthMhz: 20 },
      { id: "b", centreMhz: 5190, widthMhz: 40, powerDbm: 9 },
    ]);
  });
});
