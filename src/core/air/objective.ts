/*
 * What an assignment is judged by, in turn: fewest links short of their need; the least that they lack together; the fewest channels
 * of one mast that overlap, for what is carried between others' bursts comes late; the most spare at the worst link, in quarters and no farther than twice the need; the fewest units under radar duty; the fewest changes (ours). What
 * no channel could carry even undisturbed counts by nine tenths of the most that one could: it is not for the channels to mend. Whole
 * numbers, so that sums made in another order are the same.
 */
import type { AirJob, AirUnit } from "./job";
import type { JudgedAir } from "./judge";
import { type Channel, commonMhz } from "./mask";
import type { AirField } from "./radios";

export interface Score {
  readonly short: number;
  /** Tenths of a Mbps, both ways of all short links together. */
  readonly lackTenths: number;
  /** Own channels that overlap another's on one mast, each counted at both. */
  readonly meets: number;
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
  a.meets - b.meets ||
  b.spareQuarters - a.spareQuarters ||
  a.radar - b.radar ||
  a.changes - b.changes;

/** Whether two units have radios on one mast and channels that overlap; those that keep one beat may. */
export const meetOnMast = (field: AirField, a: AirUnit, onA: Channel, b: AirUnit, onB: Channel): boolean => {
  if (commonMhz(onA, onB) <= 0) return false;
  const radiosOf = (u: AirUnit): number[] => u.links.flatMap((l) => [field.indexOf.get(l.nearRadioId)!, field.indexOf.get(l.farRadioId)!]);
  const others = radiosOf(b);
  return radiosOf(a).some((i) =>
    others.some((k) => field.onOneMast(i, k) && (field.radios[i]!.beat === null || field.radios[i]!.beat !== field.radios[k]!.beat)),
  );
};

const KEPT_SHARE = 0.9;

/** What a unit is held to, as a part of its need. @param bestAlone how often its need fits on its best channel, undisturbed. */
export const heldTo = (bestAlone: number): number => (bestAlone >= 1 ? 1 : KEPT_SHARE * bestAlone);

/** @param held see there; a unit held to nothing is never short. */
export const heldMultiple = (multiple: number, held: number): number => (held <= 0 ? 2 : multiple / held);

/**
 * Score of a job as it was judged.
 * @param radar whether a unit's channel is under radar duty. @param held what it is held to, of its need.
 */
export const scoreOf = (
  job: Pick<AirJob, "units" | "field">,
  judged: JudgedAir,
  channelOf: (unit: AirUnit) => Channel,
  radar: (unit: AirUnit) => boolean,
  changed: (unit: AirUnit) => boolean,
  held: (unit: AirUnit) => number,
): Score => {
  let [short, lackTenths, spareQuarters, duty, changes, meets] = [0, 0, SPARE_MOST, 0, 0, 0];
  for (const unit of job.units) {
    duty += radar(unit) ? 1 : 0;
    changes += changed(unit) ? 1 : 0;
    for (const other of job.units) if (other !== unit && meetOnMast(job.field, unit, channelOf(unit), other, channelOf(other))) meets += 1;
    for (const air of judged.byUnit.get(unit.id) ?? []) {
      const { plan } = unit.links.find((l) => l.id === air.linkId)!;
      const multiple = heldMultiple(air.multiple, held(unit));
      short += multiple < 1 ? 1 : 0;
      lackTenths += lackOf((plan.needToFarMbps ?? 0) + (plan.needToNearMbps ?? 0), multiple);
      spareQuarters = Math.min(spareQuarters, spareOf(multiple));
    }
  }
  return { short, lackTenths, meets, spareQuarters, radar: duty, changes };
};
