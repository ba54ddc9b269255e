/*
 * Every kind of record through the one door, on a real PostgreSQL: the list is walked, so that what is said here of one
 * holds for all, and for a kind that is added tomorrow.
 */
import { randomUUID } from "node:crypto";
import { Pool } from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { z } from "zod";
import { PATCH as patchRoute, GET as readRoute } from "../app/api/jobs/[jobId]/[records]/[recordId]/route";
import { POST as createRoute, GET as listRoute } from "../app/api/jobs/[jobId]/[records]/route";
import {
  type InputOf,
  type Kind,
  type KindName,
  kind,
  kindOf,
  kinds,
  type LonLat,
  NO_FIXED,
  ROLES,
  recordPath,
  withKind,
} from "../contract";
import { bundleBytes, takeBundle } from "../jobs/testing/bring";
import { asClient, asRole } from "./actor";
import type { JobNews } from "./changes";
import { NotFound, Refused, VersionClash } from "./clash";
import { type Db, openDb } from "./client";
import { listRadios } from "./hardware";
import { historyOf, redoLast, takeBack, undoLast } from "./history";
import { createUpload } from "./imports";
import { getJob, type JobRow } from "./jobs";
import { createLink } from "./links";
import { openNews } from "./listen";
import { edit, listRecords } from "./records";
import { setGuards } from "./row-guards";
import { storeOf } from "./stores";
import { create, createJob, plainDesign } from "./testing/edits";

const url = process.env.DATABASE_TEST_URL;
if (url === undefined) throw new Error("DATABASE_TEST_URL is not set; run npm test");
let db: Db;
let close: () => Promise<void>;
let two: ReturnType<typeof openDb>;
let pool: Pool;
const off: (() => void)[] = [];

/** A kind that nobody has written a line for but this: it has secrets, prices, and a site it belongs to. */
const toy: Kind = kind({
  parent: "site",
  many: true,
  route: "toys",
  fields: z.object({
    name: z.string().min(1, "a toy has a name"),
    colour: z.string().default("red"),
    priceEur: z.number().min(0).nullable().default(null),
    code: z.string().default(""),
    siteId: z.uuid().nullable().default(null),
  }),
  fixed: NO_FIXED,
  refs: { siteId: "site" },
  words: { one: "toy", many: "toys", fields: { name: "name", colour: "colour", priceEur: "price", code: "code", siteId: "site" } },
  bundle: { file: "toys.ndjson", form: "lines" },
  stale: "job",
  seenBy: ["owner", "installer"],
  editedBy: ["owner", "installer"],
  secrets: ["code"],
  prices: ["priceEur"],
  kept: "document",
}) as unknown as Kind;
/** A kind that is added to by phones, and never changed. */
const reading: Kind = kind({
  parent: "job",
  many: true,
  route: "readings",
  fields: z.object({ name: z.string(), levelDbm: z.number() }),
  fixed: NO_FIXED,
  words: { one: "reading", many: "readings", fields: { name: "name", levelDbm: "level" } },
  bundle: { file: "readings.ndjson", form: "lines" },
  stale: "nothing",
  seenBy: ROLES,
  editedBy: ROLES,
  appendOnly: true,
  idByClient: true,
  onPhone: true,
  kept: "document",
}) as unknown as Kind;

beforeAll(async () => {
  ({ db, close } = openDb(url));
  two = openDb(url);
  pool = new Pool({ connectionString: url, max: 2 });
  off.push(withKind("toy", toy), withKind("reading", reading));
  // The database knows the kinds, too.
  await setGuards(db);
});
afterAll(async () => {
  for (const take of off) take();
  await setGuards(db);
  await pool.end();
  await two.close();
  await close();
});

const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-me", work);
const you = <T>(work: () => Promise<T>): Promise<T> => asClient("client-you", work);
const RING: LonLat[] = [
  [-33, 43],
  [-32.999, 43],
  [-32.999, 43.001],
  [-33, 43.001],
];

interface Place {
  readonly job: JobRow;
  readonly siteId: string;
  readonly linkId: string;
  readonly design: InputOf<"design">;
}

