import { deepEqual } from "fast-equals";
import type { ErrorBody } from "@/contract";
import { mergePatch } from "./merge";

/*
 * One record that is edited in the browser, as data: what the server has, what is on its way there, and what is under
 * way under the hand. What is shown is the three laid over each other. Nothing here knows of time, storage or network.
 */

export type Fields = Readonly<Record<string, unknown>>;

export interface Row<F> {
  readonly version: number;
  readonly fields: F;
}

export interface Sent<F> {
  readonly number: number;
  readonly patch: Partial<F>;
}

export interface OpenState<F> {
  /** As the server has it. */
  readonly base: Row<F>;
  /** Finished edits on their way, in order. */
  readonly sent: readonly Sent<F>[];
  /** What a drag or typing under way has changed so far. */
  readonly live: Partial<F>;
  /** A drag or typing is under way: nothing is sent until it ends. */
  readonly gesture: boolean;
  /** It is a drag: what costs time waits until it ends. */
  readonly drag: boolean;
  /** Why what was sent has to wait; null while it does not. */
  readonly waits: ErrorBody | null;
  /** What somebody else made of it meanwhile; what was edited here waits in "live". */
  readonly theirs: Row<F> | null;
  readonly refused: ErrorBody | null;
  /** What was given up for theirs, until the next edit. */
  readonly setAside: Partial<F> | null;
  /** When the last edit was kept by the server, ms; null while none was since the page opened. */
  readonly savedAtMs: number | null;
  readonly nextNumber: number;
}

export type Action<F> =
  | { readonly type: "change"; readonly fields: Partial<F> }
  | { readonly type: "begin"; readonly drag?: boolean }
  | { readonly type: "end" }
  /** Escape: what is under way is as if it had never been. */
  | { readonly type: "cancel" }
  | { readonly type: "waits"; readonly reason: ErrorBody }
  | { readonly type: "answered"; readonly number: number; readonly row: Row<F>; readonly atMs: number }
  | { readonly type: "refused"; readonly number: number; readonly reason: ErrorBody; readonly theirs: Row<F> | null; readonly atMs: number }
  /** The record was read again, or undone: by this browser or by another. */
  | { readonly type: "arrived"; readonly row: Row<F>; readonly atMs: number }
  | { readonly type: "resolve"; readonly keep: "mine" | "theirs" }
  | { readonly type: "recall" };

export const opened = <F>(row: Row<F>): OpenState<F> => ({
  base: row,
  sent: [],
  live: {},
  gesture: false,
  drag: false,
  waits: null,
  theirs: null,
  refused: null,
  setAside: null,
  savedAtMs: null,
  nextNumber: 1,
});

const isEmpty = (patch: object): boolean => Object.keys(patch).length === 0;

/** Fields of a patch that differ from what they are laid over. */
export const differing = <F>(over: F, patch: Partial<F>): Partial<F> =>
  Object.fromEntries(Object.entries(patch).filter(([key, v]) => !deepEqual((over as Fields)[key], v))) as Partial<F>;

/** The record without what is under way under the hand: the axes of a drawing follow this one. */
export const settledOf = <F>(s: OpenState<F>): F => Object.assign({}, s.base.fields, ...s.sent.map((e) => e.patch)) as F;

/** The record as it is shown. */
export const shownOf = <F>(s: OpenState<F>): F => (isEmpty(s.live) ? settledOf(s) : { ...settledOf(s), ...s.live });

export interface Shown<F> {
  readonly fields: F;
  readonly settled: F;
}

/**
 * What a record shows, state after state: fields that came out the same are the same object, so that whoever works something
 * out of them does it again only when one of them changed.
 */
export const shownInTurn = <F>(): ((s: OpenState<F>) => Shown<F>) => {
  let last: (Shown<F> & { readonly of: OpenState<F> }) | null = null;
  return (s) => {
    if (last?.of === s) return last;
    const [settled, fields] = [settledOf(s), shownOf(s)];
    last = {
      of: s,
      settled: last !== null && deepEqual(last.settled, settled) ? last.settled : settled,
      fields: last !== null && deepEqual(last.fields, fields) ? last.fields : fields,
    };
    return last;
  };
};

/** What was finished becomes an edit on its way, unless it comes to nothing or a clash waits for the person. */
const committed = <F>(s: OpenState<F>): OpenState<F> => {
  if (s.theirs !== null) return s;
  const patch = differing(settledOf(s), s.live);
  if (isEmpty(patch)) return isEmpty(s.live) ? s : { ...s, live: {} };
  return {
    ...s,
    live: {},
    sent: [...s.sent, { number: s.nextNumber, patch }],
    nextNumber: s.nextNumber + 1,
    refused: null,
    setAside: null,
  };
};

const withoutSent = <F>(s: OpenState<F>, number: number): readonly Sent<F>[] => s.sent.filter((e) => e.number !== number);

const sentFrom = <F>(s: OpenState<F>, number: number): Partial<F> =>
  Object.assign({}, ...s.sent.filter((e) => e.number >= number).map((e) => e.patch)) as Partial<F>;
/** What is shown of a refused edit and those after it stays in the hand: nothing typed is lost. */
const inHand = <F>(s: OpenState<F>, number: number): Partial<F> => Object.assign(sentFrom(s, number), s.live) as Partial<F>;

