import { describe, expect, test } from "vitest";
import type { HardwareDto, HubFields, JobBundle, LinkDto, ProfileDto } from "@/contract";
import { designFieldsSchema, designUnder, hubFaults, hubSchema, jobFieldsSchema, profileFromDto } from "@/contract";
import { onAxisOf, openShapes } from "@/core/hub";
import { unitsOf } from "@/core/rack";
import { radio } from "@/core/testing/scene";
import { openHubJudge, turnedBest } from "./hub-judge";
import { astrayOf, besideOf } from "./hub-links";
import { fieldsOfShape, sameChannel } from "./hub-shapes";
import { hubOf, sectorName, sitesWithLinks } from "./hub-start";
import { airSentence, hubReason, remoteSentence } from "./hub-words";
import { movingView } from "./moving-plan";
import { betterSectors } from "./other-sector";
import { unitKeyOf } from "./use-hub-search";
import { withSections } from "./use-open-hub";

const MAST = "00000000-0000-4000-8000-00000000000a";
const SHEDS = ["1", "2", "3"].map((n) => `00000000-0000-4000-8000-00000000000${n}`);
const RADIOS = [
  radio({
    id: "hub",
    roles: ["hub"],
    duplex: "TDD, scheduled",
    antenna: { kind: "integrated", form: "sector", gainDbi: 16, azimuthBeamwidthDeg: 90, elevationBeamwidthDeg: 7 },
  }),
  radio({ id: "leaf", roles: ["remote"], duplex: "TDD, scheduled" }),
  radio({ id: "pair" }),
].map((r) => ({ ...r, bandKey: "5", source: "own" }));
const HARDWARE: HardwareDto = { radios: RADIOS, antennas: [] };

const design = (fields: object): LinkDto["design"] =>
  ({
    ...designFieldsSchema.parse({
      nearMountAglM: 20,
      farMountAglM: 8,
      nearRadioId: "hub",
      farRadioId: "leaf",
      nearPowerDbm: 10,
      farPowerDbm: 10,
      centreMhz: 5500,
      widthMhz: 40,
      needToFarMbps: 5,
      needToNearMbps: 20,
      ...fields,
    }),
    id: "d",
    version: 1,
  }) as unknown as LinkDto["design"];
const link = (i: number, fields: object = {}, from = MAST, to = SHEDS[i]!): LinkDto =>
  ({
    id: `link-${i}`,
    nearSiteId: from,
    farSiteId: to,
    label: "",
    groundTold: null,
    version: 1,
    number: i + 1,
    design: design(fields),
  }) as unknown as LinkDto;
const SW = { nearAimAzimuthDeg: 205, nearAimTiltDeg: -3 };

