/* Tokens by which programs come in, and the interface that is written down for them. */
import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import path from "node:path";
import { Validator } from "@seriousme/openapi-schema-validator";
import { sql } from "drizzle-orm";
import { beforeAll, beforeEach, describe, expect, test } from "vitest";
import { kindOf, kinds, OPERATIONS, openApi, type Role } from "../../contract";
import { asAsker } from "../../data/actor";
import { firstOrganisation } from "../../data/people";
import { testDb } from "../../data/testing/db";
import { createJob } from "../../data/testing/edits";
import { makeFirm, makePerson, type Person, signInOn } from "./testing/firm";
import { allRoutes, ask } from "./testing/routes";

signInOn();
const db = testDb();
let firm: string;
let owner: Person;
let jobId: string;

beforeAll(async () => {
  firm = await makeFirm(db, "Programs of the isles");
  owner = await makePerson(db, firm, "owner", { name: "Mara Holm" });
  jobId = (await asAsker(owner.who, () => createJob(db, "Tokens", { centreLatDeg: 46.7, centreLonDeg: -31 }))).id;
});
beforeEach(() => db.execute(sql`DELETE FROM auth.tries`));

const inDays = (n: number): string => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
const make = (role: Role, more: object = {}, by: Person = owner): Promise<Response> =>
  ask("POST tokens", by.cookie, {
    body: { name: "the register", becomes: { role, jobIds: null, sheets: null }, endsOn: inDays(30), ...more },
  });
const token = async (role: Role, by: Person = owner): Promise<string> =>
  ((await (await make(role, {}, by)).json()) as { token: string }).token;
const by = (t: string, more: Readonly<Record<string, string>> = {}) => ({ headers: { authorization: `Bearer ${t}`, ...more } });
const list = async () =>
  (await (await ask("GET tokens", owner.cookie)).json()) as { id: string; ended: boolean; lastUsedAt: string | null; person: string }[];

describe("a token", () => {
  test("is told once and kept as a checksum; it lets in until it is ended, and the list says when it was here", async () => {
    const t = await token("viewer");
    expect(t).toMatch(/^dryarc_[\w-]{22}$/);
    const kept = await db.execute(sql`SELECT t::text AS row FROM auth.token t`);
    expect(JSON.stringify(kept.rows)).not.toContain(t.slice(7));
    const [row] = await list();
    expect(row).toMatchObject({ ended: false, lastUsedAt: null, person: "Mara Holm" });
    expect(JSON.stringify(await list())).not.toContain(t.slice(7));
    expect((await ask("GET jobs", null, by(t))).status).toBe(200);
    expect((await list())[0]!.lastUsedAt).not.toBeNull();
    expect((await ask("DELETE tokens/[tokenId]", owner.cookie, { params: { tokenId: row!.id } })).status).toBe(200);
    expect((await ask("GET jobs", null, by(t))).status).toBe(401);
    const book = await (await ask("GET audit", owner.cookie)).text();
    expect(book).toContain("token-made");
    expect(book).toContain("token-ended");
    expect(book).not.toContain(t.slice(7));
  });

  test("ends with its day and with its maker, and is never more than they are", async () => {
    const second = await makePerson(db, firm, "owner", { name: "Tam Skerry" });
    const t = await token("planner", second);
    const makes = () => ask("POST jobs", null, { ...by(t), body: { nothing: true } }).then((answer) => answer.status);
    expect(await makes()).toBe(400);
    await ask("PATCH people/[memberId]", owner.cookie, {
      params: { memberId: second.memberId },
      body: { becomes: { role: "viewer", jobIds: null, sheets: null }, ended: false },
    });
    expect(await makes()).toBe(403);
    expect((await ask("GET jobs", null, by(t))).status).toBe(200);
    await ask("PATCH people/[memberId]", owner.cookie, {
      params: { memberId: second.memberId },
      body: { becomes: { role: "viewer", jobIds: null, sheets: null }, ended: true },
    });
    expect((await ask("GET jobs", null, by(t))).status).toBe(401);
    const late = await token("viewer");
    await db.execute(
      sql`UPDATE auth.token SET expires_at = now() - interval '1 second' WHERE organisation_id = ${firm} AND ended_at IS NULL`,
    );
    expect((await ask("GET jobs", null, by(late))).status).toBe(401);
  });

  test("is refused for what it must not be: an owner's, a customer's, without an end, of a job elsewhere", async () => {
    for (const role of ["owner", "customer"] as const) expect((await make(role)).status).toBe(400);
    expect((await make("viewer", { endsOn: inDays(-2) })).status).toBe(422);
    expect((await make("viewer", { endsOn: inDays(500) })).status).toBe(422);
    expect((await make("viewer", { name: " " })).status).toBe(400);
    expect((await make("viewer", { becomes: { role: "viewer", jobIds: [randomUUID()], sheets: null } })).status).toBe(404);
    const elsewhere = await makePerson(db, await makeFirm(db, "Programs of elsewhere"), "owner");
    const [row] = await list();
    expect((await ask("DELETE tokens/[tokenId]", elsewhere.cookie, { params: { tokenId: row!.id } })).status).toBe(404);
  });

  test("edits once under one number, in its own name, and what it did is taken back by itself alone", async () => {
    const t = await token("installer");
    const site = { name: "By a program", latDeg: 46.7, lonDeg: -31.01, mountAglM: 6 };
    const id = randomUUID();
    const params = { jobId, records: "sites" };
    // A hub is a planner's to make; a crew's token writes the survey.
    const hubs = { jobId, records: kindOf("hub").route };
    expect((await ask("POST jobs/[jobId]/[records]", null, { params: hubs, body: {}, ...by(t) })).status).toBe(403);
    const p = await token("planner");
    const made = () =>
      ask("POST jobs/[jobId]/[records]", null, { params, body: site, ...by(p, { "x-edit": id, "x-client": "register-1" }) });
    const [first, again] = [(await (await made()).json()) as { id: string }, (await (await made()).json()) as { id: string }];
    expect(again.id).toBe(first.id);
    const book = await (await ask("GET jobs/[jobId]/history", owner.cookie, { params: { jobId } })).text();
    expect(book).toContain("the register (token of Mara Holm)");
    const undo = (headers: object) => ask("POST jobs/[jobId]/undo", null, { params: { jobId }, body: { redo: false }, ...headers });
    // Another that sends under the same name takes nothing of it back.
    const client = { "x-client": "register-1" };
    expect(await (await undo(by(t, client))).json()).toMatchObject({ step: null });
    expect(await (await undo(by(p, client))).json()).not.toMatchObject({ step: null });
  });

  test("that asks without end is told to wait, and others are answered", async () => {
    const [t, other] = [await token("viewer"), await token("viewer")];
    expect((await ask("GET jobs", null, by(t))).status).toBe(200);
    await db.execute(sql`UPDATE auth.tries SET count = 1200 WHERE key LIKE 'token %'`);
    const refused = await ask("GET jobs", null, by(t));
    expect([refused.status, refused.headers.get("retry-after")]).toEqual([429, expect.stringMatching(/^([1-9]|[1-5]\d|60)$/)]);
    expect((await ask("GET jobs", null, by(other))).status).toBe(200);
  });
});

