import { deepEqual } from "fast-equals";
import type { ErrorBody, PhotoFields } from "@/contract";
import { ApiError, bodyOf } from "../api/client";
import type { Unsent } from "./unsent-file";

/* Sends what another browser could not: one after the other, each answered before the next. */

type Values = Readonly<Record<string, unknown>>;

export interface Fallen {
  readonly edit: Unsent["edits"][number];
  readonly reason: ErrorBody;
}
/** A row that was changed here since the phone read it: both sides, of the fields that the phone changed. */
export interface Fought {
  readonly edit: Unsent["edits"][number];
  readonly mine: Values;
  readonly theirs: Values;
  readonly version: number;
}
export interface Brought {
  readonly made: number;
  readonly photos: number;
  readonly fallen: readonly Fallen[];
  readonly fallenPhotos: readonly { readonly about: PhotoFields; readonly reason: ErrorBody }[];
  readonly fought: readonly Fought[];
  /** Why it went no further: the server is away, or nobody is signed in. What came before it is made, and is not made twice. */
  readonly stopped: ErrorBody | null;
}

export interface BringParts {
  readonly post: (edit: Unsent["edits"][number]) => Promise<unknown>;
  readonly postPhoto: (photo: Unsent["photos"][number]) => Promise<unknown>;
  readonly progress: (done: number, of: number) => void;
}

const versionOf = (value: unknown): number | null => {
  const v = (value as { readonly version?: unknown } | null)?.version;
  return typeof v === "number" ? v : null;
};
/** Worth another go later: no server, no sign-in, too many at once. */
const goesOn = (error: unknown): boolean => error instanceof ApiError && ![0, 401, 403, 429, 503].includes(error.status);

export const bringUnsent = async (unsent: Unsent, parts: BringParts): Promise<Brought> => {
  const fallen: Fallen[] = [];
  const fallenPhotos: { about: PhotoFields; reason: ErrorBody }[] = [];
  const fought: Fought[] = [];
  /** What edits of the file left behind, by address: the next edit of a row is made on it. */
  const versions = new Map<string, number>();
  const of = unsent.edits.length + unsent.photos.length;
  let made = 0;
  let photos = 0;
  let done = 0;
  const stoppedBy = (error: unknown): Brought => ({ made, photos, fallen, fallenPhotos, fought, stopped: bodyOf(error) });
  for (const edit of unsent.edits) {
    const known = versions.get(edit.path);
    const now = known !== undefined && typeof edit.body.version === "number" ? { ...edit, body: { ...edit.body, version: known } } : edit;
    try {
      const answer = await parts.post(now);
      const version = versionOf(answer);
      if (version !== null) versions.set(edit.path, version);
      made++;
    } catch (error) {
      if (!goesOn(error)) return stoppedBy(error);
      const reason = bodyOf(error);
      const { current } = reason;
      const version = versionOf(current);
      if (reason.code === "clash" && version !== null) {
        const { version: _v, ...mine } = edit.body;
        const theirs = Object.fromEntries(Object.keys(mine).map((k) => [k, (current as Values)[k]]));
        // It is here already: the phone sent it itself, or somebody wrote the same.
        if (deepEqual(mine, theirs)) {
          versions.set(edit.path, version);
          made++;
        } else fought.push({ edit, mine, theirs, version });
      } else fallen.push({ edit, reason });
    }
    parts.progress(++done, of);
  }
  for (const photo of unsent.photos) {
    try {
      await parts.postPhoto(photo);
      photos++;
    } catch (error) {
      if (!goesOn(error)) return stoppedBy(error);
      fallenPhotos.push({ about: photo.about, reason: bodyOf(error) });
    }
    parts.progress(++done, of);
  }
  return { made, photos, fallen, fallenPhotos, fought, stopped: null };
};

/** The edit that puts what the phone has over what is here. */
export const overThere = (f: Fought): Unsent["edits"][number] => ({ ...f.edit, body: { ...f.edit.body, version: f.version } });
