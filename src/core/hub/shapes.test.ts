import { describe, expect, test } from "vitest";
import type { Unit } from "../rack";
import type { Radio } from "../radio";
import { CLIMATE, end, POLICY, plan, profile, radio } from "../testing/scene";
import type { AirPolicy } from "./airtime";
import { sectorMends } from "./mends";
import { openShapes, type ShapeKind, type ShapeQuestion } from "./shapes";
import { planUnder, type TriedRemote } from "./under";

const AIR: AirPolicy = { school: "headroom", freeShare: 0.3, grant: true, hearEachOther: null };
const TDD = "TDD, scheduled";
const unit = (fields: Partial<Radio> & { id: string }, priceEur: number | null = 100): Unit => ({
  key: fields.id,
  name: fields.id,
  radio: radio({ duplex: TDD, name: fields.id, ...fields }),
  antenna: null,
  faceCm: null,
  priceEur,
  poleMm: null,
});
const antenna = (form: string, gainDbi: number, azimuthBeamwidthDeg: number, elevationBeamwidthDeg: number) => ({
  kind: "integrated" as const,
  form,
  gainDbi,
  azimuthBeamwidthDeg,
  elevationBeamwidthDeg,
});
const NINETY = unit({ id: "ninety", roles: ["hub"], antenna: antenna("sector", 17, 90, 7) }, 200);
const WIDE = unit({ id: "wide", roles: ["hub"], antenna: antenna("sector", 14, 120, 12) }, 220);
const OMNI = unit({ id: "omni", roles: ["hub"], antenna: antenna("omni", 10, 360, 11) }, 240);
const HORN = unit({ id: "horn", roles: ["hub"], antenna: antenna("horn", 15, 45, 45) }, 260);
const CLIENT = unit({ id: "client", roles: ["remote", "near/far"] }, 80);
const LARGE = unit({ id: "large", roles: ["remote"], antenna: antenna("dish", 27, 6, 6) }, 180);
const OTHER = unit({ id: "other", family: "g", roles: ["hub"], antenna: antenna("sector", 20, 90, 7) }, 10);
const UNITS = [NINETY, WIDE, OMNI, HORN, CLIENT, LARGE, OTHER];

const remote = (
  id: string,
  bearingDeg: number,
  pathM: number,
  needs: readonly [number, number] = [2, 8],
  hubIsNear = true,
): TriedRemote => {
  const hub = end("Mast", 24, { radio: NINETY.radio, use: "hub", aim: { azimuthDeg: bearingDeg, tiltDeg: -2 }, txPowerDbm: 13 });
  const own = end(id, 6, { radio: CLIENT.radio, use: "remote", txPowerDbm: 11 });
  const p = profile(pathM, () => 0);
  const seen = hubIsNear
    ? { nearBearingDeg: bearingDeg, farBearingDeg: (bearingDeg + 180) % 360 }
    : { nearBearingDeg: (bearingDeg + 180) % 360, farBearingDeg: bearingDeg };
  return {
    linkId: id,
    name: id,
    hubIsNear,
    profile: { ...p, ...seen },
    plan: plan(hubIsNear ? hub : own, hubIsNear ? own : hub, {
      centreMhz: 5500,
      widthMhz: 40,
      needToFarMbps: hubIsNear ? needs[0] : needs[1],
      needToNearMbps: hubIsNear ? needs[1] : needs[0],
      policy: POLICY,
      climate: CLIMATE,
    }),
  };
};
const question = (remotes: readonly TriedRemote[], azimuthDeg = 200, units = UNITS): ShapeQuestion => ({
  remotes,
  sectors: [{ unit: NINETY, azimuthDeg, tiltDeg: -2, linkIds: remotes.map((r) => r.linkId) }],
  units,
  policy: AIR,
});
const ROUND = [remote("a", 180, 700), remote("b", 220, 800), remote("c", 40, 600)];

describe("a remote under other units", () => {
  test("what is radiated stays as it was in the family, as far as the sheet lets it; of another family it is the highest", () => {
    const [r] = ROUND;
    const under = (u: Unit): number => planUnder(r!, { hub: u, remote: null, aim: null }).near.txPowerDbm;
    expect(under(NINETY)).toBe(13);
    expect(under(OMNI)).toBe(13 + 17 - 10);
    // 17 dBi and 13 dBm less 20 dBi: its least setting is 0, this is 10.
    expect(under({ ...OTHER, radio: { ...OTHER.radio, family: NINETY.radio.family } })).toBe(10);
    expect(under(OTHER)).toBe(25);
  });

  test("on a channel that its radio has not, the first that both have is taken", () => {
    const sixty = unit({ id: "sixty", family: "x", bandsMhz: [{ low: 57_000, high: 66_000 }], channelWidthsMhz: [2160] });
    const p = planUnder(ROUND[0]!, { hub: sixty, remote: sixty, aim: null });
    expect([p.centreMhz, p.widthMhz]).toEqual([60_240, 2160]);
  });
});

