/* Rows that are worked out while the answer is read, on behalf of whoever asked: the request itself is over by then. */
import { sql } from "drizzle-orm";
import { beforeEach, expect, test } from "vitest";
import type { JobBundle, JobSummary, RelayDto, Streamed } from "../../contract";
import { firstOrganisation } from "../../data/people";
import { testDb } from "../../data/testing/db";
import { makePerson, signInOn } from "./testing/firm";
import { ask } from "./testing/routes";

signInOn();
const db = testDb();
beforeEach(() => db.execute(sql`DELETE FROM auth.tries`));

test("every row has its ground beneath it, the last as the first", async () => {
  const { cookie } = await makePerson(db, (await firstOrganisation(db)).id, "planner");
  const jobs = (await (await ask("GET jobs", cookie)).json()) as JobSummary[];
  const demo = jobs.sort((a, b) => a.job.number - b.job.number)[0]!;
  const { sites } = (await (await ask("GET jobs/[jobId]", cookie, { params: { jobId: demo.job.id } })).json()) as JobBundle;
  const linkId = demo.links.find((l) => l.farName === "Tarrowfell Observatory")!.linkId;
  const spots = sites
    .filter((s) => s.name !== "Harbour Office" && s.name !== "Tarrowfell Observatory")
    .slice(0, 6)
    .map((s) => ({ latDeg: s.latDeg, lonDeg: s.lonDeg, aglM: s.mountAglM, siteId: s.id }));
  expect(spots).toHaveLength(6);
  const answer = await ask("POST jobs/[jobId]/links/[linkId]/relays", cookie, { params: { jobId: demo.job.id, linkId }, body: { spots } });
  const lines = (await answer.text())
    .trim()
    .split("\n")
    .map((l) => JSON.parse(l) as Streamed<RelayDto>);
  const rows = lines.flatMap((l) => (l.kind === "row" ? [l.row] : []));
  expect(rows.map((r) => r.siteId)).toEqual(spots.map((s) => s.siteId));
  for (const row of rows)
    for (const leg of [row.near, row.far]) expect(leg === null ? "unknown" : leg.verdict, row.name ?? undefined).not.toBe("unknown");
});
