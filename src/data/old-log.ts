import { outlineOf, pointsOf } from "./stores";

/*
 * What the log kept before every edit went through one door: whole rows, geometry as GeoJSON text, a brief as one
 * document. It is read as the log is written now, so that every old edit can still be told and taken back.
 */

type Values = Readonly<Record<string, unknown>>;

/** Columns of a row that are no fields of its kind. */
const NO_FIELDS = new Set([
  "id",
  "jobId",
  "version",
  "createdAt",
  "updatedAt",
  "deletedAt",
  "revision",
  "bytes",
  "linkId",
  "chosen",
  "number",
  "importId",
]);

/** One side of a log entry as fields of its kind. */
export const fieldsOfLog = (entity: string, side: unknown): Values => {
  const value = (side ?? {}) as Record<string, unknown>;
  if ("title_" in value) {
    const { title_: _t, hidden_: _h, ...fields } = value;
    return fields;
  }
  if (entity === "brief") return (value.doc ?? {}) as Values;
  const { outline, shape, design: _d, ...rest } = value;
  return {
    ...Object.fromEntries(Object.entries(rest).filter(([key]) => !NO_FIELDS.has(key))),
    ...(typeof outline === "string" ? outlineOf(outline) : {}),
    ...(typeof shape === "string" ? pointsOf(shape) : {}),
  };
};

/** The name an entry was logged under. */
export const titleOfLog = (before: unknown, after: unknown): string => {
  const a = (after ?? {}) as Record<string, unknown>;
  const b = (before ?? {}) as Record<string, unknown>;
  return String(a.title_ ?? b.title_ ?? a.name ?? b.name ?? a.fileName ?? "");
};

/** Secret fields that an edit changed: known by name alone. */
export const hiddenOfLog = (after: unknown): readonly string[] => ((after ?? {}) as { hidden_?: string[] }).hidden_ ?? [];
