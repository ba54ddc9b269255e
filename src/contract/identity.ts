import { z } from "zod";
import { kindOf, kinds } from "./records";
import type { Right } from "./rights";
import type { KindName } from "./told";

/*
 * What of a job tells who and where. A job whose identity is left out tells none of it: what a field may hold is looked up in its schema,
 * and words that anybody could have typed are left out unless they stand here, or were ticked one by one.
 */

/** What may still be asked of a job whose identity is left out; what answers with a file, a map or a picture may not. */
export const VEILED_RIGHTS: readonly Right[] = ["see-jobs", "see-job", "see-records", "see-links", "see-air", "see-kit", "see-hardware"];

/** Kinds of which nothing is told: addresses and serials, photos, strangers' networks, what stands where. */
export const VEILED_KINDS: readonly KindName[] = [
  "addresses",
  "unit",
  "scan",
  "photo",
  "basemap",
  "feature",
  "obstacle",
  "safety",
  "days",
  "roof",
];

interface Words {
  /** Chosen from a list, or made by the program. */
  readonly keep?: readonly string[];
  /** Names that something is known by: each becomes a number. */
  readonly numbered?: readonly string[];
}

/** Fields that could hold any words and are told all the same, by their path. */
const WORDS: Readonly<Partial<Record<KindName, Words>>> = {
  job: { keep: ["stage", "ownRules[].id", "ownRules[].use", "ownRules[].conductedLimitByBandwidth.words", "ownRules[].replaces"] },
  brief: { keep: ["devices[].id", "inventory[].id", "photoRequests[].id"], numbered: ["devices[].name"] },
  site: { keep: ["mountingPoints[].id", "ticks[]"], numbered: ["mountingPoints[].name"] },
  link: { keep: ["stage"] },
  design: {
    keep: ["nearMountId", "farMountId", "nearRadioId", "farRadioId", "nearAntennaId", "farAntennaId"],
  },
  limits: { keep: ["family", "links.*.family"] },
  hub: { keep: ["mountId", "sectors[].id", "sectors[].radioId", "sectors[].antennaId", "remotes[].sectorId"] },
  air: { keep: ["locks[]", "aside[]", "others[].id", "detections[].id", "detections[].at"], numbered: ["others[].name"] },
  wiring: {
    keep: ["places[].partId", "places[].deviceId", "places[].earth", "leads[].from.port", "leads[].to.port", "leads[].cableId"],
    numbered: ["places[].name"],
  },
  kit: { keep: ["own[].unit", "lessons[].partId", "money.currency"], numbered: ["own[].name"] },
  pick: { keep: ["partId"] },
};

type Schema = Readonly<Record<string, unknown>>;
/** Whether a string of a schema could hold any words: not one of a list, no id and no day. */
const isWords = (s: Schema): boolean =>
  s.type === "string" && s.enum === undefined && s.const === undefined && s.format !== "uuid" && s.format !== "date";

const walk = (schema: unknown, path: string, found: Set<string>): void => {
  if (schema === null || typeof schema !== "object") return;
  const s = schema as Schema;
  for (const key of ["anyOf", "oneOf", "allOf"] as const) for (const one of (s[key] as unknown[] | undefined) ?? []) walk(one, path, found);
  if (isWords(s)) found.add(path);
  for (const [name, of] of Object.entries((s.properties as Schema | undefined) ?? {}))
    walk(of, path === "" ? name : `${path}.${name}`, found);
  walk(s.additionalProperties, `${path}.*`, found);
  walk(s.items, `${path}[]`, found);
  for (const one of (s.prefixItems as unknown[] | undefined) ?? []) walk(one, `${path}[]`, found);
};

const known = new Map<string, ReadonlyMap<string, "keep" | "numbered" | "words">>();

/** Fields of a kind that could hold any words, by path, with what becomes of them. */
export const wordsOf = (kind: string): ReadonlyMap<string, "keep" | "numbered" | "words"> => {
  const before = known.get(kind);
  if (before !== undefined) return before;
  const k = kindOf(kind);
  const found = new Set<string>();
  walk(z.toJSONSchema(k.fields.extend(k.fixed.shape), { io: "output", unrepresentable: "any" }), "", found);
  const { keep = [], numbered = [] } = WORDS[kind as KindName] ?? {};
  const made = new Map([...found].map((p) => [p, keep.includes(p) ? "keep" : numbered.includes(p) ? "numbered" : "words"] as const));
  known.set(kind, made);
  return made;
};

/** The path of a key of an object at a path: a record by keys that are nobody's to know beforehand has its fields under a star. */
export const freeWordsAt = (kind: string, path: string, key: string): string => {
  const listed = [...wordsOf(kind).keys()];
  const at = `${path}.${key}`;
  const open =
    listed.some((p) => p.startsWith(`${path}.*`)) && !listed.some((p) => p === at || p.startsWith(`${at}.`) || p.startsWith(`${at}[`));
  return open ? `${path}.*` : at;
};

/** Paths that stand in the table and are no field: for its test. */
export const strayWords = (): string[] =>
  kinds().flatMap(([name]) => {
    const there = wordsOf(name);
    const { keep = [], numbered = [] } = WORDS[name as KindName] ?? {};
    return [...keep, ...numbered].filter((p) => !there.has(p)).map((p) => `${name}.${p}`);
  });
