/* What the air makes of the demo; mirrored and renamed it comes out the same. */
import { beforeAll, describe, expect, test } from "vitest";
import {
  type AirRead,
  airJobOf,
  airToldOf,
  designFieldsSchema,
  type HardwareDto,
  type JobBundle,
  jobFieldsSchema,
  type LinkVerdict,
  siteFieldsSchema,
} from "../src/contract";
import { airPathOf, assign, judgeAir } from "../src/core/air";
import { evaluatePrepared, pathStateOf, preparePath } from "../src/core/link";
import { bandKeyOf } from "../src/core/radio";
import { demoAir, demoScans, NEIGHBOUR } from "./air";
import { type DemoOptions, generateDemo } from "./generate";
import { gridsOf, plannedPath } from "./plans";
import { demoHardware } from "./seed";

const hardware = demoHardware() as unknown as HardwareDto;
const UUID = "00000000-0000-4000-8000-";
const uuidOf = (n: number): string => `${UUID}${n.toString(16).padStart(12, "0")}`;

const readOf = (
  options?: DemoOptions,
): { readonly read: AirRead; readonly siteId: (key: string) => string; readonly linkTo: (key: string, label?: string) => string } => {
  const demo = generateDemo(options);
  const grids = gridsOf(demo);
  const siteId = (key: string): string => uuidOf(1 + demo.sites.findIndex((s) => s.key === key));
  const linkId = (i: number): string => uuidOf(1000 + i);
  const job = {
    ...jobFieldsSchema.parse({
      name: demo.name,
      visitOn: "2026-12-03",
      centreLatDeg: demo.sites[0]!.position.latDeg,
      centreLonDeg: demo.sites[0]!.position.lonDeg,
      ruleDomain: "FCC-like",
      rainRate001MmH: 28,
    }),
    id: uuidOf(0),
    version: 1,
    number: 1,
    revision: 1,
    updatedAt: "",
  };
  const sites = demo.sites.map((s) => ({
    ...siteFieldsSchema.parse({ name: s.name, ...s.position, mountAglM: s.mountAglM, mountMaxAglM: s.mountMaxAglM }),
    id: siteId(s.key),
    version: 1,
  }));
  const verdicts: AirRead["verdicts"][number][] = [];
  const links = demo.links.map((l, i) => {
    const { planned, profile } = plannedPath(demo, grids, l);
    const path = preparePath(planned, profile);
    const result = evaluatePrepared(planned, path);
    verdicts.push({
      linkId: linkId(i),
      air: airPathOf(planned, pathStateOf(planned, path, false), result.service),
      nearBearingDeg: profile.nearBearingDeg,
      farBearingDeg: profile.farBearingDeg,
    });
    const at = (key: string): number => demo.sites.find((s) => s.key === key)!.mountAglM;
    return {
      id: linkId(i),
      version: 1,
      number: i + 1,
      nearSiteId: siteId(l.near),
      farSiteId: siteId(l.far),
      label: l.label,
      stage: l.stage,
      groundTold: null,
      updatedAt: "",
      design: {
        ...designFieldsSchema.parse({
          nearMountAglM: at(l.near),
          farMountAglM: at(l.far),
          nearRadioId: l.radio[0],
          farRadioId: l.radio[1],
          nearPowerDbm: l.powerDbm[0],
          farPowerDbm: l.powerDbm[1],
          centreMhz: l.centreMhz,
          widthMhz: l.widthMhz,
          farWall: l.farWall ?? null,
          nearAimAzimuthDeg: l.nearAim?.azimuthDeg ?? null,
          nearAimTiltDeg: l.nearAim?.tiltDeg ?? null,
          needToFarMbps: l.needMbps[0],
          needToNearMbps: l.needMbps[1],
        }),
        id: uuidOf(2000 + i),
        version: 1,
      },
    };
  });
  const aside = demo.links.flatMap((l, i) => (l.aside === true ? [linkId(i)] : []));
  return {
    siteId,
    linkTo: (key, label = "") => linkId(demo.links.findIndex((l) => l.far === key && l.label === label)),
    read: {
      job: { job, sites, links } as unknown as JobBundle,
      hardware,
      hubs: [],
      air: {
        ...demoAir(siteId, aside),
        others: demoAir(siteId, aside).others.map((o) => ({
          ...o,
          bearingDeg: options?.mirror === true && o.bearingDeg !== null ? 360 - o.bearingDeg : o.bearingDeg,
        })),
      },
      scans: demoScans(siteId),
      verdicts: verdicts as readonly Pick<LinkVerdict, "linkId" | "air" | "nearBearingDeg" | "farBearingDeg">[],
      losses: new Map(),
      passes: new Map(),
      urgent: new Set(),
    },
  };
};

