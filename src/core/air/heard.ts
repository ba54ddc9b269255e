/*
 * What a scan says of one of the job's radios. What the radio itself heard, aimed, stands as it is. What was heard with something in
 * the hand is turned to its antenna by the stated gain of that; from where it came nobody knows: from the main lobe to the back, each
 * way alike, of which the level that nine in ten stay under is planned with (ours). Silence is "nothing decoded", never "free".
 */
import { noiseFloorDbm } from "../radio";
import type { Heard } from "./job";
import type { AirRadio } from "./radios";

export interface ScanRow {
  /** Says that the same sender was heard at two ends; empty: not known. */
  readonly key: string;
  readonly name: string;
  readonly centreMhz: number;
  readonly widthMhz: number;
  readonly levelDbm: number;
  /** Part of the time in which the channel was busy; null: the scan does not say. */
  readonly busyShare: number | null;
  /** The radio's own word for the noise of that channel. */
  readonly isNoise: boolean;
}

export interface Scan {
  readonly siteId: string;
  /** The radio of this link heard it, aimed; null: something in the hand. */
  readonly linkId: string | null;
  readonly gainDbi: number;
  readonly rows: readonly ScanRow[];
}

/** Where a scan does not say how busy it was: 10 to 50 %, drawn; this is planned with (ours). */
export const UNSAID_BUSY = { least: 0.1, planned: 0.3, most: 0.5 } as const;
const DIRECTIONS = 72;
const PLANNED_OF = 0.9;

/** Gain towards a direction nobody knows, dBi: what the antenna has at its back, what nine in ten stay under, and its peak. */
export const gainFromAnywhere = (r: Pick<AirRadio, "gainDbi" | "pattern" | "axis">): { least: number; planned: number; most: number } => {
  const { pattern } = r;
  if (pattern === null || r.axis === null) return { least: r.gainDbi, planned: r.gainDbi, most: r.gainDbi };
  const all = Array.from({ length: DIRECTIONS }, (_, i) => r.gainDbi + pattern.envelopeDb((i * 360) / DIRECTIONS - 180, 0)).sort(
    (a, b) => a - b,
  );
  return { least: all[0]!, planned: all[Math.floor(PLANNED_OF * DIRECTIONS)]!, most: all[DIRECTIONS - 1]! };
};

const MOST_SHARE = 1;

/** What the scans of a radio's site say at its port; of one sender heard often the worst counts. */
export const heardBy = (radio: AirRadio, linkId: string, scans: readonly Scan[]): Heard[] => {
  const found = new Map<string, Heard>();
  for (const scan of scans) {
    if (scan.siteId !== radio.siteId) continue;
    const own = scan.linkId === linkId;
    const turnDb = own ? 0 : gainFromAnywhere(radio).planned - scan.gainDbi - radio.lossDb;
    for (const row of scan.rows) {
      let levelDbm = row.levelDbm + turnDb;
      if (row.isNoise) {
        // A radio's own floor is in what it says: only what lies above it comes from elsewhere.
        const floor = 10 ** (noiseFloorDbm(row.widthMhz, radio.noiseFigureDb) / 10);
        const above = 10 ** (row.levelDbm / 10) - floor;
        if (!own || above < floor * 0.26) continue;
        levelDbm = 10 * Math.log10(above);
      }
      const id = row.key === "" ? `${row.name}|${row.centreMhz}|${row.widthMhz}` : row.key;
      const activity = row.isNoise ? MOST_SHARE : (row.busyShare ?? UNSAID_BUSY.planned);
      const known = found.get(id);
      if (known !== undefined && known.levelDbm >= levelDbm) continue;
      found.set(id, {
        id,
        name: row.name,
        channel: { centreMhz: row.centreMhz, widthMhz: row.widthMhz },
        levelDbm,
        activity: Math.max(activity, known?.activity ?? 0),
      });
    }
  }
  return [...found.values()];
};
