/* Two browsers at once on one job, over two connections each, with real contention. */
import { sql } from "drizzle-orm";
import { expect, test } from "vitest";
import { asClient } from "./actor";
import { NotFound, Refused, VersionClash } from "./clash";
import type { Db } from "./client";
import { listRadios } from "./hardware";
import { redoLast, undoLast } from "./history";
import { linksOf } from "./jobs";
import { createLink } from "./links";
import { testDb } from "./testing/db";
import { create, createJob, patch } from "./testing/edits";
import { askFor, verdictsOfOtherProgram } from "./verdict-store";

const [one, two] = [testDb(), testDb()];

const ROUNDS = 60;
const known = (error: unknown): boolean => error instanceof VersionClash || error instanceof Refused || error instanceof NotFound;

const fresh = async (db: Db) => {
  const job = await createJob(db, "Contention", { centreLatDeg: 41, centreLonDeg: -31 });
  const at = (name: string, latDeg: number) => create(db, job.id, "site", { name, latDeg, lonDeg: -31, mountAglM: 8, mountMaxAglM: null });
  const [near, far] = [await at("A", 41), await at("B", 41.01)];
  const radioId = (await listRadios(db))[0]!.id;
  const design = {
    nearRadioId: radioId,
    farRadioId: radioId,
    nearMountAglM: 8,
    farMountAglM: 8,
    nearPowerDbm: 10,
    farPowerDbm: 10,
    centreMhz: 5500,
    widthMhz: 20,
  };
  await createLink(db, job.id, { nearSiteId: near.id, farSiteId: far.id, label: "", design });
  const [link] = await linksOf(db, job.id);
  return { job, near, design: link!.design };
};

test("undo against a save: both are answered every time, by success or by a clash with its row, and versions add up", async () => {
  const { job, near, design } = await fresh(one);
  const outlineOf = (d: number) => [
    [-31, 41 + d] as [number, number],
    [-30.999, 41 + d] as [number, number],
    [-30.999, 41.001 + d] as [number, number],
  ];
  const { id: obstacle } = await create(one, job.id, "obstacle", {
    name: "Wall",
    kind: "wall",
    outline: outlineOf(0),
    baseAmslM: 1,
    heightM: 4,
    crownBaseM: 0,
    freeBelowM: 0,
    growthMPerYear: 0,
    heightSigmaM: 0.3,
    species: null,
    leaf: null,
    source: "drawn",
    heightSource: "typed",
    surveyedOn: "2026-01-01",
  });
  let designVersion = design.version;
  let siteVersion = near.version;
  let wallVersion = 1;
  const strange: string[] = [];
  const settle = async (what: string, work: Promise<unknown>): Promise<void> => {
    try {
      await work;
    } catch (error) {
      if (!known(error)) strange.push(`${what}: ${String(error)}`);
    }
  };
  const a = <T>(work: () => Promise<T>): Promise<T> => asClient("client-aaaa", work);
  const b = <T>(work: () => Promise<T>): Promise<T> => asClient("client-bbbb", work);
  for (let round = 0; round < ROUNDS; round++) {
    await Promise.all([
      settle(
        "save design",
        a(async () => {
          designVersion = (await patch(one, "design", design.id, designVersion, { nearMountAglM: 8 + round / 100 })).version;
        }),
      ),
      settle(
        "undo",
        b(() => undoLast(two, job.id)),
      ),
      settle(
        "save site",
        b(async () => {
          siteVersion = (await patch(two, "site", near.id, siteVersion, { notes: `round ${round}` })).version;
        }),
      ),
      settle(
        "undo",
        a(() => (round % 2 === 0 ? undoLast(one, job.id) : redoLast(one, job.id))),
      ),
      settle(
        "save wall",
        b(async () => {
          wallVersion = (await patch(two, "obstacle", obstacle, wallVersion, { heightM: 4 + round / 100 })).version;
        }),
      ),
    ]);
    const [link] = await linksOf(one, job.id);
    designVersion = link!.design.version;
    siteVersion = (await patch(one, "site", near.id, await versionOf(near.id), { owner: `${round}` })).version;
    wallVersion = await wallVersionOf(obstacle);
  }
  expect(strange).toEqual([]);
});

const versionOf = async (siteId: string): Promise<number> =>
  Number((await one.execute<{ version: number }>(`SELECT version FROM site WHERE id = '${siteId}'`)).rows[0]!.version);
const wallVersionOf = async (id: string): Promise<number> =>
  Number((await one.execute<{ version: number }>(`SELECT version FROM obstacle WHERE id = '${id}'`)).rows[0]!.version);

test("of two saves on one version one wins and the other is a clash with the row as it stands", async () => {
  const { design } = await fresh(one);
  for (let round = 0; round < 20; round++) {
    const [version] = [design.version + round];
    const results = await Promise.allSettled([
      patch(one, "design", design.id, version, { nearMountAglM: 9 + round }),
      patch(two, "design", design.id, version, { nearMountAglM: 40 + round }),
    ]);
    const won = results.filter((r) => r.status === "fulfilled");
    const lost = results.find((r) => r.status === "rejected");
    expect(won).toHaveLength(1);
    expect(lost?.status === "rejected" && lost.reason).toBeInstanceOf(VersionClash);
    expect((lost as PromiseRejectedResult).reason.current.version).toBe(version + 1);
  }
});

test("whoever asks for verdicts, and a worker of another program, wait for no edit that holds some of them: neither is undone by the other", async () => {
  const { job, near } = await fresh(one);
  const third = await create(one, job.id, "site", { name: "C", latDeg: 41.02, lonDeg: -31, mountAglM: 8, mountMaxAglM: null });
  const [only] = await linksOf(one, job.id);
  const { id: _i, version: _v, linkId: _l, jobId: _j, chosen: _c, ...design } = only!.design as unknown as Record<string, unknown>;
  await createLink(one, job.id, { nearSiteId: near.id, farSiteId: third.id, label: "", design: design as never });
  const ids = (await linksOf(one, job.id)).map((l) => l.id);
  const waits = async (): Promise<boolean> =>
    (await one.execute(sql`SELECT 1 FROM pg_stat_activity WHERE wait_event_type = 'Lock' AND query LIKE '%link_verdict%'`)).rows.length > 0;
  const hold = (db: Pick<Db, "execute">, id: string) => db.execute(sql`UPDATE link_verdict SET want = want + 1 WHERE link_id = ${id}`);
  // Whichever row the asker comes to first: an edit that holds the one goes on to the other.
  for (const [first, second] of [
    [ids[0]!, ids[1]!],
    [ids[1]!, ids[0]!],
  ] as const) {
    for (const { ahead, asks } of [
      { ahead: 1, asks: () => askFor(two, [job.id]) },
      { ahead: 0, asks: () => verdictsOfOtherProgram(two, `p${first}`) },
    ]) {
      await one.execute(sql`UPDATE link_verdict SET asked_at = NULL, have = want - ${ahead}, program = 'old' WHERE job_id = ${job.id}`);
      let asked: Promise<unknown> = Promise.resolve();
      await one.transaction(async (tx) => {
        await hold(tx, first);
        let isThrough = false;
        asked = asks().finally(() => {
          isThrough = true;
        });
        // Until the asker is through, or waits for what is held here.
        for (let held = false; !isThrough && !held; ) held = await waits();
        await hold(tx, second);
      });
      await asked;
    }
  }
});
