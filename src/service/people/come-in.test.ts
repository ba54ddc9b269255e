/* The ways in, through their routes: what opens once opens once, what is guessed is counted, what is ended is over at the next request. */
import { randomUUID } from "node:crypto";
import { eq, sql } from "drizzle-orm";
import { beforeAll, beforeEach, describe, expect, test } from "vitest";
import { asAsker } from "../../data/actor";
import { membersOf } from "../../data/people";
import { account, device, invitation, mail, pairing, session, user } from "../../data/schema-people";
import { testDb } from "../../data/testing/db";
import { createJob } from "../../data/testing/edits";
import { accountOf } from "./account";
import { cookieOf, makeFirm, makePerson, type Person, signInOn } from "./testing/firm";
import { ask, cookiesOf } from "./testing/routes";
import { totpOf } from "./testing/totp";

signInOn();
const db = testDb();
const PASSWORD = "kelp over granite at noon";
let firm: string;
let owner: Person;
let jobId: string;

beforeAll(async () => {
  firm = await makeFirm(db, "Links of the isles");
  owner = await makePerson(db, firm, "owner", { password: PASSWORD, name: "Mara Tolliver" });
  jobId = (await asAsker(owner.who, () => createJob(db, "Coming in", { centreLatDeg: 46.4, centreLonDeg: -31 }))).id;
});
beforeEach(() => db.execute(sql`DELETE FROM auth.tries`));

const codeOf = async (answer: Response): Promise<string> => ((await answer.json()) as { code: string }).code;
const signIn = (email: string, password: string, cookie: string | null = null): Promise<Response> =>
  ask("POST sign-in", cookie, { body: { email, password } });
const isIn = async (cookie: string): Promise<boolean> =>
  ((await (await ask("GET me", cookie)).json()) as { person: unknown }).person !== null;
const installer = { role: "installer", jobIds: null, sheets: null };
const tokenIn = (url: string): string => url.split("#")[1]!;