describe("a hub out of links", () => {
  test("those whose end there is set alike hang on one sector, each other on its own; pairs beside them are left out", () => {
    const links = [link(0, SW), link(1, SW), link(2, { nearAimAzimuthDeg: 130, nearAimTiltDeg: -3 })];
    const aside = { ...link(0), id: "aside", design: design({ nearRadioId: "pair", farRadioId: "pair" }) };
    const hub = hubOf(MAST, [...links, aside], RADIOS);
    expect(hub.sectors.map((s) => [s.azimuthDeg, s.tiltDeg])).toEqual([
      [205, -3],
      [130, -3],
    ]);
    expect(hub.remotes.map((r) => [r.linkId, r.sectorId])).toEqual([
      ["link-0", "s1"],
      ["link-1", "s1"],
      ["link-2", "s2"],
    ]);
    expect(hub.mountAglM).toBe(20);
  });

  test("made from designs it changes none of them, whichever end the hub is", () => {
    const turned = link(
      1,
      {
        nearRadioId: "leaf",
        farRadioId: "hub",
        farAimAzimuthDeg: 205,
        farAimTiltDeg: -3,
        nearMountAglM: 8,
        farMountAglM: 20,
        frameShareToFar: 0.33,
      },
      SHEDS[1]!,
      MAST,
    );
    const links = [link(0, { ...SW, frameShareToFar: 0.67 }), turned];
    const hub = hubOf(MAST, links, RADIOS);
    expect(hub.sectors).toHaveLength(1);
    for (const l of links) {
      const sector = hub.sectors.find((s) => s.id === hub.remotes.find((r) => r.linkId === l.id)!.sectorId)!;
      expect({ ...l.design, ...designUnder(hub, sector, l.nearSiteId === MAST) }).toEqual(l.design);
    }
  });

  test("pairs alone, aimed at each other, are a sector each that looks at its one remote", () => {
    const pairs = [0, 1].map((i) => link(i, { nearRadioId: "pair", farRadioId: "pair" }));
    const hub = hubOf(MAST, pairs, RADIOS);
    expect(hub.sectors.map((s) => s.azimuthDeg)).toEqual([null, null]);
    expect(sitesWithLinks(pairs)).toEqual([{ siteId: MAST, links: 2 }]);
    expect(sectorName(hub.sectors[1]!, hub.sectors)).toBe("aimed 2");
  });

  test("sectors are named by where they look, two of one quarter apart; a remote on no sector is a fault", () => {
    const s = [205, 130, 215].map((azimuthDeg, i) => ({ id: `s${i}`, azimuthDeg }));
    expect(s.map((x) => sectorName(x, s))).toEqual(["south-west 1", "south-east", "south-west 2"]);
    const fields = hubSchema.parse({ mountAglM: 5, remotes: [{ linkId: SHEDS[0], sectorId: "z" }] });
    expect(hubFaults(fields)[0]).toMatchObject({ path: "remotes.0.sectorId" });
  });
});

const path = (bearingDeg: number, pathM: number): ProfileDto =>
  ({
    pathM,
    latDeg: 44,
    nearBearingDeg: bearingDeg,
    farBearingDeg: (bearingDeg + 180) % 360,
    distanceM: Array.from({ length: 50 }, (_, i) => (pathM * i) / 49),
    groundAmslM: Array.from({ length: 50 }, () => 0),
    datasetIndex: Array.from({ length: 50 }, () => 0),
    side: null,
    datasets: [{ id: "d", name: "made up", kind: "dtm", cellM: 2, sigmaM: 0.2 }],
    bodies: [],
    features: [],
    thinned: false,
  }) as unknown as ProfileDto;

const jobWith = (links: readonly LinkDto[]): JobBundle =>
  ({
    job: {
      ...jobFieldsSchema.parse({
        name: "J",
        visitOn: "2026-12-03",
        centreLatDeg: 44,
        centreLonDeg: -34,
        ruleDomain: "FCC-like",
        rainRate001MmH: 28,
      }),
      id: "j",
      version: 1,
      number: 1,
    },
    sites: [MAST, ...SHEDS].map((id, i) => ({
      id,
      name: i === 0 ? "Mast" : `Shed ${i}`,
      mountMaxAglM: null,
      mountingPoints: [],
      stands: null,
    })),
    links,
  }) as unknown as JobBundle;

describe("links that hang on a hub", () => {
  const links = [link(0, SW), link(1, SW), link(2, SW)];
  const job = jobWith(links);
  const fields = { ...hubSchema.parse({ mountAglM: 20 }), ...hubOf(MAST, links, RADIOS) } as HubFields;

  test("one that was planned otherwise since is named with what would set it right; set so, nothing is left to name", () => {
    expect(astrayOf(job, MAST, fields)).toEqual([]);
    const moved = jobWith([links[0]!, { ...links[1]!, design: design({ ...SW, nearAimTiltDeg: -7, centreMhz: 5640 }) }, links[2]!]);
    const [one, ...more] = astrayOf(moved, MAST, fields);
    expect([one!.name, more]).toEqual(["Shed 2", []]);
    expect(one!.fields).toMatchObject({ nearAimTiltDeg: -3, centreMhz: 5500 });
    const set = moved.links.map((l) => (l.id === one!.link.id ? { ...l, design: { ...l.design, ...one!.fields } } : l)) as LinkDto[];
    expect(astrayOf(jobWith(set), MAST, fields)).toEqual([]);
  });

  test("one that ends there and hangs on nothing is offered; a pair beside it, and one that is gone, are not", () => {
    const off = { ...fields, remotes: fields.remotes.slice(1) };
    expect(besideOf(job, MAST, off, RADIOS).map((b) => b.name)).toEqual(["Shed 1"]);
    const pair = jobWith([{ ...links[0]!, design: design({ nearRadioId: "pair", farRadioId: "pair" }) }, ...links.slice(1)]);
    expect(besideOf(pair, MAST, off, RADIOS)).toEqual([]);
    const gone = openHubJudge().judge(jobWith(links.slice(1)), MAST, fields, HARDWARE, new Map());
    expect(gone.unjudged).toEqual(["link-1", "link-2"]);
  });
});

