/*
 * A modulation table from first principles, for a radio without one in its data sheet: rates by IEEE
 * 802.11, sensitivities the standard's minimum (10 % packet errors) less a stated betterment, power backed
 * off as modulation rises (ours: 0 dB to 16-QAM, then 1 dB a step to 5.5 dB).
 */
import type { Modulation } from "./hardware";
import { type OfdmStandard, ofdmMinSensitivityDbm, ofdmModulations, ofdmRateMbps } from "./ofdm-rates";

const BACK_OFF_DB = [0, 0, 0, 0, 0.5, 1.5, 2.5, 3, 4, 4.5, 5, 5.5, 6, 6.5];
/** Shortest guard interval that a bridge uses: 0.4 us for n and ac, 0.8 us for ax and be. */
const GUARD_US: Readonly<Record<OfdmStandard, number>> = { n: 0.4, ac: 0.4, ax: 0.8, be: 0.8 };

/** Rows for the widths asked for; a width or combination the standard lacks is left out. @param betterDb real receivers beat the minimum by some dB. */
export const formulaModulations = (
  standard: OfdmStandard,
  widthsMhz: readonly number[],
  streams: number,
  maxTxPowerDbm: number,
  betterDb = 8,
): Modulation[] =>
  ofdmModulations(standard).map((m) => {
    const phyRateMbps: Record<string, number> = {};
    const sensitivityDbm: Record<string, number> = {};
    for (const width of widthsMhz) {
      try {
        phyRateMbps[String(width)] = ofdmRateMbps(standard, width, m.index, streams, GUARD_US[standard]);
        sensitivityDbm[String(width)] = ofdmMinSensitivityDbm(standard, width, m.index) - betterDb;
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        delete phyRateMbps[String(width)];
      }
    }
    return {
      index: m.index,
      modulation: m.modulation,
      codeRate: m.codeRate,
      maxTxPowerDbm: maxTxPowerDbm - (BACK_OFF_DB[m.index] ?? 6.5),
      phyRateMbps,
      sensitivityDbm,
    };
  });
