import { z } from "zod";
import type { FieldsOf, ObstacleFields, ObstaclesOptions, SitesOptions } from "../contract";
import { mountingPointSchema, obstacleFieldsSchema } from "../contract";
import { circleAbout, farFromPlaces, type LatLon, thinLine, widenLine } from "../core/geo";
import { STANDS } from "../core/link";
import { metresFromFeet } from "../core/units";
import type { RawFeature } from "../formats";

const US_FOOT_M = 1200 / 3937;

/** Metres of a height given in a file's unit. */
export const metresOf = (value: number, unit: "m" | "ft" | "us-ft"): number =>
  unit === "m" ? value : unit === "ft" ? metresFromFeet(value) : value * US_FOOT_M;

type Properties = RawFeature["properties"];

const UNIT_WORDS: Readonly<Record<string, number>> = {
  m: 1,
  metre: 1,
  metres: 1,
  meter: 1,
  meters: 1,
  ft: metresFromFeet(1),
  feet: metresFromFeet(1),
  foot: metresFromFeet(1),
  "'": metresFromFeet(1),
};
const FIGURE = /^\s*(-?\d+(?:[.,]\d+)?)\s*([a-z']*)\.?\s*$/i;

/** A value of a column as a plain number: "7.5", "7,5"; NaN where there is none, or it has a unit that is not known. */
const numberIn = (p: Properties, column: string | null): number => {
  const value = column === null ? undefined : p[column];
  if (typeof value === "number") return value;
  const m = typeof value === "string" ? FIGURE.exec(value) : null;
  return m === null || (m[2] !== "" && UNIT_WORDS[m[2]!.toLowerCase()] === undefined) ? Number.NaN : Number(m[1]!.replace(",", "."));
};

/** A height in metres: in the unit that stands beside it, else in the one the column is said to have. */
const metresIn = (p: Properties, column: string | null, unit: "m" | "ft" | "us-ft"): number => {
  const value = column === null ? undefined : p[column];
  const m = typeof value === "string" ? FIGURE.exec(value) : null;
  const own = m === null ? undefined : UNIT_WORDS[m[2]!.toLowerCase()];
  return own === undefined ? metresOf(numberIn(p, column), unit) : Number(m![1]!.replace(",", ".")) * own;
};
const textIn = (p: Properties, column: string | null): string => {
  const value = column === null ? null : p[column];
  return value === null || value === undefined ? "" : String(value).trim().slice(0, 120);
};

/** What this program writes into its own exports: then every value of a row is its own. */
const ownNumber = (p: Properties, key: string, otherwise: number): number => {
  const value = numberIn(p, key in p ? key : null);
  return Number.isNaN(value) ? otherwise : value;
};
const ownText = (p: Properties, key: string): string | null => (typeof p[key] === "string" && p[key] !== "" ? (p[key] as string) : null);

/** @property note what was taken otherwise than it stands in the file. */
export type Made<T> = { readonly value: T; readonly note?: string } | { readonly reason: string };

const pairs = (points: readonly LatLon[]): [number, number][] => points.map((q) => [q.lonDeg, q.latDeg]);

const outlineOf = (f: RawFeature, widthM: number): readonly LatLon[] =>
  f.shape.type === "polygon"
    ? f.shape.outline
    : f.shape.type === "line"
      ? widenLine(f.shape.points, widthM)
      : circleAbout(f.shape.at, widthM / 2);

/** An obstacle out of a feature of a file, or why not. Nothing the file lacks is made up in silence. */
export const obstacleOf = (f: RawFeature, o: ObstaclesOptions): Made<ObstacleFields> => {
  const p = f.properties;
  const own = "heightM" in p && "kind" in p;
  const read = own ? numberIn(p, "heightM") : metresIn(p, o.heightColumn, o.heightUnit);
  // Nothing that stands in a path is 0 m high: it is what an unknown height is written as.
  const given = read === 0 ? Number.NaN : read;
  const heightM = Number.isNaN(given) ? o.heightDefaultM : given;
  if (heightM === null) {
    const shown = o.heightColumn === null ? "" : textIn(p, o.heightColumn);
    return {
      reason:
        read === 0 ? "its height is 0, which says that it is not known" : shown === "" ? "it has no height" : `"${shown}" is no height`,
    };
  }
  const kind = (own ? ownText(p, "kind") : textIn(p, o.kindColumn).toLowerCase()) || o.kind;
  const span = kind === "line" || kind === "crane";
  const base = own ? numberIn(p, "baseAmslM") : Number.NaN;
  const parsed = obstacleFieldsSchema.safeParse({
    name: own ? (ownText(p, "name") ?? "") : textIn(p, o.nameColumn),
    kind,
    outline: pairs(outlineOf(f, o.widthM)),
    holes: f.shape.type === "polygon" ? f.shape.holes.map(pairs) : [],
    baseAmslM: Number.isNaN(base) ? null : base,
    heightM,
    crownBaseM: own ? ownNumber(p, "crownBaseM", 0) : 0,
    freeBelowM: own ? ownNumber(p, "freeBelowM", 0) : span ? o.freeBelowM : 0,
    growthMPerYear: own ? ownNumber(p, "growthMPerYear", 0) : o.growthMPerYear,
    heightSigmaM: own ? ownNumber(p, "heightSigmaM", o.heightSigmaM) : o.heightSigmaM,
    species: own ? ownText(p, "species") : null,
    leaf: own ? ownText(p, "leaf") : null,
    source: (own ? ownText(p, "source") : null) ?? "imported",
    heightSource: own ? (ownText(p, "heightSource") ?? "imported") : Number.isNaN(given) ? "typed" : "imported",
    surveyedOn: (own ? ownText(p, "surveyedOn") : null) ?? o.surveyedOn,
  });
  if (parsed.success) return { value: parsed.data };
  const issue = parsed.error.issues[0]!;
  return { reason: issue.path[0] === "kind" ? `"${kind}" is no kind of obstacle` : issue.message };
};

const jsonList = (text: string | null): unknown => {
  if (text === null) return [];
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

const ownSite = z.object({ mountingPoints: z.array(mountingPointSchema).max(40), ticks: z.array(z.string().max(40)).max(40) });

/** A site out of a point of a file, or why not. */
export const siteOf = (f: RawFeature, o: SitesOptions): Made<FieldsOf<"site">> => {
  if (f.shape.type !== "point") return { reason: "a site is a point, this is a line or an area" };
  const p = f.properties;
  const own = "mountAglM" in p;
  const name = (own ? (ownText(p, "name") ?? "") : textIn(p, o.nameColumn)).slice(0, 80);
  if (name === "") return { reason: "it has no name" };
  const given = own ? numberIn(p, "mountAglM") : metresIn(p, o.heightColumn, o.heightUnit);
  const mountAglM = Number.isNaN(given) ? o.heightDefaultM : given;
  if (!(mountAglM >= 0 && mountAglM <= 300)) return { reason: `a mount ${mountAglM} m above ground is outside 0 to 300 m` };
  const most = numberIn(p, own ? "mountMaxAglM" : null);
  const cost = numberIn(p, own ? "mastCostPerM" : null);
  const lists = ownSite.safeParse({
    mountingPoints: own ? jsonList(ownText(p, "mountingPoints")) : [],
    ticks: own ? jsonList(ownText(p, "ticks")) : [],
  });
  if (!lists.success) return { reason: "its mounting points cannot be read" };
  const words = (key: string): string => (own ? (ownText(p, key) ?? "") : "");
  return {
    value: {
      name,
      ...f.shape.at,
      mountAglM,
      mountMaxAglM: Number.isNaN(most) ? null : most,
      mastCostPerM: cost >= 0 ? cost : null,
      stands: STANDS.find((s) => s === words("stands")) ?? null,
      structure: words("structure"),
      power: words("power"),
      material: words("material"),
      cableEntry: words("cableEntry"),
      access: words("access"),
      owner: words("owner"),
      notes: words("notes"),
      ...lists.data,
    },
  };
};

/** A named ground feature out of a point or a line; an area gives its rim as a line. */
export const featureOf = (f: RawFeature, nameColumn: string | null): Made<{ name: string; points: readonly LatLon[] }> => {
  const name = textIn(f.properties, "name" in f.properties && nameColumn === null ? "name" : nameColumn);
  if (name === "") return { reason: "it has no name" };
  const points =
    f.shape.type === "point" ? [f.shape.at] : f.shape.type === "line" ? f.shape.points : [...f.shape.outline, f.shape.outline[0]!];
  if (points.length <= MOST_FEATURE_POINTS) return { value: { name, points } };
  const thin = thinLine(points, MOST_FEATURE_POINTS);
  return {
    value: { name, points: thin.points },
    note: `its ${points.length} points were thinned to ${thin.points.length}, at least ${thin.apartM} m apart`,
  };
};

const MOST_FEATURE_POINTS = 5000;

/** A first point of a thing, to say where it lies. */
const firstOf = (f: RawFeature): LatLon =>
  f.shape.type === "point" ? f.shape.at : (f.shape.type === "line" ? f.shape.points : f.shape.outline)[0]!;

const km = (m: number): string => (m < 10_000 ? (m / 1000).toFixed(1) : String(Math.round(m / 1000)));

/**
 * Tells of things why they lie too far from a job's places to be taken unasked; null for what is near.
 * @param known the job's places.
 */
export const farReason = (known: readonly LatLon[]): ((f: RawFeature) => { reason: string; swapped: boolean } | null) => {
  const isFar = farFromPlaces(known);
  return (f) => {
    const at = firstOf(f);
    const far = isFar(at);
    if (far === null) return null;
    const swapped = far.meant !== null && far.meant.latDeg === at.lonDeg && far.meant.lonDeg === at.latDeg;
    return {
      reason: `it lies ${km(far.distanceM)} km from the job${swapped ? "; with latitude and longitude exchanged it would not" : ""}`,
      swapped,
    };
  };
};
