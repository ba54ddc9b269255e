/*
 * Recommendation ITU-R P.676-12 Annex 1 (specific attenuation line by line), valid 1 to 1000 GHz;
 * used here 1 to 350 GHz. Not implemented: slant paths, Annex 2 approximations.
 */
import oxygen from "./tables/p676_oxygen.json" with { type: "json" };
import water from "./tables/p676_water_vapour.json" with { type: "json" };

const pack = (lines: number[][]): Float64Array => Float64Array.from(lines.flatMap((l) => l.slice(0, 7)));
const OXYGEN = pack(oxygen.lines);
const WATER = pack(water.lines);

/** Partial pressure of water vapour in hPa of a density in g/m3, Annex 1 eq. (4). */
export const vapourPressureHpa = (densityGm3: number, temperatureK: number): number => (densityGm3 * temperatureK) / 216.7;

/**
 * Specific attenuation of dry air and of water vapour in dB/km, Annex 1 eq. (1) to (9).
 * @param dryPressureHpa pressure of dry air: total less vapour.
 */
export const gasSpecificAttenuation = (
  frequencyGhz: number,
  dryPressureHpa: number,
  temperatureK: number,
  vapourDensityGm3: number,
): { oxygenDbPerKm: number; waterDbPerKm: number } => {
  const f = frequencyGhz;
  const p = dryPressureHpa;
  const e = vapourPressureHpa(vapourDensityGm3, temperatureK);
  const theta = 300 / temperatureK;
  let oxygenSum = 0;
  for (let i = 0; i < OXYGEN.length; i += 7) {
    const f0 = OXYGEN[i]!;
    const strength = OXYGEN[i + 1]! * 1e-7 * p * theta ** 3 * Math.exp(OXYGEN[i + 2]! * (1 - theta)); // eq. (3)
    let width = OXYGEN[i + 3]! * 1e-4 * (p * theta ** (0.8 - OXYGEN[i + 4]!) + 1.1 * e * theta); // eq. (6a)
    width = Math.sqrt(width * width + 2.25e-6); // eq. (6b), Zeeman splitting
    const interference = (OXYGEN[i + 5]! + OXYGEN[i + 6]! * theta) * 1e-4 * (p + e) * theta ** 0.8; // eq. (7)
    oxygenSum += strength * lineShape(f, f0, width, interference);
  }
  let waterSum = 0;
  for (let i = 0; i < WATER.length; i += 7) {
    const f0 = WATER[i]!;
    const strength = WATER[i + 1]! * 1e-1 * e * theta ** 3.5 * Math.exp(WATER[i + 2]! * (1 - theta)); // eq. (3)
    let width = WATER[i + 3]! * 1e-4 * (p * theta ** WATER[i + 4]! + WATER[i + 5]! * e * theta ** WATER[i + 6]!);
    width = 0.535 * width + Math.sqrt(0.217 * width * width + (2.1316e-12 * f0 * f0) / theta); // Doppler broadening
    waterSum += strength * lineShape(f, f0, width, 0);
  }
  const debye = 5.6e-4 * (p + e) * theta ** 0.8; // eq. (9)
  const continuum =
    f * p * theta ** 2 * (6.14e-5 / (debye * (1 + (f / debye) ** 2)) + (1.4e-12 * p * theta ** 1.5) / (1 + 1.9e-5 * f ** 1.5)); // eq. (8)
  return { oxygenDbPerKm: 0.182 * f * (oxygenSum + continuum), waterDbPerKm: 0.182 * f * waterSum }; // eq. (1)
};

/** Line shape factor, eq. (5). */
const lineShape = (f: number, f0: number, width: number, interference: number): number => {
  const below = f0 - f;
  const above = f0 + f;
  return (
    (f / f0) *
    ((width - interference * below) / (below * below + width * width) + (width - interference * above) / (above * above + width * width))
  );
};