/** A job with two sites and a link, for what needs them. */
const place = async (): Promise<Place> => {
  const job = await createJob(db, "Kinds", { centreLatDeg: 43, centreLonDeg: -33 });
  const site = (name: string, latDeg: number) => create(db, job.id, "site", { name, latDeg, lonDeg: -33, mountAglM: 6 });
  const [near, far] = [await site("Near", 43), await site("Far", 43.01)];
  const radioId = (await listRadios(db))[0]!.id;
  const design = plainDesign(radioId);
  const link = await createLink(db, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design });
  return { job, siteId: near.id, linkId: link.id, design: { ...design, linkId: link.id, chosen: false } };
};

type Values = Record<string, unknown>;
interface Sample {
  readonly input: (p: Place) => Promise<Values> | Values;
  readonly bytes?: Buffer;
  /** An edit, the field that it is looked at by, and another edit that clashes with it. */
  readonly patch: Values;
  readonly other: Values;
}
const SOCKET = { id: "5f0f6f2a-3a3e-4f6e-9d55-0c1a2b3c4d5e", kind: "mains" as const, partId: "socket", name: "mains" };
const TASK = {
  id: "7f0f6f2a-3a3e-4f6e-9d55-0c1a2b3c4d5e",
  kind: "bench" as const,
  name: "bench",
  siteId: null,
  people: [],
  day: null,
  from: "08:00",
  hours: 2,
  after: [],
  outside: false,
  waitsFor: null,
  note: "",
};
/** One of each kind that is edited: the compiler asks for a kind that is added. What is only added to has tests of its own. */
const SAMPLES: Readonly<Record<Exclude<KindName, "roof"> | "toy", Sample>> = {
  job: { input: () => ({}), patch: { tideRangeM: 2.5 }, other: { tideRangeM: 3 } },
  brief: { input: () => ({}), patch: { customer: "Kelp Works" }, other: { customer: "Others" } },
  limits: { input: () => ({}), patch: { priceMost: 400 }, other: { priceMost: 300 } },
  hub: {
    input: ({ siteId }) => ({ siteId, name: "Mast", mountAglM: 12 }),
    patch: { name: "High mast" },
    other: { name: "Low mast" },
  },
  air: { input: () => ({}), patch: { radar: "avoid" }, other: { radar: "fallback", watchedDays: 3 } },
  scan: {
    input: ({ siteId }) => ({ siteId, heardOn: "2026-07-01", rows: [{ centreMhz: 5500, levelDbm: -80 }] }),
    patch: { note: "from the roof" },
    other: { note: "from the yard" },
  },
  wiring: {
    input: ({ siteId }) => ({ siteId, places: [SOCKET] }),
    patch: { roofAglM: 6 },
    other: { roofAglM: 7 },
  },
  unit: {
    input: ({ siteId }) => ({ siteId, placeId: SOCKET.id, serial: "A1" }),
    patch: { serial: "A2" },
    other: { serial: "A3" },
  },
  addresses: { input: () => ({}), patch: { timeServer: "10.0.0.1" }, other: { timeServer: "10.0.0.2" } },
  kit: { input: () => ({}), patch: { fixingFactor: 4 }, other: { fixingFactor: 5 } },
  days: { input: () => ({}), patch: { tasks: [TASK] }, other: { tasks: [{ ...TASK, name: "other" }] } },
  pick: {
    input: () => ({ name: "Kelp Cord", partId: null, count: 2 }),
    patch: { count: 3 },
    other: { count: 4 },
  },
  safety: { input: ({ siteId }) => ({ siteId }), patch: { checkIn: "every half hour" }, other: { checkIn: "hourly" } },
  network: { input: () => ({}), patch: { recorder: "each" }, other: { recorder: "brief" } },
  site: { input: () => ({ name: "Shed", latDeg: 43.02, lonDeg: -33, mountAglM: 5 }), patch: { mountAglM: 7.5 }, other: { mountAglM: 8 } },
  link: {
    input: async ({ job, siteId }) => ({
      nearSiteId: siteId,
      farSiteId: (await create(db, job.id, "site", { name: "Third", latDeg: 43.03, lonDeg: -33, mountAglM: 4 })).id,
    }),
    patch: { label: "spare" },
    other: { label: "first" },
  },
  design: { input: ({ design }) => ({ ...design, name: "low" }), patch: { nearMountAglM: 9 }, other: { nearMountAglM: 10 } },
  obstacle: {
    input: () => ({ name: "House", kind: "building", outline: RING, heightM: 7, surveyedOn: "2026-01-01" }),
    patch: { outline: RING.slice(0, 3), heightM: 8 },
    other: { heightM: 9 },
  },
  feature: {
    input: () => ({ name: "Ridge", points: RING.slice(0, 2) }),
    patch: { points: RING.slice(1, 4) },
    other: { points: RING.slice(0, 1) },
  },
  photo: {
    input: ({ siteId }) => ({ siteId, fromWhere: "ground", bearingDeg: 12, takenOn: "2026-07-15", note: "", mime: "image/jpeg" }),
    bytes: Buffer.from([0xff, 0xd8, 0xff, 1]),
    patch: { note: "the gable" },
    other: { note: "the ridge" },
  },
  basemap: {
    input: () => ({ kind: "xyz", name: "Own", address: "http://127.0.0.1:9/{z}/{x}/{y}.png" }),
    patch: { credit: "the town" },
    other: { credit: "the county" },
  },
  toy: {
    input: ({ siteId }) => ({ name: "Top", siteId, priceEur: 12, code: "4711" }),
    patch: { colour: "blue" },
    other: { colour: "green" },
  },
};
type Edited = Exclude<KindName, "roof">;
const NAMES = Object.keys(SAMPLES) as Edited[];

