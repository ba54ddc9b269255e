import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { lonLats } from "../contract";
import { verdictsOf } from "../service/verdicts";
import { asClient } from "./actor";
import type { JobNews } from "./changes";
import { Refused } from "./clash";
import { type Db, openDb } from "./client";
import { listRadios } from "./hardware";
import { historyOf, redoLast, takeBack, undoLast } from "./history";
import { getJob, type JobRow, linksOf, sitesOf } from "./jobs";
import { createLink } from "./links";
import { openNews } from "./listen";
import { splitObstacle } from "./obstacle-edits";
import { obstaclesOf } from "./obstacles";
import { edit, listRecords } from "./records";
import { create, createJob, patch, take } from "./testing/edits";

const url = process.env.DATABASE_TEST_URL;
if (url === undefined) throw new Error("DATABASE_TEST_URL is not set; run npm test");
const EVERYWHERE = { westDeg: -180, southDeg: -90, eastDeg: 180, northDeg: 90 };
let db: Db;
let close: () => Promise<void>;
beforeAll(() => {
  ({ db, close } = openDb(url));
});
afterAll(() => close());

const newJob = (name: string): Promise<JobRow> => createJob(db, name, { centreLatDeg: 40, centreLonDeg: -30 });
const site = (name: string, latDeg: number) => ({ name, latDeg, lonDeg: -30, mountAglM: 5, mountMaxAglM: null });
const me = <T>(work: () => Promise<T>): Promise<T> => asClient("client-me", work);
const you = <T>(work: () => Promise<T>): Promise<T> => asClient("client-you", work);
const square = [
  { latDeg: 40, lonDeg: -30 },
  { latDeg: 40, lonDeg: -29.999 },
  { latDeg: 40.001, lonDeg: -29.999 },
  { latDeg: 40.001, lonDeg: -30 },
];
const house = {
  name: "House",
  kind: "building" as const,
  outline: lonLats(square),
  baseAmslM: 3,
  heightM: 7,
  heightSigmaM: 0.5,
  surveyedOn: "2026-01-01",
};

