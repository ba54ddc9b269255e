import { createHash } from "node:crypto";
import { freeWordsAt, kindOf, kinds, VEILED_KINDS, wordsOf } from "../../contract";
import { destination, inverse, type LatLon } from "../../core/geo";

/*
 * A job with its identity left out: the same figures, told of somewhere else and of nobody. Sites become letters, positions are moved
 * together to a made-up place where distances and bearings are what they were, and words go unless they were ticked.
 */

type Json = unknown;
type Plain = Readonly<Record<string, Json>>;
const isPlain = (v: Json): v is Plain => typeof v === "object" && v !== null && !Array.isArray(v);

/** What a text is known by when it was ticked: changed later, it is not ticked any more. */
export const markOfText = (text: string): string => createHash("sha256").update(text).digest("hex").slice(0, 16);

export interface Veil {
  readonly centre: LatLon;
  readonly jobName: string;
  /** Sites in their order, with their names. */
  readonly sites: readonly { readonly id: string; readonly name: string }[];
  /** Labels of links and names of hubs: they may stand in sentences of the program. */
  readonly labels: readonly string[];
  /** Marks of texts that are told. */
  readonly told: ReadonlySet<string>;
}

const LETTERS = 26;
/** A, B, … Z, AA, AB, … */
export const letterOf = (i: number): string =>
  i < LETTERS ? String.fromCharCode(65 + i) : `${letterOf(Math.floor(i / LETTERS) - 1)}${letterOf(i % LETTERS)}`;

/** No nearer to a pole than a map goes. */
const MOST_LAT_DEG = 80;
/** Where the made-up place lies: its latitude to the whole degree, since figures of the air depend on it, and no longitude of its own. */
export const madeUpCentre = (centre: LatLon): LatLon => ({
  latDeg: Math.max(-MOST_LAT_DEG, Math.min(MOST_LAT_DEG, Math.round(centre.latDeg))),
  lonDeg: 0,
});

/** A position as far from the made-up place, and in the same direction, as it is from the job's own. */
export const moved = (at: LatLon, centre: LatLon): LatLon => {
  const to = madeUpCentre(centre);
  const way = inverse(centre, at);
  if (way.distanceM === 0) return to;
  const { latDeg, lonDeg } = destination(to, way.azimuthAtADeg, way.distanceM);
  return { latDeg, lonDeg };
};

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** What a row is, by what only such a row has. */
const kindOfRow = (row: Plain): string | null => {
  if ("centreLatDeg" in row) return "job";
  if ("mountAglM" in row && "latDeg" in row) return "site";
  if ("nearSiteId" in row && "label" in row && "stage" in row) return "link";
  if ("nearRadioId" in row && "clearancePolicy" in row) return "design";
  return null;
};

/** What in an answer is somebody's name for something: of a place, of a sender. */
const NAMES = /(^n|N)ame$|^label$|^loudest$|^sharesWith$/;
/** A code of the program, an id, a day: never a name, though a site may be called the same. */
const CODE = /^[a-z0-9][\w.:+-]*$/;
/** What stands in the place of a name that is not told, by what it is of. */
const NO_NAME: Readonly<Record<string, string>> = { datasets: "terrain", loudest: "another sender", sharesWith: "another link" };
/** A site, or a link of two. */
const ONLY_LETTERS = /^Site [A-Z]+(?: to Site [A-Z]+)?$/;

/** Fields of a row that the program gives it. */
const OWN_FIELDS = new Set(["id", "version", "updatedAt", "number", "jobId", "linkId", "siteId"]);

