/*
 * Statements that come again and again are named, so that a connection plans them once. Under the guard of the rows a plan costs
 * several times what it takes to carry it out. Who works is told to each transaction and read while it runs, never part of a plan.
 */

/** A connection keeps the plans of as many statements at most. */
const MOST_NAMES = 200;
/** Statements that are watched for coming again; lists of other lengths make ever new ones. */
const MOST_WATCHED = 2000;
/** A statement is named when it comes for this time. */
const NAMED_FROM = 3;

interface Statement {
  readonly text: string;
  readonly name?: unknown;
}
const isStatement = (given: unknown): given is Statement =>
  typeof given === "object" && given !== null && typeof (given as { text?: unknown }).text === "string";

/** Names of statements, given in the order in which they come often enough: a name stays with its text. */
export const statementNames = (most = MOST_NAMES, watched = MOST_WATCHED): ((text: string) => string | null) => {
  const names = new Map<string, string>();
  const seen = new Map<string, number>();
  return (text) => {
    const name = names.get(text);
    if (name !== undefined) return name;
    if (names.size >= most) return null;
    const times = (seen.get(text) ?? 0) + 1;
    seen.delete(text);
    if (times >= NAMED_FROM) {
      const given = `dryarc_${names.size}`;
      names.set(text, given);
      return given;
    }
    seen.set(text, times);
    // The one that came longest ago is forgotten.
    const [oldest] = seen.keys();
    if (seen.size > watched && oldest !== undefined) seen.delete(oldest);
    return null;
  };
};

const nameOf = statementNames();

/** What a query was given, with a name where it has values, none yet, and comes often. */
export const named = (given: readonly unknown[]): readonly unknown[] => {
  const [statement, values] = given;
  if (!isStatement(statement) || statement.name !== undefined || !Array.isArray(values) || values.length === 0) return given;
  const name = nameOf(statement.text);
  return name === null ? given : [{ ...statement, name }, ...given.slice(1)];
};
