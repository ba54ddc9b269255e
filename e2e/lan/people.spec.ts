/* A firm over TLS: its first owner, a planner, a phone, a customer; each comes in by their own way and sees what is theirs. */
import { execFileSync } from "node:child_process";
import { createHmac } from "node:crypto";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { createServer, type IncomingHttpHeaders } from "node:http";
import https from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { Client } from "pg";
import type { JobSummary } from "../../src/contract";
import { totpOf } from "../../src/service/people/testing/totp";
import { expectAccessible } from "../helpers";
import { atRegister, closeAll, fetchIn, ORIGIN, openBrowser, PASSWORD, PHONE, signIn, TLS } from "./browser";

test.describe.configure({ mode: "serial" });
test.afterAll(closeAll);

const OWNER = "mara@isles.example";
let owner: Page;
let demo: JobSummary;
const linkOf = (far: string): string => demo.links.find((l) => l.farName === far)!.linkId;

test("the authority is trusted and speaks for this machine alone: a foreign name that it signed is refused", async () => {
  const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-foreign-"));
  const at = (f: string): string => path.join(dir, f);
  writeFileSync(at("ext"), "subjectAltName=DNS:elsewhere.example,DNS:dryarc.local\nextendedKeyUsage=serverAuth\n");
  execFileSync(
    "openssl",
    [
      "req",
      "-newkey",
      "ec",
      "-pkeyopt",
      "ec_paramgen_curve:P-256",
      "-nodes",
      "-keyout",
      at("key"),
      "-out",
      at("csr"),
      "-subj",
      "/CN=elsewhere.example",
    ],
    { stdio: "ignore" },
  );
  const sign = (ext: string, out: string): void => {
    writeFileSync(at("ext"), ext);
    execFileSync(
      "openssl",
      [
        "x509",
        "-req",
        "-in",
        at("csr"),
        "-CA",
        path.join(TLS, "authority.crt"),
        "-CAkey",
        path.join(TLS, "authority.key"),
        "-CAcreateserial",
        "-days",
        "30",
        "-extfile",
        at("ext"),
        "-out",
        at(out),
      ],
      { stdio: "ignore" },
    );
  };
  const serve = async (cert: string): Promise<https.Server> => {
    const server = https.createServer({ cert: readFileSync(at(cert)), key: readFileSync(at("key")) }, (_q, r) => void r.end("here"));
    await new Promise<void>((done) => void server.listen(0, "127.0.0.1", done));
    return server;
  };
  sign("subjectAltName=DNS:elsewhere.example\nextendedKeyUsage=serverAuth\n", "foreign");
  sign("subjectAltName=DNS:dryarc.local\nextendedKeyUsage=serverAuth\n", "own");
  const page = await openBrowser({ hosts: ["elsewhere.example"] });
  const [foreign, own] = [await serve("foreign"), await serve("own")];
  const portOf = (s: https.Server): number => (s.address() as AddressInfo).port;
  // Its own name, signed the same way, is let through: it is the name that is refused.
  await page.goto(`https://dryarc.local:${portOf(own)}/`);
  await expect(page.getByText("here")).toBeVisible();
  await expect(page.goto(`https://elsewhere.example:${portOf(foreign)}/`)).rejects.toThrow(/ERR_CERT/);
  const stranger = await openBrowser({ trusting: false });
  await expect(stranger.goto("/sign-in")).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
  for (const s of [foreign, own]) s.close();
});

test("whoever comes without a session is sent to the door, and back to where they wanted; never elsewhere", async () => {
  owner = await openBrowser();
  await owner.goto("/people");
  await expect(owner).toHaveURL(`${ORIGIN}/sign-in?to=%2Fpeople`);
  await expect(owner.getByText("Nobody can come in yet")).toBeVisible();
  await expectAccessible(owner);
  expect(await owner.evaluate(() => window.isSecureContext)).toBe(true);
});

