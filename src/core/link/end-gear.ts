import { type AntennaShape, halfApertureM, nearFieldLossDb, type Pattern } from "../antenna";
import { channelFits, type PairingFault, type Polarisation, polarisationFromSheet } from "../radio";
import { BEAM_PER_TWIST, TWIST_DEG } from "./limits";
import type { PreparedPath } from "./prepare";
import type { EndPlan, LinkPlan } from "./types";

export const gainOf = (end: EndPlan): number => end.radio.antenna.gainDbi ?? end.antenna?.gainDbi ?? 0;
export const antennaNameOf = (end: EndPlan): string => end.antenna?.name ?? end.radio.name;
export const halfApertureOf = (end: EndPlan, wavelengthM: number): number =>
  halfApertureM(gainOf(end), wavelengthM, end.antenna?.diameterMm ?? end.radio.antenna.diameterMm);
export const polarisationWordsOf = (end: EndPlan): string =>
  (end.radio.antenna.kind === "connectorised" ? end.antenna?.polarisation : undefined) ?? end.radio.polarisation;
export const polarisationOf = (end: EndPlan): Polarisation => polarisationFromSheet(polarisationWordsOf(end));

/** Narrower of both beamwidths; null when neither the sheet nor the form says. */
export const beamwidthOf = (end: EndPlan): number | null => {
  const source = end.antenna ?? end.radio.antenna;
  const width = Math.min(source.azimuthBeamwidthDeg ?? Number.POSITIVE_INFINITY, source.elevationBeamwidthDeg ?? Number.POSITIVE_INFINITY);
  return Number.isFinite(width) ? width : null;
};

/**
 * Pattern of the antenna in force, made once for its sheet.
 * @throws RangeError for a connectorised radio without an antenna: pairing faults are told before any pattern is asked for.
 */
export const patternOfEnd = (path: PreparedPath, end: EndPlan): Pattern => {
  const shape = end.radio.antenna.kind === "connectorised" ? end.antenna : end.radio.antenna;
  if (shape === null || shape.gainDbi === undefined) throw new RangeError(`${end.radio.name} has no antenna`);
  return path.pattern(shape as AntennaShape);
};

/** How far an end points off the other end: right and up positive. @param tiltDeg of the ray at that end. */
export const aimOffset = (end: EndPlan, bearingDeg: number, tiltDeg: number): { azimuthDeg: number; elevationDeg: number } => ({
  azimuthDeg: end.aim.azimuthDeg === null ? 0 : ((bearingDeg - end.aim.azimuthDeg + 540) % 360) - 180,
  elevationDeg: end.aim.tiltDeg === null ? 0 : tiltDeg - end.aim.tiltDeg,
});

/** How far wind turns an end at its worst, degrees; 0 where nobody said what it stands on. */
export const twistOf = (end: EndPlan): number => (end.stands == null || end.stands === "tree" ? 0 : TWIST_DEG[end.stands]);

/** Whether wind turns an end out of its own beam: always on a tree. */
export const isShaken = (end: EndPlan): boolean => {
  if (end.stands === "tree") return true;
  const width = beamwidthOf(end);
  return width !== null && width < BEAM_PER_TWIST * twistOf(end);
};

/** Gain lost by a set aim, and by wind that turns the axis still farther off, dB (0 or less). */
export const aimLossDb = (path: PreparedPath, end: EndPlan, bearingDeg: number, tiltDeg: number): number => {
  const twistDeg = twistOf(end);
  if (end.aim.azimuthDeg === null && end.aim.tiltDeg === null && twistDeg === 0) return 0;
  const off = aimOffset(end, bearingDeg, tiltDeg);
  return patternOfEnd(path, end).relativeDb(off.azimuthDeg + (off.azimuthDeg < 0 ? -twistDeg : twistDeg), off.elevationDeg);
};

/** Below the average pattern of a sector or omni lies a null, this deep at most (ours). */
const NULL_DB = 15;
/** Nearer the axis than this the pattern is the beam itself. */
const IN_BEAM_DB = -3;

/** How far a wanted signal off the axis may lie from the average pattern: down to a null, up to the peak envelope. */
export const aimDoubtDb = (
  path: PreparedPath,
  end: EndPlan,
  bearingDeg: number,
  tiltDeg: number,
): { readonly worseByDb: number; readonly betterByDb: number } => {
  const lossDb = aimLossDb(path, end, bearingDeg, tiltDeg);
  if (lossDb > IN_BEAM_DB) return { worseByDb: 0, betterByDb: 0 };
  const pattern = patternOfEnd(path, end);
  if (pattern.kind !== "F.1336") return { worseByDb: 0, betterByDb: 0 };
  const off = aimOffset(end, bearingDeg, tiltDeg);
  // Nothing jumps at the edge of the beam: the doubt grows over the first decibels beyond it.
  const share = Math.min(1, (IN_BEAM_DB - lossDb) / 7);
  return { worseByDb: share * NULL_DB, betterByDb: share * (pattern.envelopeDb(off.azimuthDeg, off.elevationDeg) - lossDb) };
};

export const nearFieldOf = (plan: LinkPlan, pathM: number, wavelengthM: number): number =>
  nearFieldLossDb(
    pathM,
    wavelengthM,
    gainOf(plan.near),
    gainOf(plan.far),
    2 * halfApertureOf(plan.near, wavelengthM),
    2 * halfApertureOf(plan.far, wavelengthM),
  );

/** A connectorised radio needs an antenna of its band. */
export const antennaFaults = (plan: LinkPlan): PairingFault[] => {
  const faults: PairingFault[] = [];
  for (const end of [plan.near, plan.far]) {
    if (end.radio.antenna.kind !== "connectorised") continue;
    if (end.antenna === null) faults.push({ code: "antenna-missing", radio: end.radio.name });
    else if (!channelFits(end.antenna.bandsMhz, plan.centreMhz, plan.widthMhz)) {
      faults.push({ code: "antenna-band", antenna: end.antenna.name, centreMhz: plan.centreMhz });
    }
  }
  return faults;
};