describe("shapes of a hub", () => {
  const of = (kind: ShapeKind, q = question(ROUND)) => openShapes(q).each[kind]();

  test("as planned a remote behind the sector is not served; the fewest sectors that serve all are two, in its own family", () => {
    expect(of("planned")).toMatchObject({ served: 2, of: 3, units: 1, channels: 1, verdict: "short" });
    const fewest = of("fewest")!;
    expect(fewest).toMatchObject({ served: 3, leftOver: [] });
    for (const s of fewest.sectors) expect(s.unit.key).not.toBe("other");
    expect(new Set(fewest.sectors.flatMap((s) => s.remotes))).toEqual(new Set(["a", "b", "c"]));
  });

  test("an omni serves all round from one unit on one channel, and costs reach: half as far for each 6 dB of gain less", () => {
    const omni = of("omni")!;
    expect(omni).toMatchObject({ served: 3, units: 1, channels: 1 });
    const narrow = question([ROUND[0]!, ROUND[1]!]);
    const [sector, all] = [of("one-sector", { ...narrow, units: [NINETY, CLIENT] })!, of("omni", narrow)!];
    // The power makes up for the gain where the sheet lets it: the reach towards the remote is alike, the way back is not.
    expect(all.reachM! / sector.reachM!).toBeCloseTo(10 ** (-(17 - 10) / 20), 2);
  });

  test("a pair for each has a unit and a channel of its own per remote, and the price of both ends", () => {
    const pairs = of("pairs")!;
    expect(pairs).toMatchObject({ served: 3, units: 3, channels: 3, priceEur: 6 * 80 });
    expect(pairs.sectors.every((s) => s.azimuthDeg === null && s.unit.key === "client")).toBe(true);
    expect(pairs.fullest).toBeLessThan(of("omni")!.fullest);
  });

  test("what no sheet prices has no price, what no unit makes is null, and what nobody asks of is not searched for", () => {
    expect(of("pairs", question(ROUND, 200, [NINETY, { ...CLIENT, priceEur: null }]))!.priceEur).toBeNull();
    expect(of("omni", question(ROUND, 200, [NINETY, CLIENT]))).toBeNull();
    expect(of("faces")).toBeNull();
    const quiet = question(ROUND.map((r) => ({ ...r, plan: { ...r.plan, needToFarMbps: null, needToNearMbps: null } })));
    expect(of("planned", quiet)).toMatchObject({ fullest: 0, reachM: null });
  });

  test("a node with faces parts the remotes by quarters, one unit on the mast, other units at the remotes", () => {
    const node = unit(
      { id: "node", family: "sixty", roles: ["mesh node", "hub"], antenna: antenna("four steered arrays", 22, 10, 10) },
      900,
    );
    const leaf = unit({ id: "leaf", family: "sixty", roles: ["remote"], antenna: antenna("steered array", 22, 10, 10) }, 150);
    const faces = of("faces", question(ROUND, 200, [...UNITS, node, leaf]))!;
    expect(faces).toMatchObject({ units: 1, channels: 2, priceEur: 900 + 3 * 150, remoteUnit: { key: "leaf" } });
    // 40 degrees lies in the first quarter, 180 and 220 in the third.
    expect(faces.sectors.map((s) => s.remotes)).toEqual([["c"], ["a", "b"]]);
    // Its beams turn to each: none of them lies outside.
    expect(faces.served).toBe(3);
  });

  test("turned, the planned unit serves no fewer than it did", () => {
    const planned = of("planned", question(ROUND, 300))!;
    const turned = of("turned", question(ROUND, 300))!;
    expect(turned.served).toBeGreaterThan(planned.served);
    expect(turned.sectors[0]!.unit.key).toBe("ninety");
  });

  test("more remotes than are searched for at once: what needs no search is still told, the rest is null", () => {
    const many = Array.from({ length: 25 }, (_, i) => remote(`r${i}`, (i * 14) % 360, 600));
    expect(of("planned", question(many))!.of).toBe(25);
    expect(of("pairs", question(many))!.units).toBe(25);
    expect([of("fewest", question(many)), of("omni", question(many))]).toEqual([null, null]);
  });

  test("seen from the other end of its links it is the same hub", () => {
    const other = ROUND.map((r) => remote(r.linkId, r.profile.nearBearingDeg, r.profile.pathM, [2, 8], false));
    for (const kind of ["planned", "fewest", "omni", "pairs"] as const) {
      const [a, b] = [of(kind)!, of(kind, question(other))!];
      expect([b.served, b.units, b.priceEur], kind).toEqual([a.served, a.units, a.priceEur]);
      expect(b.fullest, kind).toBeCloseTo(a.fullest, 9);
    }
  });
});

describe("mends of one sector", () => {
  const mends = (remotes: readonly TriedRemote[], units = UNITS) =>
    sectorMends({ remotes, unit: NINETY, aim: { azimuthDeg: 200, tiltDeg: -2 }, mountAglM: 24, units, policy: AIR });

  test("a remote near the foot of the mast: another unit with a higher beam takes both in, and the mount may come down", () => {
    const near = [remote("far", 200, 900), remote("foot", 205, 60)];
    const found = mends(near);
    expect(found.antenna!.served).toBe(2);
    expect(found.antenna!.sectors[0]!.unit.key).not.toBe("ninety");
    expect(found.lower!.mountAglM).toBeLessThan(24);
    expect(found.lower!.well).toBe(2);
  });

  test("all well: no lower mount and no other unit is offered", () => {
    const found = mends([remote("far", 200, 900), remote("farther", 205, 1100)]);
    expect([found.lower, found.antenna]).toEqual([null, null]);
  });

  test("the slow remote is the one that frees most with a larger face, by what its faster rung takes less", () => {
    const found = mends([remote("near", 195, 500), remote("slow", 205, 4000)]);
    expect(found.better).toMatchObject({ linkId: "slow", unit: { key: "large" } });
    expect(found.better!.freed).toBeGreaterThan(0.02);
    expect(mends([remote("near", 195, 500), remote("slow", 205, 4000)], [NINETY, CLIENT]).better).toBeNull();
  });
});
