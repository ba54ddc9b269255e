/* An open record: what is edited, sent, taken back, clashed and kept over a killed tab, through the real outbox. */
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { type DesignFields, RECORDS, withKind } from "@/contract";
import { ApiError } from "../api/client";
import { type Answer, type OpenRecord, openRecord, shown } from "./open-record";
import { createOutbox, type Edit, type Outbox } from "./outbox";
import { type Action, type Draft, opened, reduce, settledOf, shownInTurn, shownOf, statusOf } from "./record";

const ID = "11111111-1111-4111-8111-111111111111";
const PATH = `/api/jobs/j/designs/${ID}`;
const start: Answer & { id: string } = {
  id: ID,
  version: 1,
  ...RECORDS.design.fields.parse({
    nearMountAglM: 8,
    farMountAglM: 9,
    nearRadioId: "a",
    farRadioId: "a",
    nearPowerDbm: 11,
    farPowerDbm: 11,
    centreMhz: 5500,
    widthMhz: 40,
  }),
};

/** A server with one row, as the real one answers: by version, once for each edit's number. */
const serverOf = (row: Answer) => {
  const made = new Map<string, Answer>();
  const server = {
    row,
    sent: [] as Edit[],
    fault: null as ApiError | null,
    /** Breaks off the answer to the next edit after it was made. */
    loses: false,
    post: async (edit: Edit): Promise<unknown> => {
      server.sent.push(edit);
      if (server.fault !== null) throw server.fault;
      const known = made.get(edit.id);
      if (known !== undefined) return known;
      const { version, ...patch } = edit.body as Answer;
      if (version !== server.row.version) throw new ApiError(409, { code: "clash", current: server.row });
      server.row = { ...server.row, ...patch, version: version + 1 };
      made.set(edit.id, server.row);
      if (server.loses) {
        server.loses = false;
        throw new ApiError(0, { code: "offline" });
      }
      return server.row;
    },
  };
  return server;
};

let keptEdits: readonly Edit[] = [];
let draft: Draft<DesignFields> | null = null;
let saves = 0;
let writes = 0;
beforeEach(() => {
  vi.useFakeTimers();
  keptEdits = [];
  draft = null;
  saves = 0;
  writes = 0;
});
afterEach(() => vi.useRealTimers());

const outboxTo = (server: ReturnType<typeof serverOf>, tab = { alive: true }): Outbox => {
  const outbox = createOutbox({
    isOwn: () => true,
    post: server.post,
    keep: (edits) => {
      if (tab.alive) keptEdits = edits;
    },
    later: (ms, work) => void setTimeout(() => tab.alive && work(), ms),
    newId: () => crypto.randomUUID(),
    settled: () => undefined,
  });
  outbox.begin();
  return outbox;
};
const open = (outbox: Outbox, row: Answer = start): OpenRecord<DesignFields> =>
  openRecord("design", row, {
    send: (body, onWait) => outbox.send<Answer>({ jobId: "j", method: "PATCH", path: PATH, body }, onWait),
    pending: () =>
      outbox.pending<Answer>(PATH).map(({ edit, answer }) => {
        const { version: _v, ...patch } = edit.body as Answer;
        return { patch: patch as Partial<DesignFields>, answer };
      }),
    nowMs: () => 1000,
    keep: (d) => {
      writes++;
      draft = d;
    },
    kept: () => draft,
    onSaved: () => {
      saves++;
    },
  });
const settle = (ms = 20_000): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);
const status = (r: OpenRecord<DesignFields>) => statusOf(r.store.getState());
const bodies = (s: ReturnType<typeof serverOf>) => s.sent.map((e) => e.body);

