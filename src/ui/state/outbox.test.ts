/* Edits on their way: order, waiting, repeats, what follows what, and what another window left behind. */
import fc from "fast-check";
import { beforeEach, describe, expect, test } from "vitest";
import type { SiteDto } from "@/contract";
import { ApiError } from "../api/client";
import { asSentNow, createOutbox, type Edit, type Outbox } from "./outbox";
import { withPendingSites } from "./pending-sites";

const PATH = "/api/jobs/j/sites/a";
let posted: Edit[] = [];
let kept: readonly Edit[] = [];
let settled: Edit[] = [];
let timers: (() => void)[] = [];
let answer: (edit: Edit) => unknown;
let n = 0;
let here = "anna";

beforeEach(() => {
  posted = [];
  kept = [];
  settled = [];
  timers = [];
  n = 0;
  here = "anna";
  answer = (e) => ({ id: "a", version: ((e.body as { version?: number }).version ?? 0) + 1 });
});
const open = (): Outbox => {
  const outbox = createOutbox({
    post: async (edit) => {
      posted.push(edit);
      return answer(edit);
    },
    keep: (edits) => {
      kept = edits;
    },
    later: (_ms, work) => void timers.push(work),
    newId: () => `edit-${++n}`,
    isOwn: (edit) => edit.person == null || edit.person === here,
    settled: (edit) => void settled.push(edit),
  });
  outbox.begin();
  return outbox;
};
const away = (): never => {
  throw new ApiError(503, { code: "database-unreachable" });
};
const rest = async (): Promise<void> => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};
const retry = async (): Promise<void> => {
  for (const t of timers.splice(0)) t();
  await rest();
};
const patch = (outbox: Outbox, body: unknown, path = PATH, onWait?: (r: { code: string }) => void) =>
  outbox.send<{ version: number }>({ jobId: "j", method: "PATCH", path, body }, onWait);

