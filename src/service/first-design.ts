import { type DesignFields, type HardwareDto, isProblem, type JobDto, planOf, RECORDS } from "../contract";
import { inverse, type LatLon } from "../core/geo";
import {
  assembleProfile,
  evaluateLink,
  LONGEST_LINK_M,
  lawfulPowers,
  observe,
  SHORTEST_LINK_M,
  type Verdict,
  verdictOf,
} from "../core/link";
import { rowsOfDomain } from "../core/radio";
import type { DesignInput } from "../data/links";

/* A design to start from: the smallest radio that works lawfully at this length, never on a radar channel, with power just enough. */

/** What is planned for while nobody has said what is needed. */
const USUAL_NEED_MBPS = 25;
/** A radio is to reach this much farther than the path is long (ours). */
const SPARE_REACH = 1.3;
/** Widths are tried from here outwards: wide enough for most, narrow enough to find room. */
const USUAL_WIDTH_MHZ = 40;
const CHANNEL_STEP_MHZ = 5;
const POWER_STEP_DB = 3;
/** So far below the path that nothing stands in it: only the radios are looked at. */
const NO_GROUND = { kind: "level", sigmaM: 0, points: [{ distanceM: 0, heightAmslM: -400 }] } as const;

type Radio = HardwareDto["radios"][number];
interface End extends LatLon {
  readonly mountAglM: number;
}
export interface Wanted {
  readonly needToFarMbps: number | null;
  readonly needToNearMbps: number | null;
}
export const NOTHING_SAID: Wanted = { needToFarMbps: null, needToNearMbps: null };

/** Middles of what a radio and the free rows of its domain share, wide enough for a channel; none with a radar duty. */
const channelsOf = (radio: Radio, job: JobDto, widthMhz: number): number[] => {
  const out = new Set<number>();
  for (const row of rowsOfDomain[job.ruleDomain]) {
    if (!row.fixedOutdoorPermitted || row.dfs.required || row.stopUntilRecorded !== null || !row.serves.includes("pair")) continue;
    for (const band of radio.bandsMhz) {
      const [low, high] = [Math.max(band.low, row.lowMhz), Math.min(band.high, row.highMhz)];
      if (high - low < widthMhz) continue;
      const middle = Math.round((low + high) / 2 / CHANNEL_STEP_MHZ) * CHANNEL_STEP_MHZ;
      out.add(Math.min(high - widthMhz / 2, Math.max(low + widthMhz / 2, middle)));
    }
  }
  return [...out];
};

const plainDesign = (
  near: End,
  far: End,
  radio: Radio,
  centreMhz: number,
  widthMhz: number,
  powerDbm: number,
  wanted: Wanted,
): DesignFields =>
  RECORDS.design.fields.parse({
    nearMountAglM: near.mountAglM,
    farMountAglM: far.mountAglM,
    nearRadioId: radio.id,
    farRadioId: radio.id,
    nearPowerDbm: powerDbm,
    farPowerDbm: powerDbm,
    centreMhz,
    widthMhz,
    ...wanted,
  });

interface Tried {
  readonly design: DesignFields;
  readonly verdict: Verdict;
  /** Lower is better: how bad it is, how much stands against it, how little of the need is kept. */
  readonly score: readonly [number, number, number];
}

const RANK = { clear: 0, tight: 1, unknown: 2, short: 3 } as const satisfies Record<Verdict, number>;

const isBetter = (a: Tried, b: Tried | null): boolean => {
  if (b === null) return true;
  const at = a.score.findIndex((v, i) => v !== b.score[i]);
  return at >= 0 && a.score[at]! < b.score[at]!;
};