describe("address and password", () => {
  test("over TLS the cookie bears the mark of this host alone; one of the same worth without it opens nothing", async () => {
    const globals = globalThis as unknown as { dryArcAuth?: unknown };
    const before = [globals.dryArcAuth, process.env.DRYARC_PLAIN_COOKIES] as const;
    globals.dryArcAuth = undefined;
    process.env.DRYARC_PLAIN_COOKIES = "";
    try {
      const answer = await signIn(owner.email, PASSWORD);
      const [line] = answer.headers.getSetCookie();
      expect(line).toMatch(/^__Host-dryarc\.session_token=[^;]+;.*Path=\/;.*Secure/);
      const cookie = cookiesOf(answer);
      expect([await isIn(cookie), await isIn(cookie.replace("__Host-", ""))]).toEqual([true, false]);
    } finally {
      globals.dryArcAuth = before[0];
      process.env.DRYARC_PLAIN_COOKIES = before[1];
    }
  });

  test("let in by a cookie that no script reads and no page elsewhere sends", async () => {
    const answer = await signIn(owner.email.toUpperCase(), PASSWORD);
    expect(answer.status).toBe(200);
    const [line] = answer.headers.getSetCookie();
    expect(line).toMatch(/HttpOnly/i);
    expect(line).toMatch(/SameSite=Strict/i);
    expect(line).not.toMatch(/Domain=/i);
    expect(await isIn(cookiesOf(answer))).toBe(true);
    // The answer's body tells nothing that opens a door.
    expect(await answer.json()).toEqual({ ok: true });
  });

  test("a second step that was wrong stands in the book under the name of who knew the password, and of nobody for a made-up mark", async () => {
    const name = `Tam Second ${randomUUID().slice(0, 6)}`;
    const person = await makePerson(db, firm, "planner", { password: PASSWORD, name });
    const begun = await ask("POST account/second-factor", person.cookie, { body: { do: "begin", password: PASSWORD } });
    const { uri } = (await begun.json()) as { uri: string };
    const code = totpOf(new URL(uri).searchParams.get("secret")!);
    const turned = await ask("POST account/second-factor", cookiesOf(begun, person.cookie), { body: { do: "confirm", code } });
    expect(turned.status, await turned.clone().text()).toBe(200);

    const first = await signIn(person.email, PASSWORD);
    expect(await first.json()).toEqual({ secondFactor: true });
    const second = (cookie: string, given: string): Promise<Response> =>
      ask("POST sign-in/second", cookie, { body: { code: given, kind: "app" } });
    const lines = async () => {
      const book = (await (await ask("GET audit", owner.cookie)).json()) as { what: string; person: string }[];
      return book.filter((l) => l.what === "code-refused").map((l) => l.person);
    };
    const before = await lines();
    expect((await second(cookiesOf(first), code === "000000" ? "111111" : "000000")).status).toBe(401);
    expect(await lines()).toEqual([name, ...before]);
    expect((await second("dryarc.two_factor=made-up.mark%", "000000")).status).toBe(401);
    expect((await second("dryarc.two_factor=", "000000")).status).toBe(401);
    expect(await lines()).toEqual([name, ...before]);
    expect(await isIn(cookiesOf(await second(cookiesOf(first), totpOf(new URL(uri).searchParams.get("secret")!))))).toBe(true);
  });

  test("a session that was there before is over, whoever planted it: none is taken over", async () => {
    const planted = await cookieOf((await makePerson(db, firm, "viewer")).userId);
    const answer = await signIn(owner.email, PASSWORD, planted);
    expect(cookiesOf(answer, planted)).not.toBe(planted);
    expect(await isIn(planted)).toBe(false);
    const made = await ask("GET me", "dryarc.session_token=chosen.by-somebody-else");
    expect(((await made.json()) as { person: unknown }).person).toBeNull();
  });

  test("a known name with a wrong password and an unknown one are answered alike, in words and in work", async () => {
    const timed = async (email: string): Promise<{ ms: number; status: number; body: unknown; cookies: string[] }> => {
      const t = performance.now();
      const answer = await signIn(email, "not the password at all");
      return { ms: performance.now() - t, status: answer.status, body: await answer.json(), cookies: answer.headers.getSetCookie() };
    };
    await timed(owner.email);
    const rounds = 4;
    let known = 0;
    let unknown = 0;
    for (let i = 0; i < rounds; i++) {
      const a = await timed(owner.email);
      const b = await timed(`nobody-${i}@isles.example`);
      expect({ ...a, ms: 0 }).toEqual({ ...b, ms: 0 });
      known += a.ms;
      unknown += b.ms;
    }
    // The unknown name costs a password's worth of work too: far from the few milliseconds of an answer without any.
    expect(unknown / known).toBeGreaterThan(0.5);
    expect(unknown / known).toBeLessThan(2);
  });

  test("guessing at one account ends, for the right password too, and leaves others alone", async () => {
    const other = await makePerson(db, firm, "viewer", { password: PASSWORD });
    for (let i = 0; i < 10; i++) expect((await signIn(owner.email, `guess number ${i} of many`)).status).toBe(401);
    const stopped = await signIn(owner.email, PASSWORD);
    expect(stopped.status).toBe(429);
    expect(((await stopped.json()) as { values: { waitS: number } }).values.waitS).toBeGreaterThan(60);
    expect((await signIn(other.email, PASSWORD)).status).toBe(200);
  });

  test("a wrong password is noted in the book under the name that was given, and an unknown name is not", async () => {
    const p = await makePerson(db, firm, "viewer", { password: PASSWORD, name: "Elspeth Moor" });
    await signIn(p.email, "not the one at all");
    await signIn("nobody-of-that-name@isles.example", "not the one at all");
    await expect
      .poll(async () => {
        const lines = (await (await ask("GET audit", owner.cookie)).json()) as { what: string; person: string }[];
        return lines.filter((l) => l.what === "sign-in-refused").map((l) => l.person);
      })
      .toContain("Elspeth Moor");
    const { rows } = await db.execute(sql`SELECT FROM auth.audit WHERE what = 'sign-in-refused' AND person_name = ''`);
    expect(rows).toEqual([]);
  });

  test("a session that is used each day ends after thirty all the same", async () => {
    const p = await makePerson(db, firm, "viewer");
    const aged = (days: number) =>
      db.execute(sql`UPDATE auth.session SET created_at = now() - make_interval(days => ${days}) WHERE user_id = ${p.userId}`);
    await aged(29);
    expect((await ask("GET jobs", p.cookie)).status).toBe(200);
    await aged(31);
    expect((await ask("GET jobs", p.cookie)).status).toBe(401);
    // A phone has its own last day.
    const made = await ask("POST pairings", owner.cookie, {
      body: { memberId: p.memberId, endsOn: new Date(Date.now() + 60 * 86_400_000).toISOString().slice(0, 10) },
    });
    const phone = cookiesOf(
      await ask("POST pair", null, { body: { code: tokenIn(((await made.json()) as { url: string }).url), name: "Phone" } }),
    );
    await aged(40);
    expect((await ask("GET jobs", phone)).status).toBe(200);
  });

  test("guessing at many accounts from one address ends too", async () => {
    await db.execute(sql`INSERT INTO auth.tries (key, count) VALUES ('come-in from direct', 60)`);
    expect((await signIn(`nobody@isles.example`, PASSWORD)).status).toBe(429);
    expect((await ask("POST pair", null, { body: { code: "A".repeat(22), name: "Phone" } })).status).toBe(429);
    expect((await ask("POST join", null, { body: { token: "A".repeat(22) } })).status).toBe(429);
  });

  test("what a header says of the sender's address counts for nothing", async () => {
    await db.execute(sql`INSERT INTO auth.tries (key, count) VALUES ('come-in from direct', 60)`);
    const told: Readonly<Record<string, string>>[] = [
      { "x-forwarded-for": "198.51.100.7" },
      { "x-real-ip": "198.51.100.7" },
      { forwarded: "for=198.51.100.7" },
      { "x-dryarc-front": "guessed", "x-dryarc-from": "198.51.100.7" },
    ];
    for (const headers of told)
      expect((await ask("POST sign-in", null, { body: { email: owner.email, password: PASSWORD }, headers })).status).toBe(429);
  });

  test("a session that is ended is over at the next request; one of another person cannot be ended", async () => {
    const cookie = cookiesOf(await signIn(owner.email, PASSWORD));
    const { sessions } = (await (await ask("GET account", cookie)).json()) as { sessions: { id: string; own: boolean }[] };
    const own = sessions.find((s) => s.own)!;
    const viewer = await makePerson(db, firm, "viewer");
    expect((await ask("DELETE account/sessions/[sessionId]", viewer.cookie, { params: { sessionId: own.id } })).status).toBe(404);
    expect(await isIn(cookie)).toBe(true);
    expect((await ask("DELETE account/sessions/[sessionId]", owner.cookie, { params: { sessionId: own.id } })).status).toBe(200);
    expect(await isIn(cookie)).toBe(false);
  });

  test("a password that is guessed first is refused with the reason; a new one ends every other session", async () => {
    const p = await makePerson(db, firm, "planner", { password: PASSWORD });
    const here = cookiesOf(await signIn(p.email, PASSWORD));
    const change = (next: string, current = PASSWORD): Promise<Response> => ask("POST account/password", here, { body: { current, next } });
    for (const weak of ["short", "aaaaaaaaaaaaaaaa", "password2026!!", `${p.email.split("@")[0]}!2`])
      expect(await codeOf(await change(weak))).toBe("weak-password");
    expect((await change("a wholly new one, long enough", "not my password")).status).toBe(401);
    const changed = await change("a wholly new one, long enough");
    expect(changed.status).toBe(200);
    expect(await isIn(p.cookie)).toBe(false);
    expect(await isIn(cookiesOf(changed, here))).toBe(true);
    expect((await signIn(p.email, PASSWORD)).status).toBe(401);
  });

  test("nobody signs themselves up, and the sign-in library's own addresses are not served", async () => {
    expect(
      (
        await ask("POST first-owner", null, {
          body: { code: "A".repeat(22), organisation: "X", name: "X", email: "x@isles.example", password: PASSWORD },
        })
      ).status,
    ).toBe(401);
    await expect(ask("POST auth/sign-up/email", null, { body: {} })).rejects.toThrow();
  });
});