describe("saving", () => {
  test("a finished edit is sent once, with what it changed alone, on its version", async () => {
    const server = serverOf(start);
    const r = open(outboxTo(server));
    r.change({ nearMountAglM: 10 });
    expect(status(r).kind).toBe("saving");
    await settle();
    expect(bodies(server)).toEqual([{ version: 1, nearMountAglM: 10 }]);
    expect(status(r)).toEqual({ kind: "saved", at: new Date(1000) });
    expect(saves).toBe(1);
    expect(draft).toBeNull();
  });

  test("10.3 typed letter by letter is one edit; Escape leaves none; what is typed is kept as it is typed", async () => {
    const server = serverOf(start);
    const r = open(outboxTo(server));
    for (const typed of [1, 10, 10.3]) {
      r.begin("typing");
      r.change({ nearMountAglM: typed });
      expect(draft).toEqual({ version: 1, patch: { nearMountAglM: typed }, from: { nearMountAglM: start.nearMountAglM } });
    }
    expect(status(r).kind).toBe("typing");
    expect(shown(r).nearMountAglM).toBe(10.3);
    expect(settledOf(r.store.getState()).nearMountAglM).toBe(8);
    r.end();
    await settle();
    expect(bodies(server)).toEqual([{ version: 1, nearMountAglM: 10.3 }]);
    r.begin("typing");
    r.change({ nearMountAglM: 2 });
    r.cancel();
    expect(shown(r).nearMountAglM).toBe(10.3);
    expect(draft).toBeNull();
    await settle();
    expect(server.sent).toHaveLength(1);
  });

  test("a drag is one edit, and keeps nothing while it moves; one that comes back to where it began is none", async () => {
    const server = serverOf(start);
    const r = open(outboxTo(server));
    r.begin("drag");
    for (let h = 8; h <= 12; h += 0.5) r.change({ nearMountAglM: h });
    expect(writes).toBe(0);
    r.end();
    await settle();
    expect(bodies(server)).toEqual([{ version: 1, nearMountAglM: 12 }]);
    r.begin("drag");
    r.change({ nearMountAglM: 13 });
    r.change({ nearMountAglM: 12 });
    r.end();
    await settle();
    expect(server.sent).toHaveLength(1);
  });

  test("edits made while one is under way are edits of their own, each on the version before it", async () => {
    const server = serverOf(start);
    const r = open(outboxTo(server));
    r.change({ nearMountAglM: 10 });
    r.change({ nearMountAglM: 11 });
    r.change({ trimsM: { [ID]: 4 } });
    expect(shown(r)).toMatchObject({ nearMountAglM: 11, trimsM: { [ID]: 4 } });
    await settle();
    expect(bodies(server)).toEqual([
      { version: 1, nearMountAglM: 10 },
      { version: 2, nearMountAglM: 11 },
      { version: 3, trimsM: { [ID]: 4 } },
    ]);
    expect(status(r).kind).toBe("saved");
  });

  test("what the server writes otherwise, as trimmed words or keys in another order, is shown and not sent back", async () => {
    const server = serverOf(start);
    const r = open(outboxTo(server));
    const post = server.post;
    const outbox = outboxTo({ ...server, post: async (e) => ({ ...((await post(e)) as Answer), nearWall: "brick" }) });
    const other = open(outbox);
    other.change({ nearWall: " brick " });
    await settle(60_000);
    expect(shown(other).nearWall).toBe("brick");
    expect(server.sent).toHaveLength(1);
    expect(status(r).kind).toBe("saved");
  });

  test("without an answer the edits wait here, counted, and are sent when the server is back", async () => {
    const server = serverOf(start);
    server.fault = new ApiError(503, { code: "database-unreachable" });
    const r = open(outboxTo(server));
    r.change({ nearMountAglM: 10 });
    r.change({ farMountAglM: 11 });
    await settle(3000);
    expect(status(r)).toMatchObject({ kind: "kept", edits: 2 });
    server.fault = null;
    await settle(5000);
    expect(status(r).kind).toBe("saved");
    expect(server.row).toMatchObject({ nearMountAglM: 10, farMountAglM: 11, version: 3 });
  });

  test("what is not open to who is here is not shown as if it stood, nor over a reload; it is set aside", async () => {
    const server = serverOf(start);
    server.fault = new ApiError(403, { code: "not-allowed" });
    const r = open(outboxTo(server));
    const before = shown(r).nearMountAglM;
    r.change({ nearMountAglM: 10 });
    await settle();
    expect(status(r)).toEqual({ kind: "refused", reason: { code: "not-allowed" } });
    expect(shown(r).nearMountAglM).toBe(before);
    expect(draft).toBeNull();
    // It is opened to them: what they had typed comes back.
    server.fault = null;
    r.recall();
    await settle();
    expect(server.row).toMatchObject({ nearMountAglM: 10 });
    expect(status(r).kind).toBe("saved");
  });

  test("what the server refuses stays in the hand with its reason, and goes again with the next edit", async () => {
    const server = serverOf(start);
    server.fault = new ApiError(422, { code: "unknown-reference" });
    const r = open(outboxTo(server));
    r.change({ nearRadioId: "gone" });
    await settle();
    expect(status(r)).toEqual({ kind: "refused", reason: { code: "unknown-reference" } });
    expect(shown(r).nearRadioId).toBe("gone");
    expect(draft?.patch).toEqual({ nearRadioId: "gone" });
    server.fault = null;
    r.change({ nearRadioId: "b" });
    await settle();
    expect(status(r).kind).toBe("saved");
    expect(server.row.nearRadioId).toBe("b");
  });
});

