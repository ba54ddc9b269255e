/* The roof on a phone: a whole end without a server, a browser killed in the middle, two phones, a stop, a false peak. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { connect, createServer, type Server, type Socket } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { type APIRequestContext, type BrowserContext, chromium, expect, type Locator, type Page, test } from "@playwright/test";
import type { LinkBundleDto, RoofDto, RoofEntryDto, SiteDto } from "../src/contract";
import { replayRoof } from "../src/core/roof";
import { CHROMIUM } from "./chromium";
import { expectAccessible, hardwareOf, newJob } from "./helpers";

const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
const TURNS = { near: { turns: true }, far: { turns: true } };

interface Made {
  readonly jobId: string;
  readonly linkId: string;
  readonly near: string;
}

/** A job with one link over the demo's ground. */
const roofJob = async (request: APIRequestContext, name: string): Promise<Made> => {
  const jobId = await newJob(request, name);
  const site = async (of: string, latDeg: number, lonDeg: number): Promise<string> =>
    ((await (await request.post(`/api/jobs/${jobId}/sites`, { data: { name: of, latDeg, lonDeg, mountAglM: 9 } })).json()) as SiteDto).id;
  const [near, far] = [await site("Boat Shed", 47.3, -19.4), await site("Signal Mast", 47.3042, -19.4)];
  const link = await request.post(`/api/jobs/${jobId}/links`, { data: { nearSiteId: near, farSiteId: far } });
  expect(link.status()).toBe(200);
  const { id: linkId } = (await link.json()) as { id: string };
  // Two panels that a hand turns, as the demo has them: what a new link starts with may be a dish that only a screw turns.
  const radio = (await hardwareOf(request)).radios.find((r) => r.name === "Kittiwake Panel")!;
  const { design } = ((await (await request.get(`/api/jobs/${jobId}/links/${linkId}`)).json()) as LinkBundleDto).link;
  const set = await request.patch(`/api/jobs/${jobId}/designs/${design.id}`, {
    data: {
      version: design.version,
      nearRadioId: radio.id,
      farRadioId: radio.id,
      nearAntennaId: null,
      farAntennaId: null,
      centreMhz: 5500,
      widthMhz: 40,
      nearPowerDbm: 11,
      farPowerDbm: 11,
    },
  });
  expect(set.ok(), await set.text()).toBe(true);
  return { jobId, linkId, near };
};
const entriesOf = async (request: APIRequestContext, jobId: string): Promise<RoofEntryDto[]> =>
  (await (await request.get(`/api/jobs/${jobId}/roof`)).json()) as RoofEntryDto[];

const copied = (page: Page): Promise<void> =>
  expect(page.getByTestId("copy")).toContainText("On this phone for a place without coverage: 1 of 1 links.", { timeout: 60_000 });
const openEnd = async (page: Page, name: string, by: string): Promise<void> => {
  await page.getByLabel(/Your name/).fill(by);
  await page.getByRole("button", { name: new RegExp(name) }).tap();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(name);
};
/** The step that is open, by its title. */
const step = (page: Page, title: string | RegExp): Locator => page.getByRole("region", { name: title });
/** Ticks all parts of a step; what follows opens by itself. */
const tickAll = async (page: Page, title: string): Promise<void> => {
  await expect(step(page, title)).toBeVisible();
  const parts = await step(page, title).getByRole("checkbox").count();
  for (let i = 0; i < parts; i++) {
    const box = step(page, title).getByRole("checkbox").nth(i);
    const last = i === parts - 1;
    await box.tap();
    // Ticked once the disk has it; with the last the next step opens.
    if (last) await expect(step(page, title)).toHaveCount(0);
    else await expect(box).toBeChecked();
  }
};
const untilAim = async (page: Page): Promise<void> => {
  for (const title of [
    "Risk screen",
    "Mount and bracket",
    "Cable up",
    "Antenna or load on every port",
    "Bond before power",
    "Power on, and wait",
    "Coarse aim",
  ])
    await tickAll(page, title);
};
const readings = (page: Page): Locator => page.getByRole("list", { name: "Last readings" }).getByRole("listitem");
/** Types a reading as a hand in a glove would: the side by its sign, the level without its minus. */
const mark = async (page: Page, deg: number, dbm: number | null, count: number): Promise<void> => {
  const form = page.getByRole("form", { name: "Next reading" });
  // Its form opens with the reading before; what is typed sooner would be typed into the one that goes.
  await expect(page.getByRole("button", { name: `Mark reading ${count}` })).toBeVisible();
  if (deg !== 0) await form.getByText(new RegExp(deg < 0 ? "^(left|down) of" : "^(right|up) of")).tap();
  await form.getByLabel(/^Degrees/).fill(String(Math.abs(deg)));
  if (dbm === null) await form.getByRole("button", { name: "Not heard" }).tap();
  else {
    await form.getByLabel(/^Level/).fill(String(-dbm));
    await page.getByRole("button", { name: /^Mark reading/ }).tap();
  }
  await expect(readings(page)).toHaveCount(Math.min(8, count));
};