describe("an invitation", () => {
  const invite = async (email = `i-${randomUUID().slice(0, 8)}@isles.example`, becomes: unknown = installer) => {
    const answer = await ask("POST invitations", owner.cookie, { body: { email, becomes } });
    const told = (await answer.json()) as { url: string };
    return { status: answer.status, email, token: answer.ok ? tokenIn(told.url) : "" };
  };
  const join = (token: string, name = "Jory Penn"): Promise<Response> =>
    ask("POST join", null, { body: { token, name, password: PASSWORD } });

  test("lets one person in, once, as what was chosen", async () => {
    const { token, email } = await invite();
    const [letter] = await db.select().from(mail).where(eq(mail.to, email));
    expect(letter!.body).toContain(token);
    const look = (await (await ask("POST join", null, { body: { token } })).json()) as object;
    expect(look).toEqual({ email, organisation: "Links of the isles", role: "installer" });
    const came = await Promise.all([join(token), join(token)]);
    expect(came.map((r) => r.status).sort()).toEqual([200, 422]);
    const cookie = cookiesOf(came.find((r) => r.ok)!);
    const me = (await (await ask("GET me", cookie)).json()) as { person: { role: string } };
    expect(me.person.role).toBe("installer");
    expect(await codeOf(await join(token))).toBe("link-used");
    expect((await membersOf(db, firm)).filter((m) => m.email === email)).toHaveLength(1);
  });

  test("is kept as a fingerprint, ends with a newer one, by the owner, and with time", async () => {
    const one = await invite();
    expect(JSON.stringify(await db.select().from(invitation))).not.toContain(one.token);
    const two = await invite(one.email);
    expect(await codeOf(await join(one.token))).toBe("link-used");
    const [row] = (await db.select().from(invitation).where(eq(invitation.email, one.email))).filter((i) => i.endedAt === null);
    expect((await ask("DELETE invitations/[invitationId]", owner.cookie, { params: { invitationId: row!.id } })).status).toBe(200);
    expect(await codeOf(await join(two.token))).toBe("link-used");
    const three = await invite();
    await db
      .update(invitation)
      .set({ expiresAt: new Date(Date.now() - 1000) })
      .where(eq(invitation.email, three.email));
    expect(await codeOf(await join(three.token))).toBe("link-used");
  });

  test("makes nobody more than was meant: an installer invites no one, a customer has chosen jobs and sheets", async () => {
    const crew = await makePerson(db, firm, "installer");
    expect((await ask("POST invitations", crew.cookie, { body: { email: "x@isles.example", becomes: installer } })).status).toBe(403);
    expect((await invite("y@isles.example", { role: "customer", jobIds: null, sheets: ["brief"] })).status).toBe(400);
    expect((await invite("y@isles.example", { role: "customer", jobIds: [jobId], sheets: [] })).status).toBe(400);
    expect((await invite("y@isles.example", { role: "customer", jobIds: [randomUUID()], sheets: ["brief"] })).status).toBe(404);
    expect((await invite("y@isles.example", { role: "customer", jobIds: [jobId], sheets: ["brief"] })).status).toBe(200);
    expect((await invite(owner.email)).status).toBe(422);
  });
});

