import { randomUUID } from "node:crypto";
import { describe, expect, test } from "vitest";
import { recordPath } from "@/contract";
import { ApiError } from "../api/client";
import { bringUnsent, overThere } from "./bring-unsent";
import type { Unsent } from "./unsent-file";

const jobId = randomUUID();
type E = Unsent["edits"][number];

/** A server as far as these edits go: rows with versions, an edit of one number made once. */
const server = (rows: Record<string, Record<string, unknown> & { version: number }>) => {
  const made = new Map<string, unknown>();
  const log: string[] = [];
  let down: number | null = null;
  return {
    rows,
    log,
    failFrom: (status: number | null) => {
      down = status;
    },
    post: async (e: E): Promise<unknown> => {
      if (down !== null) throw new ApiError(down, { code: down === 401 ? "signed-out" : "offline" });
      if (made.has(e.id)) return made.get(e.id);
      const row = rows[e.path];
      const { version, ...fields } = e.body;
      if (row === undefined) throw new ApiError(404, { code: "not-found" });
      if (version !== row.version) throw new ApiError(409, { code: "clash", current: { ...row } });
      Object.assign(row, fields, { version: row.version + 1 });
      log.push(JSON.stringify(fields));
      made.set(e.id, { ...row });
      return { ...row };
    },
  };
};
const path = (id: string): string => recordPath(jobId, "site", id);
const patch = (id: string, version: number, fields: object): E => ({
  id: randomUUID(),
  jobId,
  method: "PATCH",
  path: path(id),
  body: { version, ...fields },
});
const bring = (edits: readonly E[], s: ReturnType<typeof server>, seen: number[] = []) =>
  bringUnsent({ madeAt: "", edits, photos: [] }, { post: s.post, postPhoto: async () => undefined, progress: (n) => void seen.push(n) });

describe("bringing in what was not sent", () => {
  test("edits of one row follow one another, each on what the one before left; what was sent already is not made twice", async () => {
    const id = randomUUID();
    const s = server({ [path(id)]: { version: 3, mountAglM: 8 } });
    // As a phone queues them: all made on the version that it last read.
    const edits = [patch(id, 3, { mountAglM: 12 }), patch(id, 3, { notes: "rust" }), patch(id, 3, { mountAglM: 14 })];
    const seen: number[] = [];
    expect(await bring(edits, s, seen)).toMatchObject({ made: 3, fallen: [], fought: [], stopped: null });
    expect(seen).toEqual([1, 2, 3]);
    expect(s.rows[path(id)]).toMatchObject({ mountAglM: 14, notes: "rust", version: 6 });
    await bring(edits, s);
    expect(s.rows[path(id)]!.version).toBe(6);
  });

  test("a row that was changed here since is asked about, field by field, and the phone's side can be put over it", async () => {
    const [id, other] = [randomUUID(), randomUUID()];
    const s = server({ [path(id)]: { version: 5, mountAglM: 9, notes: "" }, [path(other)]: { version: 1, notes: "" } });
    const came = await bring([patch(id, 3, { mountAglM: 14 }), patch(other, 1, { notes: "ok" })], s);
    expect(came).toMatchObject({ made: 1, fought: [{ mine: { mountAglM: 14 }, theirs: { mountAglM: 9 }, version: 5 }] });
    expect(s.rows[path(id)]!.mountAglM).toBe(9);
    await s.post(overThere(came.fought[0]!));
    expect(s.rows[path(id)]).toMatchObject({ mountAglM: 14, version: 6 });
  });

  test("what stands here already, sent in another's name, is not asked about", async () => {
    const id = randomUUID();
    const s = server({ [path(id)]: { version: 4, mountAglM: 14 } });
    expect(await bring([patch(id, 3, { mountAglM: 14 }), patch(id, 3, { notes: "rust" })], s)).toMatchObject({ made: 2, fought: [] });
    expect(s.rows[path(id)]).toMatchObject({ mountAglM: 14, notes: "rust", version: 5 });
  });

  test("one that the server does not take is told, and the rest goes on", async () => {
    const id = randomUUID();
    const s = server({ [path(id)]: { version: 1 } });
    const came = await bring([patch(randomUUID(), 1, { notes: "gone" }), patch(id, 1, { notes: "there" })], s);
    expect(came.made).toBe(1);
    expect(came.fallen.map((f) => f.reason.code)).toEqual(["not-found"]);
  });

  test.each([0, 401, 503])("a server that is away (%i) stops it where it is; going on makes the rest, once", async (status) => {
    const id = randomUUID();
    const s = server({ [path(id)]: { version: 1 } });
    const edits = [patch(id, 1, { notes: "a" }), patch(id, 1, { notes: "b" })];
    let n = 0;
    const first = await bringUnsent(
      { madeAt: "", edits, photos: [] },
      {
        post: async (e) => {
          if (n++ === 1) s.failFrom(status);
          return s.post(e);
        },
        postPhoto: async () => undefined,
        progress: () => undefined,
      },
    );
    expect(first.made).toBe(1);
    expect(first.stopped).not.toBeNull();
    s.failFrom(null);
    expect(await bring(edits, s)).toMatchObject({ made: 2, fought: [], stopped: null });
    expect(s.log).toEqual(['{"notes":"a"}', '{"notes":"b"}']);
  });
});