/** Levels of the antenna that the phone has with it, with the peak at a turn from the start. */
const cutOf = async (request: APIRequestContext, of: Made, axis: "azimuth" | "tilt") => {
  const facts = (await (await request.get(`/api/jobs/${of.jobId}/links/${of.linkId}/roof`)).json()) as RoofDto;
  const [near] = facts.ends;
  const cut = near[axis]!;
  const half = (cut.db.length - 1) / 2;
  return {
    bw: cut.beamwidthDeg,
    level: near.level!,
    at: (offDeg: number): number =>
      Math.round(near.level!.dbm + cut.db[Math.max(0, Math.min(cut.db.length - 1, half + Math.round(offDeg / cut.stepDeg)))]!),
  };
};

/** A way to the server that can be shut: what a phone sees of a server that is stopped. */
const wayTo = async (target: string): Promise<{ url: string; open: () => Promise<void>; shut: () => Promise<void> }> => {
  const { port } = new URL(target);
  const sockets = new Set<Socket>();
  let server: Server | null = null;
  let own = 0;
  const open = (): Promise<void> =>
    new Promise((done) => {
      server = createServer((socket) => {
        const on = connect(Number(port), "127.0.0.1");
        for (const s of [socket, on]) {
          sockets.add(s);
          s.on("error", () => undefined);
          s.on("close", () => {
            sockets.delete(s);
            socket.destroy();
            on.destroy();
          });
        }
        socket.pipe(on);
        on.pipe(socket);
      });
      server.listen(own, "127.0.0.1", () => {
        own = (server!.address() as { port: number }).port;
        done();
      });
    });
  await open();
  return {
    url: `http://127.0.0.1:${own}`,
    open,
    shut: () =>
      new Promise((done) => {
        server?.close(() => done());
        for (const s of sockets) s.destroy();
      }),
  };
};