/** What is not offered to programs: it has to do with people, with a browser, or draws a map. */
const NOT_OFFERED =
  /^\w+ (account|audit|devices|first-owner|health|invitations|join|letters|me|openapi|pair|pairings|people|share|sign-in|sign-out|tokens|webhooks)(\/|$)|\/tiles\/|\[records\]/;
const asRoute = (method: string, address: string): string => `${method} ${address.slice(1).replace(/\{(\w+)\}/g, "[$1]")}`;
const sourceOf = (route: string): string => {
  const [method, file] = route.split(" ") as [string, string];
  const text = readFileSync(path.join("src/app/api", file, "route.ts"), "utf8");
  const from = text.indexOf(`export const ${method}`);
  const to = text.indexOf("export const ", from + 1);
  return text.slice(from, to < 0 ? undefined : to);
};

describe("the interface, written down", () => {
  test("is OpenAPI 3.1, by its own schema", async () => {
    const result = await new Validator().validate(openApi("https://dryarc.local") as never);
    expect(result.errors ?? []).toEqual([]);
    expect(result.valid).toBe(true);
  });

  test("has every route that a token may ask, and no other; each with the right that its route asks", async () => {
    const offered = OPERATIONS.map((o) => asRoute(o.method, o.path));
    const there = await allRoutes();
    expect(offered.filter((r) => !there.includes(r))).toEqual([]);
    expect(there.filter((r) => !NOT_OFFERED.test(r) && !offered.includes(r))).toEqual([]);
    for (const o of OPERATIONS) {
      const route = asRoute(o.method, o.path);
      const gate = /handle(?:Job)?\(\s*request,\s*"([\w-]+)"/.exec(sourceOf(route))?.[1];
      if (gate !== undefined) expect(gate, route).toBe(o.right);
    }
  });

  test("has every kind of record at its address, and rows of the demo job are as it says", async () => {
    const document = openApi("https://dryarc.local") as {
      paths: Record<string, Record<string, unknown>>;
      components: { schemas: Record<string, { properties: Record<string, unknown>; required?: string[] }> };
    };
    const home = await makePerson(db, (await firstOrganisation(db)).id, "owner");
    const jobs = (await (await ask("GET jobs", home.cookie)).json()) as { job: { id: string; number: number } }[];
    const demo = jobs.map((j) => j.job).sort((a, b) => a.number - b.number)[0]!.id;
    let rows = 0;
    for (const [name, k] of kinds()) {
      if (k.parent === "none") continue;
      expect(Object.keys(document.paths[`/jobs/{jobId}/${k.route}`] ?? {}), name).toContain("get");
      const schema = document.components.schemas[name.charAt(0).toUpperCase() + name.slice(1)]!;
      const answer = await (await ask("GET jobs/[jobId]/[records]", home.cookie, { params: { jobId: demo, records: k.route } })).json();
      for (const row of (kindOf(name).many ? answer : [answer]) as Record<string, unknown>[]) {
        rows++;
        expect(
          Object.keys(row).filter((key) => schema.properties[key] === undefined),
          name,
        ).toEqual([]);
        expect(
          (schema.required ?? []).filter((key) => row[key] === undefined),
          name,
        ).toEqual([]);
      }
    }
    expect(rows).toBeGreaterThan(50);
  });

  test("is read by a token, and names this server", async () => {
    const t = await token("viewer");
    const answer = await ask("GET openapi", null, by(t));
    expect(((await answer.json()) as { servers: { url: string }[] }).servers[0]!.url).toMatch(/^http.*\/api$/);
  });
});
