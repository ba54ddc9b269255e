import { ApiError } from "../api/client";
import { differing } from "./record";

/** A form changed fields that somebody else had changed meanwhile: both sides, and a way to make one's own stand. */
export class FormClash extends Error {
  constructor(
    readonly mine: Readonly<Record<string, unknown>>,
    readonly theirs: Readonly<Record<string, unknown>>,
    readonly keepMine: () => Promise<void>,
  ) {
    super("changed elsewhere");
  }
}

type Row = Readonly<Record<string, unknown>> & { readonly version: number };

const isRow = (value: unknown): value is Row =>
  typeof value === "object" && value !== null && typeof (value as { version?: unknown }).version === "number";

/**
 * Sends what a form changed of a row as it was when the form was opened, and no more: what somebody else changed
 * meanwhile in other fields stays.
 * @param send makes an edit of some fields on a version.
 * @throws FormClash where the same fields were changed to something else; ApiError as the server refuses it.
 */
export const sendForm = async <F extends object>(
  opened: object & { readonly version: number },
  values: F,
  send: (version: number, patch: Partial<F>) => Promise<void>,
): Promise<void> => {
  const mine = differing(opened as unknown as F, values);
  if (Object.keys(mine).length === 0) return;
  try {
    await send(opened.version, mine);
  } catch (error) {
    const theirs = error instanceof ApiError && error.body.code === "clash" ? error.body.current : null;
    if (!isRow(theirs)) throw error;
    // What stands now may have been changed again by the time it is chosen: then it is asked again.
    const again = (): Promise<void> => sendForm<F>(theirs, mine as F, send);
    const fought = Object.keys(differing(theirs as unknown as F, mine)).filter(
      (key) => Object.keys(differing(opened as unknown as F, pick(theirs, { [key]: 0 }) as Partial<F>)).length > 0,
    );
    if (fought.length === 0) return again();
    throw new FormClash(pick(mine as Row, Object.fromEntries(fought.map((k) => [k, 0]))), theirs, again);
  }
};

const pick = (from: Readonly<Record<string, unknown>>, like: object): Record<string, unknown> =>
  Object.fromEntries(Object.keys(like).map((key) => [key, from[key]]));
