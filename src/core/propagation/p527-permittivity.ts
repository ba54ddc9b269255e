/*
 * Recommendation ITU-R P.527-6: complex permittivity of pure and sea water (double Debye, §5.1.1 and
 * §5.1.2). Ground: fixed mid values of P.527-3 Fig. 1 for wet and dry ground, read from memory (at the
 * grazing angles of a link the reflection hardly depends on them). Not implemented: ice, soil mixing.
 */

export type Surface = "sea" | "fresh" | "wet-ground" | "dry-ground";

export interface Permittivity {
  readonly real: number;
  /** Positive; the medium is real - j imaginary. */
  readonly imaginary: number;
}

/** Conductivity of sea water in S/m, §5.1.2 eq. (19) to (26). @param salinityGKg grams a kilogram. */
export const seaWaterConductivity = (temperatureC: number, salinityGKg: number): number => {
  const t = temperatureC;
  const s = salinityGKg;
  const at35 = 2.903602 + 8.607e-2 * t + 4.738817e-4 * t ** 2 - 2.991e-6 * t ** 3 + 4.3047e-9 * t ** 4;
  const r15 = (s * (37.5109 + 5.45216 * s + 1.4409e-2 * s * s)) / (1004.75 + 182.283 * s + s * s);
  const a0 = (6.9431 + 3.2841 * s - 9.9486e-2 * s * s) / (84.85 + 69.024 * s + s * s);
  const a1 = 49.843 - 0.2276 * s + 0.198e-2 * s * s;
  return at35 * r15 * (1 + (a0 * (t - 15)) / (a1 + t));
};

/** Permittivity of water of a salinity (0 for fresh). */
export const waterPermittivity = (frequencyGhz: number, temperatureC: number, salinityGKg: number): Permittivity => {
  const f = frequencyGhz;
  const t = temperatureC;
  const s = salinityGKg;
  const theta = 300 / (t + 273.15) - 1;
  const es = (77.66 + 103.3 * theta) * Math.exp(-3.56417e-3 * s + 4.74868e-6 * s * s + 1.15574e-5 * t * s);
  const e1 = 0.0671 * (77.66 + 103.3 * theta) * Math.exp(-6.28908e-3 * s + 1.76032e-4 * s * s - 9.22144e-5 * t * s);
  const eInf = (3.52 - 7.52 * theta) * (1 + s * (-2.04265e-3 + 1.57883e-4 * t));
  const pure1 = 20.2 - 146.4 * theta + 316 * theta * theta;
  const f1 = pure1 * (1 + s * (2.39357e-3 - 3.1353e-5 * t + 2.52477e-7 * t * t));
  const f2 = 39.8 * pure1 * (1 + s * (-1.99723e-2 + 1.81176e-4 * t));
  const one = (es - e1) / (1 + (f / f1) ** 2);
  const two = (e1 - eInf) / (1 + (f / f2) ** 2);
  const conduction = s > 0 ? (18 * seaWaterConductivity(t, s)) / f : 0;
  return { real: one + two + eInf, imaginary: (f / f1) * one + (f / f2) * two + conduction };
};

const STANDARD_SALINITY_G_KG = 35;

/** Permittivity of a surface a ray may be reflected from. */
export const surfacePermittivity = (surface: Surface, frequencyGhz: number, temperatureC: number): Permittivity => {
  switch (surface) {
    case "sea":
      return waterPermittivity(frequencyGhz, temperatureC, STANDARD_SALINITY_G_KG);
    case "fresh":
      return waterPermittivity(frequencyGhz, temperatureC, 0);
    case "wet-ground":
      return { real: 20, imaginary: 18 / frequencyGhz + 4 };
    case "dry-ground":
      return { real: 3, imaginary: 0.2 };
  }
};