export const reduce = <F>(s: OpenState<F>, a: Action<F>): OpenState<F> => {
  switch (a.type) {
    case "change": {
      const live = { ...s.live, ...a.fields };
      if (isEmpty(differing(shownOf(s), a.fields))) return s;
      return s.gesture ? { ...s, live } : committed({ ...s, live });
    }
    case "begin":
      return s.gesture ? s : { ...s, gesture: true, drag: a.drag === true };
    case "end":
      return s.gesture ? committed({ ...s, gesture: false, drag: false }) : s;
    case "cancel":
      return s.gesture ? { ...s, gesture: false, drag: false, live: s.theirs === null ? {} : s.live } : s;
    case "waits":
      return { ...s, waits: a.reason };
    case "answered": {
      if (!s.sent.some((e) => e.number === a.number)) return s;
      const base = a.row.version >= s.base.version ? a.row : s.base;
      return { ...s, base, sent: withoutSent(s, a.number), waits: null, savedAtMs: a.atMs };
    }
    case "refused": {
      const own = s.sent.find((e) => e.number === a.number);
      if (own === undefined) return s;
      const mine = inHand(s, a.number);
      const before = s.sent.filter((e) => e.number < a.number);
      if (a.theirs !== null) {
        // What stands there is what was meant: there is nothing to choose.
        if (isEmpty(differing(a.theirs.fields, mine)))
          return { ...s, base: a.theirs, sent: before, live: {}, waits: null, savedAtMs: a.atMs };
        // What both changed goes together where it is not the same: it is sent anew on theirs. What is under the hand goes along.
        const sent = mergePatch(s.base.fields, sentFrom(s, a.number), a.theirs.fields);
        const live = mergePatch(s.base.fields, s.live, a.theirs.fields);
        // Without a newer one there is nothing to go on: it would be sent for ever.
        if (a.theirs.version > s.base.version && !sent.fought && !live.fought) {
          const again = committed({ ...s, base: a.theirs, sent: before, live: sent.value, gesture: false, drag: false, waits: null });
          return { ...again, live: live.value, gesture: s.gesture, drag: s.drag };
        }
        // One's own side is theirs with what is one's own: keeping it takes nothing else of theirs away.
        const own = differing(a.theirs.fields, mergePatch(s.base.fields, mine, a.theirs.fields).value);
        return { ...s, theirs: a.theirs, sent: before, live: own, waits: null };
      }
      // What is not open to who is here is not shown as if it stood: it is set aside, to be brought back if it is opened to them.
      if (a.reason.code === "not-allowed") return { ...s, sent: before, live: {}, setAside: mine, refused: a.reason, waits: null };
      return { ...s, sent: before, live: mine, refused: a.reason, waits: null };
    }
    case "arrived": {
      if (s.theirs !== null) return a.row.version > s.theirs.version ? { ...s, theirs: a.row } : s;
      // While edits are on their way their answers tell.
      if (a.row.version <= s.base.version || s.sent.length > 0) return s;
      // Of a group under the hand only what is being changed stays: the rest is as it arrived.
      return { ...s, base: a.row, live: differing(a.row.fields, mergePatch(s.base.fields, s.live, a.row.fields).value), savedAtMs: a.atMs };
    }
    case "resolve": {
      if (s.theirs === null) return s;
      const on = { ...s, base: s.theirs, theirs: null, gesture: false, drag: false };
      return a.keep === "mine" ? committed(on) : { ...on, live: {}, setAside: s.live };
    }
    case "recall":
      return s.setAside === null ? s : committed({ ...s, live: s.setAside });
  }
};

export type SaveStatus<F = Fields> =
  | { readonly kind: "saved"; readonly at: Date | null }
  | { readonly kind: "typing" }
  | { readonly kind: "saving" }
  | { readonly kind: "kept"; readonly edits: number; readonly reason: ErrorBody }
  | { readonly kind: "clash"; readonly mine: Partial<F>; readonly theirs: F }
  | { readonly kind: "refused"; readonly reason: ErrorBody };

/** What is to be said of it: the worst first. */
export const statusOf = <F>(s: OpenState<F>): SaveStatus<F> => {
  if (s.theirs !== null) return { kind: "clash", mine: s.live, theirs: s.theirs.fields };
  if (s.refused !== null) return { kind: "refused", reason: s.refused };
  if (s.sent.length > 0) return s.waits === null ? { kind: "saving" } : { kind: "kept", edits: s.sent.length, reason: s.waits };
  if (s.gesture && !isEmpty(s.live)) return { kind: "typing" };
  return { kind: "saved", at: s.savedAtMs === null ? null : new Date(s.savedAtMs) };
};

/** What must outlive a killed tab: what is in the hand. What is on its way is kept by the outbox. */
export interface Draft<F> {
  readonly version: number;
  readonly patch: Partial<F>;
  /** What stood in those fields when they were changed; left out by versions before. */
  readonly from?: Partial<F> | undefined;
}

export const draftOf = <F>(s: OpenState<F>, secrets: readonly string[]): Draft<F> | null => {
  const keys = Object.keys(s.live).filter((key) => !secrets.includes(key));
  if (keys.length === 0) return null;
  const settled = settledOf(s) as Fields;
  const of = (fields: Fields): Partial<F> => Object.fromEntries(keys.map((key) => [key, fields[key]])) as Partial<F>;
  return { version: s.base.version, patch: of(s.live as Fields), from: of(settled) };
};

/**
 * A record opened with what a tab before left in the hand: it is finished. When somebody else was there since, it goes together with
 * theirs where it can, and is a clash where it cannot.
 */
export const resumed = <F>(s: OpenState<F>, draft: Draft<F>): OpenState<F> => {
  const isOlder = draft.version < s.base.version && s.sent.length === 0;
  const merged =
    !isOlder || draft.from === undefined ? null : mergePatch<F>({ ...s.base.fields, ...draft.from }, draft.patch, s.base.fields);
  const patch = differing(settledOf(s), merged?.value ?? draft.patch);
  if (isEmpty(patch)) return s;
  return isOlder && merged?.fought !== false ? { ...s, theirs: s.base, live: patch } : committed({ ...s, live: patch });
};