const nobody = <T>(work: () => Promise<T>): Promise<T> => asClient(null, work);
const made = async (name: Edited, p: Place, as = me): Promise<{ id: string; version: number }> => {
  const { input, bytes } = SAMPLES[name];
  if (name === "job") return { id: p.job.id, version: p.job.version };
  if (!kindOf(name).many) return { id: p.job.id, version: 0 };
  const row = await as(async () => create(db, p.job.id, name, (await input(p)) as never, bytes));
  // A link without a design in force is none.
  if (name === "link") await nobody(() => create(db, p.job.id, "design", { ...p.design, linkId: row.id, chosen: true }));
  return row;
};
const patched = (name: KindName, p: Place, id: string, version: number, fields: Values) =>
  edit(db, p.job.id, (door) => door.patch(name, id, version, fields as never)) as Promise<Values & { version: number }>;
const seen = async (name: KindName, p: Place, id: string): Promise<Values | undefined> => {
  if (name === "job") return (await getJob(db, id)) as unknown as Values;
  return (await listRecords(db, p.job.id, name)).find((r) => r.id === id);
};
const pick = (row: Values | undefined, like: Values): Values => Object.fromEntries(Object.keys(like).map((k) => [k, row?.[k]]));

/** As if a job had never been here. */
const forget = async (jobId: string): Promise<void> => {
  const ofLinks = `(SELECT id FROM link WHERE job_id = '${jobId}')`;
  await db.execute(`DELETE FROM design WHERE link_id IN ${ofLinks}`);
  for (const table of ["change", "record", "photo", "basemap", "feature", "obstacle", "link_verdict", "link", "site", "brief"])
    await db.execute(`DELETE FROM ${table} WHERE job_id = '${jobId}'`);
  await db.execute(`DELETE FROM job WHERE id = '${jobId}'`);
};

test("the list has a sample of every kind", () => {
  expect([...NAMES].sort()).toEqual(
    kinds()
      .map(([name]) => name)
      .filter((name) => kindOf(name).appendOnly !== true)
      .sort(),
  );
});

