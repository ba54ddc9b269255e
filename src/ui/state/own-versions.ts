/*
 * The versions that edits of this page came to. What was opened before an own edit is still held against the server as it was
 * opened, unless nothing but own edits came in between: then the row is as this page knows it.
 */

export interface Versioned {
  readonly id: string;
  readonly version: number;
}

export interface OwnVersions {
  /** An edit on a version was answered with the row as it then stood. */
  readonly answered: (id: string, onVersion: number, version: number) => void;
  /** The version that a row as it was read has come to by own edits alone. */
  readonly newest: (row: Versioned) => number;
}

export const ownVersions = (): OwnVersions => {
  const own = new Map<string, Set<number>>();
  return {
    answered: (id, onVersion, version) => {
      // More than one further: somebody else's edit lies between, and has not been read here.
      if (version !== onVersion + 1) return;
      const made = own.get(id) ?? new Set();
      own.set(id, made.add(version));
    },
    newest: ({ id, version }) => {
      const made = own.get(id);
      let now = version;
      while (made?.has(now + 1) === true) now++;
      return now;
    },
  };
};