test("the first owner comes in by the link of the terminal, and finds the jobs that were there", async () => {
  await owner.goto(`/first#${process.env.DRYARC_FIRST_CODE}`);
  // The code is gone from the address before anything is typed.
  await expect(owner).toHaveURL(`${ORIGIN}/first`);
  await owner.getByLabel("Name of the firm").fill("Isles Wireless");
  await owner.getByLabel("Your name").fill("Mara Tolliver");
  await owner.getByLabel("E-mail address").fill(OWNER);
  await owner.getByLabel("Password", { exact: true }).fill("short");
  await owner.keyboard.press("Enter");
  await expect(owner.getByRole("alert").filter({ hasText: "fewer than 12 letters" })).toBeVisible();
  await expectAccessible(owner);
  await owner.getByLabel("Password", { exact: true }).fill(PASSWORD);
  await owner.keyboard.press("Enter");
  await atRegister(owner);
  await expect(owner.getByText("Mara Tolliver")).toBeVisible();
  const jobs = JSON.parse((await fetchIn(owner, "/api/jobs")).text) as JobSummary[];
  demo = jobs.find((j) => j.job.name === "Merrow Harbour Trust")!;
  // A second first owner there is none.
  const late = await openBrowser();
  await late.goto(`/first#${process.env.DRYARC_FIRST_CODE}`);
  await late.getByLabel("Name of the firm").fill("Another");
  await late.getByLabel("Your name").fill("Another");
  await late.getByLabel("E-mail address").fill("another@isles.example");
  await late.getByLabel("Password", { exact: true }).fill(PASSWORD);
  await late.keyboard.press("Enter");
  await expect(late.getByText("This link was used already")).toBeVisible();
  await late.context().close();
});

const invite = async (
  email: string,
  role: string,
  more: (dialog: ReturnType<Page["getByRole"]>) => Promise<void> = async () => undefined,
): Promise<string> => {
  await owner.goto("/people");
  await owner.getByRole("button", { name: "Invite somebody" }).click();
  const dialog = owner.getByRole("dialog", { name: "Invite somebody" });
  await dialog.getByLabel("E-mail address").fill(email);
  await dialog.getByLabel("Role").selectOption({ label: role });
  await more(dialog);
  await dialog.getByRole("button", { name: "Invite", exact: true }).click();
  const link = await owner.getByRole("textbox", { name: "The link" }).inputValue();
  await owner.keyboard.press("Escape");
  return link;
};

const join = async (page: Page, link: string, name: string): Promise<void> => {
  await page.goto(link);
  await page.getByLabel("Your name").fill(name);
  await page.getByLabel("Password", { exact: true }).fill(PASSWORD);
  await page.getByRole("button", { name: "Join" }).click();
  await atRegister(page);
};

test("a planner is invited, joins by the letter's link, and plans; the owner sees who did it", async () => {
  await invite("jory@isles.example", "Planner");
  await owner.getByRole("tab", { name: "Letters" }).click();
  await owner.getByText("jory@isles.example").first().click();
  const link = /https:\S+\/join#[\w-]{22}/.exec((await owner.locator("main").textContent()) ?? "")![0];
  const planner = await openBrowser();
  await join(planner, link, "Jory Penn");
  await expect(planner.getByRole("link", { name: "People" })).toHaveCount(0);
  await planner.goto("/people");
  await expect(planner.getByText("This is not open to you")).toBeVisible();

  await owner.goto(`/jobs/${demo.job.id}/section/${linkOf("Rope Walk")}`);
  await expect(owner.getByTestId("verdict")).toBeVisible();
  await planner.goto(`/jobs/${demo.job.id}/section/${linkOf("Rope Walk")}`);
  // Each sees who else is here, and on which sheet; and when they go on, where.
  const also = (page: Page) => page.getByRole("list", { name: "Also here" });
  await expect(also(owner)).toHaveText("Jory Penn on Section");
  await expect(also(planner)).toHaveText("Mara Tolliver on Section");
  await expectAccessible(owner);
  await planner.goto(`/jobs/${demo.job.id}/load`);
  await expect(also(owner)).toHaveText("Jory Penn on Load");
  await planner.goto(`/jobs/${demo.job.id}/section/${linkOf("Rope Walk")}`);
  const height = planner.getByRole("slider", { name: /Harbour Office/ }).first();
  await height.focus();
  await planner.keyboard.press("ArrowUp");
  await expect(planner.getByTestId("saved")).toContainText("all edits");
  expect((await fetchIn(planner, `/api/jobs/${demo.job.id}/history`)).text).toContain("Jory Penn");
  // The owner cannot take the planner's edit back by giving the planner's browser's name.
  const client = await planner.evaluate(() => sessionStorage.getItem("dry-arc.client"));
  const undo = await fetchIn(owner, `/api/jobs/${demo.job.id}/undo`, {
    method: "POST",
    headers: { "x-client": client ?? "", "content-type": "application/json" },
    body: JSON.stringify({ redo: false }),
  });
  expect(JSON.parse(undo.text)).toMatchObject({ step: null, rows: [] });
  await planner.keyboard.press("Control+z");
  await planner.context().close();
  await expect(also(owner)).toHaveCount(0);
});

