/* The open design: what is changed, saved, taken back, clashed and kept over a killed tab, against a server told by the test. */
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import type { DesignDto, DesignFields } from "@/contract";
import { sendEditRequest } from "../api/client";
import { createDesignStore, type DesignWay } from "./design-store";
import { createOutbox, type Edit, type Outbox } from "./outbox";

const base = {
  id: "d1",
  version: 1,
  nearMountAglM: 8,
  farMountAglM: 9,
  trimsM: {},
  policyOver: {},
  permissions: [],
} as unknown as DesignDto;

interface Sent {
  readonly body: Record<string, unknown>;
}
let sent: Sent[] = [];
let answer: (body: Record<string, unknown>) => { status: number; body: unknown };
const storage = new Map<string, string>();

/** A row as the database gives it back: JSON columns with their keys in another order, words trimmed. */
const reordered = (value: unknown): unknown =>
  value !== null && typeof value === "object" && !Array.isArray(value)
    ? Object.fromEntries(
        Object.entries(value)
          .reverse()
          .map(([k, v]) => [k, reordered(v)]),
      )
    : value;

beforeEach(() => {
  vi.useFakeTimers();
  sent = [];
  storage.clear();
  keptEdits = [];
  answer = (body) => ({ status: 200, body: { ...(reordered(body) as object), id: "d1", version: Number(body.version) + 1 } });
  vi.stubGlobal("localStorage", {
    getItem: (k: string) => storage.get(k) ?? null,
    setItem: (k: string, v: string) => void storage.set(k, v),
    removeItem: (k: string) => void storage.delete(k),
  });
  vi.stubGlobal("sessionStorage", { getItem: () => "client-test", setItem: () => undefined });
  vi.stubGlobal("fetch", async (_path: string, init: { body: string }) => {
    const body = JSON.parse(init.body) as Record<string, unknown>;
    sent.push({ body });
    const { status, body: reply } = answer(body);
    return new Response(JSON.stringify(reply), { status });
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** The outbox of a window: one edit after another, kept in its storage until it is answered. */
let keptEdits: readonly Edit[] = [];
const newOutbox = (tab = { alive: true }): Outbox => {
  const outbox = createOutbox({
    post: sendEditRequest,
    keep: (edits) => {
      keptEdits = edits;
    },
    later: (ms, work) => void setTimeout(() => tab.alive && work(), ms),
    newId: () => crypto.randomUUID(),
    settled: () => undefined,
  });
  outbox.begin();
  return outbox;
};
const wayOf = (outbox: Outbox): DesignWay => {
  const path = "/api/jobs/j1/designs/d1";
  return {
    send: (body, onWait) => outbox.send<DesignDto>({ jobId: "j1", method: "PATCH", path, body }, onWait),
    pending: () => outbox.pending<DesignDto>(path),
  };
};
const open = (initial: DesignDto = base, outbox: Outbox = newOutbox()) => createDesignStore(initial, () => undefined, wayOf(outbox));
const settle = (ms = 20_000): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);
const fields = (f: object): Partial<DesignFields> => f as Partial<DesignFields>;

describe("saving", () => {
  test("an edit is saved once on its version, and the state says so", async () => {
    const store = open();
    store.getState().change(fields({ nearMountAglM: 10 }));
    expect(store.getState().status.kind).toBe("saving");
    await settle();
    expect(sent.map((s) => s.body.version)).toEqual([1]);
    expect(sent[0]!.body.nearMountAglM).toBe(10);
    expect(store.getState().status.kind).toBe("saved");
    expect(storage.size).toBe(0);
  });

  test("columns that come back with their keys in another order are not saved again: once for each edit, never for ever", async () => {
    const store = open();
    store.getState().change(fields({ policyOver: { clearance: "whole", trees: "trim" } }));
    await settle(2000);
    store.getState().change(fields({ trimsM: { b: 2, a: 1, c: 3 } }));
    await settle(60_000);
    expect(sent).toHaveLength(2);
    expect(store.getState().status.kind).toBe("saved");
  });

  test("what the server writes otherwise, as trimmed words, becomes the design and is not sent back", async () => {
    const store = open();
    answer = (body) => ({
      status: 200,
      body: { ...body, id: "d1", version: Number(body.version) + 1, permissions: [{ number: "7" }] },
    });
    store.getState().change(fields({ permissions: [{ number: " 7 " }] }));
    await settle(60_000);
    expect(sent).toHaveLength(1);
    expect(store.getState().design.permissions).toEqual([{ number: "7" }]);
  });

  test("edits made while a save is under way follow it on the next version", async () => {
    const store = open();
    store.getState().change(fields({ nearMountAglM: 10 }));
    answer = (body) => {
      if (sent.length === 1) store.getState().change(fields({ farMountAglM: 12 }));
      return { status: 200, body: { ...body, id: "d1", version: Number(body.version) + 1 } };
    };
    await settle();
    expect(sent.map((s) => [s.body.version, s.body.farMountAglM])).toEqual([
      [1, 9],
      [2, 12],
    ]);
    expect(store.getState().status.kind).toBe("saved");
  });

  test("without an answer the edit is kept here, counted, tried again and sent when the server is back", async () => {
    const store = open();
    answer = () => ({ status: 503, body: { code: "database-unreachable" } });
    store.getState().change(fields({ nearMountAglM: 10 }));
    store.getState().change(fields({ nearMountAglM: 11 }));
    await settle(3000);
    expect(store.getState().status).toMatchObject({ kind: "kept", edits: 2 });
    expect(storage.size).toBe(1);
    answer = (body) => ({ status: 200, body: { ...body, id: "d1", version: Number(body.version) + 1 } });
    await settle(5000);
    expect(store.getState().status.kind).toBe("saved");
    expect(sent.at(-1)!.body.nearMountAglM).toBe(11);
    expect(storage.size).toBe(0);
  });

  test("a killed tab gives back what was typed; a draft of an older version is a clash with what came since", async () => {
    answer = () => ({ status: 503, body: { code: "database-unreachable" } });
    const tab = { alive: true };
    const killed = open(base, newOutbox(tab));
    killed.getState().change(fields({ nearMountAglM: 15 }));
    await settle(600);
    tab.alive = false;
    answer = (body) => ({ status: 200, body: { ...body, id: "d1", version: Number(body.version) + 1 } });
    const outbox = newOutbox();
    outbox.adopt(keptEdits);
    const again = open(base, outbox);
    expect(again.getState().design.nearMountAglM).toBe(15);
    await settle();
    expect(again.getState().status.kind).toBe("saved");
    expect(keptEdits).toHaveLength(0);
    storage.set("dry-arc.draft.d1", JSON.stringify({ version: 1, design: { nearMountAglM: 15 } }));
    const late = open({ ...base, version: 4, nearMountAglM: 20 });
    expect(late.getState().status).toMatchObject({ kind: "clash" });
    expect(late.getState().design.nearMountAglM).toBe(15);
  });
});

describe("an answer that was lost", () => {
  test("is asked for again under the same number: the edit is one's own, and what follows builds on it", async () => {
    const ids: string[] = [];
    vi.stubGlobal("fetch", async (_path: string, init: { body: string; headers: Record<string, string> }) => {
      const body = JSON.parse(init.body) as Record<string, unknown>;
      sent.push({ body });
      ids.push(init.headers["x-edit"]!);
      if (ids.length === 1) throw new TypeError("the connection broke after the server had written it");
      // The server has this edit already: it answers as it did.
      const version = init.headers["x-edit"] === ids[0] ? 2 : Number(body.version) + 1;
      return new Response(JSON.stringify({ ...body, id: "d1", version }), { status: 200 });
    });
    const tab = { alive: true };
    const killed = open(base, newOutbox(tab));
    killed.getState().change(fields({ nearMountAglM: 15 }));
    await settle(600);
    tab.alive = false;
    expect(keptEdits).toHaveLength(1);
    // The tab dies; the next one reads the row as the server has it, its own edit in it.
    const outbox = newOutbox();
    outbox.adopt(keptEdits);
    const again = open({ ...base, version: 2, nearMountAglM: 15 }, outbox);
    expect(again.getState().status.kind).toBe("saving");
    again.getState().change(fields({ farMountAglM: 21 }));
    await settle();
    expect(again.getState().status.kind).toBe("saved");
    expect(ids[1]).toBe(ids[0]);
    expect(sent.at(-1)!.body).toMatchObject({ version: 2, nearMountAglM: 15, farMountAglM: 21 });
  });
});

describe("an edit of one's own that was made before this page had read the row", () => {
  test("is no clash when its answer is known, nor when the row stands as it was sent", async () => {
    storage.set("dry-arc.draft.d1", JSON.stringify({ version: 1, design: { nearMountAglM: 15 } }));
    const made = { ...base, version: 2, nearMountAglM: 15 };
    const known = createDesignStore(base, () => undefined, { send: wayOf(newOutbox()).send, pending: () => Promise.resolve(made) });
    await settle();
    expect(known.getState().status.kind).toBe("saved");
    expect(sent).toHaveLength(0);
    known.getState().change(fields({ farMountAglM: 30 }));
    await settle();
    expect(sent.at(-1)!.body).toMatchObject({ version: 2, nearMountAglM: 15, farMountAglM: 30 });

    storage.set("dry-arc.draft.d1", JSON.stringify({ version: 1, design: { nearMountAglM: 15 } }));
    answer = (body) =>
      body.version === 1
        ? { status: 409, body: { code: "clash", current: made } }
        : { status: 200, body: { ...body, id: "d1", version: 3 } };
    const unknown = open();
    await settle();
    expect(unknown.getState().status.kind).toBe("saved");
    expect(storage.size).toBe(0);
    unknown.getState().change(fields({ farMountAglM: 31 }));
    await settle();
    expect(sent.at(-1)!.body).toMatchObject({ version: 2, farMountAglM: 31 });
  });
});

describe("undo, gestures, clash", () => {
  test("undo and redo are saved edits; a new edit ends what could be done again", async () => {
    const store = open();
    store.getState().change(fields({ nearMountAglM: 10 }));
    store.getState().change(fields({ nearMountAglM: 11 }));
    store.getState().undo();
    expect(store.getState().design.nearMountAglM).toBe(10);
    store.getState().redo();
    expect(store.getState().design.nearMountAglM).toBe(11);
    store.getState().undo();
    store.getState().undo();
    store.getState().undo();
    expect(store.getState().design.nearMountAglM).toBe(8);
    store.getState().change(fields({ nearMountAglM: 13 }));
    store.getState().redo();
    expect(store.getState().design.nearMountAglM).toBe(13);
    await settle();
    expect(sent.at(-1)!.body.nearMountAglM).toBe(13);
  });

  test("a drag is one step: nothing is sent while it lasts, the axes stay, one undo takes all of it back", async () => {
    const store = open();
    store.getState().beginGesture();
    for (let h = 8; h <= 12; h += 0.5) store.getState().change(fields({ nearMountAglM: h }));
    await settle(5000);
    expect(sent).toHaveLength(0);
    expect(store.getState().settled.nearMountAglM).toBe(8);
    store.getState().endGesture();
    expect(store.getState().settled.nearMountAglM).toBe(12);
    await settle();
    expect(sent).toHaveLength(1);
    store.getState().undo();
    expect(store.getState().design.nearMountAglM).toBe(8);
  });

  test("a clash waits for the person: mine goes on their version, theirs can be undone", async () => {
    const theirs = { ...base, version: 5, farMountAglM: 30 };
    const clash = (body: Record<string, unknown>) =>
      body.version === 1
        ? { status: 409, body: { code: "clash", current: theirs } }
        : { status: 200, body: { ...body, id: "d1", version: Number(body.version) + 1 } };
    answer = clash;
    const store = open();
    store.getState().change(fields({ nearMountAglM: 10 }));
    await settle();
    expect(store.getState().status.kind).toBe("clash");
    store.getState().resolveClash("mine");
    await settle();
    expect(sent.at(-1)!.body).toMatchObject({ version: 5, nearMountAglM: 10 });
    const other = open();
    other.getState().change(fields({ nearMountAglM: 10 }));
    await settle();
    other.getState().resolveClash("theirs");
    expect(other.getState().design.farMountAglM).toBe(30);
    other.getState().undo();
    expect(other.getState().design.nearMountAglM).toBe(10);
  });

  test("what somebody else saved is taken over only while nothing of one's own waits", async () => {
    const store = open();
    store.getState().adopt({ ...base, version: 3, nearMountAglM: 22 });
    expect(store.getState().design.nearMountAglM).toBe(22);
    store.getState().change(fields({ farMountAglM: 1 }));
    store.getState().adopt({ ...base, version: 9, nearMountAglM: 33 });
    expect(store.getState().design.nearMountAglM).toBe(22);
    await settle();
    expect(sent.at(-1)!.body.version).toBe(3);
  });
});