test("a whole end with the server stopped, the browser killed in the middle: every reading is there, once, whatever the phone's clock says", async ({
  request,
  baseURL,
}) => {
  const made = await roofJob(request, "Stopped");
  const azimuth = await cutOf(request, made, "azimuth");
  const way = await wayTo(baseURL!);
  const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-roof-"));
  const start = async (): Promise<{ context: BrowserContext; page: Page }> => {
    const context = await chromium.launchPersistentContext(dir, { ...CHROMIUM, ...phone, baseURL: way.url, timezoneId: "UTC" });
    // Its clock is three hours ahead.
    await context.addInitScript(() => {
      const real = Date.now.bind(Date);
      const AHEAD_MS = 3 * 3_600_000;
      globalThis.Date = class extends Date {
        constructor(...given: unknown[]) {
          if (given.length === 0) super(real() + AHEAD_MS);
          else super(...(given as [number]));
        }
        static override now(): number {
          return real() + AHEAD_MS;
        }
      } as DateConstructor;
    });
    return { context, page: context.pages()[0] ?? (await context.newPage()) };
  };
  let { context, page } = await start();
  try {
    await page.goto(`/jobs/${made.jobId}/roof`);
    await copied(page);
    await openEnd(page, "Boat Shed", "Ada");
    await way.shut();
    await page.reload();
    await expect(page.getByRole("heading", { level: 1 })).toContainText("Boat Shed, A");
    await untilAim(page);
    // The peak lies 30 degrees right of where it began: the sweep goes over it and back.
    const peak = Math.round(azimuth.bw);
    const sweep = [-0.6, -0.2, 0.2, 0.6, 1, 1.4].map((x) => Math.round(x * azimuth.bw));
    for (const [i, deg] of sweep.slice(0, 4).entries()) await mark(page, deg, azimuth.at(deg - peak), i + 1);
    await expect(page.getByTestId("kept")).toContainText("wait for coverage");

    execFileSync("pkill", ["-9", "-f", dir]);
    await context.close().catch(() => undefined);
    ({ context, page } = await start());
    await page.goto(`/jobs/${made.jobId}/roof#${made.linkId}/near`);
    await expect(readings(page)).toHaveCount(4);
    for (const [i, deg] of sweep.slice(4).entries()) await mark(page, deg, azimuth.at(deg - peak), 5 + i);
    await mark(page, peak, azimuth.at(0), 7);
    await expect(page.getByTestId("said")).toContainText("This is the peak");
    await page.getByRole("button", { name: /It stands on the peak/ }).tap();
    const tilt = await cutOf(request, made, "tilt");
    for (const [i, x] of [-0.7, -0.35, 0.35, 0.7, 0].entries()) {
      const deg = Math.round(x * tilt.bw);
      await mark(page, deg, tilt.at(deg), i + 1);
    }
    await expect(page.getByTestId("said")).toContainText("This is the peak");
    await page.getByRole("button", { name: /It stands on the peak/ }).tap();
    // The other end is out of sight: a name on the phone stands for it.
    const told = step(page, "The other end is aimed").getByRole("form", { name: "Told by phone" });
    await told.getByLabel("Told by").fill("Bela");
    await told.getByRole("button").tap();
    await tickAll(page, "Tighten");
    const again = step(page, "Read again");
    await again.getByRole("textbox", { name: /Level after/ }).fill(String(Math.round(-tilt.level.dbm) + 3));
    await again.getByRole("button", { name: "Write it down" }).tap();
    // Three dB lower: it moved, and the aim is open again.
    await expect(page.getByTestId("moved")).toContainText("Loosen, find the peak again, tighten");
    await expect(page.getByTestId("said")).toBeVisible();
    await way.open();
    await expect(page.getByTestId("kept")).toContainText("All sent.", { timeout: 30_000 });
  } finally {
    await context.close().catch(() => undefined);
    await way.shut();
    rmSync(dir, { recursive: true, force: true });
  }
  const there = await entriesOf(request, made.jobId);
  const read = there.filter((e) => e.act === "reading");
  expect(read).toHaveLength(12);
  expect(new Set(there.map((e) => `${e.act} ${e.step} ${e.part} ${e.axis} ${e.order}`)).size).toBe(there.length);
  const stands = replayRoof(TURNS, there);
  expect(stands.refused).toEqual([]);
  expect(stands.near.steps.filter((s) => s.state === "done").map((s) => s.id)).toEqual([
    "risks",
    "mount",
    "cable",
    "load",
    "bond",
    "power",
    "coarse",
    "other",
  ]);
  // The phone knew before it lost the server that its clock is wrong.
  for (const e of there) {
    expect(Math.abs(e.aheadS! - 10_800)).toBeLessThan(10);
    expect(Math.abs(Date.parse(e.at) - e.aheadS! * 1000 - Date.now())).toBeLessThan(240_000);
  }
});

