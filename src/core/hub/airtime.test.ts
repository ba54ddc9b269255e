import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { usableRate } from "../radio";
import { type AirPolicy, type AirWay, HIDDEN_SHARE, moreThatFit, type RemoteAir, sectorAir } from "./airtime";

const way = (needMbps: number, phyMbps: number | null, duplex = "TDD, contention"): AirWay => ({
  needMbps,
  rate:
    phyMbps === null
      ? null
      : {
          phyMbps,
          airtime: usableRate({
            standard: "ac",
            duplex,
            phyRateMbps: phyMbps,
            distanceM: 900,
            blockAckWindowFrames: 64,
            maxAggregateMs: 5.484,
            portMbps: 1000,
            packetErrorShare: 0.05,
          }),
        },
});
const remote = (linkId: string, there: AirWay, back: AirWay): RemoteAir => ({ linkId, there, back, distanceM: 900 });
const HEADROOM: AirPolicy = { school: "headroom", freeShare: 0.3, grant: true, hearEachOther: null };
const usable = (phyMbps: number): number => way(0, phyMbps).rate!.airtime.airTcpMbps;

describe("the air of one sector", () => {
  test("each way's share is what it asks over what it could carry alone; the sum stands against what may be used", () => {
    const air = sectorAir([remote("a", way(5, 390), way(20, 260)), remote("b", way(5, 130), way(15, 130))], "contention", HEADROOM);
    expect(air.remotes[0]!.there).toBeCloseTo(5 / usable(390), 12);
    expect(air.remotes[0]!.back).toBeCloseTo(20 / usable(260), 12);
    expect(air.asked).toBeCloseTo(5 / usable(390) + 20 / usable(260) + 20 / usable(130), 12);
    expect(air.mayUse).toBeCloseTo(0.7, 12);
    expect(air.multiple).toBeCloseTo(0.7 / air.asked, 12);
  });

  test("a third of the air rate is planned with by that school, all of the usable by the other", () => {
    const [one] = [remote("a", way(10, 300), way(0, 300))];
    expect(sectorAir([one], "contention", { ...HEADROOM, school: "third" }).remotes[0]!.there).toBeCloseTo(0.1, 12);
    expect(sectorAir([one], "contention", { ...HEADROOM, school: "full" })).toMatchObject({ mayUse: 1 });
  });

  test("where nothing holds and something is asked no air is enough; where nothing is asked none is taken", () => {
    const dead = sectorAir([remote("a", way(5, null), way(0, null)), remote("b", way(0, 130), way(10, 130))], "contention", HEADROOM);
    expect([dead.asked, dead.multiple]).toEqual([Number.POSITIVE_INFINITY, 0]);
    expect(dead.remotes[0]!.equalTimeMbps).toBe(0);
    // Who cannot send takes no time from who can.
    expect(dead.remotes[1]!.equalTimeMbps).toBeCloseTo(usable(130) * 0.7, 9);
    expect(sectorAir([remote("a", way(0, 130), way(0, 130))], "contention", HEADROOM).multiple).toBe(Number.POSITIVE_INFINITY);
  });

  test("by equal time a slow remote costs nobody else; by equal turns each has as many bursts, and a slow one's hold little", () => {
    const [fast, slow] = [remote("fast", way(0, 390), way(0, 390)), remote("slow", way(0, 13), way(0, 13))];
    const [alone] = sectorAir([fast, remote("other", way(0, 390), way(0, 390))], "contention", HEADROOM).remotes;
    const [together, dragged] = sectorAir([fast, slow], "contention", HEADROOM).remotes;
    expect(together!.equalTimeMbps).toBeCloseTo(alone!.equalTimeMbps, 9);
    // 64 frames of two packets against the two that the longest burst holds.
    expect(together!.equalTurnsMbps! / dragged!.equalTurnsMbps!).toBeCloseTo(32, 6);
    expect(together!.equalTimeMbps / dragged!.equalTimeMbps).toBeCloseTo(usable(390) / usable(13), 6);
    expect(sectorAir([fast, slow], "scheduled", HEADROOM).remotes[0]!.equalTurnsMbps).toBeNull();
  });

  test("remotes that hear only the hub and ask for nothing: a tenth of the air, and it says so", () => {
    const list = [remote("a", way(1, 130), way(1, 130)), remote("b", way(1, 130), way(1, 130))];
    const free = { ...HEADROOM, grant: false };
    expect(sectorAir(list, "contention", free)).toMatchObject({ mayUse: HIDDEN_SHARE, keptBy: "hidden" });
    expect(sectorAir(list, "contention", { ...free, hearEachOther: true })).toMatchObject({ keptBy: "school" });
    expect(sectorAir(list, "scheduled", free).keptBy).toBe("school");
    // One remote alone falls upon nobody.
    expect(sectorAir(list.slice(0, 1), "contention", free).keptBy).toBe("school");
  });

  test("with fixed parts of a frame the fuller way counts, not the sum", () => {
    const list = [remote("a", way(30, 130, "TDD, fixed frame 50/50"), way(10, 130, "TDD, fixed frame 50/50"))];
    const air = sectorAir(list, "fixed-frame", HEADROOM);
    expect(air.asked).toBeCloseTo(air.remotes[0]!.there, 12);
    expect(air.asked).toBeGreaterThan(air.remotes[0]!.back);
  });

  test("so many more fit and not one beyond: typed in as needs they fill it, one more is over", () => {
    const any = fc.record({ need: fc.integer({ min: 0, max: 20 }), phy: fc.constantFrom(65, 130, 260, 390, 780) });
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 6 }), fc.integer({ min: 1, max: 12 }), (list, each) => {
        const of = (extra: number) =>
          sectorAir(
            list.map((r, i) => remote(`l${i}`, way(1, r.phy), way(r.need + (i === 0 ? extra * each : 0), r.phy))),
            "contention",
            HEADROOM,
          );
        const air = of(0);
        fc.pre(air.asked <= air.mayUse);
        const more = moreThatFit(air, "l0", 0, each);
        expect(of(more).asked).toBeLessThanOrEqual(air.mayUse + 1e-9);
        expect(of(more + 1).asked).toBeGreaterThan(air.mayUse);
        // Another remote never gives anybody more.
        const joined = sectorAir(
          [...list.map((r, i) => remote(`l${i}`, way(1, r.phy), way(r.need, r.phy))), remote("new", way(1, 130), way(1, 130))],
          "contention",
          HEADROOM,
        );
        air.remotes.forEach((r, i) => {
          expect(joined.remotes[i]!.equalTimeMbps).toBeLessThanOrEqual(r.equalTimeMbps);
          expect(joined.remotes[i]!.equalTurnsMbps!).toBeLessThanOrEqual(r.equalTurnsMbps! + 1e-9);
        });
        expect(joined.multiple).toBeLessThanOrEqual(air.multiple);
      }),
      { numRuns: 60 },
    );
    expect(moreThatFit(sectorAir([], "contention", HEADROOM), "nobody", 1, 1)).toBe(0);
  });
});