describe("a phone", () => {
  const code = async (memberId: string, more: object = {}): Promise<string> => {
    const answer = await ask("POST pairings", owner.cookie, { body: { memberId, ...more } });
    expect(answer.status).toBe(200);
    return tokenIn(((await answer.json()) as { url: string }).url);
  };
  const pair = (given: string): Promise<Response> => ask("POST pair", null, { body: { code: given, name: "Jory's phone" } });
  let crew: Person;
  beforeAll(async () => {
    crew = await makePerson(db, firm, "planner", { name: "Jory Penn" });
  });

  test("comes in by a code of 128 bits, once, behind the # of its address, kept as a fingerprint", async () => {
    const given = await code(crew.memberId);
    expect(Buffer.from(given, "base64url")).toHaveLength(16);
    expect(JSON.stringify(await db.select().from(pairing))).not.toContain(given);
    const came = await Promise.all([pair(given), pair(given), pair(given)]);
    expect(came.map((r) => r.status).sort()).toEqual([200, 422, 422]);
    expect(await isIn(cookiesOf(came.find((r) => r.ok)!))).toBe(true);
    expect(await codeOf(await pair(given))).toBe("link-used");
  });

  test("comes not by a guess, nor by a code that is five minutes old, nor of who has left", async () => {
    expect(await codeOf(await pair("A".repeat(22)))).toBe("link-used");
    const late = await code(crew.memberId);
    await db.execute(sql`UPDATE auth.pairing SET expires_at = expires_at - interval '301 seconds' WHERE used_at IS NULL`);
    expect(await codeOf(await pair(late))).toBe("link-used");
    const [row] = (await db.select().from(pairing)).slice(-1);
    expect(row!.expiresAt.getTime() - row!.createdAt.getTime()).toBeLessThan(5 * 60_000);
    const leaver = await makePerson(db, firm, "viewer");
    const held = await code(leaver.memberId);
    await ask("PATCH people/[memberId]", owner.cookie, {
      params: { memberId: leaver.memberId },
      body: { becomes: { role: "viewer", jobIds: null, sheets: null }, ended: true },
    });
    expect(await codeOf(await pair(held))).toBe("link-used");
  });

  test("has the role and the jobs it was given, and never more than its person", async () => {
    const cookie = cookiesOf(await pair(await code(crew.memberId, { becomes: { role: "installer", jobIds: [jobId], sheets: null } })));
    const me = async () => ((await (await ask("GET me", cookie)).json()) as { person: { role: string; allJobs: boolean } }).person;
    expect(await me()).toMatchObject({ role: "installer", allJobs: false });
    expect((await ask("GET people", cookie)).status).toBe(403);
    // Its person becomes less: so does the phone, at its next request.
    await ask("PATCH people/[memberId]", owner.cookie, {
      params: { memberId: crew.memberId },
      body: { becomes: { role: "viewer", jobIds: null, sheets: null }, ended: false },
    });
    expect((await me()).role).toBe("viewer");
  });

  test("changes nothing of its person's account: a phone that was found opens no more than it did", async () => {
    const cookie = cookiesOf(await pair(await code(crew.memberId)));
    for (const [route, body] of [
      ["PATCH account", { name: "Somebody Else" }],
      ["POST account/password", { current: PASSWORD, next: "a wholly new one, long enough" }],
      ["POST account/passkeys", { do: "begin", password: PASSWORD }],
      ["POST account/second-factor", { do: "begin", password: PASSWORD }],
    ] as const)
      expect((await ask(route, cookie, { body })).status, route).toBe(403);
  });

  test("that is stolen is ended: at its next request it gets nothing, is told to forget, and says that it has", async () => {
    const cookie = cookiesOf(await pair(await code(crew.memberId)));
    const [phone] = await db.select().from(device).where(eq(device.memberId, crew.memberId)).orderBy(sql`created_at DESC`).limit(1);
    const stranger = await makePerson(db, await makeFirm(db, "Elsewhere"), "owner");
    expect((await ask("DELETE devices/[deviceId]", stranger.cookie, { params: { deviceId: phone!.id } })).status).toBe(404);
    expect((await ask("GET jobs", cookie)).status).toBe(200);
    expect((await ask("DELETE devices/[deviceId]", owner.cookie, { params: { deviceId: phone!.id } })).status).toBe(200);
    expect((await ask("GET jobs", cookie)).status).toBe(401);
    expect(((await (await ask("GET me", cookie)).json()) as { forget: string | null }).forget).toBe("all");
    const seen = async () => {
      const { devices } = (await (await ask("GET people", owner.cookie)).json()) as { devices: { id: string; wipedAt: string | null }[] };
      return devices.find((d) => d.id === phone!.id)!;
    };
    expect((await seen()).wipedAt).toBeNull();
    await ask("POST sign-out", cookie);
    expect((await seen()).wipedAt).not.toBeNull();
    expect(((await (await ask("GET me", cookie)).json()) as { forget: string | null }).forget).toBeNull();
  });

  test("is over at the end of its last day", async () => {
    const cookie = cookiesOf(
      await pair(await code(crew.memberId, { endsOn: new Date(Date.now() + 86_400_000).toISOString().slice(0, 10) })),
    );
    expect((await ask("GET jobs", cookie)).status).toBe(200);
    await db.execute(sql`UPDATE auth.device SET ends_at = now() - interval '1 second' WHERE member_id = ${crew.memberId}`);
    expect((await ask("GET jobs", cookie)).status).toBe(401);
    // It forgets what it keeps of the server; what waits there to be sent is its person's own, and stays.
    expect(((await (await ask("GET me", cookie)).json()) as { forget: string | null }).forget).toBe("copies");
    const past = await ask("POST pairings", owner.cookie, { body: { memberId: crew.memberId, endsOn: "2020-01-01" } });
    expect(past.status).toBe(422);
  });
});

