const MOST_LETTERS = 600;
// biome-ignore lint/suspicious/noControlCharactersInRegex: those are what is taken out
const UNPRINTABLE = /[\u0000-\u001f\u007f-\u009f\ufffd]+/g;

/** A fault as one printable line: what a database was given may be a picture. */
export const faultLine = (error: unknown): string => {
  const parts: string[] = [];
  for (let e: unknown = error, n = 0; e !== undefined && e !== null && n < 4; e = e instanceof Error ? e.cause : undefined, n++)
    // The parameters of a failed query follow its text; they are data.
    parts.push((e instanceof Error ? `${e.name}: ${e.message}` : String(e)).split(/\nparams:/)[0]!);
  const at = error instanceof Error ? (error.stack ?? "").split("\n").find((l) => /^\s+at /.test(l)) : undefined;
  return `${parts.join(" <- ")}${at === undefined ? "" : ` (${at.trim()})`}`.replace(UNPRINTABLE, " ").slice(0, MOST_LETTERS);
};

/** Writes a fault into the log of this process. */
export const logFault = (where: string, error: unknown): void => {
  console.error(`${new Date().toISOString()} ${where}: ${faultLine(error)}`);
};

/** Writes down that somebody was refused: what they asked for, and who they are where that is known. No query, no body. */
export const logRefusal = (asked: string, why: string, who: { readonly personId: string | null } | null): void => {
  const person = who === null ? "nobody known" : (who.personId ?? "this machine");
  console.error(`${new Date().toISOString()} refused: ${asked.replace(UNPRINTABLE, " ").slice(0, MOST_LETTERS)}: ${why}, ${person}`);
};
