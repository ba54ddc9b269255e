/*
 * Patterns of tapered apertures: a round one with a parabola on a pedestal (Silver, Microwave Antenna
 * Theory and Design, §6.8), one axis of a rectangular one with a cosine on a pedestal (§6.6). The
 * pedestal is chosen to meet the first side lobe, the scale to meet the half-power beamwidth. The
 * combination and its use for aiming are ours; interference is judged by the reference envelopes.
 */
import { besselJ1, besselJ2 } from "./bessel";

/** Field of the aperture at u, 1 on the axis. */
type Field = (u: number) => number;

const LEAST_U = 1e-4;

const roundField = (pedestal: number): Field => {
  const whole = pedestal + (1 - pedestal) / 2;
  return (u) => {
    if (Math.abs(u) < LEAST_U) return 1;
    return ((pedestal * 2 * besselJ1(u)) / u + (((1 - pedestal) / 2) * 8 * besselJ2(u)) / (u * u)) / whole;
  };
};

const lineField = (pedestal: number): Field => {
  const weight = ((1 - pedestal) * 2) / Math.PI;
  return (u) => {
    if (Math.abs(u) < LEAST_U) return 1;
    const pole = 1 - ((2 * u) / Math.PI) ** 2;
    const cosine = Math.abs(pole) < 1e-6 ? Math.PI / 4 : Math.cos(u) / pole;
    return ((pedestal * Math.sin(u)) / u + weight * cosine) / (pedestal + weight);
  };
};

/** u at half power, by halving; the main lobe falls steadily to its first zero beyond u = 3. */
const halfPowerU = (field: Field): number => {
  let low = 0.5;
  let high = 3;
  for (let i = 0; i < 50; i++) {
    const mid = (low + high) / 2;
    if (field(mid) > Math.SQRT1_2) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
};

/** Level of the highest side lobe in dB and the u where it stands. */
const sideLobeOf = (field: Field): { levelDb: number; u: number } => {
  let u = 2;
  while (Math.abs(field(u + 0.01)) < Math.abs(field(u)) && u < 12) u += 0.01;
  let best = 0;
  let at = u;
  for (; u < 14; u += 0.01) {
    const size = Math.abs(field(u));
    if (size > best) {
      best = size;
      at = u;
    }
  }
  return { levelDb: 20 * Math.log10(best), u: at };
};

interface Taper {
  readonly pedestal: number;
  readonly levelDb: number;
  readonly u: number;
}

const TAPER_STEPS = 20;
/** Side lobe by pedestal, from the softest taper to none: once for all antennas, since it depends on the taper alone. */
const tapersOf = (make: (pedestal: number) => Field): readonly Taper[] =>
  Array.from({ length: TAPER_STEPS + 1 }, (_, i) => ({ pedestal: i / TAPER_STEPS, ...sideLobeOf(make(i / TAPER_STEPS)) }));
const TAPERS = { round: tapersOf(roundField), line: tapersOf(lineField) };

/** The taper whose highest side lobe is the wanted one, linear between the steps; the nearest where none reaches it. */
const taperFor = (tapers: readonly Taper[], sideLobeDb: number): Taper => {
  // Below its softest useful taper the side lobe rises again: search from no taper downwards.
  for (let i = tapers.length - 1; i > 0; i--) {
    const hard = tapers[i]!;
    const soft = tapers[i - 1]!;
    if (sideLobeDb >= hard.levelDb) return hard;
    if (soft.levelDb > hard.levelDb) return hard;
    if (sideLobeDb < soft.levelDb) continue;
    const t = (sideLobeDb - hard.levelDb) / (soft.levelDb - hard.levelDb);
    return {
      pedestal: hard.pedestal + t * (soft.pedestal - hard.pedestal),
      levelDb: sideLobeDb,
      u: hard.u + t * (soft.u - hard.u),
    };
  }
  return tapers[0]!;
};

export interface ApertureCut {
  /** Level below the peak at an angle off the axis, dB, 0 or below. */
  readonly relativeDb: (offDeg: number) => number;
  readonly sideLobeDb: number;
  readonly sideLobeDeg: number;
}

/** Deepest null that a real antenna shows in its pattern (ours). */
const NULL_FLOOR_DB = -45;

/**
 * @param beamwidthDeg between the half-power points.
 * @param sideLobeDb wanted first side lobe, reached as far as the taper allows
 *   (round: -17.6 to -24.6 dB, line: -13.3 to -23.0 dB).
 */
export const apertureCut = (shape: "round" | "line", beamwidthDeg: number, sideLobeDb: number): ApertureCut => {
  const taper = taperFor(TAPERS[shape], sideLobeDb);
  const field = (shape === "round" ? roundField : lineField)(taper.pedestal);
  const scale = halfPowerU(field) / Math.sin((Math.min(beamwidthDeg, 170) * Math.PI) / 360);
  return {
    relativeDb: (offDeg) => {
      const off = Math.min(90, Math.abs(offDeg));
      return Math.max(NULL_FLOOR_DB, 20 * Math.log10(Math.max(1e-6, Math.abs(field(scale * Math.sin((off * Math.PI) / 180))))));
    },
    sideLobeDb: taper.levelDb,
    sideLobeDeg: (Math.asin(Math.min(1, taper.u / scale)) * 180) / Math.PI,
  };
};