describe("the firm", () => {
  const set = (of: Person, memberId: string, role: string, ended = false): Promise<Response> =>
    ask("PATCH people/[memberId]", of.cookie, {
      params: { memberId },
      body: { becomes: { role, jobIds: null, sheets: null }, ended },
    });

  test("has an owner always: the last one stays, and two who demote each other at once leave one", async () => {
    const alone = await makeFirm(db, "Two owners");
    const [a, b] = [await makePerson(db, alone, "owner"), await makePerson(db, alone, "owner")];
    const both = await Promise.all([set(a, b.memberId, "viewer"), set(b, a.memberId, "viewer")]);
    expect(both.filter((r) => r.ok)).toHaveLength(1);
    // The other was refused in words, or was no owner any more when their turn came: no fault of the server.
    expect([403, 422]).toContain(both.find((r) => !r.ok)!.status);
    const left = (await membersOf(db, alone)).filter((m) => m.becomes.role === "owner");
    expect(left).toHaveLength(1);
    const last = left[0]!.id === a.memberId ? a : b;
    expect(await codeOf(await set(last, last.memberId, "planner"))).toBe("last-owner");
    expect(await codeOf(await set(last, last.memberId, "owner", true))).toBe("last-owner");
  });

  test("who leaves is out at the next request, on every device, and does not come back by their password", async () => {
    const p = await makePerson(db, firm, "planner", { password: PASSWORD });
    expect((await ask("GET jobs", p.cookie)).status).toBe(200);
    await set(owner, p.memberId, "planner", true);
    expect((await ask("GET jobs", p.cookie)).status).toBe(401);
    expect((await signIn(p.email, PASSWORD)).status).toBe(401);
    expect(await db.select().from(session).where(eq(session.userId, p.userId))).toEqual([]);
  });

  test("phones of who leaves are ended with them, and told to forget", async () => {
    const p = await makePerson(db, firm, "installer");
    const made = await ask("POST pairings", owner.cookie, { body: { memberId: p.memberId } });
    const code = tokenIn(((await made.json()) as { url: string }).url);
    const phone = cookiesOf(await ask("POST pair", null, { body: { code, name: "Roof phone" } }));
    expect((await ask("GET jobs", phone)).status).toBe(200);
    await set(owner, p.memberId, "installer", true);
    expect((await ask("GET jobs", phone)).status).toBe(401);
    expect(((await (await ask("GET me", phone)).json()) as { forget: string | null }).forget).toBe("all");
    // What opens nothing is not listed as signed in.
    expect((await asAsker(p.who, () => accountOf(db, false))).sessions).toEqual([]);
    // Taken back into the firm, the phone stays ended: it is let in anew or not at all.
    await set(owner, p.memberId, "installer");
    expect((await ask("GET jobs", phone)).status).toBe(401);
  });

  test("what was done with people is in the book, which owners read and nobody else; no secret stands in it", async () => {
    const lines = (await (await ask("GET audit", owner.cookie)).json()) as { what: string; person: string }[];
    const seen = new Set(lines.map((l) => l.what));
    for (const what of ["invited", "joined", "phone-code", "phone-paired", "phone-ended", "member-changed", "signed-in"])
      expect(seen).toContain(what);
    const all = JSON.stringify(lines);
    for (const { token } of await db.select({ token: session.token }).from(session)) expect(all).not.toContain(token);
  });
});