describe("undo and redo across a job", () => {
  test("steps back through sites, obstacles, the basis and the brief, and forward again", async () => {
    const job = await newJob("Steps");
    const seen = async () => ({
      sites: (await sitesOf(db, job.id)).map((s) => [s.name, s.mountAglM]),
      obstacles: (await obstaclesOf(db, job.id, EVERYWHERE, 100)).rows.map((o) => [o.heightM, o.outline.length]),
      tide: (await getJob(db, job.id)).tideRangeM,
      customer: (await listRecords(db, job.id, "brief"))[0]!.customer,
    });
    const states = [await seen()];
    const step = async (work: () => Promise<unknown>) => {
      await me(work);
      states.push(await seen());
    };
    await step(() => create(db, job.id, "site", site("A", 40)));
    const [a] = await sitesOf(db, job.id);
    await step(() => patch(db, "site", a!.id, 1, { mountAglM: 9 }));
    await step(() => create(db, job.id, "obstacle", house));
    const [o] = (await obstaclesOf(db, job.id, EVERYWHERE, 100)).rows;
    await step(() => patch(db, "obstacle", o!.id, 1, { heightM: 12, outline: lonLats(square.slice(0, 3)) }));
    await step(() => take(db, "obstacle", o!.id, 2));
    await step(() => patch(db, "job", job.id, 1, { tideRangeM: 3 }));
    await step(() => edit(db, job.id, (door) => door.patch("brief", job.id, 0, { customer: "Kelp Works" })));
    for (let i = states.length - 2; i >= 0; i--) {
      expect((await me(() => undoLast(db, job.id))).step).not.toBeNull();
      expect(await seen(), `back to ${i}`).toEqual(states[i]);
    }
    for (let i = 1; i < states.length; i++) {
      expect((await me(() => redoLast(db, job.id))).step).not.toBeNull();
      expect(await seen(), `on to ${i}`).toEqual(states[i]);
    }
    expect((await me(() => redoLast(db, job.id))).step).toBeNull();
    // A new edit ends what could be done again.
    await me(() => undoLast(db, job.id));
    await me(() =>
      patch(db, "site", a!.id, (a!.version ?? 1) + 3, { name: "B" }).catch(async () =>
        patch(db, "site", a!.id, (await sitesOf(db, job.id))[0]!.version, { name: "B" }),
      ),
    );
    expect((await me(() => redoLast(db, job.id))).step).toBeNull();
  });

  test("what cannot be taken back is passed over when asked: the steps before it go back, new ones first", async () => {
    const job = await newJob("Passed");
    const a = await me(() => create(db, job.id, "site", site("A", 80)));
    await me(() => patch(db, "site", a.id, 1, { notes: "mine" }));
    await you(() => patch(db, "site", a.id, 2, { notes: "theirs" }));
    const refusal = (await me(() => undoLast(db, job.id)).catch((error: unknown) => error)) as Refused;
    const passed = [Number(refusal.values.changeId)];
    // The same again without, as a page that was loaded anew asks.
    await expect(me(() => undoLast(db, job.id))).rejects.toMatchObject({ code: "overtaken", values: { changeId: passed[0] } });
    const b = await me(() => create(db, job.id, "site", site("B", 90)));
    expect((await me(() => undoLast(db, job.id, passed))).step).toMatchObject({ action: "create", name: "B" });
    // Taking the site away would take the other's notes with it, and is the step before.
    expect((await me(() => undoLast(db, job.id, passed))).step).toMatchObject({ action: "create", name: "A" });
    expect((await me(() => undoLast(db, job.id, passed))).step).toBeNull();
    await me(() => redoLast(db, job.id));
    await me(() => redoLast(db, job.id));
    expect((await sitesOf(db, job.id)).map((s) => [s.id, s.notes]).sort()).toEqual(
      [
        [a.id, "theirs"],
        [b.id, ""],
      ].sort(),
    );
  });

  test("each browser takes back its own; what another changed since is a clash and stays", async () => {
    const job = await newJob("Two");
    const row = await me(() => create(db, job.id, "site", site("A", 40)));
    await me(() => patch(db, "site", row.id, 1, { mountAglM: 8 }));
    await you(() => patch(db, "site", row.id, 2, { name: "Renamed" }));
    // The other field is nobody else's: it goes back.
    await me(() => undoLast(db, job.id));
    expect((await sitesOf(db, job.id))[0]).toMatchObject({ name: "Renamed", mountAglM: 5 });
    await me(() => redoLast(db, job.id));
    await you(async () => patch(db, "site", row.id, (await sitesOf(db, job.id))[0]!.version, { mountAglM: 11 }));
    const refusal = await me(() => undoLast(db, job.id)).catch((error: unknown) => error);
    expect(refusal).toBeInstanceOf(Refused);
    expect(refusal).toMatchObject({ code: "overtaken", values: { name: "A" } });
    expect((await sitesOf(db, job.id))[0]!.mountAglM).toBe(11);
    const history = await me(() => historyOf(db, job.id));
    expect(history.changes.filter((c) => c.mine).length).toBeGreaterThan(0);
    expect(history.changes[0]).toMatchObject({ mine: false, fields: [{ field: "mountAglM", from: 8, to: 11 }] });
    await me(() => takeBack(db, job.id, history.changes[0]!.id));
    expect((await sitesOf(db, job.id))[0]!.mountAglM).toBe(8);
  });

  test("a site that got a link meanwhile is not taken from under it", async () => {
    const job = await newJob("Used");
    const a = await me(() => create(db, job.id, "site", site("A", 40)));
    const b = await me(() => create(db, job.id, "site", site("B", 40.01)));
    const [radio] = await listRadios(db);
    await you(() =>
      createLink(db, job.id, {
        nearSiteId: a.id,
        farSiteId: b.id,
        label: "",
        design: {
          nearMountAglM: 5,
          farMountAglM: 5,
          nearRadioId: radio!.id,
          farRadioId: radio!.id,
          nearPowerDbm: 10,
          farPowerDbm: 10,
          centreMhz: 5500,
          widthMhz: 20,
        },
      }),
    );
    await expect(me(() => undoLast(db, job.id))).rejects.toBeInstanceOf(Refused);
    await expect(take(db, "site", b.id, 1)).rejects.toBeInstanceOf(Refused);
    // Without ground the verdict says unknown; told level it can be judged; undone it is unknown again.
    const verdict = async () => (await verdictsOf(db, await getJob(db, job.id)))[0]!;
    expect((await verdict()).clearanceVerdict).toBe("unknown");
    const [link] = await linksOf(db, job.id);
    await you(() =>
      patch(db, "link", link!.id, 1, { groundTold: { kind: "level", sigmaM: 0.3, points: [{ distanceM: 0, heightAmslM: 12 }] } }),
    );
    expect((await verdict()).clearanceVerdict).not.toBe("unknown");
    await you(() => undoLast(db, job.id));
    expect((await verdict()).clearanceVerdict).toBe("unknown");
  });

  test("an obstacle cut in two is one step that leads back to one", async () => {
    const job = await newJob("Cut");
    const { id } = await me(() => create(db, job.id, "obstacle", house));
    const half = (w: number, e: number) => square.map((p): [number, number] => [p.lonDeg === -30 ? w : e, p.latDeg]);
    await me(() => splitObstacle(db, job.id, id, 1, [half(-30, -29.9995), half(-29.9995, -29.999)]));
    expect((await obstaclesOf(db, job.id, EVERYWHERE, 100)).rows).toHaveLength(2);
    await me(() => undoLast(db, job.id));
    const left = (await obstaclesOf(db, job.id, EVERYWHERE, 100)).rows;
    expect(left).toHaveLength(1);
    expect(left[0]!.outline).toEqual(square);
  });
});

test("what one browser changes is told to the others as it happens", async () => {
  const job = await newJob("News");
  const heard: JobNews[] = [];
  const news = openNews(url);
  const ready = new Promise<void>((resolve) => {
    news.listen((n) => {
      if (n.jobId === "*") resolve();
      else if (n.jobId === job.id) heard.push(n);
    });
  });
  await ready;
  const made = await you(() => create(db, job.id, "site", site("A", 40)));
  const end = Date.now() + 5000;
  while (heard.length === 0 && Date.now() < end) await new Promise((r) => setTimeout(r, 10));
  expect(heard[0]).toEqual({ jobId: job.id, entity: "site", id: made.id, clientId: "client-you" });
});