describe("a killed tab", () => {
  test("gives back what was on its way and what was being typed", async () => {
    const server = serverOf(start);
    server.fault = new ApiError(0, { code: "offline" });
    const tab = { alive: true };
    const killed = open(outboxTo(server, tab));
    killed.change({ nearMountAglM: 15 });
    killed.begin("typing");
    killed.change({ farMountAglM: 21 });
    await settle(600);
    tab.alive = false;
    expect(keptEdits).toHaveLength(1);
    server.fault = null;
    server.sent.length = 0;
    const next = outboxTo(server);
    next.adopt(keptEdits);
    const again = open(next);
    expect(shown(again)).toMatchObject({ nearMountAglM: 15, farMountAglM: 21 });
    expect(status(again).kind).toBe("saving");
    await settle();
    expect(bodies(server)).toEqual([
      { version: 1, nearMountAglM: 15 },
      { version: 2, farMountAglM: 21 },
    ]);
    expect(status(again).kind).toBe("saved");
    expect([draft, keptEdits]).toEqual([null, []]);
  });

  test("an answer that was lost is asked for again under the same number: the edit is one's own, no clash", async () => {
    const server = serverOf(start);
    server.loses = true;
    const tab = { alive: true };
    open(outboxTo(server, tab)).change({ nearMountAglM: 15 });
    await settle(600);
    tab.alive = false;
    // The next tab reads the row with its own edit in it.
    const next = outboxTo(server);
    next.adopt(keptEdits);
    const again = open(next, server.row);
    again.change({ farMountAglM: 21 });
    await settle();
    expect(status(again).kind).toBe("saved");
    expect(server.row).toMatchObject({ version: 3, nearMountAglM: 15, farMountAglM: 21 });
  });

  test("a draft of an older version is a clash with what came since, unless it says the same", async () => {
    const theirs = { ...start, version: 4, nearMountAglM: 20 };
    const server = serverOf(theirs);
    draft = { version: 1, patch: { nearMountAglM: 15 } };
    const late = open(outboxTo(server), theirs);
    expect(status(late)).toMatchObject({ kind: "clash", mine: { nearMountAglM: 15 } });
    await settle();
    expect(server.sent).toHaveLength(0);
    draft = { version: 1, patch: { nearMountAglM: 20 } };
    expect(status(open(outboxTo(server), theirs)).kind).toBe("saved");
  });

  test("a draft that knows what it was made from goes together with what came since, and is asked about only where it is fought", async () => {
    const theirs = { ...start, version: 4, nearMountAglM: 20, trimsM: { elm: 2 } };
    const server = serverOf(theirs);
    draft = { version: 1, patch: { trimsM: { oak: 1 } }, from: { trimsM: {} } };
    const late = open(outboxTo(server), theirs);
    await settle();
    expect(server.row).toMatchObject({ version: 5, nearMountAglM: 20, trimsM: { elm: 2, oak: 1 } });
    expect(status(late).kind).toBe("saved");
    draft = { version: 1, patch: { nearMountAglM: 15 }, from: { nearMountAglM: 8 } };
    expect(status(open(outboxTo(server), { ...theirs, version: 5 }))).toMatchObject({ kind: "clash", mine: { nearMountAglM: 15 } });
  });
});