describe("the demo's air", () => {
  let demo: ReturnType<typeof readOf>;
  let built: ReturnType<typeof airJobOf>;
  let judged: ReturnType<typeof judgeAir>;
  beforeAll(() => {
    demo = readOf();
    built = airJobOf(demo.read);
    judged = judgeAir(built.job);
  }, 240_000);
  const of = (id: string) => judged.links.find((l) => l.linkId === id)!;

  test("what is undisturbed is what the link's own section carries: the same path, the same rungs", () => {
    for (const l of judged.links) {
      const { plan, path } = built.job.units.flatMap((u) => u.links).find((x) => x.id === l.linkId)!;
      for (const [i, w] of l.ways.entries()) {
        if (w.levelDbm === null) continue;
        const powers = (i === 0 ? plan.near : plan.far).radio.modulations.map((m) => m.maxTxPowerDbm);
        const sent = Math.min(i === 0 ? plan.near.txPowerDbm : plan.far.txPowerDbm, Math.max(...powers));
        expect(w.levelDbm).toBeLessThanOrEqual(sent + (i === 0 ? path.toFarDb : path.toNearDb) + 1e-9);
      }
    }
  });

  test("four radios at the tower on one channel: blinded, and the assignment frees them", () => {
    const tower = demo.siteId("tower");
    const onTower = built.job.field.radios.filter((r) => r.siteId === tower);
    expect(onTower.length).toBe(4);
    for (const key of ["sailing", "tower"]) expect(of(demo.linkTo(key)), key).toMatchObject({ verdict: "short", trouble: "blinded" });
    const sector = judged.links.filter((l) => ["fuel", "ferry", "net", "weigh"].some((k) => demo.linkTo(k) === l.linkId));
    expect(sector.every((l) => l.trouble === "blinded")).toBe(true);
    const found = assign({ job: built.job, widths: "narrowest", radar: "fallback" });
    expect(found.exact).toBe(true);
    expect(found.score.short).toBe(0);
    expect(found.score.meets).toBe(0);
    const after = judgeAir(built.job, found.channels);
    expect(after.links.filter((l) => l.verdict === "short")).toEqual([]);
    for (const l of after.links) expect(l.trouble, l.linkId).not.toBe("blinded");
  }, 120_000);

  test("a neighbour's network that only the Rope Walk hears falls there, and nobody at the office waits for it", () => {
    const l = of(demo.linkTo("rope"));
    const fall = l.ways[0].contributions.find((c) => c.heard?.name === NEIGHBOUR.name)!;
    expect(fall).toMatchObject({ relation: "bursts fall" });
    // As a scanner tells it: in parts of 255.
    expect(fall.hitShare).toBeCloseTo(NEIGHBOUR.busyShare!, 2);
    expect(fall.riseDb).toBeGreaterThan(6);
    // On its way back the Rope Walk waits for it; at the office nothing of it is heard.
    expect(l.ways[1].contributions.find((c) => c.heard?.name === NEIGHBOUR.name)?.inChannelDbm ?? Number.NEGATIVE_INFINITY).toBe(
      Number.NEGATIVE_INFINITY,
    );
    const without = judgeAir(airJobOf({ ...demo.read, scans: demo.read.scans.filter((s) => s.siteId !== demo.siteId("rope")) }).job);
    expect(without.links.find((x) => x.linkId === l.linkId)!.ways[0].meanMbps).toBeGreaterThan(l.ways[0].meanMbps);
  });

  test("the harbour's radar was seen twice in a day on the tower's channel", () => {
    const { detections, watchedDays } = demo.read.air;
    expect(detections).toHaveLength(2);
    expect(new Set(detections.map((d) => d.on)).size).toBe(1);
    expect(watchedDays).toBeGreaterThan(0);
  });

  test("links that are alternatives, or wait for a relay, are left aside and disturb nobody", () => {
    expect(built.aside).toHaveLength(3);
    expect(built.job.units.filter((u) => bandKeyOf(u.channel.centreMhz) === "5")).toHaveLength(6);
    const told = airToldOf(demo.read, built, judged);
    expect(told.get(demo.linkTo("tarrow"))).toBeUndefined();
    expect(told.get(demo.linkTo("sailing"))).toMatchObject({ verdict: "short", trouble: "blinded", radar: true });
  });

  test("renamed and mirrored, the same is found", () => {
    const other = readOf({ mirror: true, rename: (name) => `Old ${name}` });
    const again = judgeAir(airJobOf(other.read).job);
    expect(again.links.map((l) => [l.verdict, l.trouble])).toEqual(judged.links.map((l) => [l.verdict, l.trouble]));
  }, 240_000);
});
