import "fake-indexeddb/auto";
import { openDB } from "idb";
import { beforeEach, describe, expect, test } from "vitest";
import type { RoofEntry } from "@/core/roof";
import { ApiError } from "../api/client";
import { createRoofLog, editOfLogged, type Logged, type RoofLogParts, type RoofSchema } from "./roof-log";

let databases = 0;
const open = () => openDB<RoofSchema>(`roof-${databases}`, 1, { upgrade: (db) => void db.createObjectStore("entry", { keyPath: "id" }) });
const entry = (order: number): RoofEntry => ({
  id: `e${order}`,
  end: "near",
  act: "reading",
  phone: "p",
  order,
  at: "2026-12-03T10:00:00Z",
  aheadS: 0,
  by: "Ada",
  step: null,
  part: null,
  axis: "azimuth",
  angleDeg: order,
  levelDbm: -60,
  way: "scale",
  readAt: "here",
  of: null,
  words: "",
});
const row = (order: number, person: string | null = null) => ({ id: `e${order}`, jobId: "j", linkId: "l", entry: entry(order), person });

/** A phone: its disk, its list beside it, and a server that may be away. */
const phone = (over: Partial<RoofLogParts> = {}) => {
  const state = {
    away: true,
    posted: [] as string[],
    listed: [] as readonly string[],
    later: [] as (() => void)[],
    refuse: new Set<string>(),
  };
  let turn: Promise<unknown> = Promise.resolve();
  const parts: RoofLogParts = {
    open,
    post: async (l) => {
      if (state.away) throw new ApiError(0, { code: "offline" });
      if (state.refuse.has(l.id)) throw new ApiError(422, { code: "unknown-reference" });
      state.posted.push(l.id);
    },
    isOwn: () => true,
    alone: (work) => {
      const mine = turn.then(work);
      turn = mine.catch(() => undefined);
      return mine;
    },
    later: (_ms, work) => void state.later.push(work),
    waiting: {
      read: () => state.listed,
      write: (ids) => {
        state.listed = ids;
      },
    },
    ...over,
  };
  return { state, log: createRoofLog(parts), again: () => createRoofLog(parts) };
};
beforeEach(() => void databases++);

describe("the log of a roof in a browser", () => {
  test("an entry is on the disk when adding it ends, and is there for a page that is opened after a kill", async () => {
    const p = phone();
    await p.log.add(row(1));
    const db = await open();
    expect(await db.getAllKeys("entry")).toEqual(["e1"]);
    const next = p.again();
    await next.look();
    expect(next.entries().map((l) => [l.id, l.sent])).toEqual([["e1", false]]);
    expect(next.missing()).toEqual([]);
  });

  test("a disk that takes nothing is told to whoever adds, and nothing is shown as written", async () => {
    const p = phone({ open: () => Promise.reject(new Error("no storage")) });
    await expect(p.log.add(row(1))).rejects.toThrow("no storage");
    expect(p.log.entries()).toEqual([]);
  });

  test("what waits is sent in its order once the server is back, each once, and stays until the server tells it", async () => {
    const p = phone();
    for (const n of [2, 1, 3]) await p.log.add(row(n));
    expect(p.state.posted).toEqual([]);
    p.state.away = false;
    await p.log.send();
    await p.log.send();
    expect(p.state.posted).toEqual(["e1", "e2", "e3"]);
    expect(p.log.entries().every((l) => l.sent)).toBe(true);
    await p.log.known(new Set(["e1", "e3", "e9"]));
    expect(p.log.entries().map((l) => l.id)).toEqual(["e2"]);
  });

  test("a server that is away is tried again later, once, however much waits", async () => {
    const p = phone();
    for (const n of [1, 2]) await p.log.add(row(n));
    await p.log.send();
    await p.log.send();
    expect(p.state.later).toHaveLength(1);
  });

  test("an entry that the server refuses is kept with its reason, and holds up nothing behind it", async () => {
    const p = phone();
    p.state.away = false;
    p.state.refuse.add("e1");
    await p.log.add(row(1));
    await p.log.add(row(2));
    await p.log.send();
    expect(p.log.entries().map((l) => [l.id, l.sent, l.refused?.code ?? null])).toEqual([
      ["e1", false, "unknown-reference"],
      ["e2", true, null],
    ]);
  });

  test("what somebody else wrote here is not sent in another's name", async () => {
    const p = phone({ isOwn: (l: Logged) => l.person === "me" });
    p.state.away = false;
    await p.log.add(row(1, "you"));
    await p.log.add(row(2, "me"));
    await p.log.send();
    expect(p.state.posted).toEqual(["e2"]);
  });

  test("entries that the browser has cleared are told by the list that lies elsewhere; those that were sent are not missed", async () => {
    const p = phone();
    await p.log.add(row(1));
    await p.log.add(row(2));
    await p.log.send();
    const db = await open();
    await db.clear("entry");
    const next = p.again();
    await next.look();
    expect(next.missing()).toEqual(["e1", "e2"]);
    p.state.away = false;
    await next.add(row(3));
    await next.send();
    await db.clear("entry");
    const last = p.again();
    await last.look();
    expect(last.missing()).toEqual([]);
  });

  test("as an edit it goes to the address of its kind under its own number", () => {
    const edit = editOfLogged({ ...row(1, "me"), sent: false, refused: null });
    expect(edit).toMatchObject({
      id: "e1",
      method: "POST",
      path: "/api/jobs/j/roof",
      person: "me",
      body: { id: "e1", linkId: "l", order: 1, angleDeg: 1 },
    });
  });
});