test("a program comes in by a token that is shown once, reads what the page of the interface says, and no more once it is ended", async () => {
  await owner.goto("/people");
  await owner.getByRole("tab", { name: "Programs" }).click();
  await owner.getByRole("button", { name: "Make a token" }).click();
  const dialog = owner.getByRole("dialog", { name: "Make a token" });
  await dialog.getByRole("button", { name: "Make it" }).click();
  await expect(dialog.getByText("Say what it is for")).toBeVisible();
  await dialog.getByLabel("What it is for").fill("the office register");
  await expectAccessible(owner);
  await dialog.getByRole("button", { name: "Make it" }).click();
  const token = await owner.getByRole("textbox", { name: "The token" }).inputValue();
  await owner.getByRole("button", { name: "Done" }).click();
  const row = owner.getByRole("row", { name: /the office register/ });
  await expect(row).toContainText("reads, without prices; all jobs");
  // As another program on the network: TLS by the authority, no cookie.
  const agent = new https.Agent({
    ca: readFileSync(path.join(TLS, "authority.crt")),
    lookup: (_h, _o, call) => call(null, [{ address: "127.0.0.1", family: 4 }]),
  });
  const asked = (address: string, method = "GET"): Promise<{ status: number; text: string }> =>
    new Promise((resolve, reject) => {
      const request = https.request(`${ORIGIN}${address}`, { agent, method, headers: { authorization: `Bearer ${token}` } }, (response) => {
        let text = "";
        response.on("data", (part: Buffer) => {
          text += part.toString();
        });
        response.on("end", () => resolve({ status: response.statusCode ?? 0, text }));
      });
      request.on("error", reject);
      request.end();
    });
  expect((await asked("/api/jobs")).text).toContain("Merrow Harbour Trust");
  expect((await asked(`/api/jobs/${demo.job.id}/bundle`, "POST")).status).toBe(403);
  await owner.getByRole("link", { name: "Interface" }).click();
  await expect(owner.getByRole("heading", { name: "Interface" })).toBeVisible();
  await owner.getByLabel("Find an address").fill("/hubs");
  await expect(owner.getByText("Makes one: hub.")).toBeVisible();
  await expect(owner.getByText("Announces a file.")).toHaveCount(0);
  await owner.getByText("What it takes").first().press("Enter");
  await expectAccessible(owner);
  await owner.goBack();
  await owner.getByRole("tab", { name: "Programs" }).click();
  await expect(row).not.toContainText("not yet");
  await row.getByRole("button", { name: "End the token for the office register" }).click();
  await expect(row).toContainText("ended");
  expect((await asked("/api/jobs")).status).toBe(401);
});