describe.each(NAMES)("%s", (name) => {
  const { patch: fields, other } = SAMPLES[name];

  test("is made, changed, clashed over, undone, done again, undone by another, taken away and brought back", async () => {
    const p = await place();
    const { id, version } = await made(name, p);
    const before = pick(await seen(name, p, id), fields);
    const row = await me(() => patched(name, p, id, version, fields));
    expect(pick(row, fields)).toEqual(fields);

    const clash = await you(() => patched(name, p, id, version, other)).catch((e: unknown) => e);
    expect(clash).toBeInstanceOf(VersionClash);
    expect(pick((clash as VersionClash).current as Values, fields)).toEqual(fields);
    expect((clash as VersionClash).current).toMatchObject({ id, version: row.version });

    const undone = await me(() => undoLast(db, p.job.id));
    expect(undone.rows).toMatchObject([{ kind: name, id, row: { version: row.version + 1 } }]);
    expect(pick(await seen(name, p, id), fields)).toEqual(before);
    await me(() => redoLast(db, p.job.id));
    expect(pick(await seen(name, p, id), fields)).toEqual(fields);
    // Nobody else's undo reaches it; taken back out of the history it does.
    expect((await you(() => undoLast(db, p.job.id))).step).toBeNull();
    const history = await you(() => historyOf(db, p.job.id));
    const change = history.changes.find((c) => c.entity === name && c.action === "update")!;
    expect(change.fields.map((f) => f.field).sort()).toEqual(Object.keys(fields).sort());
    await you(() => takeBack(db, p.job.id, change.id));
    expect(pick(await seen(name, p, id), fields)).toEqual(before);

    if (name === "job" || !kindOf(name).many) return;
    const now = (await seen(name, p, id)) as { version: number };
    await me(() => edit(db, p.job.id, (door) => door.take(name, id, now.version)));
    expect(await seen(name, p, id)).toBeUndefined();
    await expect(me(() => patched(name, p, id, now.version + 1, other))).rejects.toBeInstanceOf(NotFound);
    await me(() => undoLast(db, p.job.id));
    expect(pick(await seen(name, p, id), fields)).toEqual(before);
    await me(() => redoLast(db, p.job.id));
    expect(await seen(name, p, id)).toBeUndefined();
    const gone = (await seenAnyway(name, id)).version;
    await me(() => edit(db, p.job.id, (door) => door.bring(name, id, gone)));
    expect(pick(await seen(name, p, id), fields)).toEqual(before);
  });

  test("belongs to its job alone, takes no field it does not have, and an edit that changes nothing is none", async () => {
    const p = await place();
    const { id, version } = await made(name, p);
    const stranger = await createJob(db, "Stranger");
    if (kindOf(name).many && name !== "job")
      await expect(edit(db, stranger.id, (door) => door.patch(name, id, version, fields as never))).rejects.toBeInstanceOf(NotFound);
    await expect(patched(name, p, id, version, { nonsense: 1 })).rejects.toBeInstanceOf(z.ZodError);
    const row = await patched(name, p, id, version, fields);
    expect((await patched(name, p, id, row.version, fields)).version).toBe(row.version);
  });

  test("what is left out of an edit stays as it is", async () => {
    const p = await place();
    const { id, version } = await made(name, p);
    const first = await patched(name, p, id, version, fields);
    const was = await seen(name, p, id);
    await patched(name, p, id, first.version, other);
    const is = await seen(name, p, id);
    const touched = new Set([...Object.keys(other), "version", "revision", "updatedAt"]);
    for (const key of Object.keys(was!)) if (!touched.has(key)) expect([key, is![key]]).toEqual([key, was![key]]);
  });

  test("moves with its job, byte for byte", async () => {
    if (kindOf(name).bundle === null) return;
    const p = await place();
    const { id, version } = await made(name, p);
    await patched(name, p, id, version, fields);
    const out = await bundleBytes(db, await getJob(db, p.job.id));
    const copy = await takeBundle(db, pool, out, true);
    expect(copy.fault).toBeNull();
    const there = name === "job" ? [await getJob(db, copy.jobId!)] : await listRecords(db, copy.jobId!, name);
    expect(there.map((r) => pick(r as Values, fields))).toContainEqual(fields);
    // Where nothing has its ids any more, the very same job comes out again.
    await forget(p.job.id);
    const taken = await takeBundle(db, pool, out, false);
    expect(taken).toMatchObject({ fault: null, jobId: p.job.id });
    expect((await bundleBytes(db, await getJob(db, p.job.id))).equals(out)).toBe(true);
  });

  test("two at once, 200 rounds: every one answered, none lost, nothing blocked", async () => {
    const p = await place();
    const { id, version } = await made(name, p, nobody);
    let at = (await patched(name, p, id, version, fields)).version;
    const strange: string[] = [];
    let won = 0;
    const settle = async (work: () => Promise<unknown>): Promise<void> => {
      try {
        await work();
      } catch (error) {
        if (!(error instanceof VersionClash || error instanceof Refused || error instanceof NotFound)) strange.push(String(error));
      }
    };
    const count = async (): Promise<number> =>
      Number(
        (
          await db.execute<{ n: string }>(
            `SELECT count(*) AS n FROM change WHERE job_id = '${p.job.id}' AND entity = '${name}' AND entity_id = '${id}' AND action <> 'create'`,
          )
        ).rows[0]!.n,
      );
    const [countBefore, versionBefore] = [await count(), at];
    for (let round = 0; round < 200; round++) {
      const mine = round % 2 === 0 ? fields : other;
      const theirs = round % 2 === 0 ? other : fields;
      await Promise.all([
        settle(() => me(() => edit(db, p.job.id, (door) => door.patch(name, id, at, mine as never)))),
        settle(() => you(() => edit(two.db, p.job.id, (door) => door.patch(name, id, at, theirs as never)))),
        ...(round % 5 === 0 ? [settle(() => me(() => undoLast(two.db, p.job.id)))] : []),
      ]);
      const row = (await seenAnyway(name, id)) as { version: number };
      won += row.version > at ? 1 : 0;
      at = row.version;
    }
    expect(strange).toEqual([]);
    expect(won).toBeGreaterThan(150);
    // Each version is one edit of the log.
    expect((await count()) - countBefore).toBe(at - versionBefore);
  });
});

