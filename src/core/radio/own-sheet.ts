/* What an own data sheet takes from one that is known: the rows of its modulations, moved. */
import type { Modulation } from "./hardware";

const MOST_LETTERS = 60;

/** The id of an own sheet: small letters, digits and hyphens of its name. */
export const ownSheetId = (name: string): string =>
  name
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, "-")
    .replaceAll(/^-+|-+$/g, "")
    .slice(0, MOST_LETTERS) || "own";

/**
 * Rows like those of another radio.
 * @param mostPowerDbm power of the slowest modulation, the others backed off as before; null keeps all powers.
 * @param shiftDb added to every sensitivity: below 0 it hears better.
 */
export const movedModulations = (rows: readonly Modulation[], mostPowerDbm: number | null, shiftDb: number): Modulation[] => {
  const downDb = mostPowerDbm === null ? 0 : (rows[0]?.maxTxPowerDbm ?? mostPowerDbm) - mostPowerDbm;
  return rows.map((m) => ({
    ...m,
    maxTxPowerDbm: m.maxTxPowerDbm - downDb,
    sensitivityDbm: Object.fromEntries(Object.entries(m.sensitivityDbm).map(([width, dbm]) => [width, dbm + shiftDb])),
  }));
};
