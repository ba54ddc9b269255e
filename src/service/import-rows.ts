import { z } from "zod";
import type { ObstacleFields, ObstaclesOptions, SitesOptions } from "../contract";
import { mountingPointSchema, obstacleFieldsSchema } from "../contract";
import { circleAbout, type LatLon, widenLine } from "../core/geo";
import { metresFromFeet } from "../core/units";
import type { SiteInput } from "../data/sites";
import type { RawFeature } from "../formats";

const US_FOOT_M = 1200 / 3937;

/** Metres of a height given in a file's unit. */
export const metresOf = (value: number, unit: "m" | "ft" | "us-ft"): number =>
  unit === "m" ? value : unit === "ft" ? metresFromFeet(value) : value * US_FOOT_M;

type Properties = RawFeature["properties"];

/** A value of a column as a number: "7.5", "7,5", "7.5 m"; NaN where there is none. */
const numberIn = (p: Properties, column: string | null): number => {
  const value = column === null ? undefined : p[column];
  if (typeof value === "number") return value;
  if (typeof value !== "string") return Number.NaN;
  const m = /^\s*(-?\d+(?:[.,]\d+)?)\s*(?:m|ft)?\s*$/.exec(value);
  return m === null ? Number.NaN : Number(m[1]!.replace(",", "."));
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

export type Made<T> = { readonly value: T } | { readonly reason: string };

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
  const given = own ? numberIn(p, "heightM") : metresOf(numberIn(p, o.heightColumn), o.heightUnit);
  const heightM = Number.isNaN(given) ? o.heightDefaultM : given;
  if (heightM === null) {
    const shown = o.heightColumn === null ? "" : textIn(p, o.heightColumn);
    return { reason: shown === "" ? "it has no height" : `"${shown}" is no height` };
  }
  const kind = (own ? ownText(p, "kind") : textIn(p, o.kindColumn).toLowerCase()) || o.kind;
  const span = kind === "line" || kind === "crane";
  const base = own ? numberIn(p, "baseAmslM") : Number.NaN;
  const parsed = obstacleFieldsSchema.safeParse({
    name: own ? (ownText(p, "name") ?? "") : textIn(p, o.nameColumn),
    kind,
    outline: outlineOf(f, o.widthM).map((q) => [q.lonDeg, q.latDeg]),
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
export const siteOf = (f: RawFeature, o: SitesOptions): Made<SiteInput> => {
  if (f.shape.type !== "point") return { reason: "a site is a point, this is a line or an area" };
  const p = f.properties;
  const own = "mountAglM" in p;
  const name = (own ? (ownText(p, "name") ?? "") : textIn(p, o.nameColumn)).slice(0, 80);
  if (name === "") return { reason: "it has no name" };
  const given = own ? numberIn(p, "mountAglM") : metresOf(numberIn(p, o.heightColumn), o.heightUnit);
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
  return points.length > 5000 ? { reason: `${points.length} points are more than the 5000 taken` } : { value: { name, points } };
};