describe("a clash", () => {
  const clashing = async () => {
    const server = serverOf({ ...start, version: 5, farMountAglM: 30 });
    const r = open(outboxTo(server));
    r.change({ nearMountAglM: 10 });
    r.change({ farMountAglM: 12 });
    await settle();
    return { server, r };
  };

  test("waits for the person with both sides; what is edited meanwhile joins one's own side", async () => {
    const { server, r } = await clashing();
    expect(status(r)).toMatchObject({ kind: "clash", mine: { nearMountAglM: 10, farMountAglM: 12 }, theirs: { farMountAglM: 30 } });
    const { length } = server.sent;
    r.change({ nearPowerDbm: 5 });
    await settle();
    expect(server.sent).toHaveLength(length);
    expect(draft?.patch).toEqual({ nearMountAglM: 10, farMountAglM: 12, nearPowerDbm: 5 });
    r.resolve("mine");
    await settle();
    expect(server.row).toMatchObject({ version: 6, nearMountAglM: 10, farMountAglM: 12, nearPowerDbm: 5 });
    expect(status(r).kind).toBe("saved");
  });

  test("theirs taken sets mine aside until the next edit; it can be brought back", async () => {
    const { server, r } = await clashing();
    r.resolve("theirs");
    expect(shown(r)).toMatchObject({ nearMountAglM: 8, farMountAglM: 30 });
    expect(draft).toBeNull();
    r.recall();
    await settle();
    expect(server.row).toMatchObject({ nearMountAglM: 10, farMountAglM: 12 });
    expect(r.store.getState().setAside).toBeNull();
  });

  test("what both changed goes together where it is not the same, and is sent anew on theirs without a question", async () => {
    const server = serverOf({ ...start, version: 5, farMountAglM: 30, trimsM: { elm: 2 } });
    const r = open(outboxTo(server));
    r.change({ nearMountAglM: 10 });
    r.change({ trimsM: { oak: 1 } });
    r.begin("typing");
    r.change({ nearPowerDbm: 7 });
    await settle();
    expect(server.row).toMatchObject({ version: 6, nearMountAglM: 10, farMountAglM: 30, trimsM: { elm: 2, oak: 1 } });
    // What is under the hand is still there, and goes when it is finished.
    expect(status(r).kind).toBe("typing");
    expect(shown(r)).toMatchObject({ nearPowerDbm: 7, farMountAglM: 30, trimsM: { elm: 2, oak: 1 } });
    r.end();
    await settle();
    expect(server.row).toMatchObject({ version: 7, nearPowerDbm: 7 });
    expect(status(r).kind).toBe("saved");
  });

  test("refused without anything newer it is asked about, and not sent for ever", async () => {
    const server = serverOf(start);
    server.fault = new ApiError(409, { code: "clash", current: { ...start, nearMountAglM: 9 } });
    const r = open(outboxTo(server));
    r.change({ farMountAglM: 12 });
    await settle();
    expect(server.sent).toHaveLength(1);
    expect(status(r).kind).toBe("clash");
  });

  test("within a group only what both changed is asked about, and keeping one's own keeps the rest of theirs", async () => {
    const server = serverOf({ ...start, version: 5, trimsM: { elm: 2, oak: 4 } });
    const r = open(outboxTo(server));
    r.change({ trimsM: { oak: 1 } });
    await settle();
    expect(status(r)).toMatchObject({ kind: "clash", mine: { trimsM: { elm: 2, oak: 1 } }, theirs: { trimsM: { elm: 2, oak: 4 } } });
    r.resolve("mine");
    await settle();
    expect(server.row).toMatchObject({ version: 6, trimsM: { elm: 2, oak: 1 } });
  });

  test("what stands there as it was meant is none", async () => {
    const server = serverOf({ ...start, version: 2, nearMountAglM: 10 });
    const r = open(outboxTo(server));
    r.change({ nearMountAglM: 10 });
    await settle();
    expect(status(r).kind).toBe("saved");
    r.change({ farMountAglM: 31 });
    await settle();
    expect(server.row).toMatchObject({ version: 3, farMountAglM: 31 });
  });
});