const seenAnyway = async (name: string, id: string): Promise<{ version: number }> => {
  return (await storeOf(name).read(db as never, id, false))!;
};

describe("a kind on the list", () => {
  test("has its routes, its news and its verdicts made stale at once", async () => {
    const p = await place();
    const heard: JobNews[] = [];
    const news = openNews(url);
    await new Promise<void>((resolve) => {
      news.listen((n) => {
        if (n.jobId === "*") resolve();
        else if (n.jobId === p.job.id) heard.push(n);
      });
    });
    const ask = (method: string, body?: unknown): Request =>
      new Request("http://localhost/api", {
        method,
        headers: { host: "localhost", "x-client": "client-me" },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      });
    const want = async () =>
      (await db.execute<{ want: string }>(`SELECT want FROM link_verdict WHERE job_id = '${p.job.id}'`)).rows[0]!.want;
    const before = await want();
    const at = { jobId: p.job.id, records: "toys" };
    const answer = await createRoute(ask("POST", { name: "Top", priceEur: 3 }), { params: Promise.resolve(at) });
    expect(answer.status).toBe(200);
    const row = (await answer.json()) as { id: string; version: number };
    expect(row).toEqual({ id: row.id, version: 1, name: "Top", colour: "red", priceEur: 3, siteId: null });
    expect(Number(await want())).toBeGreaterThan(Number(before));
    const one = { params: Promise.resolve({ ...at, recordId: row.id }) };
    expect(recordPath(p.job.id, "toy", row.id)).toBe(`/api/jobs/${p.job.id}/toys/${row.id}`);
    expect((await (await patchRoute(ask("PATCH", { version: 1, colour: "blue" }), one)).json()) as Values).toMatchObject({
      colour: "blue",
      version: 2,
    });
    const late = await patchRoute(ask("PATCH", { version: 1, colour: "green" }), one);
    expect([late.status, await late.json()]).toMatchObject([409, { code: "clash", path: "toy", current: { colour: "blue" } }]);
    const wrong = await patchRoute(ask("PATCH", { version: 2, name: "" }), one);
    expect([wrong.status, await wrong.json()]).toMatchObject([400, { code: "invalid", path: "name", message: "a toy has a name" }]);
    expect(await (await readRoute(ask("GET"), one)).json()).toMatchObject({ id: row.id, colour: "blue" });
    expect(await (await listRoute(ask("GET"), { params: Promise.resolve(at) })).json()).toHaveLength(1);
    expect((await patchRoute(ask("PATCH", { version: 2, deleted: true }), one)).status).toBe(200);
    expect((await readRoute(ask("GET"), one)).status).toBe(404);
    await expect.poll(() => heard.length, { timeout: 5000 }).toBeGreaterThanOrEqual(3);
    expect(heard[0]).toEqual({ jobId: p.job.id, entity: "toy", id: row.id, clientId: "client-me" });
    const stranger = await createRoute(ask("POST", { name: "Top", siteId: randomUUID() }), { params: Promise.resolve(at) });
    expect([stranger.status, await stranger.json()]).toMatchObject([422, { code: "unknown-reference", path: "siteId" }]);
  });

  test("keeps its secrets: not in history, undo, lists, bundle or log; only that they were changed", async () => {
    const p = await place();
    const { id } = await made("toy" as Edited, p);
    await me(() => patched("toy" as KindName, p, id, 1, { code: "0815", colour: "blue" }));
    const told = JSON.stringify([
      await listRecords(db, p.job.id, "toy"),
      await historyOf(db, p.job.id),
      await me(() => undoLast(db, p.job.id)),
      (await db.execute(`SELECT * FROM change WHERE job_id = '${p.job.id}'`)).rows,
      (await bundleBytes(db, await getJob(db, p.job.id))).toString("latin1"),
    ]);
    expect(told).not.toMatch(/4711|0815/);
    const change = (await historyOf(db, p.job.id)).changes.find((c) => c.entity === "toy" && c.action === "update")!;
    expect(change.fields).toEqual([{ field: "colour", from: "red", to: "blue" }, { field: "code" }]);
    // The undo took back what may be known; the secret is as it was set last.
    const kept = await db.execute<{ doc: Values }>(`SELECT doc FROM record WHERE id = '${id}'`);
    expect(kept.rows[0]!.doc).toMatchObject({ colour: "red", code: "0815" });
  });

  test("tells prices to whom they are meant, and is not there for whom it is not", async () => {
    const p = await place();
    await made("toy" as Edited, p);
    const [forCrew] = await asRole("installer", () => listRecords(db, p.job.id, "toy"));
    expect(forCrew).toMatchObject({ name: "Top", priceEur: null });
    await me(() => patched("toy" as KindName, p, String(forCrew!.id), 1, { priceEur: 99 }));
    const change = async () => (await historyOf(db, p.job.id)).changes.find((c) => c.entity === "toy" && c.action === "update")!.fields;
    expect(await asRole("installer", change)).toEqual([{ field: "priceEur" }]);
    expect(await change()).toEqual([{ field: "priceEur", from: 12, to: 99 }]);
    const bundle = await asRole("installer", async () => bundleBytes(db, await getJob(db, p.job.id)));
    expect(bundle.length).toBeGreaterThan(0);
    const customer = <T>(work: () => Promise<T>) => asRole("customer", () => asClient("client-me", work));
    await expect(customer(() => listRecords(db, p.job.id, "toy"))).rejects.toMatchObject({ code: "not-allowed" });
    await expect(customer(() => undoLast(db, p.job.id))).rejects.toMatchObject({ code: "not-allowed" });
    expect((await customer(() => historyOf(db, p.job.id))).changes.some((c) => c.entity === "toy")).toBe(false);
  });

  test("that is only added to is never changed; made again under the id of its phone it is the same one", async () => {
    const p = await place();
    const id = randomUUID();
    const add = () => edit(db, p.job.id, (door) => door.create("reading" as KindName, { name: "north", levelDbm: -61 } as never, { id }));
    const [first, second] = [await add(), await add()];
    expect(second).toEqual(first);
    expect(await listRecords(db, p.job.id, "reading")).toHaveLength(1);
    await expect(patched("reading" as KindName, p, id, 1, { levelDbm: -50 })).rejects.toMatchObject({ code: "append-only" });
    await expect(edit(db, p.job.id, (door) => door.take("reading" as KindName, id, 1))).rejects.toMatchObject({ code: "append-only" });
  });
});

