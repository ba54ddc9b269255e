/* What can be hung on a wall, and which two of them make a link. */
import { type Antenna, type PairingFault, pairingFaults, parsePolarisation, type Radio } from "../radio";
import type { Unit, UnitPair } from "./types";

const MM_PER_CM = 10;

const faceOf = (of: Radio | Antenna, diameterMm: number | null | undefined): number | null =>
  of.sizeMm !== undefined
    ? Math.max(of.sizeMm.width, of.sizeMm.height) / MM_PER_CM
    : diameterMm != null && diameterMm > 0
      ? diameterMm / MM_PER_CM
      : null;

const overlaps = (a: Radio["bandsMhz"], b: Radio["bandsMhz"]): boolean => a.some((x) => b.some((y) => x.low < y.high && y.low < x.high));

/** Whether an antenna goes with a connectorised radio: band, connector, number of chains, polarisation. What no sheet says is no fault. */
export const antennaGoesWith = (radio: Radio, antenna: Antenna): boolean => {
  const { connector, connectorCount } = radio.antenna;
  if (!overlaps(radio.bandsMhz, antenna.bandsMhz)) return false;
  if (connector !== undefined && antenna.connector !== undefined && connector !== antenna.connector) return false;
  if (antenna.connectorCount !== undefined && antenna.connectorCount < Math.min(connectorCount ?? radio.chains, radio.chains)) return false;
  const dual = (words: string | undefined): boolean | null => (words === undefined ? null : (parsePolarisation(words)?.dual ?? null));
  return !(dual(radio.polarisation) === true && dual(antenna.polarisation) === false);
};

const integrated = (radio: Radio): Unit => ({
  key: radio.id,
  name: radio.name,
  radio,
  antenna: null,
  faceCm: faceOf(radio, radio.antenna.diameterMm),
  priceEur: radio.priceEur ?? null,
  poleMm: radio.poleDiameterMm ?? null,
});

const withAntenna = (radio: Radio, antenna: Antenna): Unit => ({
  key: `${radio.id}+${antenna.id}`,
  name: `${radio.name} with ${antenna.name}`,
  radio,
  antenna,
  faceCm: faceOf(antenna, antenna.diameterMm),
  priceEur: radio.priceEur === undefined || antenna.priceEur === undefined ? null : radio.priceEur + antenna.priceEur,
  poleMm: antenna.poleDiameterMm ?? null,
});

/** A radio and the antenna it stands with, whatever fits. */
export const unitOf = (radio: Radio, antenna: Antenna | null): Unit =>
  radio.antenna.kind === "connectorised" && antenna !== null ? withAntenna(radio, antenna) : integrated(radio);

/** Every radio with its own antenna, and every connectorised one with each that fits it; what is retired is not taken any more. */
export const unitsOf = (radios: readonly Radio[], antennas: readonly Antenna[]): Unit[] =>
  radios.flatMap((radio) =>
    radio.retired === true
      ? []
      : radio.antenna.kind === "integrated"
        ? [integrated(radio)]
        : antennas.filter((a) => a.retired !== true && antennaGoesWith(radio, a)).map((a) => withAntenna(radio, a)),
  );

const OF_CHANNEL: readonly PairingFault["code"][] = ["band", "width"];

/** Whether two radios make a link at all, on whatever channel. */
const makesLink = (near: Radio, far: Radio): boolean => pairingFaults(near, far, 0, 0).every((f) => OF_CHANNEL.includes(f.code));

/** Every two units that make a link, either way round, and the units that are in none. */
export const pairsOf = (units: readonly Unit[]): { pairs: UnitPair[]; alone: Unit[] } => {
  const pairs: UnitPair[] = [];
  const joined = new Set<Unit>();
  const known = new Map<string, boolean>();
  for (const near of units)
    for (const far of units) {
      if (near.radio.family !== far.radio.family) continue;
      const key = `${near.radio.id}|${far.radio.id}`;
      let does = known.get(key);
      if (does === undefined) {
        does = makesLink(near.radio, far.radio);
        known.set(key, does);
      }
      if (!does) continue;
      pairs.push({ key: `${near.key}|${far.key}`, near, far });
      joined.add(near);
      joined.add(far);
    }
  return { pairs, alone: units.filter((u) => !joined.has(u)) };
};

export const priceOf = ({ near, far }: UnitPair): number | null =>
  near.priceEur === null || far.priceEur === null ? null : near.priceEur + far.priceEur;

export const faceOfPair = ({ near, far }: UnitPair): number | null =>
  near.faceCm === null || far.faceCm === null ? null : Math.max(near.faceCm, far.faceCm);

/** How many links of this pair are at hand: of every radio and antenna in it as many as it takes; what nobody counts is not there. */
export const stockOf = ({ near, far }: UnitPair): number => {
  const takes = new Map<Radio | Antenna, number>();
  for (const unit of [near, far])
    for (const part of [unit.radio, unit.antenna]) if (part !== null) takes.set(part, (takes.get(part) ?? 0) + 1);
  return Math.min(...[...takes].map(([part, count]) => Math.floor((part.stock ?? 0) / count)));
};
