/*
 * What an assignment is judged by, in turn: fewest links short of their need; the least that they lack together; the most spare at
 * the worst link, in steps and no farther than twice the need; the fewest units under radar duty; the fewest changes (ours). Whole
 * numbers, so that sums made in another order are the same.
 */
import type { AirJob, AirUnit } from "./job";
import type { JudgedAir } from "./judge";

export interface Score {
  readonly short: number;
  /** Tenths of a Mbps, both ways of all short links together. */
  readonly lackTenths: number;
  /** How often the need of the worst link fits, in quarters, at most 8. */
  readonly spareQuarters: number;
  readonly radar: number;
  readonly changes: number;
}

export const SPARE_MOST = 8;

/** A multiple as the objective sees it. */
export const spareOf = (multiple: number): number => Math.floor(Math.min(2, multiple) * 4 + 1e-9);
/** What one link lacks, both ways together. */
export const lackOf = (needMbps: number, multiple: number): number =>
  multiple >= 1 ? 0 : Math.ceil(needMbps * (1 - Math.max(0, multiple)) * 10 - 1e-9);

/** Below 0: the first is better. */
export const compareScores = (a: Score, b: Score): number =>
  a.short - b.short ||
  a.lackTenths - b.lackTenths ||
  b.spareQuarters - a.spareQuarters ||
  a.radar - b.radar ||
  a.changes - b.changes;

/** Score of a job as it was judged. @param radar whether a unit's channel is under radar duty. */
export const scoreOf = (
  job: Pick<AirJob, "units">,
  judged: JudgedAir,
  radar: (unit: AirUnit) => boolean,
  changed: (unit: AirUnit) => boolean,
): Score => {
  let [short, lackTenths, spareQuarters, duty, changes] = [0, 0, SPARE_MOST, 0, 0];
  for (const unit of job.units) {
    duty += radar(unit) ? 1 : 0;
    changes += changed(unit) ? 1 : 0;
    for (const air of judged.byUnit.get(unit.id) ?? []) {
      const { plan } = unit.links.find((l) => l.id === air.linkId)!;
      short += air.multiple < 1 ? 1 : 0;
      lackTenths += lackOf((plan.needToFarMbps ?? 0) + (plan.needToNearMbps ?? 0), air.multiple);
      spareQuarters = Math.min(spareQuarters, spareOf(air.multiple));
    }
  }
  return { short, lackTenths, spareQuarters, radar: duty, changes };
};
