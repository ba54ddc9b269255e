/*
 * IEEE 802.11 n (clause 19), ac (clause 21), ax (clause 27), be (clause 36): rate of the air interface
 * from first principles, N_SD bits R N_SS / (T_useful + T_GI), and 802.11ad single carrier (clause 20).
 */

import ofdm from "./tables/ieee80211_ofdm_rates.json" with { type: "json" };
import ad from "./tables/ieee80211ad_sc_rates.json" with { type: "json" };

export type OfdmStandard = "n" | "ac" | "ax" | "be";

interface OfdmTable {
  readonly T_useful_us: number;
  readonly GI_us: readonly number[];
  readonly max_nss: number;
  readonly data_subcarriers: Readonly<Record<string, number>>;
  readonly mcs: readonly {
    readonly index: number;
    readonly modulation: string;
    readonly bits: number;
    readonly code_rate: readonly number[];
    readonly min_sensitivity_dBm: Readonly<Record<string, number>>;
  }[];
}

const tableOf = (standard: OfdmStandard): OfdmTable => (ofdm.standards as unknown as Record<string, OfdmTable>)[`802.11${standard}`]!;

/** Modulations of a standard, slowest first. */
export const ofdmModulations = (standard: OfdmStandard): { index: number; modulation: string; codeRate: string }[] =>
  tableOf(standard).mcs.map((m) => ({ index: m.index, modulation: m.modulation, codeRate: m.code_rate.join("/") }));

/** @throws RangeError for a width, MCS, stream count or guard interval the standard does not have. */
export const ofdmRateMbps = (standard: OfdmStandard, widthMhz: number, mcs: number, streams: number, guardIntervalUs: number): number => {
  const table = tableOf(standard);
  const subcarriers = table.data_subcarriers[String(widthMhz)];
  const row = table.mcs.find((m) => m.index === mcs);
  if (subcarriers === undefined) throw new RangeError(`width ${widthMhz} MHz is not in 802.11${standard}`);
  if (row === undefined) throw new RangeError(`MCS ${mcs} is not in 802.11${standard}`);
  if (!(streams >= 1 && streams <= table.max_nss)) throw new RangeError(`${streams} streams are not in 802.11${standard}`);
  if (!table.GI_us.includes(guardIntervalUs)) throw new RangeError(`guard interval ${guardIntervalUs} us is not in 802.11${standard}`);
  const barred = standard === "ac" ? (ofdm.vht_not_allowed_mcs_nss as Record<string, Record<string, number[]>>)[widthMhz] : undefined;
  if (barred?.[String(mcs)]?.includes(streams))
    throw new RangeError(`MCS ${mcs} with ${streams} streams at ${widthMhz} MHz is left out by the standard`);
  const codeRate = row.code_rate[0]! / row.code_rate[1]!;
  return (subcarriers * row.bits * codeRate * streams) / (table.T_useful_us + guardIntervalUs);
};

/** Minimum sensitivity the standard asks for, dBm, 10 % packet errors. */
export const ofdmMinSensitivityDbm = (standard: OfdmStandard, widthMhz: number, mcs: number): number => {
  const value = tableOf(standard).mcs.find((m) => m.index === mcs)?.min_sensitivity_dBm[String(widthMhz)];
  if (value === undefined) throw new RangeError(`802.11${standard} has no sensitivity at ${widthMhz} MHz, MCS ${mcs}`);
  return value;
};

const DATA_SHARE_OF_BLOCK = 448 / 512;

/** 802.11ad single carrier rate: 1760 Msym/s, 448 of 512 symbols data, bits, code rate, repetition. */
export const adRateMbps = (mcs: number): number => {
  const row = ad.mcs.find((m) => m[0] === mcs);
  if (row === undefined || mcs === 0) throw new RangeError(`MCS ${mcs} is not an 802.11ad single carrier rate`);
  const [, , bits, num, den, repetition] = row as [number, string, number, number, number, number | null];
  return (ad.occupied_symbol_rate_MHz * DATA_SHARE_OF_BLOCK * bits * num) / den / (repetition ?? 1);
};
