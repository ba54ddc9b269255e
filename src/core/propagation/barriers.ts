/*
 * Loss by a wall or window before a unit: a measured value, else a material's planning range, else, when
 * nothing is known, P.2109 (a random place inside a building) and then nothing is certain.
 */
import { needAtLeast } from "../units";
import { type BuildingType, buildingEntryLossDb } from "./p2109-building-entry";
import table from "./tables/barriers.json" with { type: "json" };

export const BARRIER_MATERIALS = table.materials;

/** What stands between a unit and the open air. */
export type Barrier =
  | { readonly kind: "measured"; readonly lossDb: number }
  | { readonly kind: "material"; readonly material: string }
  | { readonly kind: "unknown"; readonly building: BuildingType };

export interface BarrierLoss {
  readonly medianDb: number;
  readonly leastDb: number;
  readonly mostDb: number;
  readonly clause: string;
  /** True when only statistics over all buildings are known: the verdict is then Unknown. */
  readonly unknown: boolean;
  readonly inRange: boolean;
}

const MEASURED_SIGMA_DB = 2;
/** The ranges were gathered at these frequencies; beyond they grow by half the logarithmic rise (ours). */
const LOW_GHZ = 2;
const HIGH_GHZ = 7;

/** @throws RangeError for a negative measured loss or an unknown material. */
export const barrierLoss = (barrier: Barrier, frequencyGhz: number): BarrierLoss => {
  if (barrier.kind === "measured") {
    const lossDb = needAtLeast("measured loss, dB", barrier.lossDb, 0);
    return {
      medianDb: lossDb,
      leastDb: Math.max(0, lossDb - MEASURED_SIGMA_DB),
      mostDb: lossDb + MEASURED_SIGMA_DB,
      clause: "measured",
      unknown: false,
      inRange: true,
    };
  }
  if (barrier.kind === "unknown") {
    const at = (share: number): number => buildingEntryLossDb(Math.min(100, frequencyGhz), barrier.building, share);
    return {
      medianDb: at(0.5),
      leastDb: at(0.1),
      mostDb: at(0.9),
      clause: "P.2109-1 (1) to (10)",
      unknown: true,
      inRange: frequencyGhz >= 0.08 && frequencyGhz <= 100,
    };
  }
  const row = table.materials.find((m) => m.id === barrier.material);
  if (row === undefined) throw new RangeError(`wall material ${barrier.material} is not known`);
  const scale = frequencyGhz > HIGH_GHZ ? 1 + 0.5 * Math.log10(frequencyGhz / HIGH_GHZ) : 1;
  return {
    medianDb: ((row.leastDb + row.mostDb) / 2) * scale,
    leastDb: row.leastDb * scale,
    mostDb: row.mostDb * scale,
    clause: "material table (ours)",
    unknown: false,
    inRange: frequencyGhz >= LOW_GHZ && frequencyGhz <= HIGH_GHZ,
  };
};