test("a program is called a moment after something changes, by a call that its secret signs", async () => {
  const calls: { head: IncomingHttpHeaders; body: string }[] = [];
  const program = createServer((request, response) => {
    let body = "";
    request.on("data", (piece: Buffer) => {
      body += piece.toString();
    });
    request.on("end", () => {
      calls.push({ head: request.headers, body });
      response.writeHead(200).end();
    });
  });
  const [, port] = process.env.DRYARC_CALL_HOSTS!.split(":");
  await new Promise<void>((go) => program.listen(Number(port), "127.0.0.1", go));
  try {
    await owner.goto("/people");
    await owner.getByRole("tab", { name: "Programs" }).click();
    await owner.getByRole("button", { name: "Have a program called" }).click();
    const dialog = owner.getByRole("dialog", { name: "Have a program called" });
    await dialog.getByLabel("What it is for").fill("the office register");
    await dialog.getByLabel("Address", { exact: true }).fill("told.example");
    await dialog.getByRole("button", { name: "Make it" }).click();
    await expect(dialog.getByText("That is no address of the web")).toBeVisible();
    await dialog.getByLabel("Address", { exact: true }).fill("http://told.example/");
    await dialog.getByRole("button", { name: "Make it" }).click();
    await expect(dialog.getByText("must begin with https")).toBeVisible();
    await expectAccessible(owner);
    await dialog.getByLabel("Address", { exact: true }).fill(`http://127.0.0.1:${port}/told`);
    await dialog.getByRole("button", { name: "Make it" }).click();
    const secret = await owner.getByRole("textbox", { name: "What calls are signed by" }).inputValue();
    await owner.getByRole("button", { name: "Done" }).click();
    const part = owner.getByRole("region", { name: "Programs that are called" });
    await expectAccessible(owner);
    await part.getByRole("button", { name: "Call it now the office register" }).click();
    await expect(part.getByRole("status")).toHaveText("the office register: answered 200.");
    const made = await fetchIn(owner, `/api/jobs/${demo.job.id}/sites`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name: "Told rock", latDeg: 47.2951, lonDeg: -19.3951, mountAglM: 4 }),
    });
    expect(made.status).toBe(200);
    await expect.poll(() => calls.length).toBe(2);
    const { head, body } = calls[1]!;
    expect(body).toContain(demo.job.id);
    expect(body).not.toContain("Told rock");
    const mac = createHmac("sha256", Buffer.from(secret.slice("whsec_".length), "base64"));
    mac.update([head["webhook-id"], head["webhook-timestamp"], body].join("."));
    expect(head["webhook-signature"]).toBe(`v1,${mac.digest("base64")}`);
    const site = JSON.parse(made.text) as { id: string; version: number };
    await fetchIn(owner, `/api/jobs/${demo.job.id}/sites/${site.id}`, {
      method: "PATCH",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ version: site.version, deleted: true }),
    });
    await expect.poll(() => calls.length).toBe(3);
    await part.getByRole("button", { name: "End the calls for the office register" }).click();
    await expect(part.getByText("None is called yet.")).toBeVisible();
  } finally {
    program.closeAllConnections();
    program.close();
  }
});