export const veiling = (v: Veil) => {
  const aliases = new Map(v.sites.map((s, i) => [s.id, `Site ${letterOf(i)}`]));
  // A site that is called as the job or a link is stays a site: the last of one name counts.
  const named = [
    ...v.labels.map((l) => [l, ""] as const),
    [v.jobName, "A job"] as const,
    ...v.sites.map((s) => [s.name, aliases.get(s.id)!] as const),
  ]
    .filter(([text]) => text.trim() !== "")
    .sort((a, b) => b[0].length - a[0].length);
  const pattern =
    named.length === 0 ? null : new RegExp(`(?<![\\p{L}\\p{N}])(?:${named.map(([t]) => escaped(t)).join("|")})(?![\\p{L}\\p{N}])`, "gu");
  const replacements = new Map(named);
  /** A sentence of the program with the names in it made letters. */
  const withoutNames = (text: string): string =>
    pattern === null ? text : text.replace(pattern, (found) => replacements.get(found) ?? "");

  const field = (kind: string, path: string, value: Json, nth: number): Json => {
    if (typeof value === "string") {
      const use = wordsOf(kind).get(path);
      if (use === undefined || use === "keep" || value === "" || v.told.has(markOfText(value))) return value;
      return use === "numbered" ? `no. ${nth + 1}` : "";
    }
    if (Array.isArray(value)) return value.map((one, i) => field(kind, `${path}[]`, one, i));
    if (!isPlain(value)) return value;
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, field(kind, freeWordsAt(kind, path, key), one, nth)]));
  };

  /** A row of a kind. */
  const row = (kind: string, given: Plain): Plain => {
    const k = kindOf(kind);
    const out: Record<string, Json> = {};
    const fields = new Set([...Object.keys(k.fields.shape), ...Object.keys(k.fixed.shape)]);
    for (const [key, value] of Object.entries(given)) {
      if (OWN_FIELDS.has(key)) out[key] = value;
      else if (fields.has(key)) out[key] = field(kind, key, value, 0);
      else out[key] = plain(value, key);
    }
    if (kind === "site") {
      out.name = aliases.get(String(given.id)) ?? "A site";
      const at = moved({ latDeg: Number(given.latDeg), lonDeg: Number(given.lonDeg) }, v.centre);
      out.latDeg = at.latDeg;
      out.lonDeg = at.lonDeg;
    }
    if (kind === "job") {
      const to = madeUpCentre(v.centre);
      Object.assign(out, { name: "A job", timeZone: "UTC", centreLatDeg: to.latDeg, centreLonDeg: to.lonDeg });
    }
    return out;
  };

  /** A name in what the program worked out: a site's letter, or none: of a hill, a tree or a file nobody is told. */
  const name = (text: string, within: string): Json => {
    if (within === "worst") return null;
    // A site may be called as a link is labelled: a label says nothing either way.
    if (within === "label") return "";
    const made = withoutNames(text);
    return ONLY_LETTERS.test(made) ? made : (NO_NAME[within] ?? "");
  };

  /** Whatever the program worked out: names in it become letters, positions are moved. @param within the key that it is found under. */
  const plain = (value: Json, key = "", within = ""): Json => {
    if (typeof value === "string")
      return NAMES.test(key) ? name(value, key === "name" ? within : key) : CODE.test(value) ? value : withoutNames(value);
    if (Array.isArray(value)) return value.map((one) => plain(one, key, within));
    if (!isPlain(value)) return value;
    const kind = kindOfRow(value);
    if (kind !== null) return row(kind, value);
    const out: Record<string, Json> = Object.fromEntries(Object.entries(value).map(([k, one]) => [k, plain(one, k, key)]));
    if (typeof value.latDeg === "number") {
      const { latDeg, lonDeg } = moved(
        { latDeg: value.latDeg, lonDeg: typeof value.lonDeg === "number" ? value.lonDeg : v.centre.lonDeg },
        v.centre,
      );
      out.latDeg = latDeg;
      if ("lonDeg" in value) out.lonDeg = lonDeg;
    }
    for (const k of ["nearDeclinationDeg", "farDeclinationDeg"]) if (typeof value[k] === "number") out[k] = Math.round(value[k]);
    return out;
  };

  return {
    /** An answer of a route. @param kind of the records that it answers with; null where it answers with something else. */
    answer: (value: Json, kind: string | null): Json => {
      if (kind === null) return plain(value);
      if (VEILED_KINDS.includes(kind as never)) {
        const k = kindOf(kind);
        return Array.isArray(value) ? [] : isPlain(value) ? { ...value, ...(k.fields.safeParse({}).data as object | undefined) } : value;
      }
      return Array.isArray(value) ? value.map((one) => row(kind, one as Plain)) : isPlain(value) ? row(kind, value) : value;
    },
  };
};

export interface FreeText {
  readonly mark: string;
  readonly kind: string;
  readonly path: string;
  readonly text: string;
}

/** What is told as something else whatever is ticked. */
const REPLACED: Readonly<Record<string, readonly string[]>> = { site: ["name"], job: ["name", "timeZone"] };

/** Words of a row that are left out unless they are ticked. */
export const freeTextsOf = (kind: string, given: Plain): FreeText[] => {
  if (VEILED_KINDS.includes(kind as never)) return [];
  const found: FreeText[] = [];
  const at = (path: string, value: Json): void => {
    if (typeof value === "string") {
      const use = wordsOf(kind).get(path);
      if (value.trim() !== "" && (use === "words" || use === "numbered")) found.push({ mark: markOfText(value), kind, path, text: value });
    } else if (Array.isArray(value)) for (const one of value) at(`${path}[]`, one);
    else if (isPlain(value)) for (const [key, one] of Object.entries(value)) at(freeWordsAt(kind, path, key), one);
  };
  for (const [key, value] of Object.entries(given)) if (!OWN_FIELDS.has(key) && REPLACED[kind]?.includes(key) !== true) at(key, value);
  return found;
};

/** Kinds of which words may be ticked. */
export const tickedKinds = (): string[] => kinds().flatMap(([name]) => (VEILED_KINDS.includes(name as never) ? [] : [name]));
