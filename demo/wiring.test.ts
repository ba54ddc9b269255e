/* What wiring and kit make of the demo; mirrored and renamed it comes out the same. */
import { describe, expect, test } from "vitest";
import {
  addressedPlaces,
  briefSchema,
  type JobBundle,
  judgeSites,
  mountsOf,
  networkSchema,
  type SiteWiring,
  sectorsShared,
  siteKit,
} from "../src/contract";
import { lineId } from "../src/core/kit";
import { addressFaults, judgeSun, parseSubnet, partsOf } from "../src/core/wiring";
import { demoBrief } from "./brief";
import { type DemoOptions, generateDemo } from "./generate";
import { demoKit, demoSafety } from "./kit";
import { demoHardware } from "./seed";
import { demoAddresses, demoWirings } from "./wiring";

const idOf = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const HARDWARE = demoHardware();
const PARTS = partsOf(HARDWARE.parts, HARDWARE.radios);

const read = (options?: DemoOptions) => {
  const demo = generateDemo(options);
  const at = (key: string): string => idOf(demo.sites.findIndex((s) => s.key === key));
  const mountOf = (key: string): number => demo.sites.find((s) => s.key === key)!.mountAglM;
  const job = {
    job: { id: idOf(999) },
    sites: demo.sites.map((s, i) => ({ id: idOf(i), name: s.name, latDeg: s.position.latDeg, power: s.power })),
    links: demo.links.map((l, i) => ({
      id: idOf(100 + i),
      nearSiteId: at(l.near),
      farSiteId: at(l.far),
      design: {
        nearRadioId: l.radio[0],
        farRadioId: l.radio[1],
        nearMountAglM: mountOf(l.near),
        farMountAglM: mountOf(l.far),
        nearAntennaId: l.antenna?.[0] ?? null,
        farAntennaId: l.antenna?.[1] ?? null,
        centreMhz: l.centreMhz,
        widthMhz: l.widthMhz,
        nearAimAzimuthDeg: null,
        nearAimTiltDeg: null,
        farAimAzimuthDeg: null,
        farAimTiltDeg: null,
      },
    })),
  } as unknown as JobBundle;
  const sectors = sectorsShared(job.links, []);
  const wirings = demoWirings({
    job,
    brief: briefSchema.parse(demoBrief(at)),
    network: networkSchema.parse({}),
    parts: PARTS,
    siteId: at,
    sectorOf: (siteId) => (linkId) => (sectors.get(linkId)?.siteId === siteId ? sectors.get(linkId)!.id : null),
  }) as SiteWiring[];
  const judged = judgeSites(job, wirings, PARTS);
  const of = (key: string) => judged.find((j) => j.siteId === at(key))!;
  const codes = (key: string): string[] => [...new Set(of(key).findings.map((f) => f.code))].sort();
  return { at, job, wirings, of, codes };
};

describe("the demo's wiring", () => {
  const demo = read();

  test("the office is as it should be; each story is found at its site, and nothing else is short there", () => {
    const short = (key: string) =>
      demo
        .of(key)
        .findings.filter((f) => f.verdict === "short")
        .map((f) => f.code);
    expect(demo.codes("office")).toEqual([]);
    expect(short("rope")).toEqual(["unfit", "surge-missing"]);
    expect(short("net")).toEqual(["volts-low"]);
    expect(short("exchange")).toEqual(["two-earths"]);
    expect(short("skarn")).toEqual([]);
  });

  test("the camera stays dark at 23 V, the one on the slip has 19.6 V at the end of 95 m", () => {
    const camera = demo.of("rope").judged.decides!;
    expect(camera.gives.key).toBe("passive24-2pair");
    expect(camera.takes?.key).toBe("802.3af");
    expect(camera.volts).toBeCloseTo(23.1, 1);
    const slip = demo.of("net").judged.decides!;
    expect(slip.volts).toBeCloseTo(19.6, 1);
    expect(slip.leads.reduce((s, l) => s + l.lengthM, 0)).toBe(95);
  });

  test("the light holds: panel and battery are enough for its darkest month, and what is left is to be tried", () => {
    const { judged } = demo.of("skarn");
    const { sun } = demo.wirings.find((w) => w.siteId === demo.at("skarn"))!;
    const own = judgeSun(judged.wired, judged.feeds, sun!, 47.3)!;
    expect(own.panelW).toBeGreaterThan(own.supply.panelW);
    expect(own.batteryAh).toBeGreaterThan(own.supply.batteryAh);
    expect(own.supply.darkestMonth).toBe(11);
    expect(demo.codes("skarn")).toEqual(["return-unseen"]);
  });

  test("every unit has an address of its own in its network, none of them taken", () => {
    const plan = demoAddresses(demo.wirings as never);
    const places = addressedPlaces(demo.wirings, plan);
    expect(places.length).toBeGreaterThan(20);
    expect(places.every((p) => p.address !== null)).toBe(true);
    expect(
      addressFaults(
        plan.nets,
        places.map((p) => ({ id: p.place.id, role: p.role, net: p.net, address: p.address })),
        new Set(plan.taken.map((t) => t.address)),
      ),
    ).toEqual([]);
    expect(plan.nets.every((n) => parseSubnet(n.subnet) !== null)).toBe(true);
  });

  test("renamed and mirrored, the same is found", () => {
    const other = read({ mirror: true, rename: (name) => `Old ${name}` });
    for (const key of ["office", "rope", "net", "exchange", "skarn", "pilot"]) expect(other.codes(key), key).toEqual(demo.codes(key));
  });
});

describe("the demo's kit", () => {
  const kitOf = (options?: DemoOptions) => {
    const { at, job, wirings } = read(options);
    const stocked = new Map(PARTS);
    stocked.set("thrift-8af", { ...PARTS.get("thrift-8af")!, stock: 0 });
    return (key: string) =>
      siteKit({
        wiring: wirings.find((w) => w.siteId === at(key))!,
        kit: demoKit(at),
        safety: demoSafety(at).find((s) => s.siteId === at(key)) ?? null,
        parts: stocked,
        mountOf: mountsOf(job, HARDWARE, at(key)),
        pickOf: (line) => ({ id: lineId("demo", line), pick: null }),
      });
  };

  test("no strap goes round the pilots' pole, no saw makes the gland's hole, the ladder is too short, the switch is out of stock", () => {
    const kit = kitOf();
    const found = (key: string) =>
      kit(key)
        .findings.filter((f) => f.code !== "risk")
        .map((f) => f.code);
    expect(found("pilot")).toContain("strap");
    expect(kit("pilot").findings.find((f) => f.code === "strap")).toMatchObject({ poleMm: 89, low: 30, high: 75 });
    expect(kit("rope").findings.find((f) => f.code === "saw")).toMatchObject({ holeMm: 25 });
    expect(kit("rope").findings.find((f) => f.code === "ladder")).toMatchObject({ longestM: 6 });
    expect(kit("rope").findings.find((f) => f.code === "missing")).toMatchObject({ rows: [{ name: "Thrift 8 Small Power" }] });
    expect(kit("rope").risks.find((r) => r.risk === "alone")).toMatchObject({ verdict: "short", reason: "stop" });
  });

  test("renamed and mirrored, the same lines", () => {
    const [one, two] = [kitOf(), kitOf({ mirror: true, rename: (name) => `Old ${name}` })];
    const told = (k: ReturnType<typeof one>) => k.rows.map((r) => [r.where, r.part?.id ?? "", r.quantity]);
    for (const key of ["office", "rope", "pilot"]) expect(told(two(key))).toEqual(told(one(key)));
  });
});