describe("a hub under the hand", () => {
  const links = [link(0, SW), link(1, SW), link(2, SW)];
  const job = jobWith(links);
  const profiles = new Map([
    ["link-0", path(205, 700)],
    ["link-1", path(230, 800)],
    ["link-2", path(205, 60)],
  ]);
  const fields = { ...hubSchema.parse({ mountAglM: 20 }), ...hubOf(MAST, links, RADIOS) } as HubFields;

  test("turned and tilted, only what the sector moves is worked out again: the path to each remote stays as it was", () => {
    const judge = openHubJudge();
    const before = judge.judge(job, MAST, fields, HARDWARE, profiles);
    const turned = { ...fields, sectors: fields.sectors.map((s) => ({ ...s, azimuthDeg: 220, tiltDeg: -5 })) };
    const after = judge.judge(job, MAST, turned, HARDWARE, profiles);
    after.remotes[0]!.forEach((r, i) => {
      expect(r.state).toBe(before.remotes[0]![i]!.state);
    });
    expect(after.sectors[0]!.remotes[1]!.place.off.azimuthDeg).toBeCloseTo(10, 6);
    // Another channel is another path.
    const moved = { ...fields, sectors: fields.sectors.map((s) => ({ ...s, centreMhz: 5700 })) };
    expect(judge.judge(job, MAST, moved, HARDWARE, profiles).remotes[0]![0]!.state).not.toBe(before.remotes[0]![0]!.state);
  });

  test("who lies under the beam is said with degrees and decibels; what touches all comes before what touches one", () => {
    const judged = openHubJudge().judge(job, MAST, fields, HARDWARE, profiles);
    const [sector] = judged.sectors;
    const shed = sector!.remotes.find((r) => r.linkId === "link-2")!;
    expect(shed.place.where).toBe("under");
    expect(remoteSentence(shed, "south-west")).toMatch(/^Shed 3 lies \d\.\d° under the south-west beam, which takes \d+(\.\d)?\sdB/);
    expect(remoteSentence(sector!.remotes[0]!, "south-west")).toBeNull();
    const busy = { ...sector!, airVerdict: "short" as const, air: { ...sector!.air, asked: 1.1 } };
    expect(hubReason([busy], fields.sectors, "short")).toBe(airSentence(busy, "south-west"));
    expect(airSentence(busy, "south-west")).toMatch(/^The south-west air is 40 % over what may be used: Shed \d alone takes \d+ %\.$/);
  });

  test("what only a link's own section looks at counts here too, once it is worked out; it never makes anything better", () => {
    const judged = openHubJudge().judge(job, MAST, fields, HARDWARE, profiles);
    const listed = [
      { linkId: "link-0", alone: "short" as const, fresh: true },
      { linkId: "link-1", alone: "short" as const, fresh: false },
      { linkId: "link-2", alone: "clear" as const, fresh: true },
    ];
    const [sector] = withSections(judged, listed).sectors;
    const before = judged.sectors[0]!.remotes.map((r) => r.verdict);
    expect(sector!.remotes.map((r) => r.verdict)).toEqual(["short", before[1], before[2]]);
    expect(sector!.verdict).toBe("short");
    expect(remoteSentence(sector!.remotes[0]!, "south-west")).toBe("Shed 1: its own section says Short.");
    expect(withSections(judged, []).sectors[0]!.verdict).toBe(judged.sectors[0]!.verdict);
  });

  test("the best axis and tilt leave the worst remote better off than it stands, and serve as many", () => {
    const judge = openHubJudge();
    const judged = judge.judge(job, MAST, fields, HARDWARE, profiles);
    const best = turnedBest(judged.remotes[0]!, judged.patterns[0]!, 0.7)!;
    expect(best.found.leftOver).toEqual([]);
    // Each of the three asks as much as the others: a third of what may be used of the air.
    const left = (lossOf: (i: number) => number): number =>
      Math.min(...judged.remotes[0]!.map((r, i) => onAxisOf(r, 0.7 / 3).marginDb + lossOf(i)));
    // As it stands one lies on a side lobe, which is nothing to plan with.
    const now = left((i) => {
      const { lossDb } = judged.sectors[0]!.remotes[i]!.place;
      return lossDb < -10 ? Number.NEGATIVE_INFINITY : lossDb;
    });
    expect(now).toBe(Number.NEGATIVE_INFINITY);
    const turned = { ...fields, sectors: fields.sectors.map((s) => ({ ...s, azimuthDeg: best.azimuthDeg, tiltDeg: best.tiltDeg })) };
    const then = judge.judge(job, MAST, turned, HARDWARE, profiles).sectors[0]!;
    expect(best.found.worstDb).toBeCloseTo(
      left((i) => then.remotes[i]!.place.lossDb),
      6,
    );
    expect(best.found.worstDb).toBeGreaterThan(0);
  });

  test("a shape is planned as it was worked out: the record is whole, and every remote of it lies in its beam", () => {
    const judge = openHubJudge();
    const judged = judge.judge(job, MAST, fields, HARDWARE, profiles);
    const units = unitsOf(HARDWARE.radios, HARDWARE.antennas);
    const shapes = openShapes({
      remotes: judged.remotes.flat().map((r) => ({ ...r, profile: profileFromDto(profiles.get(r.linkId)!) })),
      sectors: fields.sectors.map((x, i) => ({
        unit: units.find((u) => u.key === unitKeyOf(x))!,
        azimuthDeg: x.azimuthDeg,
        tiltDeg: x.tiltDeg,
        linkIds: judged.remotes[i]!.map((r) => r.linkId),
      })),
      units,
      policy: { school: "headroom", freeShare: 0.3, grant: true, hearEachOther: null },
    });
    const fewest = shapes.each.fewest()!;
    const planned = { ...fields, ...fieldsOfShape(fewest) };
    expect(hubFaults(planned)).toEqual([]);
    expect(planned.remotes.map((r) => r.linkId).sort()).toEqual(["link-0", "link-1", "link-2"]);
    const then = judge.judge(job, MAST, planned, HARDWARE, profiles);
    expect(then.sectors.flatMap((s) => s!.remotes.map((r) => r.service))).toEqual(["clear", "clear", "clear"]);
    // What the table says of it is what the sheet says of it once it is planned.
    expect(Math.max(...then.sectors.map((s) => s!.air.asked))).toBeCloseTo(fewest.fullest, 9);
    // Sectors that were planned on one channel are said to be.
    expect(sameChannel(planned.sectors)).toBe(planned.sectors.length > 1 ? planned.sectors.length : 0);
    expect(
      sameChannel([
        { centreMhz: 5500, widthMhz: 40 },
        { centreMhz: 5540, widthMhz: 40 },
      ]),
    ).toBe(0);
  });

  test("of more remotes on a sector than are searched for on the page nothing is looked for, and nothing is thrown", () => {
    const judged = openHubJudge().judge(job, MAST, fields, HARDWARE, profiles);
    const [one] = judged.remotes[0]!;
    const many = (n: number) =>
      Array.from({ length: n }, (_, i) => ({ ...one!, linkId: `l${i}`, plan: { ...one!.plan, needToFarMbps: 1, needToNearMbps: 1 } }));
    expect(turnedBest(many(16), judged.patterns[0]!, 0.7)).not.toBeNull();
    expect(turnedBest(many(17), judged.patterns[0]!, 0.7)).toBeNull();
    expect(turnedBest(many(60), judged.patterns[0]!, 0.7)).toBeNull();
  });

  test("a remote outside its beam is offered the other sector that takes it in, and no other; with that air full it is not", () => {
    const judge = openHubJudge();
    const two = {
      ...fields,
      sectors: [
        { ...fields.sectors[0]!, azimuthDeg: 20 },
        { ...fields.sectors[0]!, id: "s2", azimuthDeg: 215, tiltDeg: -1, centreMhz: 5600 },
      ],
      remotes: [
        { linkId: "link-0", sectorId: "s1" },
        { linkId: "link-1", sectorId: "s2" },
      ],
    };
    const with_ = (f: HubFields) => (remotes: HubFields["remotes"]) => judge.judge(job, MAST, { ...f, remotes }, HARDWARE, profiles);
    const [one, ...more] = betterSectors(two, with_(two)(two.remotes), with_(two));
    expect([one!.linkId, one!.sectorId, more.length]).toEqual(["link-0", "s2", 0]);
    const moved = with_(two)(one!.remotes);
    expect(moved.sectors[1]!.remotes.map((r) => r.service)).toEqual(["clear", "clear"]);
    // Remotes that hear only the hub and ask for nothing: a tenth of the air, which is full.
    const full = { ...two, grant: false, hearEachOther: false };
    const contends = { ...HARDWARE, radios: HARDWARE.radios.map((r) => ({ ...r, duplex: "TDD, contention" })) };
    const tight = (remotes: HubFields["remotes"]) => judge.judge(job, MAST, { ...full, remotes }, contends, profiles);
    expect(betterSectors(full, tight(full.remotes), tight)).toEqual([]);
  });

  test("clients that are ticked are moved in an order, the rest are not named; spares before and after", () => {
    const judged = openHubJudge().judge(job, MAST, fields, HARDWARE, profiles);
    const moving = { from: "old", gear: "ring\n\n ring \nleaf ", windowMin: 30, clients: ["link-0", "link-2"] };
    const view = movingView({ ...fields, moving }, judged, HARDWARE, 0.7);
    // The third lies under the beam: on a side lobe nobody is moved.
    expect(view.plan.steps.map((s) => s.linkId)).toEqual(["link-0"]);
    expect(view.plan.stay).toEqual([{ linkId: "link-2", why: "not served" }]);
    expect(view.before).toEqual(["ring", "leaf"]);
    expect(view.after).toEqual(expect.arrayContaining(["ring", "leaf"]));
    expect(movingView(fields, judged, HARDWARE, 0.7).plan).toEqual({ steps: [], stay: [] });
  });

  test("a link of which nothing is asked yet stops nothing: the others are turned to; where none asks nothing is proposed", () => {
    const quiet = (...ids: string[]) =>
      jobWith(links.map((l) => (ids.includes(l.id) ? { ...l, design: design({ ...SW, needToFarMbps: null, needToNearMbps: null }) } : l)));
    const one = openHubJudge().judge(quiet("link-0"), MAST, fields, HARDWARE, profiles);
    expect(Number.isFinite(turnedBest(one.remotes[0]!, one.patterns[0]!, 0.7)!.found.worstDb)).toBe(true);
    expect(one.sectors[0]!.remotes[0]!.service).toBe("clear");
    const none = openHubJudge().judge(quiet("link-0", "link-1", "link-2"), MAST, fields, HARDWARE, profiles);
    expect(turnedBest(none.remotes[0]!, none.patterns[0]!, 0.7)).toBeNull();
    expect(none.sectors[0]!.air.asked).toBe(0);
  });

  test("a path that is not there, a radio that is gone: named as not judged, and the others are", () => {
    const judged = openHubJudge().judge(job, MAST, fields, HARDWARE, new Map([...profiles].slice(0, 2)));
    expect(judged.unjudged).toEqual(["link-2"]);
    expect(judged.sectors[0]!.remotes).toHaveLength(2);
    const gone = openHubJudge().judge(job, MAST, fields, { radios: RADIOS.filter((r) => r.id !== "hub"), antennas: [] }, profiles);
    expect([gone.sectors[0], gone.unjudged.length]).toEqual([null, 3]);
  });
});
