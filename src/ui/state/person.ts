"use client";

/* Whose work this window does. Known at once after the first time: what lies in a browser belongs to who made it. */

const KEY = "dry-arc.person";

const read = (): string | null => {
  try {
    return typeof window === "undefined" ? null : window.localStorage.getItem(KEY);
  } catch {
    return null;
  }
};

/** Undefined until it was looked for. */
let person: string | null | undefined;

/** The person whose work this window does; null where nobody signs in. */
export const personNow = (): string | null => {
  person ??= read();
  return person;
};

/** Says who is here. Whoever signs out leaves their work in their name. */
export const setPerson = (id: string | null): void => {
  if (person === id) return;
  person = id;
  try {
    if (id === null) window.localStorage.removeItem(KEY);
    else window.localStorage.setItem(KEY, id);
  } catch {
    // Storage that is full or shut: it is asked for again.
  }
};

/** True for what may go in the name of who is here: their own, and what nobody had signed. */
export const isOwn = (made: { readonly person?: string | null | undefined }): boolean =>
  made.person == null || personNow() === null || made.person === personNow();

/** What lies in this browser for who is here alone. */
export const ownKey = (prefix: string): string => {
  const who = personNow();
  return who === null ? prefix : `${prefix}${who}.`;
};
