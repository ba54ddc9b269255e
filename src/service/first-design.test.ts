/* The design that a link starts with: lawful, off radar channels, and just strong enough, whatever the length and the rules. */
import { describe, expect, test } from "vitest";
import { demoHardware } from "../../demo/seed";
import { type HardwareDto, isProblem, type JobDto, planOf, RECORDS } from "../contract";
import { destination } from "../core/geo";
import { assembleProfile, evaluateLink, observe, verdictOf } from "../core/link";
import { firstDesign } from "./first-design";

const file = demoHardware();
const hardware = {
  radios: file.radios.map((r) => ({ ...r, source: "catalogue" })),
  antennas: file.antennas.map((a) => ({ ...a, source: "catalogue" })),
} as unknown as HardwareDto;
const jobUnder = (ruleDomain: JobDto["ruleDomain"]): JobDto => ({
  ...RECORDS.job.fields.parse({ name: "J", visitOn: "2026-12-03", centreLatDeg: 45, centreLonDeg: -30, ruleDomain }),
  id: "",
  number: 1,
  version: 1,
  revision: 1,
  updatedAt: "",
});
const near = { latDeg: 45, lonDeg: -30, mountAglM: 8 };
const FLAT = { kind: "level" as const, sigmaM: 0, points: [{ distanceM: 0, heightAmslM: -400 }] };

const judged = (job: JobDto, distanceM: number, wanted?: { needToFarMbps: number; needToNearMbps: number }) => {
  const far = { ...destination(near, 80, distanceM), mountAglM: 8 };
  const input = firstDesign(job, hardware, near, far, wanted)!;
  const design = RECORDS.design.fields.parse(input);
  const site = { name: "", mountMaxAglM: null };
  const evaluated = (powerDbm: number) => {
    const asked = { needToFarMbps: design.needToFarMbps ?? 25, needToNearMbps: design.needToNearMbps ?? 25 };
    const plan = planOf(job, site, site, { ...design, ...asked, nearPowerDbm: powerDbm, farPowerDbm: powerDbm }, hardware, FLAT);
    if (isProblem(plan)) throw new Error(plan.id);
    const result = evaluateLink(plan, assembleProfile(near, far, [], [], [], 2026, FLAT));
    return {
      result,
      verdict: verdictOf(
        observe(plan, result, () => 0, null),
        "service",
      ),
    };
  };
  return { design, input, ...evaluated(design.nearPowerDbm), evaluated, radio: hardware.radios.find((r) => r.id === design.nearRadioId)! };
};

describe.each(["cautious", "FCC-like", "ETSI-like"] as const)("under the %s rules", (domain) => {
  const job = jobUnder(domain);

  test.each([25, 80, 200, 450, 900, 2500, 6000])(
    "%i m: it works, is lawful, has no radar duty, and less power would not do",
    (distanceM) => {
      const { design, result, verdict, evaluated, radio } = judged(job, distanceM);
      // Far on, what may be sent without radar duty or permission is not enough under the stricter rules: the nearest to it is named.
      if (distanceM < 1000 || domain === "FCC-like") expect(verdict).toBe("clear");
      for (const way of [result.service.toFar!, result.service.toNear!]) {
        expect(way.regulation).toMatchObject({ status: "allowed", radarDetection: false });
        if (way.regulation.status !== "allowed") return;
        expect(design.nearPowerDbm).toBeLessThanOrEqual(way.regulation.maxConductedDbm + 1e-9);
      }
      expect(radio.channelWidthsMhz).toContain(design.widthMhz);
      if (verdict === "clear" && design.nearPowerDbm > radio.minTxPowerDbm)
        expect(evaluated(design.nearPowerDbm - 3).verdict).not.toBe("clear");
      // What nobody asked for is not written down.
      expect(design).toMatchObject({ needToFarMbps: null, needToNearMbps: null });
    },
  );

  test("more is asked for than any radio carries: the nearest to it is named, lawfully, and it says so", () => {
    const { design, verdict } = judged(job, 3000, { needToFarMbps: 50_000, needToNearMbps: 50_000 });
    expect(verdict).toBe("short");
    expect(design).toMatchObject({ needToFarMbps: 50_000 });
  });

  test("ends that no link can join still get a design to look at", () => {
    expect(firstDesign(job, hardware, near, { ...near, ...destination(near, 10, 300_000) })).not.toBeNull();
  });
});