/** What is tried of every pair: over open air, so that only radios, rules and length count. */
const trying = (job: JobDto, near: End, far: End, hardware: HardwareDto) => {
  const profile = assembleProfile(near, far, [], [], [], Number(job.visitOn.slice(0, 4)), NO_GROUND);
  const site = { name: "", mountMaxAglM: null };
  return (design: DesignFields): (Tried & { readonly mostLawfulDbm: number }) | null => {
    const plan = planOf(job, site, site, design, hardware, { ...NO_GROUND, points: [...NO_GROUND.points] });
    if (isProblem(plan)) return null;
    const result = evaluateLink(plan, profile);
    const found = observe(plan, result, () => 0, null).filter((o) => o.about === "service");
    const verdict = verdictOf(found);
    const against = found.filter((o) => o.verdict === "short").length;
    const lawful = lawfulPowers(plan, result);
    return {
      design,
      verdict,
      score: [RANK[verdict], against, -(result.service.kept?.multiple ?? 0)],
      mostLawfulDbm: lawful === null ? Number.NEGATIVE_INFINITY : Math.min(lawful.nearDbm, lawful.farDbm),
    };
  };
};

const byReach = (a: Radio, b: Radio): number => a.maxLinkKm - b.maxLinkKm || a.id.localeCompare(b.id);

/**
 * A design to start from.
 * @param wanted what is needed each way; where nobody said, a usual rate is planned for and none is written down.
 * @returns null when the catalogue holds no radio at all.
 */
export const firstDesign = (job: JobDto, hardware: HardwareDto, near: End, far: End, wanted: Wanted = NOTHING_SAID): DesignInput | null => {
  const { distanceM } = inverse(near, far);
  const asked = { needToFarMbps: wanted.needToFarMbps ?? USUAL_NEED_MBPS, needToNearMbps: wanted.needToNearMbps ?? USUAL_NEED_MBPS };
  const reaching = hardware.radios
    .filter((r) => r.antenna.kind === "integrated" && r.roles.some((role) => role === "near/far" || role === "pair-only"))
    .filter((r) => r.maxLinkKm * 1000 >= distanceM * SPARE_REACH)
    .sort(byReach);
  let best: Tried | null = null;
  if (distanceM >= SHORTEST_LINK_M && distanceM <= LONGEST_LINK_M) {
    const attempt = trying(job, near, far, hardware);
    for (const radio of reaching) {
      const widths = [...radio.channelWidthsMhz].sort((a, b) => Math.abs(a - USUAL_WIDTH_MHZ) - Math.abs(b - USUAL_WIDTH_MHZ));
      for (const widthMhz of widths)
        for (const centreMhz of channelsOf(radio, job, widthMhz)) {
          const at = (dbm: number) => attempt(plainDesign(near, far, radio, centreMhz, widthMhz, dbm, asked));
          const lowest = at(radio.minTxPowerDbm);
          for (let dbm = radio.minTxPowerDbm; lowest !== null && dbm - POWER_STEP_DB < lowest.mostLawfulDbm; dbm += POWER_STEP_DB) {
            const tried = at(Math.min(dbm, lowest.mostLawfulDbm));
            if (tried !== null && isBetter(tried, best)) best = tried;
            if (best?.verdict === "clear") return { ...best.design, ...wanted };
          }
        }
    }
  }
  if (best !== null) return { ...best.design, ...wanted };
  // Nothing reaches so far, or the ends stand where no link can: the one that reaches farthest shows by how much.
  const radio =
    [...hardware.radios]
      .filter((r) => r.antenna.kind === "integrated")
      .sort(byReach)
      .at(-1) ?? hardware.radios[0];
  if (radio === undefined) return null;
  const widthMhz = radio.channelWidthsMhz.includes(USUAL_WIDTH_MHZ) ? USUAL_WIDTH_MHZ : radio.channelWidthsMhz[0]!;
  const band = radio.bandsMhz[0]!;
  const centreMhz = channelsOf(radio, job, widthMhz)[0] ?? band.low + widthMhz / 2;
  return plainDesign(near, far, radio, centreMhz, widthMhz, Math.max(...radio.modulations.map((m) => m.maxTxPowerDbm)), wanted);
};