describe("the outbox", () => {
  test("keeps the order, and each edit until it is answered", async () => {
    const outbox = open();
    answer = away;
    const all = [
      patch(outbox, { version: 1, x: 1 }),
      patch(outbox, { version: 1, x: 2 }, "/api/jobs/j/sites/b"),
      patch(outbox, { version: 1, x: 3 }),
    ];
    await rest();
    expect(posted.map((e) => (e.body as { x: number }).x)).toEqual([1]);
    expect(kept).toHaveLength(3);
    expect(outbox.state().waitsFor).toEqual({ code: "database-unreachable" });
    answer = (e) => ({ version: (e.body as { version: number }).version + 1 });
    await retry();
    expect((await Promise.all(all)).map((a) => a.version)).toEqual([2, 2, 3]);
    expect(posted.map((e) => [e.id, (e.body as { x: number }).x])).toEqual([
      ["edit-1", 1],
      ["edit-1", 1],
      ["edit-2", 2],
      ["edit-3", 3],
    ]);
    expect(kept).toEqual([]);
    expect(outbox.state().waitsFor).toBeNull();
  });

  test("makes a later edit of a row on what the one before it came to, and of no other row", async () => {
    const outbox = open();
    answer = away;
    for (const path of [PATH, PATH, "/api/jobs/j/sites/b"]) void patch(outbox, { version: 4 }, path);
    await rest();
    answer = () => ({ version: 9 });
    await retry();
    expect(posted.slice(1).map((e) => (e.body as { version: number }).version)).toEqual([4, 9, 4]);
  });

  test("hands a refusal to whoever made the edit, and goes on with the next", async () => {
    const outbox = open();
    answer = (e) => {
      if ((e.body as { x: number }).x === 1) throw new ApiError(409, { code: "clash" });
      return { version: 2 };
    };
    const [first, second] = [patch(outbox, { version: 1, x: 1 }), patch(outbox, { version: 1, x: 2 })];
    await expect(first).rejects.toMatchObject({ body: { code: "clash" } });
    await expect(second).resolves.toEqual({ version: 2 });
    expect(outbox.state().lost).toEqual([]);
  });

  test("says to each that it waits, with the reason, also to those that come later", async () => {
    const outbox = open();
    const told: string[] = [];
    answer = away;
    void patch(outbox, { x: 1 }, PATH, (r) => void told.push(`1 ${r.code}`));
    await rest();
    void patch(outbox, { x: 2 }, PATH, (r) => void told.push(`2 ${r.code}`));
    expect(told).toEqual(["1 database-unreachable", "2 database-unreachable"]);
  });

  test("takes over what another window left, before its own, without a second of what it has; what is refused is told", async () => {
    const first = open();
    answer = away;
    void patch(first, { version: 1, x: 1 });
    void patch(first, { version: 1, x: 2 });
    await rest();
    const left = [...kept];
    timers = [];
    posted = [];
    const second = createOutbox({
      isOwn: () => true,
      post: async (edit) => {
        posted.push(edit);
        return answer(edit);
      },
      keep: () => undefined,
      later: (_ms, work) => void timers.push(work),
      newId: () => "own",
      settled: (edit) => void settled.push(edit),
    });
    answer = (e) => {
      if ((e.body as { x: number }).x === 2) throw new ApiError(422, { code: "same-spot" });
      return { version: 5 };
    };
    const own = second.send({ jobId: "j", method: "PATCH", path: PATH, body: { version: 1, x: 3 } });
    await rest();
    // Nothing goes out before what was left is known.
    expect(posted).toEqual([]);
    const pending = second.pending(PATH);
    second.adopt(left);
    second.adopt(left);
    second.begin();
    await own;
    await pending;
    expect(posted.map((e) => e.id)).toEqual(["edit-1", "edit-2", "own"]);
    expect((posted[2]!.body as { version: number }).version).toBe(5);
    expect(settled.map((e) => e.id)).toEqual(["edit-1", "edit-2"]);
    expect(second.state().lost.map((l) => l.reason.code)).toEqual(["same-spot"]);
    second.forget("edit-2");
    expect(second.state().lost).toEqual([]);
  });

  test("what somebody else made waits for them and holds nobody up; signed out, all wait; signed in again, all goes", async () => {
    const outbox = open();
    const theirs: Edit = { id: "e-b", jobId: "j", method: "PATCH", path: PATH, body: { version: 1, x: 9 }, person: "bren" };
    outbox.adopt([theirs]);
    const own = outbox.send<{ version: number }>({ jobId: "j", method: "PATCH", path: PATH, body: { version: 1, x: 2 }, person: "anna" });
    await own;
    expect(posted.map((e) => e.person)).toEqual(["anna"]);
    expect(kept).toEqual([theirs]);
    expect(outbox.state().waitsFor).toBeNull();
    // What is theirs is not shown to who is here as theirs.
    expect(outbox.pending(PATH)).toEqual([]);
    answer = () => {
      throw new ApiError(401, { code: "signed-out" });
    };
    const late = outbox.send<{ version: number }>({ jobId: "j", method: "PATCH", path: PATH, body: { version: 2, x: 3 }, person: "anna" });
    await rest();
    expect(outbox.state().waitsFor).toEqual({ code: "signed-out" });
    // Somebody else signed in meanwhile, and this window has not heard of it: the server says so, and nothing is lost.
    answer = () => {
      throw new ApiError(409, { code: "other-person" });
    };
    await retry();
    expect(outbox.state().waitsFor).toEqual({ code: "other-person" });
    answer = (e) => ({ version: ((e.body as { version: number }).version ?? 0) + 1 });
    here = "bren";
    await retry();
    expect(posted.at(-1)).toMatchObject({ id: "e-b" });
    here = "anna";
    outbox.begin();
    await late;
    expect(outbox.state().edits).toEqual([]);
  });

  test("whatever the server does, every edit is sent in order and settles once", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom("made", "away", "refused"), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 1, max: 8 }),
        async (fates, count) => {
          const queue = [...fates];
          answer = () => {
            const fate = queue.shift() ?? "made";
            if (fate === "away") away();
            if (fate === "refused") throw new ApiError(422, { code: "not-allowed" });
            return { version: 1 };
          };
          posted = [];
          timers = [];
          n = 0;
          const outbox = open();
          const ends = Array.from({ length: count }, (_, i) =>
            patch(outbox, { x: i }, `/p/${i}`).then(
              () => "made",
              () => "refused",
            ),
          );
          for (let i = 0; i < fates.length + count + 2; i++) {
            await rest();
            await retry();
          }
          expect(await Promise.all(ends)).toHaveLength(count);
          expect(outbox.state().edits).toEqual([]);
          const firsts = posted.map((e) => e.id).filter((id, i, all) => all.indexOf(id) === i);
          expect(firsts).toEqual(Array.from({ length: count }, (_, i) => `edit-${i + 1}`));
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe("sites with edits on their way", () => {
  const a = { id: "a", name: "A", latDeg: 46, lonDeg: -25, mountAglM: 5, version: 1 } as SiteDto;
  const edit = (method: Edit["method"], path: string, body: unknown): Edit => ({ id: "e1", jobId: "j", method, path, body });
  test("a dragged one stands where it was let go, a new one stands already, one taken away is gone", () => {
    expect(withPendingSites("j", [a], [edit("PATCH", PATH, { version: 1, latDeg: 47 })])).toEqual([{ ...a, latDeg: 47 }]);
    const added = withPendingSites("j", [a], [edit("POST", "/api/jobs/j/sites", { name: "B", latDeg: 46.1, lonDeg: -25, mountAglM: 3 })]);
    expect(added[1]).toMatchObject({ id: "e1", name: "B", mountingPoints: [], version: 1 });
    expect(withPendingSites("j", [a], [edit("PATCH", PATH, { version: 1, deleted: true })])).toEqual([]);
  });
  test("edits of other jobs and of other things change nothing, and the list stays the same one", () => {
    const sites = [a];
    expect(
      withPendingSites("j", sites, [
        edit("PATCH", "/api/jobs/k/sites/a", { latDeg: 1 }),
        edit("PATCH", "/api/jobs/j/links/a", { deleted: true }),
      ]),
    ).toBe(sites);
  });
});

test("what a page of the version before left behind is sent as it is taken now", () => {
  const left = (method: Edit["method"], path: string, body: unknown): Edit => ({ id: "1", jobId: "j", method, path, body });
  expect(asSentNow(left("PUT", "/api/jobs/j/brief", { version: 3, doc: { customer: "A" } }))).toMatchObject({
    method: "PATCH",
    body: { version: 3, customer: "A" },
  });
  expect(asSentNow(left("PATCH", "/api/jobs/j/obstacles/o", { version: 2, fields: { heightM: 7 } })).body).toEqual({
    version: 2,
    heightM: 7,
  });
  expect(asSentNow(left("DELETE", "/api/jobs/j/designs/d?version=4", undefined))).toMatchObject({
    method: "PATCH",
    path: "/api/jobs/j/designs/d",
    body: { version: 4, deleted: true },
  });
  for (const today of [
    left("PATCH", "/api/jobs/j/obstacles/o", { version: 2, deleted: true }),
    left("PUT", "/api/jobs/j/basemap", { basemap: null }),
    left("PATCH", "/api/jobs/j/sites/s", { version: 1, notes: "x" }),
  ])
    expect(asSentNow(today)).toBe(today);
});
