/*
 * Sweeps over antennas that the fit does not know, for its proof and its bench: arrays of elements with
 * errors of amplitude and phase, whose lobes stand elsewhere and elsewhere high than those of a tapered
 * aperture, and on its two sides differently. Nothing of the fit's own model is used here.
 */
import { type Pattern, patternOf } from "../../antenna";
import { normalRandom, seededRandom } from "../../units";
import type { SweepReading } from "../fit";

/** Level of a line of elements against the angle, 0 dB at its peak, its half-power width and lobes brought to what is wanted. */
const arrayCut = (uniform: () => number, normal: () => number, beamwidthDeg: number, sideLobeDb: number): ((offDeg: number) => number) => {
  const elements = 6 + Math.floor(uniform() * 14);
  // Raised Gaussian taper, the more of it the lower the lobes; each element a little off.
  const depth = Math.max(0, (-sideLobeDb - 13.3) / 9) * 1.25;
  const weights = Array.from({ length: elements }, (_, i) => {
    const x = (2 * i) / (elements - 1) - 1;
    return { amplitude: Math.exp(-depth * x * x) * (1 + 0.04 * normal()), phase: 0.06 * normal() };
  });
  const raw = (u: number): number => {
    let re = 0;
    let im = 0;
    weights.forEach(({ amplitude, phase }, i) => {
      const angle = phase + (i - (elements - 1) / 2) * u;
      re += amplitude * Math.cos(angle);
      im += amplitude * Math.sin(angle);
    });
    return re * re + im * im;
  };
  let peakU = 0;
  for (let u = -0.5; u <= 0.5; u += 0.002) if (raw(u) > raw(peakU)) peakU = u;
  const peak = raw(peakU);
  const half = (side: number): number => {
    let u = 0;
    while (raw(peakU + side * u) > peak / 2) u += 0.0005;
    return u;
  };
  const width = half(1) + half(-1);
  // The sheet's beamwidth is right to some per cent.
  const scale = width / (beamwidthDeg * (1 + 0.03 * normal()));
  const fillDb = -26 - 8 * uniform();
  return (offDeg) => {
    const u = Math.max(-Math.PI, Math.min(Math.PI, offDeg * scale));
    return 10 * Math.log10(raw(peakU + u) / peak + 10 ** (fillDb / 10));
  };
};

/** What the sheet says of an antenna of that beam: the pattern that a fit is given. */
export const sheetPattern = (form: string, beamwidthDeg: number): Pattern =>
  patternOf(
    {
      form,
      gainDbi: 10 * Math.log10(30_000 / beamwidthDeg ** 2),
      azimuthBeamwidthDeg: beamwidthDeg,
      elevationBeamwidthDeg: beamwidthDeg,
      firstSideLobeDb: -20,
    },
    5.5,
  );

export interface MadeSweep {
  readonly readings: readonly SweepReading[];
  /** Where the peak is, from the start. */
  readonly peakDeg: number;
  readonly under: boolean;
  readonly plannedDbm: number;
  readonly plannedSigmaDb: number;
  readonly leastHeardDbm: number;
  readonly stepDeg: number;
  /** One more reading, at a turn from the start. */
  readonly read: (angleDeg: number) => SweepReading;
  /** The lobe on which a turn lies. */
  readonly isMain: (angleDeg: number) => boolean;
}

/**
 * @param angleErrorShare one sigma of each angle, of the beamwidth.
 * @param steps from and to, in beamwidths.
 */
export const madeSweep = (
  seed: number,
  beamwidthDeg: number,
  sheetLobeDb: number,
  { angleErrorShare = 0.1, steps = [0.15, 1] as readonly [number, number] } = {},
): MadeSweep => {
  const uniform = seededRandom(seed);
  const normal = normalRandom(uniform);
  const cut = arrayCut(uniform, normal, beamwidthDeg, sheetLobeDb + 2 * normal());
  const plannedDbm = -50 - 22 * uniform();
  const plannedSigmaDb = 2 + 1.5 * uniform();
  const under = uniform() < 0.2;
  const peakDbm = under ? plannedDbm - 6 - 9 * uniform() : plannedDbm + plannedSigmaDb * normal();
  const leastHeardDbm = -92 + 4 * uniform();
  // Four in five begin within the main lobe or sweep over it; the others begin on a false peak and stop before the main lobe stands above it.
  const side = uniform() < 0.5 ? 1 : -1;
  const wide = uniform() < 0.8;
  const startOff = wide && uniform() < 0.5 ? (uniform() - 0.5) * 1.6 * beamwidthDeg : side * (1.4 + 0.5 * uniform()) * beamwidthDeg;
  const stepDeg = beamwidthDeg * (steps[0] + (steps[1] - steps[0]) * uniform());
  const share = 0.2 + 0.6 * uniform();
  const inward = wide ? beamwidthDeg * (1.5 + 2.5 * uniform()) * share : Math.abs(startOff) - (0.85 + 0.4 * uniform()) * beamwidthDeg;
  const outward = wide ? (inward / share) * (1 - share) : (0.6 + 1.2 * uniform()) * beamwidthDeg;
  const least = -Math.floor(inward / stepDeg);
  const most = Math.max(least + 4, Math.floor(outward / stepDeg));
  const [first, last] = startOff > 0 ? [least, most] : [-most, -least];
  let before: number | null = null;
  const read = (angleDeg: number): SweepReading => {
    const now = peakDbm + cut(startOff + angleDeg + angleErrorShare * beamwidthDeg * normal());
    // The radio's own mean has not quite arrived when it is read.
    const settled = before === null ? now : now + (before - now) * 0.06 * uniform();
    before = now;
    const told = Math.round(settled + normal());
    return { angleDeg, levelDbm: told < leastHeardDbm ? null : told };
  };
  const readings = Array.from({ length: last - first + 1 }, (_, i) => read((first + i) * stepDeg));
  const isMain = (angleDeg: number): boolean => {
    const off = startOff + angleDeg;
    return Math.abs(off) < nullOf(cut, Math.sign(off) || 1, beamwidthDeg);
  };
  return { readings, peakDeg: -startOff, isMain, under, plannedDbm, plannedSigmaDb, leastHeardDbm, stepDeg, read };
};

/** First least of the cut on a side, beyond its -10 dB point. */
const nullOf = (cut: (offDeg: number) => number, side: number, beamwidthDeg: number): number => {
  const step = beamwidthDeg / 200;
  let off = 0;
  while (off < 4 * beamwidthDeg && (cut(side * off) > -10 || cut(side * (off + step)) < cut(side * off))) off += step;
  return off;
};
