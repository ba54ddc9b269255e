"use client";
import { useQuery } from "@tanstack/react-query";
import { openDB } from "idb";
import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import type { RoofEntryDto } from "@/contract";
import { nextOrder, type RoofEntry, SAYS_NOTHING } from "@/core/roof";
import { getJson, sendEditRequest } from "../api/client";
import { isKeptNow } from "../api/kept";
import { keys } from "../api/queries";
import { aheadOfServerS } from "../api/server-time";
import { laterOrOnline } from "./later";
import { isOwn, personNow } from "./person";
import { createRoofLog, editOfLogged, type Logged, type RoofSchema, type RoofSelf, readSelf, writeSelf } from "./roof-log";

/* The log of this browser, with what the server tells of the same job. */

const WAITING = "dry-arc.roof-waiting";
let opened: ReturnType<typeof openDB<RoofSchema>> | null = null;

const kept = (key: string): string | null => {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};
const keep = (key: string, value: string): void => {
  try {
    if (value === "") localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // Storage that is full or shut: it is told where the entry itself is kept.
  }
};

const open = (): ReturnType<typeof openDB<RoofSchema>> => {
  opened ??= openDB<RoofSchema>("dry-arc-roof", 1, {
    upgrade: (db) => {
      db.createObjectStore("entry", { keyPath: "id" });
      db.createObjectStore("self");
    },
    // Forgetting takes it away from under an open window.
    blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
    terminated: () => {
      opened = null;
    },
  });
  opened.catch(() => {
    opened = null;
  });
  return opened;
};

export const roofLog = createRoofLog({
  open,
  post: (logged) => sendEditRequest(editOfLogged(logged)),
  isOwn,
  alone: async (work) => {
    if (!("locks" in navigator)) return work();
    await navigator.locks.request("dry-arc.roof", work);
  },
  later: laterOrOnline,
  waiting: {
    read: () => (kept(WAITING) ?? "").split(" ").filter((id) => id !== ""),
    // Where nothing waits nothing lies: a phone that forgets leaves no list behind.
    write: (ids) => keep(WAITING, ids.join(" ")),
  },
});

let self: Promise<RoofSelf> | null = null;
/** Who this browser is, once for all who ask. */
const selfHere = (): Promise<RoofSelf> => {
  self ??= (async () => {
    const db = await open();
    const known = await readSelf(db);
    if (known !== undefined) return known;
    const made: RoofSelf = { name: "", phone: crypto.randomUUID(), aheadS: aheadOfServerS() };
    await writeSelf(db, made);
    return made;
  })();
  self.catch(() => {
    self = null;
  });
  return self;
};
const changeSelf = async (set: Partial<RoofSelf>): Promise<RoofSelf> => {
  const next = { ...(await selfHere()), ...set };
  await writeSelf(await open(), next);
  self = Promise.resolve(next);
  return next;
};

/** Keeps how wrong this clock is, as the server has shown it: the next window may open where there is none. */
const noteMeeting = async (): Promise<RoofSelf> => {
  const met = aheadOfServerS();
  const me = await selfHere();
  return met === null || met === me.aheadS ? me : changeSelf({ aheadS: met });
};

/** The name that stands with what is written here; null until it was looked for. */
export const useRoofName = (): readonly [string | null, (name: string) => void] => {
  const [name, setName] = useState<string | null>(null);
  useEffect(() => {
    selfHere().then(
      (s) => setName(s.name),
      // Typed anew each time, then.
      () => setName(""),
    );
  }, []);
  return [
    name,
    (next) => {
      setName(next);
      changeSelf({ name: next }).catch(() => undefined);
    },
  ];
};

const NONE: readonly Logged[] = [];
const THERE: readonly RoofEntryDto[] = [];
/** While nobody tells of what others wrote, it is asked for this often. */
const ASK_AGAIN_MS = 8000;

export const useLogged = (): readonly Logged[] => useSyncExternalStore(roofLog.subscribe, roofLog.entries, () => NONE);
const NO_IDS: readonly string[] = [];

export interface RoofJobLog {
  /** Entries of a link: the server's and this browser's. */
  readonly of: (linkId: string) => readonly RoofEntry[];
  readonly unsent: number;
  readonly refused: readonly Logged[];
  /** How many entries that waited here are gone: this browser has cleared what it kept. */
  readonly missing: number;
  /** The server's list has not been read, nor kept here. */
  readonly waiting: boolean;
}

/** What is written down of a job's links, here and there. */
export const useRoofLog = (jobId: string): RoofJobLog => {
  const path = `/api/jobs/${jobId}/roof`;
  const there = useQuery({
    queryKey: keys.roof(jobId),
    queryFn: ({ signal }) => getJson<RoofEntryDto[]>(path, signal),
    staleTime: 0,
    refetchInterval: ASK_AGAIN_MS,
    retry: false,
  });
  const here = useLogged();
  const gone = useSyncExternalStore(roofLog.subscribe, roofLog.missing, () => NO_IDS);
  useEffect(() => {
    roofLog.send().catch(() => undefined);
  }, []);
  const rows = there.data ?? THERE;
  useEffect(() => {
    // What is only kept here is no word of the server's.
    if (isKeptNow(path)) return;
    noteMeeting().catch(() => undefined);
    roofLog.known(new Set(rows.map((r) => r.id))).catch(() => undefined);
  }, [rows, path]);
  return useMemo(() => {
    const links = new Map<string, Map<string, RoofEntry>>();
    const put = (linkId: string, e: RoofEntry): void => {
      const of = links.get(linkId) ?? new Map<string, RoofEntry>();
      links.set(linkId, of.set(e.id, e));
    };
    for (const { linkId, version: _v, ...e } of rows) put(linkId, e);
    const own = here.filter((l) => l.jobId === jobId);
    for (const l of own) put(l.linkId, l.entry);
    const lists = new Map([...links].map(([id, of]) => [id, [...of.values()]]));
    return {
      of: (linkId) => lists.get(linkId) ?? [],
      unsent: own.filter((l) => !l.sent).length,
      refused: own.filter((l) => l.refused !== null),
      missing: gone.filter((id) => !rows.some((r) => r.id === id)).length,
      waiting: there.data === undefined && there.error === null && there.failureReason === null,
    };
  }, [rows, here, gone, jobId, there.data, there.error, there.failureReason]);
};

export type Written = Pick<RoofEntry, "end" | "act"> & Partial<RoofEntry>;

let last: Promise<unknown> = Promise.resolve();

/** Writes an entry down behind those before it. It counts once the disk has it. @param known what this phone knows of the link. */
export const writeDown = (jobId: string, linkId: string, known: readonly RoofEntry[], by: string, e: Written): Promise<void> => {
  const mine = last.then(() => writeNow(jobId, linkId, known, by, e));
  last = mine.catch(() => undefined);
  return mine;
};

const writeNow = async (jobId: string, linkId: string, known: readonly RoofEntry[], by: string, e: Written): Promise<void> => {
  // Another window of this phone may have written, too.
  await roofLog.look();
  const me = await noteMeeting();
  const id = crypto.randomUUID();
  const entry: RoofEntry = {
    ...SAYS_NOTHING,
    ...e,
    id,
    phone: me.phone,
    // Also what was written a moment ago and is not drawn yet.
    order: nextOrder([...known, ...roofLog.entries().flatMap((l) => (l.linkId === linkId ? [l.entry] : []))]),
    at: new Date().toISOString(),
    aheadS: me.aheadS,
    by: e.by ?? by,
  };
  await roofLog.add({ id, jobId, linkId, entry, person: personNow() });
};
