/*
 * One antenna as a level below its peak for any direction: measured cuts where there are some, the
 * F.1336 patterns for sectors and omnis, a tapered aperture for the rest. Both cuts are added in dB for
 * a direction off both axes, never below the back of the antenna (ours, the usual practice).
 */
import { apertureCut } from "./aperture-pattern";
import { cutFloorDb, cutRelativeDb, type MeasuredCuts } from "./cuts";
import { referenceGainDbi } from "./f699-reference";
import { omniRelativeDb, type SideLobes, sectorRelativeDb } from "./f1336-hub";

export interface AntennaShape {
  readonly form: string;
  readonly gainDbi: number;
  readonly azimuthBeamwidthDeg?: number | undefined;
  readonly elevationBeamwidthDeg?: number | undefined;
  readonly firstSideLobeDb?: number | undefined;
  readonly frontToBackDb?: number | undefined;
  readonly cuts?: MeasuredCuts | undefined;
}

export interface Pattern {
  /** Level below the peak, dB, 0 or less. Angles off the axis: azimuth right positive, elevation up positive. */
  readonly relativeDb: (azimuthOffDeg: number, elevationOffDeg: number) => number;
  /** The same as an envelope over the lobes, for interference and limits: a sector's or omni's peak pattern, else the pattern. */
  readonly envelopeDb: (azimuthOffDeg: number, elevationOffDeg: number) => number;
  readonly kind: "measured cuts" | "aperture" | "F.1336";
  readonly azimuthBeamwidthDeg: number;
  readonly elevationBeamwidthDeg: number;
  /** True when a beamwidth was derived from the gain, not given. */
  readonly beamwidthDerived: boolean;
  /** First side lobe of the aperture, null for the others. */
  readonly sideLobe: { readonly levelDb: number; readonly atDeg: number } | null;
}

const DEFAULT_SIDE_LOBE_DB = -21;
const DEFAULT_FRONT_TO_BACK_DB = 25;
/** Beam area of a pencil beam: gain (ratio) times both beamwidths in square degrees (Kraus, with usual efficiency). */
const BEAM_AREA_DEG2 = 30_000;

export const isSteered = (form: string): boolean => form.includes("steered");

/** @throws RangeError for a beamwidth that is not above 0. */
export const patternOf = (shape: AntennaShape, frequencyGhz: number): Pattern => {
  const made = madeOf(shape, frequencyGhz);
  return { ...made, envelopeDb: made.envelopeDb ?? made.relativeDb };
};

const madeOf = (shape: AntennaShape, frequencyGhz: number): Omit<Pattern, "envelopeDb"> & Partial<Pick<Pattern, "envelopeDb">> => {
  const omni = shape.form === "omni";
  const derivedDeg = Math.sqrt(BEAM_AREA_DEG2 / 10 ** (shape.gainDbi / 10));
  const azimuth = omni ? 360 : (shape.azimuthBeamwidthDeg ?? derivedDeg);
  const elevation = shape.elevationBeamwidthDeg ?? (omni ? 107.6 * 10 ** (-0.1 * shape.gainDbi) : derivedDeg);
  for (const width of [azimuth, elevation])
    if (!(width > 0 && width <= 360)) throw new RangeError(`beamwidth ${width} degrees must be above 0`);
  const backDb = -(shape.frontToBackDb ?? DEFAULT_FRONT_TO_BACK_DB) - Math.max(0, shape.gainDbi - 15) * 0.5;
  const base = {
    azimuthBeamwidthDeg: azimuth,
    elevationBeamwidthDeg: elevation,
    beamwidthDerived: (shape.azimuthBeamwidthDeg === undefined && !omni) || shape.elevationBeamwidthDeg === undefined,
  };
  const { cuts } = shape;
  if (cuts !== undefined) {
    const floor = Math.min(cutFloorDb(cuts.azimuth), cutFloorDb(cuts.elevation));
    return {
      ...base,
      kind: "measured cuts",
      sideLobe: null,
      relativeDb: (az, el) => Math.min(0, Math.max(floor, cutRelativeDb(cuts.azimuth, az) + cutRelativeDb(cuts.elevation, el))),
    };
  }
  if (omni) {
    const omniDb = (el: number, lobes: SideLobes): number => omniRelativeDb(shape.gainDbi, elevation, el, frequencyGhz, lobes);
    const lobesOf = {
      relativeDb: (_az: number, el: number) => omniDb(el, "average"),
      envelopeDb: (_az: number, el: number) => omniDb(el, "peak"),
    };
    return { ...base, kind: "F.1336", sideLobe: null, ...lobesOf };
  }
  if (shape.form === "sector") {
    const sectorDb = (az: number, el: number, lobes: SideLobes): number =>
      sectorRelativeDb(azimuth, elevation, az, el, frequencyGhz, lobes);
    const lobesOf = {
      relativeDb: (az: number, el: number) => sectorDb(az, el, "average"),
      envelopeDb: (az: number, el: number) => sectorDb(az, el, "peak"),
    };
    return { ...base, kind: "F.1336", sideLobe: null, ...lobesOf };
  }
  // A steered array follows its partner within its field: no loss by aim (ours).
  if (isSteered(shape.form)) {
    return { ...base, kind: "aperture", sideLobe: null, relativeDb: (az, el) => (Math.abs(az) <= 60 && Math.abs(el) <= 30 ? 0 : backDb) };
  }
  const wanted = shape.firstSideLobeDb ?? DEFAULT_SIDE_LOBE_DB;
  const round = shape.form === "dish" || shape.form === "horn";
  const a = apertureCut(round ? "round" : "line", azimuth, wanted);
  const e = round && azimuth === elevation ? a : apertureCut(round ? "round" : "line", elevation, wanted);
  // Behind the aperture plane only the back of the antenna is left.
  const behind = (az: number, el: number): boolean => Math.abs(az) > 90 || Math.abs(el) > 90;
  return {
    ...base,
    kind: "aperture",
    sideLobe: { levelDb: a.sideLobeDb, atDeg: a.sideLobeDeg },
    relativeDb: round
      ? (az, el) => {
          if (behind(az, el)) return backDb;
          // A round aperture knows only the angle off its axis, stretched where its two beamwidths differ.
          const off = Math.hypot(az, (el * azimuth) / elevation);
          // Far side lobes of a real dish are kept below the envelope; where the sheet's beam is wide for its gain it holds (ours).
          const envelopeDb = off > azimuth ? referenceGainDbi(shape.gainDbi, off).gainDbi - shape.gainDbi : 0;
          return Math.min(envelopeDb, Math.max(backDb, a.relativeDb(off)));
        }
      : (az, el) => (behind(az, el) ? backDb : Math.max(backDb, a.relativeDb(az) + e.relativeDb(el))),
  };
};