test("a map lies on a file of its own job, and at an address that is one", async () => {
  const p = await place();
  const stranger = await createJob(db, "Stranger");
  const { id: uploadId } = await createUpload(db, stranger.id, { name: "a.pmtiles", sizeBytes: 5 });
  const lay = (fields: Values) => edit(db, p.job.id, (door) => door.create("basemap", { kind: "pmtiles", name: "m", ...fields } as never));
  await expect(lay({ uploadId })).rejects.toMatchObject({ code: "unknown-reference", path: "uploadId" });
  await expect(lay({ kind: "xyz", address: "file:///etc/passwd?{z}{x}{y}" })).rejects.toBeInstanceOf(z.ZodError);
  const own = await createUpload(db, p.job.id, { name: "a.pmtiles", sizeBytes: 5 });
  const laid = await lay({ uploadId: own.id });
  await expect(edit(db, p.job.id, (door) => door.patch("basemap", laid.id, 1, { uploadId }))).rejects.toBeInstanceOf(Refused);
});

test("a link comes back only to ends that stand; the design in force goes only with its link", async () => {
  const p = await place();
  const [site] = await listRecords(db, p.job.id, "site");
  const design = (await listRecords(db, p.job.id, "design"))[0]!;
  await expect(edit(db, p.job.id, (door) => door.take("design", design.id, design.version))).rejects.toBeInstanceOf(NotFound);
  const away = await edit(db, p.job.id, (door) => door.take("link", p.linkId, 1));
  await edit(db, p.job.id, (door) => door.take("site", site!.id, site!.version));
  await expect(edit(db, p.job.id, (door) => door.bring("link", p.linkId, away.version))).rejects.toBeInstanceOf(Refused);
});