describe("a forgotten password", () => {
  const forgot = (email: string): Promise<Response> => ask("POST sign-in/forgot", null, { body: { email } });
  const letterTo = async (email: string): Promise<string> => {
    for (;;) {
      const rows = await db.select().from(mail).where(eq(mail.to, email)).orderBy(sql`created_at DESC`);
      if (rows[0] !== undefined) return rows[0].body;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  };

  test("is asked for alike by whoever asks, and set anew by the letter, once; every session ends", async () => {
    const p = await makePerson(db, firm, "viewer", { password: PASSWORD });
    const [known, unknown] = [await forgot(p.email), await forgot("nobody@isles.example")];
    expect([known.status, await known.json()]).toEqual([unknown.status, await unknown.json()]);
    const token = /#([\w-]{22})/.exec(await letterTo(p.email))![1]!;
    const reset = (password: string): Promise<Response> => ask("POST sign-in/reset", null, { body: { token, password } });
    expect(await codeOf(await reset("short"))).toBe("weak-password");
    expect((await reset("granite under kelp at dusk")).status).toBe(200);
    expect(await codeOf(await reset("granite under kelp at dawn"))).toBe("link-used");
    expect(await isIn(p.cookie)).toBe(false);
    expect((await signIn(p.email, "granite under kelp at dusk")).status).toBe(200);
  });
});

test("what is kept of passwords is scrypt with its figures in the string, and no password stands in the database", async () => {
  const rows = await db.select({ password: account.password }).from(account).innerJoin(user, eq(user.id, account.userId));
  const kept = rows.map((r) => r.password ?? "").filter((p) => p !== "");
  expect(kept.length).toBeGreaterThan(3);
  for (const p of kept) expect(p).toMatch(/^\$scrypt\$ln=15,r=8,p=3\$/);
  expect(JSON.stringify(rows)).not.toContain("kelp");
});
