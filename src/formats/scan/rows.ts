import { createHash } from "node:crypto";

/* What a scan's text comes to, whatever form it has. */

export interface ScanTextRow {
  readonly key: string;
  readonly name: string;
  readonly centreMhz: number;
  readonly widthMhz: number;
  readonly levelDbm: number;
  readonly busyShare: number | null;
  readonly isNoise: boolean;
}

export interface ScanText {
  readonly form: "scan" | "survey" | "csv";
  readonly rows: readonly ScanTextRow[];
  readonly faults: readonly { readonly line: number; readonly reason: string }[];
}

export const MOST_ROWS = 1000;
const MOST_FAULTS = 20;

/** Faults as they are found, the first ones kept. */
export const faultList = () => {
  const list: { line: number; reason: string }[] = [];
  return {
    list,
    add: (line: number, reason: string): void => {
      if (list.length < MOST_FAULTS) list.push({ line, reason });
    },
  };
};

/**
 * Stands for a sender's address: enough to know it again at the other end, too short to lead back to one address.
 * Forty bits of SHA-256.
 */
export const addressKey = (address: string): string => createHash("sha256").update(address.toLowerCase()).digest("hex").slice(0, 10);

/** Stands for a stranger's name in what leaves the job. What stands for one already stays. */
export const hashedName = (name: string): string =>
  name === "" || /^#[0-9a-f]{8}$/.test(name) ? name : `#${createHash("sha256").update(name).digest("hex").slice(0, 8)}`;

const LOWEST_MHZ = 2300;
const HIGHEST_MHZ = 72_000;
const WIDTHS = [5, 10, 20, 40, 80, 160, 320, 2160];

/** Null, or what is wrong with a row. */
export const rowFault = (r: Pick<ScanTextRow, "centreMhz" | "widthMhz" | "levelDbm" | "busyShare">): string | null => {
  if (!(r.centreMhz >= LOWEST_MHZ && r.centreMhz <= HIGHEST_MHZ))
    return `the frequency ${r.centreMhz} MHz is outside ${LOWEST_MHZ} to ${HIGHEST_MHZ} MHz`;
  if (!WIDTHS.includes(r.widthMhz)) return `the width ${r.widthMhz} MHz is none of ${WIDTHS.join(", ")} MHz`;
  if (!(r.levelDbm >= -120 && r.levelDbm <= 20)) return `the level ${r.levelDbm} dBm is outside -120 to 20 dBm`;
  if (r.busyShare !== null && !(r.busyShare >= 0 && r.busyShare <= 1)) return "the busy share is outside 0 to 100 %";
  return null;
};
