/* The rules of a domain over frequency, for one use and one antenna: what may be radiated where, and what is asked for it. */
import {
  type Asker,
  type Domain,
  type LinkUse,
  limitOfRow,
  type OwnRule,
  PLAIN_ASKER,
  type RuleRow,
  regulate,
  rowsInForce,
} from "../radio";

export interface Stretch {
  readonly lowMhz: number;
  readonly highMhz: number;
  /** Highest EIRP with that antenna and width, dBm; null where nothing may be used out of doors. */
  readonly eirpDbm: number | null;
  readonly rule: RuleRow;
  readonly radar: boolean;
  /** It may be used only inside. */
  readonly indoorOnly: boolean;
  /** What must be recorded first; null for nothing. */
  readonly permission: string | null;
}

const LOOK_MHZ = 0.01;

/** Stretches between two frequencies, rising; where no row is there is none. @param gainDbi of the antenna that asks. */
export const skylineOf = (
  domain: Domain,
  own: readonly OwnRule[],
  use: LinkUse,
  gainDbi: number,
  widthMhz: number,
  lowMhz: number,
  highMhz: number,
  more: Partial<Asker> = {},
): Stretch[] => {
  const rows = rowsInForce(domain, own).filter((r) => r.lowMhz < highMhz && r.highMhz > lowMhz);
  const edges = [...new Set([lowMhz, highMhz, ...rows.flatMap((r) => [r.lowMhz, r.highMhz])])]
    .filter((mhz) => mhz >= lowMhz && mhz <= highMhz)
    .sort((a, b) => a - b);
  const asker: Asker = { ...PLAIN_ASKER, ...more, use, gainDbi, ownRules: own };
  const out: Stretch[] = [];
  for (let i = 0; i + 1 < edges.length; i++) {
    const [low, high] = [edges[i]!, edges[i + 1]!];
    const middle = (low + high) / 2;
    const here = rows.filter((r) => r.lowMhz <= middle && r.highMhz >= middle);
    if (here.length === 0) continue;
    const found = regulate(domain, middle, Math.min(LOOK_MHZ, high - low), asker);
    if (found.status === "forbidden") {
      const rule = found.rule ?? here[0]!;
      out.push({
        lowMhz: low,
        highMhz: high,
        eirpDbm: null,
        rule,
        radar: false,
        indoorOnly: here.every((r) => r.indoorOnly),
        permission: null,
      });
      continue;
    }
    const { rule } = found.limit;
    out.push({
      lowMhz: low,
      highMhz: high,
      eirpDbm: limitOfRow(rule, gainDbi, widthMhz, asker)?.maxEirpDbm ?? null,
      rule,
      radar: found.radarDetection,
      indoorOnly: false,
      permission: found.permission === null || found.permission.state === "covers" ? null : found.permission.asks,
    });
  }
  return out;
};
