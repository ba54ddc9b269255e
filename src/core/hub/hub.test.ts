import { describe, expect, test } from "vitest";
import { patternOf } from "../antenna";
import { evaluatePrepared, type LinkPlan, pathStateOf, preparePath, serviceOf } from "../link";
import { reversed } from "../testing/reverse";
import { CLIMATE, end, POLICY, plan, profile, radio } from "../testing/scene";
import type { AirPolicy } from "./airtime";
import { type HubRemote, judgeSector, onAxisOf, seenFromHub } from "./hub";

const SECTOR = radio({
  id: "hub",
  roles: ["hub"],
  duplex: "TDD, scheduled",
  antenna: { kind: "integrated", form: "sector", gainDbi: 16, azimuthBeamwidthDeg: 90, elevationBeamwidthDeg: 7 },
});
const CLIENT = radio({ id: "client", roles: ["remote"], duplex: "TDD, scheduled" });
const PATTERN = patternOf({ form: "sector", gainDbi: 16, azimuthBeamwidthDeg: 90, elevationBeamwidthDeg: 7 }, 5.5);
const AIR: AirPolicy = { school: "headroom", freeShare: 0.3, grant: true, hearEachOther: null };

/** A remote over level ground, the hub's sector looking as told; the bearing from the hub is 90 degrees. */
const remoteAt = (
  pathM: number,
  aim: { azimuthDeg: number | null; tiltDeg: number | null },
  more: { gainDbi?: number; hubAglM?: number } = {},
): HubRemote => {
  const client = more.gainDbi === undefined ? CLIENT : radio({ ...CLIENT, antenna: { ...CLIENT.antenna, gainDbi: more.gainDbi } });
  const p: LinkPlan = plan(
    end("Mast", more.hubAglM ?? 20, { radio: SECTOR, use: "hub", aim, txPowerDbm: 10 }),
    end("Shed", 8, { radio: client, use: "remote", txPowerDbm: 10 }),
    { centreMhz: 5500, widthMhz: 40, needToFarMbps: 5, needToNearMbps: 20, policy: POLICY, climate: CLIMATE },
  );
  const path = preparePath(
    p,
    profile(pathM, () => 0),
  );
  return { linkId: `l${pathM}`, name: "Shed", plan: p, state: pathStateOf(p, path), hubIsNear: true };
};
const tiltTo = (pathM: number): number => seenFromHub(remoteAt(pathM, { azimuthDeg: 90, tiltDeg: 0 })).elevationDeg;
const judge = (list: readonly HubRemote[], aim: { azimuthDeg: number; tiltDeg: number }) => judgeSector(list, PATTERN, aim, AIR, null);