test.describe("phones with coverage that comes and goes", () => {
  let context: BrowserContext;
  let second: BrowserContext;
  test.beforeEach(async ({ browser, baseURL }) => {
    [context, second] = [
      await browser.newContext({ ...phone, baseURL: baseURL! }),
      await browser.newContext({ ...phone, baseURL: baseURL! }),
    ];
  });
  test.afterEach(async () => {
    await context.close();
    await second.close();
  });

  test("two phones at one link, both without coverage: later both show both ends, and a stop that one did not know of is told", async ({
    request,
  }) => {
    const made = await roofJob(request, "Two phones");
    const [ada, bela] = [await context.newPage(), await second.newPage()];
    for (const page of [ada, bela]) {
      await page.goto(`/jobs/${made.jobId}/roof`);
      await copied(page);
    }
    await openEnd(ada, "Boat Shed", "Ada");
    await openEnd(bela, "Signal Mast", "Bela");
    await tickAll(ada, "Risk screen");
    await expect(ada.getByTestId("kept")).toContainText("All sent.");
    await context.setOffline(true);
    await second.setOffline(true);
    await tickAll(ada, "Mount and bracket");
    await tickAll(bela, "Risk screen");
    // Bela sees ice at the other end's ladder and stops that end.
    await bela.getByRole("button", { name: "Look at Boat Shed" }).tap();
    await bela.getByRole("button", { name: "Stop, unsafe" }).tap();
    await bela.getByLabel("Why it stops").fill("ice on the ladder");
    await bela.getByRole("button", { name: "Stop this end" }).tap();
    await expect(bela.getByTestId("stopped")).toHaveText("Stop");
    await tickAll(ada, "Cable up");
    await context.setOffline(false);
    await second.setOffline(false);
    await expect(ada.getByTestId("stopped")).toHaveText("Stop", { timeout: 30_000 });
    await expect(ada.getByText("ice on the ladder", { exact: true })).toBeVisible();
    await expect(ada.getByTestId("refused")).toContainText("a stop stood that this phone did not know of");
    await expectAccessible(ada);
    // Whoever stopped does not lift it; the other may, with a reason.
    const lift = ada.getByRole("form", { name: "Lift the stop" });
    await lift.getByLabel(/Name of who/).fill("bela");
    await expect(lift.getByRole("alert")).toHaveText("Whoever stopped does not lift it.");
    await expect(lift.getByRole("button")).toBeDisabled();
    await lift.getByLabel(/Name of who/).fill("Ada");
    await lift.getByLabel("Why it may go on").fill("salted, and looked at");
    await lift.getByRole("button", { name: "Lift the stop" }).tap();
    await expect(ada.getByTestId("stopped")).toHaveCount(0);
    await expect(bela.getByTestId("stopped")).toHaveCount(0, { timeout: 30_000 });
    await ada.getByRole("button", { name: "Look at Signal Mast" }).tap();
    await expect(ada.getByRole("button", { name: /1 done/ })).toBeVisible();
  });

  test("on a false peak the page says so and to which side; one that is read wrong is undone; what is typed wrong is told", async ({
    request,
  }) => {
    const made = await roofJob(request, "False peak");
    const page = await context.newPage();
    const cut = await cutOf(request, made, "azimuth");
    await page.goto(`/jobs/${made.jobId}/roof`);
    await openEnd(page, "Boat Shed", "Ada");
    await expect(page.locator("html")).toHaveAttribute("data-mode", "sun");
    await expectAccessible(page);
    await expect(page.getByRole("button", { name: /Power on, and wait/ })).toBeDisabled();
    await untilAim(page);
    await expectAccessible(page);
    const form = page.getByRole("form", { name: "Next reading" });
    await page.getByRole("button", { name: /^Mark reading/ }).tap();
    await expect(form.getByRole("alert")).toHaveText("Type the level, or press Not heard.");
    await form.getByLabel(/^Level/).fill("3");
    await expect(form.getByRole("alert")).toContainText("A level is 5 to 120");
    // It began two beamwidths left of the peak and turns right: false peak, null, flank.
    const peak = Math.round(2 * cut.bw);
    const sweep = [-0.4, 0, 0.3, 0.6, 0.85, 1.1].map((x) => Math.round(x * cut.bw));
    for (const [i, deg] of sweep.entries()) await mark(page, deg, cut.at(deg - peak), i + 1);
    await expect(page.getByTestId("said")).not.toContainText("This is the peak");
    await mark(page, Math.round(1.3 * cut.bw), cut.at(Math.round(1.3 * cut.bw) - peak), 7);
    await expect(page.getByTestId("said")).toContainText("Turn right");
    const turn = Number((await page.getByTestId("turn").textContent())!.replace(/[^\d.]/g, ""));
    expect(Math.abs(Math.round(1.3 * cut.bw) + turn - peak)).toBeLessThan(0.3 * cut.bw);
    await expectAccessible(page);
    await mark(page, peak, -40, 8);
    await page.getByRole("button", { name: /^Undo reading 8/ }).tap();
    await expect(page.getByRole("button", { name: "Mark reading 8" })).toBeVisible();
    await mark(page, peak, cut.at(0), 8);
    await expect(page.getByTestId("said")).toContainText("This is the peak");
  });

  test("what the browser has cleared while it waited is told; what waits can leave as a file", async ({ request }) => {
    const made = await roofJob(request, "Cleared");
    const page = await context.newPage();
    await page.goto(`/jobs/${made.jobId}/roof`);
    await copied(page);
    await openEnd(page, "Boat Shed", "Ada");
    await context.setOffline(true);
    await tickAll(page, "Risk screen");
    await page.getByRole("button", { name: "All ends" }).tap();
    const waits = page.getByRole("region", { name: "Not sent yet" });
    await expect(waits).toContainText("1 entry");
    await page.evaluate(
      () =>
        new Promise((done) => {
          const open = indexedDB.open("dry-arc-roof");
          open.onsuccess = () => {
            const tx = open.result.transaction("entry", "readwrite");
            tx.objectStore("entry").clear();
            tx.oncomplete = done;
          };
        }),
    );
    await page.reload();
    await expect(page.getByTestId("missing")).toContainText("1 entry that waited here is gone");
    await expectAccessible(page);
    // What the home screen opens lists the job, also now.
    await page.goto("/jobs/kept");
    await expect(page.getByText("Cleared", { exact: true })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole("link", { name: "Roof" }).tap();
    await expect(page.getByRole("heading", { name: "Roof" })).toBeVisible();
  });
});