describe("what arrives", () => {
  test("within a group under the hand is taken over, and not undone when the typing ends", async () => {
    const server = serverOf({ ...start, version: 3, trimsM: { elm: 2 } });
    const r = open(outboxTo(server));
    r.begin("typing");
    r.change({ trimsM: { oak: 1 } });
    r.arrive({ ...start, version: 3, trimsM: { elm: 2 } });
    expect(shown(r).trimsM).toEqual({ elm: 2, oak: 1 });
    r.end();
    await settle();
    expect(server.row).toMatchObject({ version: 4, trimsM: { elm: 2, oak: 1 } });
  });

  test("of others is taken over when nothing of one's own is on its way, and leaves what is typed alone", () => {
    const r = open(outboxTo(serverOf(start)));
    r.arrive({ ...start, version: 3, nearMountAglM: 22 });
    expect(shown(r).nearMountAglM).toBe(22);
    r.begin("typing");
    r.change({ farMountAglM: 1 });
    r.arrive({ ...start, version: 4, nearMountAglM: 23 });
    expect(shown(r)).toMatchObject({ nearMountAglM: 23, farMountAglM: 1 });
    r.arrive({ ...start, version: 2, nearMountAglM: 99 });
    expect(shown(r).nearMountAglM).toBe(23);
  });

  test("of one's own undo comes with its version: an edit behind it is made on that", async () => {
    const server = serverOf(start);
    const undone: Answer = { ...start, version: 3 };
    const posted: unknown[] = [];
    const outbox = createOutbox({
      isOwn: () => true,
      post: async (edit) => {
        posted.push(edit.body);
        if (!edit.path.endsWith("/undo")) return server.post(edit);
        server.row = undone;
        return { step: null, rows: [{ kind: "design", id: ID, row: undone }] };
      },
      keep: () => undefined,
      later: () => undefined,
      newId: () => crypto.randomUUID(),
      settled: () => undefined,
    });
    outbox.begin();
    const r = open(outbox);
    r.change({ nearMountAglM: 10 });
    void outbox.send({ jobId: "j", method: "POST", path: "/api/jobs/j/undo", body: { redo: false } });
    r.change({ farMountAglM: 12 });
    await settle();
    expect(posted.at(-1)).toEqual({ version: 3, farMountAglM: 12 });
    expect(status(r).kind).toBe("saved");
  });
});

test("secrets never lie in a draft", () => {
  const off = withKind("vault", { ...RECORDS.site, route: "vaults", secrets: ["notes"] } as never);
  try {
    let kept: Draft<Record<string, unknown>> | null = null;
    const r = openRecord(
      "vault" as "site",
      { ...RECORDS.site.fields.parse({ name: "A", latDeg: 1, lonDeg: 1, mountAglM: 1 }), version: 1 },
      {
        send: () => new Promise(() => undefined),
        pending: () => [],
        nowMs: () => 0,
        keep: (d) => {
          kept = d as never;
        },
        kept: () => null,
        onSaved: () => undefined,
      },
    );
    r.begin("typing");
    r.change({ notes: "the code is 4711", owner: "Kelp Works" });
    expect(kept).toMatchObject({ version: 1, patch: { owner: "Kelp Works" } });
    expect(JSON.stringify(kept)).not.toContain("notes");
  } finally {
    off();
  }
});

test("whatever happens in whatever order: what was edited last is what is shown, or it was refused, clashed or cancelled", () => {
  interface F {
    readonly a: number;
    readonly b: number;
  }
  const action = fc.oneof(
    fc.record({ type: fc.constant("change" as const), fields: fc.oneof(fc.record({ a: fc.nat(3) }), fc.record({ b: fc.nat(3) })) }),
    fc.record({ type: fc.constantFrom("begin" as const, "end" as const, "cancel" as const, "answer" as const) }),
  );
  fc.assert(
    fc.property(fc.array(action, { maxLength: 40 }), (actions) => {
      let s = opened<F>({ version: 1, fields: { a: 0, b: 0 } });
      const inTurn = shownInTurn<F>();
      let before = inTurn(s);
      // What a plain reading of the same says.
      let [settled, live, gesture]: [F, F, boolean] = [{ a: 0, b: 0 }, { a: 0, b: 0 }, false];
      for (const x of actions) {
        if (x.type === "answer") {
          const [first] = s.sent;
          if (first !== undefined) {
            const row = { version: s.base.version + 1, fields: { ...s.base.fields, ...first.patch } };
            s = reduce(s, { type: "answered", number: first.number, row, atMs: 1 });
          }
        } else {
          s = reduce(s, x as Action<F>);
          if (x.type === "change") live = { ...live, ...x.fields };
          if (x.type === "begin") gesture = true;
          if (x.type === "cancel" && gesture) live = settled;
          if (x.type === "end" || x.type === "cancel") gesture = false;
          if (!gesture) settled = live;
        }
        expect(shownOf(s)).toEqual(live);
        expect(settledOf(s)).toEqual(settled);
        // The same in turn; and as long as it says the same it is the same, so that nothing is worked out of it again.
        const now = inTurn(s);
        expect(now).toMatchObject({ fields: live, settled });
        expect(now.fields === before.fields).toBe(now.fields.a === before.fields.a && now.fields.b === before.fields.b);
        expect(now.settled === before.settled).toBe(now.settled.a === before.settled.a && now.settled.b === before.settled.b);
        before = now;
      }
    }),
    { numRuns: 300 },
  );
});