test("a phone is let in by the code's text, as an installer until its day, and sees no price; offline its survey is there", async () => {
  await owner.goto("/people");
  await owner.getByRole("button", { name: "Let a phone in" }).click();
  const dialog = owner.getByRole("dialog", { name: "Let a phone in" });
  await expect(dialog.getByLabel("Role")).toHaveValue("installer");
  await dialog.getByRole("button", { name: "Show the code" }).click();
  await expect(dialog.getByRole("img", { name: "The link as a QR code" })).toBeVisible();
  await expectAccessible(owner);
  const link = await dialog.getByRole("textbox", { name: "The link" }).inputValue();
  await owner.keyboard.press("Escape");

  const phone = await openBrowser(PHONE);
  await phone.goto(link);
  await expect(phone).toHaveURL(`${ORIGIN}/pair`);
  await expectAccessible(phone);
  await phone.getByLabel("What this phone is called").fill("Mara's phone");
  await phone.getByRole("button", { name: "Let it in" }).tap();
  await atRegister(phone);
  // The same code again opens nothing.
  const second = await openBrowser(PHONE);
  await second.goto(link);
  await second.getByRole("button", { name: "Let it in" }).tap();
  await expect(second.getByText("This link was used already")).toBeVisible();
  await second.context().close();

  await phone.goto(`/jobs/${demo.job.id}/kit/${linkOf("Rope Walk")}`);
  await expect(phone.getByTestId("missing")).toBeVisible();
  await expect(phone.getByRole("tab", { name: "Money" })).toHaveCount(0);
  expect(await phone.locator("main").first().textContent()).not.toMatch(/€|\d+\.\d\d EUR/);

  const survey = `/jobs/${demo.job.id}/survey`;
  await phone.goto(survey);
  await expect(phone.getByRole("heading").first()).toBeVisible();
  await phone.evaluate(async () => void (await navigator.serviceWorker.ready));
  await phone.reload();
  await expect(phone.getByRole("heading").first()).toBeVisible();
  await expect
    .poll(() => phone.evaluate(async (p) => (await (await caches.open("dry-arc.page")).match(p)) !== undefined, survey))
    .toBe(true);
  await phone.context().setOffline(true);
  await phone.reload();
  await expect(phone.getByRole("heading").first()).toBeVisible();
  await phone.context().setOffline(false);

  // It is lost: the owner ends it, and it forgets at its next word with the server.
  await owner.goto("/people");
  await owner.getByRole("tab", { name: "Phones" }).click();
  await expectAccessible(owner);
  await owner.getByRole("button", { name: /^End.*Mara's phone/ }).click();
  await expect(owner.getByText("may still lie on it")).toBeVisible();
  await phone.goto(survey);
  await expect(phone).toHaveURL(/\/sign-in/);
  // The browser takes the worker away once the last page under it is gone.
  const left = () =>
    phone.evaluate(async () => ({
      caches: await caches.keys(),
      local: Object.keys(localStorage).filter((k) => k !== "dry-arc.preferences"),
      workers: (await navigator.serviceWorker.getRegistrations()).length,
    }));
  await expect.poll(left).toEqual({ caches: [], local: [], workers: 0 });
  await owner.reload();
  await owner.getByRole("tab", { name: "Phones" }).click();
  await expect(owner.getByText("it forgot what it kept")).toBeVisible();
  await phone.context().close();
});

test("a phone whose time is over keeps what waits to be sent, and sends it when its person is let in anew", async () => {
  const letIn = async (phone: Page): Promise<void> => {
    await owner.goto("/people");
    await owner.getByRole("button", { name: "Let a phone in" }).click();
    await owner.getByRole("button", { name: "Show the code" }).click();
    await phone.goto(await owner.getByRole("textbox", { name: "The link" }).inputValue());
    await phone.getByLabel("What this phone is called").fill("Roof phone");
    await phone.getByRole("button", { name: "Let it in" }).tap();
    await atRegister(phone);
  };
  const phone = await openBrowser(PHONE);
  await letIn(phone);
  const survey = `/jobs/${demo.job.id}/survey`;
  await phone.goto(survey);
  await phone.getByRole("button", { name: /Net Store/ }).click();
  await phone.evaluate(async () => void (await navigator.serviceWorker.ready));
  await phone.context().setOffline(true);
  await phone.getByLabel("Notes").fill("gate code from the harbour master");
  await phone.getByLabel("Notes").press("Tab");
  await expect(phone.getByTestId("saved")).toContainText("kept on this phone");
  // Its last day passes while it is out of coverage.
  const db = new Client({ connectionString: process.env.DATABASE_TEST_URL });
  await db.connect();
  await db.query("UPDATE auth.device SET ends_at = now() - interval '1 minute' WHERE name = 'Roof phone'");
  await db.end();
  await phone.context().setOffline(false);
  await phone.goto("/");
  await expect(phone).toHaveURL(/\/sign-in/);
  expect(await phone.evaluate(() => caches.keys())).not.toContain("dry-arc.page");
  await expect(phone.getByTestId("outbox")).toContainText("1 edit waits in this browser");
  const notes = async (): Promise<string> => (await fetchIn(owner, `/api/jobs/${demo.job.id}/sites`)).text;
  expect(await notes()).not.toContain("gate code from the harbour master");
  await letIn(phone);
  await expect.poll(notes).toContain("gate code from the harbour master");
  await phone.context().close();
});

test("a customer sees one sheet of one job, in the page and behind it", async () => {
  const link = await invite("trust@isles.example", "Customer", async (dialog) => {
    await dialog.getByRole("checkbox", { name: "Merrow Harbour Trust" }).check();
  });
  const customer = await openBrowser();
  await join(customer, link, "Ada Quill");
  await customer.getByRole("link", { name: "Rope Walk" }).click();
  await expect(customer.getByTestId("verdict")).toBeVisible();
  await expect(customer.getByRole("navigation", { name: "Sheets of the job" }).getByRole("listitem")).toHaveCount(1);
  await expect(customer.getByTestId("saved")).toContainText("you only read this job");
  await expectAccessible(customer);
  for (const there of ["brief", "kit", "units", "scans", "history", "lessons"]) {
    expect((await fetchIn(customer, `/api/jobs/${demo.job.id}/${there}`)).status, there).toBe(403);
  }
  // What they try is refused in words, and the figure is as it was.
  const height = customer.getByRole("slider", { name: /Harbour Office/ }).first();
  const before = await height.getAttribute("aria-valuenow");
  await height.focus();
  await customer.keyboard.press("ArrowUp");
  await expect(customer.getByTestId("saved")).toContainText("not open to you");
  await customer.reload();
  await expect(customer.getByRole("slider", { name: /Harbour Office/ }).first()).toHaveAttribute("aria-valuenow", before!);
  await customer.context().close();
});

test("a link that was shared opens its sheet without an account, is counted, and opens nothing once it is taken back", async () => {
  await owner.goto("/");
  await owner.getByRole("button", { name: "Share" }).click();
  const dialog = owner.getByRole("dialog", { name: /^Share/ });
  await dialog.getByRole("button", { name: "Make the link" }).click();
  await expect(dialog.getByText("Say for whom it is.")).toBeVisible();
  await dialog.getByLabel("For whom").fill("the landlord");
  await expectAccessible(owner);
  await dialog.getByRole("button", { name: "Make the link" }).click();
  const link = await dialog.getByRole("textbox", { name: "The link" }).inputValue();
  const friend = await openBrowser(PHONE);
  await friend.goto(link);
  await atRegister(friend);
  await expect(friend).toHaveURL(`${ORIGIN}/`);
  await friend.getByRole("link", { name: "Rope Walk" }).tap();
  await expect(friend.getByTestId("verdict")).toBeVisible();
  await expectAccessible(friend);
  await expect(dialog.getByText("opened 1 time")).toHaveCount(0);
  await owner.reload();
  await owner.getByRole("button", { name: "Share" }).click();
  await expect(dialog.getByText("opened 1 time")).toBeVisible();
  // Who was sent a link may have an account all the same.
  await friend.goto("/");
  await friend.getByRole("link", { name: "sign in" }).tap();
  await expect(friend.getByLabel("E-mail address")).toBeVisible();
  await dialog.getByRole("button", { name: "Take back the link for the landlord" }).click();
  await expect(dialog.getByText(/; over;/)).toBeVisible();
  await friend.goto("/");
  await expect(friend.getByRole("heading", { name: "Shared with you" })).toBeVisible();
  await friend.goto(link);
  await expect(friend.getByText("This link was used already, has run out, or was taken back")).toBeVisible();
  await friend.context().close();
});

test("a link that leaves out who and where shows the figures, with letters for sites and no word that was not ticked", async () => {
  await owner.goto("/");
  await owner.getByRole("button", { name: "Share" }).click();
  const dialog = owner.getByRole("dialog", { name: /^Share/ });
  await dialog.getByLabel("For whom").fill("a school");
  await dialog.getByLabel("Leave out who and where").check();
  await expect(dialog.getByLabel("Brief")).toBeDisabled();
  await expect(dialog.getByLabel("Ground")).toBeDisabled();
  const words = dialog.getByRole("group", { name: /^Words are left out/ });
  await expect(words.getByRole("checkbox").first()).not.toBeChecked();
  for (const sheet of ["Gear", "Wiring", "Kit", "Load", "Air", "Hub"]) await dialog.getByLabel(sheet, { exact: true }).check();
  await expectAccessible(owner);
  await dialog.getByRole("button", { name: "Make the link" }).click();
  const link = await dialog.getByRole("textbox", { name: "The link" }).inputValue();
  const school = await openBrowser();
  const faults: string[] = [];
  school.on("pageerror", (e) => faults.push(e.message));
  await school.goto(link);
  await atRegister(school);
  const secret =
    /Merrow|Harbour|Ice House|Rope Walk|Pilot Station|Water Tower|Old Exchange|Skarn|Tarrowfell|Sailing School|Fuel Berth|Net Store|Weighbridge|Museum Hulk|Corrie|Brannock|Long Ridge/;
  await expect(school.getByText("A job").first()).toBeVisible();
  expect(await school.locator("body").textContent()).not.toMatch(secret);
  const section = `/jobs/${demo.job.id}/section/${linkOf("Rope Walk")}`;
  const verdict = async (page: Page): Promise<string | null> => {
    await page.goto(section);
    await expect(page.getByTestId("verdict")).toHaveText(/Clear|Short|Shut|Unknown/);
    return page.getByTestId("verdict").textContent();
  };
  expect(await verdict(school)).toBe(await verdict(owner));
  for (const sheet of [`section/${linkOf("Rope Walk")}`, "gear", "hub", "load", "air", "wiring", "kit"]) {
    await school.goto(`/jobs/${demo.job.id}/${sheet}`);
    await expect(school.getByTestId("verdict").or(school.getByRole("main")).first()).toBeVisible();
    await expect(school.getByText("Reading")).toHaveCount(0);
    expect(await school.locator("body").textContent(), sheet).not.toMatch(secret);
    expect(await school.title(), sheet).not.toMatch(secret);
  }
  await expectAccessible(school);
  expect(faults).toEqual([]);
  await school.context().close();
});

test("a passkey is made on this device and lets its person in, without a password", async () => {
  const cdp = await owner.context().newCDPSession(owner);
  await cdp.send("WebAuthn.enable");
  await cdp.send("WebAuthn.addVirtualAuthenticator", {
    options: {
      protocol: "ctap2",
      transport: "internal",
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await owner.goto("/account");
  const part = owner.getByRole("region", { name: "Passkeys" });
  await part.getByLabel("What it is called").fill("Office laptop");
  await part.getByLabel("Your password", { exact: true }).fill("not the password");
  await part.getByRole("button", { name: "Make a passkey" }).click();
  await expect(part.getByRole("alert")).toBeVisible();
  await part.getByLabel("Your password", { exact: true }).fill(PASSWORD);
  await part.getByRole("button", { name: "Make a passkey" }).click();
  await expect(part.getByRole("button", { name: "Forget Office laptop" })).toBeVisible();
  await expectAccessible(owner);
  await owner.getByRole("button", { name: "Sign out" }).first().click();
  await expect(owner).toHaveURL(`${ORIGIN}/sign-in`);
  await owner.getByRole("button", { name: "With a passkey" }).click();
  await atRegister(owner);
});

test("a second step is set up, asked for, and gone round by a recovery code, once", async () => {
  await owner.goto("/account");
  const part = owner.getByRole("region", { name: /^Second step/ });
  await part.getByLabel("Your password", { exact: true }).fill(PASSWORD);
  await part.getByRole("button", { name: "Set it up" }).click();
  const secret = (await part.getByTestId("secret").textContent())!;
  const codes = await part.getByTestId("recovery-codes").getByRole("listitem").allTextContents();
  expect(codes).toHaveLength(10);
  await expectAccessible(owner);
  await part.getByLabel("The six figures it shows now").fill(totpOf(secret));
  await part.getByRole("button", { name: "Turn it on" }).click();
  await expect(owner.getByRole("heading", { name: "Second step: on" })).toBeVisible();

  const again = await openBrowser();
  await signIn(again, OWNER);
  await expect(again.getByRole("heading", { name: "Second step" })).toBeVisible();
  await expectAccessible(again);
  await again.getByLabel("Code of the authenticator").fill("000000");
  await again.keyboard.press("Enter");
  await expect(again.getByText("That code is not right")).toBeVisible();
  await again.getByLabel("Code of the authenticator").fill(totpOf(secret));
  await again.keyboard.press("Enter");
  await atRegister(again);
  const byCode = async (code: string): Promise<Page> => {
    const page = await openBrowser();
    await signIn(page, OWNER);
    await page.getByRole("button", { name: "Use a recovery code" }).click();
    await page.getByLabel("Recovery code").fill(code);
    await page.keyboard.press("Enter");
    return page;
  };
  const first = await byCode(codes[0]!);
  await atRegister(first);
  await expect((await byCode(codes[0]!)).getByText("That code is not right")).toBeVisible();

  // Where one is signed in is listed; one ended elsewhere is out at its next question.
  await owner.reload();
  const sessions = owner.getByRole("region", { name: "Where you are signed in" });
  await expect(sessions.getByRole("listitem").first()).toBeVisible();
  const held = await sessions.getByRole("listitem").count();
  expect(held).toBeGreaterThanOrEqual(3);
  await sessions
    .getByRole("button", { name: /^Sign out/ })
    .first()
    .click();
  await expect(sessions.getByRole("listitem")).toHaveCount(held - 1);
});

test("with keys alone one signs in; an address of elsewhere is not gone to", async () => {
  const page = await openBrowser();
  await page.goto("/sign-in?to=https%3A%2F%2Felsewhere.example%2F");
  await expect(page.getByLabel("E-mail address")).toBeFocused();
  await page.keyboard.type("jory@isles.example");
  await page.keyboard.press("Tab");
  await page.keyboard.type(PASSWORD);
  await page.keyboard.press("Enter");
  await atRegister(page);
  await expect(page).toHaveURL(`${ORIGIN}/`);
});

test("who did what is in the book, in sentences", async () => {
  await owner.goto("/people");
  await owner.getByRole("tab", { name: "Who did what" }).click();
  for (const words of ["jory@isles.example", "Mara's phone", "Jory Penn"]) await expect(owner.locator("main")).toContainText(words);
  await expectAccessible(owner);
});