describe("a sector with its remotes", () => {
  test("on the axis and at the tilt a remote has the full gain, as a pair would", () => {
    const aim = { azimuthDeg: 90, tiltDeg: tiltTo(800) };
    const [one] = judge([remoteAt(800, aim)], aim).remotes;
    const paired = remoteAt(800, { azimuthDeg: null, tiltDeg: null });
    const pair = evaluatePrepared(paired.plan, paired.state.path).service;
    expect(one!.place).toMatchObject({ where: "in", byDeg: 0 });
    expect(one!.place.lossDb).toBeCloseTo(0, 9);
    expect(one!.thereDbm).toBeCloseTo(pair.toFar!.levelDbm, 9);
    expect(one!.backDbm).toBeCloseTo(pair.toNear!.levelDbm, 9);
  });

  test("off the axis both ways lose what the pattern says, and the remote is told by how many degrees it is out", () => {
    const on = { azimuthDeg: 90, tiltDeg: tiltTo(300) };
    const off = { azimuthDeg: 90, tiltDeg: on.tiltDeg + 6 };
    const rungs = (r: HubRemote) => serviceOf(r.plan, r.state, false).service;
    const [a, b] = [rungs(remoteAt(300, on)), rungs(remoteAt(300, off))];
    const judged = judge([remoteAt(300, off)], off).remotes[0]!;
    expect(judged.place.where).toBe("under");
    expect(judged.place.byDeg).toBeCloseTo(6 - 3.5, 1);
    // At one rung, where the power is one: what holds may be another.
    const level = (s: typeof a, way: "toFar" | "toNear") => s[way]!.ladder[0]!.levelDbm;
    for (const way of ["toFar", "toNear"] as const) expect(level(b, way) - level(a, way)).toBeCloseTo(judged.place.lossDb, 9);
  });

  test("the sum of the air is each need over what its modulation carries; more than may be used is short, whatever each holds alone", () => {
    const aim = { azimuthDeg: 90, tiltDeg: tiltTo(800) };
    const list = Array.from({ length: 8 }, (_, i) => ({ ...remoteAt(700 + i, aim), linkId: `l${i}` }));
    const few = judge(list.slice(0, 2), aim);
    const many = judge(list, aim);
    expect(few.air.asked).toBeCloseTo(
      few.air.remotes.reduce((n, r) => n + 5 / r.thereMbps + 20 / r.backMbps, 0),
      12,
    );
    expect([few.airVerdict, many.airVerdict]).toEqual(["clear", "short"]);
    expect(many.remotes.every((r) => r.service === "clear")).toBe(true);
    expect(many.verdict).toBe("short");
  });

  test("a better antenna at a remote never costs air", () => {
    for (const pathM of [800, 4000, 9000, 15_000]) {
      const aim = { azimuthDeg: 90, tiltDeg: tiltTo(pathM) };
      const asked = [19, 22, 25].map((gainDbi) => judge([remoteAt(pathM, aim, { gainDbi, hubAglM: 60 })], aim).air.asked);
      expect(asked[1]!).toBeLessThanOrEqual(asked[0]!);
      expect(asked[2]!).toBeLessThanOrEqual(asked[1]!);
    }
  });

  test("told from the remote's end the link is judged the same", () => {
    const aim = { azimuthDeg: 100, tiltDeg: -3 };
    const there = remoteAt(900, aim);
    const turned = reversed(there.plan, there.state.path.profile);
    const back: HubRemote = {
      ...there,
      plan: turned.plan,
      state: pathStateOf(turned.plan, preparePath(turned.plan, turned.profile)),
      hubIsNear: false,
    };
    const [a, b] = [judge([there], aim), judge([back], aim)];
    expect(b.air.asked).toBeCloseTo(a.air.asked, 9);
    const plain = ({ thereDbm, backDbm, bearingDeg, elevationDeg, verdict, modulations }: (typeof a.remotes)[number]) => ({
      levels: [thereDbm!.toFixed(6), backDbm!.toFixed(6)],
      seen: [bearingDeg.toFixed(6), elevationDeg.toFixed(6)],
      verdict,
      modulations,
    });
    expect(plain(b.remotes[0]!)).toEqual(plain(a.remotes[0]!));
  });

  test("what is left on the axis is measured above a rung that takes no more of the air than its part, however the sector looks", () => {
    const away = remoteAt(800, { azimuthDeg: 270, tiltDeg: 0 });
    const on = remoteAt(800, { azimuthDeg: 90, tiltDeg: tiltTo(800) });
    expect(onAxisOf(away, 0.5).marginDb).toBeCloseTo(onAxisOf(on, 0.5).marginDb, 6);
    for (const part of [0.7, 0.4, 0.2]) expect(onAxisOf(on, part).airShare).toBeLessThanOrEqual(part + 1e-9);
    expect(onAxisOf(on, 0.2).marginDb).toBeLessThanOrEqual(onAxisOf(on, 0.7).marginDb);
    // More than any rung carries leaves nothing.
    expect(onAxisOf(on, 0.01).marginDb).toBe(Number.NEGATIVE_INFINITY);
  });
});
