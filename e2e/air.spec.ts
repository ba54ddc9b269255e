import { type APIRequestContext, expect, type Locator, type Page, test } from "@playwright/test";
import type { AirDto, LinkVerdict, ScanDto } from "../src/contract";
import { demoJob, expectAccessible, linkTo, newJob, noPageScroll } from "./helpers";

test.describe.configure({ mode: "serial" });

const jobIdOf = async (request: APIRequestContext): Promise<string> => (await demoJob(request)).job.id;
const airOf = async (request: APIRequestContext): Promise<AirDto> =>
  (await (await request.get(`/api/jobs/${await jobIdOf(request)}/air`)).json()) as AirDto;
const scansOf = async (request: APIRequestContext): Promise<ScanDto[]> =>
  (await (await request.get(`/api/jobs/${await jobIdOf(request)}/scans`)).json()) as ScanDto[];
const verdictsOf = async (request: APIRequestContext): Promise<LinkVerdict[]> =>
  (await (await request.get(`/api/jobs/${await jobIdOf(request)}/verdicts`)).json()) as LinkVerdict[];
const open = async (page: Page, request: APIRequestContext): Promise<string> => {
  const jobId = await jobIdOf(request);
  await page.goto(`/jobs/${jobId}/air`);
  await expect(page.getByTestId("worst-rise")).toBeVisible();
  return jobId;
};
const saved = async (page: Page): Promise<void> => {
  await expect(page.getByTestId("saved")).toContainText("all edits");
};
const tab = async (page: Page, name: string): Promise<void> => page.getByRole("tab", { name }).click();
/** A block on the band by the name of what stands on it; the name drawn may be cut. */
const blockOf = (page: Page, name: string): Locator => page.getByTestId("block").and(page.getByRole("slider", { name: new RegExp(name) }));
const centresOf = async (request: APIRequestContext): Promise<number[]> => (await jobBundle(request)).links.map((l) => l.design.centreMhz);
const jobBundle = async (request: APIRequestContext) =>
  (await (await request.get(`/api/jobs/${await jobIdOf(request)}`)).json()) as { links: { id: string; design: { centreMhz: number } }[] };

test("who blinds whom in one look, by how much, and the register and the section say it, too", async ({ page, request }) => {
  await open(page, request);
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toHaveText(
    /^\d+ of \d+ cannot carry what is asked: radios on one mast blind each other$/,
  );
  await expect(page.getByTestId("worst-rise")).toHaveText(/^\d+ dB$/);
  await expect(page.getByTestId("mast")).toHaveCount(2);
  await noPageScroll(page);
  await expectAccessible(page);
  for (const name of ["What it hears", "Scans", "Rules", "Radar", "Masts and others"]) {
    await tab(page, name);
    await expectAccessible(page);
  }

  const sailing = linkTo(await demoJob(request), "Sailing School");
  expect(sailing).toMatchObject({ alone: "clear", verdict: "short", trouble: "air-blinded" });
  await page.goto(`/jobs/${await jobIdOf(request)}/section/${sailing.linkId}`);
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.locator('[data-code="air-blinded"]')).toContainText("leaves its receiver nothing");
  await expect(page.locator('[data-caption="risen"]')).toContainText("others lift it to");
  await page.getByRole("link", { name: "Its channel, and what mends it" }).click();
  await expect(page.getByTestId("worst-rise")).toBeVisible();
});

test("a receiver opens to what it hears, each to its sum", async ({ page, request }) => {
  await open(page, request);
  await tab(page, "What it hears");
  const list = page.getByRole("list", { name: "What it hears" });
  await list.locator("summary").first().click();
  const sum = list.getByRole("table").first();
  await expect(sum).toContainText("power sent");
  await expect(sum).toContainText("in the channel, dBm");
  // Receivers of one channel lie over each other: keys reach each.
  await page.getByTestId("noise").getByRole("button").nth(1).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("noise").getByRole("button").nth(1)).toHaveAttribute("aria-pressed", "true");
});

test("the proposal is proven, drawn before it is planned, taken as one step, and undone as one", async ({ page, request }) => {
  await open(page, request);
  const before = await centresOf(request);
  const proposal = page.getByTestId("proposal");
  await expect(proposal).toContainText("none short");
  await expect(proposal).toContainText("proven");
  await proposal.getByRole("button", { name: /^Draw all \d as proposed$/ }).click();
  await expect(page.getByTestId("tried")).toContainText("none is short");
  await expect(page.getByText("drawn as if, not planned")).toBeVisible();
  expect(await centresOf(request)).toEqual(before);
  await page.getByTestId("tried").getByRole("button", { name: "Plan it" }).click();
  await expect(page.getByTestId("said")).toContainText("channels are planned");
  const after = await centresOf(request);
  expect(after).not.toEqual(before);
  await expect
    .poll(async () => (await verdictsOf(request)).filter((v) => v.inAir?.trouble === "blinded").length, { timeout: 20_000 })
    .toBe(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => centresOf(request)).toEqual(before);
});

test("a block is dragged to another channel with all consequences, and left by Escape", async ({ page, request }) => {
  await open(page, request);
  const before = await centresOf(request);
  const block = blockOf(page, "Pilot Station").first();
  const was = await block.getAttribute("aria-valuenow");
  const box = (await block.locator("rect").first().boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 120, box.y + box.height / 2, { steps: 8 });
  await expect(page.getByTestId("tried")).toContainText("Pilot Station on");
  await page.mouse.up();
  const moved = blockOf(page, "Pilot Station").first();
  expect(Number(await moved.getAttribute("aria-valuenow"))).toBeGreaterThan(Number(was));
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("tried")).toHaveCount(0);
  expect(await centresOf(request)).toEqual(before);
});

test("by keys alone: step, widen, lock, plan; a locked one stays out of the proposal", async ({ page, request }) => {
  await open(page, request);
  const before = await centresOf(request);
  const block = blockOf(page, "Rope Walk").first();
  await block.focus();
  const was = Number(await block.getAttribute("aria-valuenow"));
  await page.keyboard.press("ArrowRight");
  await expect(block).not.toHaveAttribute("aria-valuenow", String(was));
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(block).toHaveAttribute("aria-valuetext", /, 20 MHz wide/);
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("said")).toContainText("One channel is planned");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => centresOf(request)).toEqual(before);
  const again = blockOf(page, "Rope Walk").first();
  await again.focus();
  await page.keyboard.press("k");
  await expect.poll(async () => (await airOf(request)).locks.length).toBe(1);
  await expect(again).toHaveAttribute("aria-label", /locked/);
  await page.keyboard.press("ArrowRight");
  await expect(page.getByTestId("tried")).toHaveCount(0);
  await page.keyboard.press("k");
  await expect.poll(async () => (await airOf(request)).locks.length).toBe(0);
  await saved(page);
});

test("a scan is pasted, its faults told by line, kept without names, and taken away", async ({ page, request }) => {
  await open(page, request);
  await tab(page, "Scans");
  const before = (await scansOf(request)).length;
  const panel = page.getByTestId("scans");
  await panel
    .getByRole("textbox", { name: /Text of a scan/ })
    .fill(
      "BSS 02:00:00:00:77:01(on wlan0)\n\tfreq: 5500\n\tsignal: -63.00 dBm\n\tSSID: Secret loft\nBSS 02:00:00:00:77:02(on wlan0)\n\tfreq: 91\n\tsignal: -70.00 dBm\n",
    );
  await panel.getByRole("button", { name: "Read the text" }).click();
  const read = page.getByTestId("scan-read");
  await expect(read).toContainText("1 rows read from a scan, 1 not taken");
  await expect(read).toContainText("Line 5: the frequency 91 MHz is outside 2300 to 72000 MHz.");
  await expect(read).not.toContainText("Secret loft");
  await panel.getByRole("combobox", { name: "Heard at" }).selectOption({ label: "Pilot Station" });
  await read.getByRole("button", { name: "Keep this scan" }).click();
  await expect.poll(async () => (await scansOf(request)).length).toBe(before + 1);
  expect(JSON.stringify(await scansOf(request))).not.toContain("Secret loft");
  await panel.getByRole("button", { name: /^Take away the scan at Pilot Station/ }).click();
  await expect.poll(async () => (await scansOf(request)).length).toBe(before);
  // A text that is none is told, and nothing is kept.
  await panel.getByRole("textbox", { name: /Text of a scan/ }).fill("what is this");
  await panel.getByRole("button", { name: "Read the text" }).click();
  await expect(page.getByTestId("scan-read")).toContainText("the first line must name a column");
  await expect(page.getByTestId("scan-read").getByRole("button", { name: "Keep this scan" })).toBeDisabled();
});

test("an own rule row is checked, stands beside the shipped ones, and is undone", async ({ page, request }) => {
  await open(page, request);
  await tab(page, "Rules");
  const panel = page.getByTestId("rules");
  const field = panel.getByRole("textbox", { name: /Rows as JSON/ });
  const row = { id: "own-high", domain: "FCC-like", lowMhz: 5850, highMhz: 5895, eirpMaxDbm: 30, source: "letter 12", asOf: "2026" };
  const offer = async (text: string): Promise<void> => {
    await field.fill(text);
    await panel.getByRole("button", { name: "Check and take in" }).click();
  };
  await offer("{ no json");
  await expect(panel.getByRole("status").last()).toContainText("The text is no JSON");
  await offer(JSON.stringify([{ ...row, source: "" }]));
  await expect(panel.getByRole("status").last()).toContainText("Row 1, source: a row needs its source");
  await offer(JSON.stringify([{ ...row, id: "f-5470" }]));
  await expect(panel.getByRole("status").last()).toContainText("the name of a shipped row");
  await offer(JSON.stringify([row]));
  await expect(panel.getByRole("list", { name: "Own rows" })).toContainText("own-high");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(panel.getByRole("list", { name: "Own rows" })).toHaveCount(0);
});

test("radar: what was seen and what it costs, a fallback with its verdict, a detection logged and taken back", async ({
  page,
  request,
}) => {
  await open(page, request);
  await tab(page, "Radar");
  const panel = page.getByTestId("radar");
  await expect(panel).toContainText("2 seen in 45 days");
  await expect(panel).toContainText("24 h of soak are asked before hand-over");
  const first = panel.getByRole("listitem").first();
  const fallback = first.getByRole("combobox", { name: "Fallback" });
  await fallback.selectOption({ index: 1 });
  await expect(first).toContainText(/there: level .\d+ and .\d+ dBm, carries \d+ and \d+ Mbps/);
  await expect.poll(async () => Object.keys((await airOf(request)).fallbacks).length).toBe(1);
  await fallback.selectOption("");
  await expect.poll(async () => Object.keys((await airOf(request)).fallbacks).length).toBe(0);
  await panel.getByRole("button", { name: "Log it" }).click();
  await expect.poll(async () => (await airOf(request)).detections.length).toBe(3);
  await saved(page);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await airOf(request)).detections.length).toBe(2);
});

test("what one browser locks the other sees; a link left aside is on the air no more", async ({ page, request, browser }) => {
  await open(page, request);
  const other = await (await browser.newContext()).newPage();
  await open(other, request);
  await page.getByRole("button", { name: "Lock Harbour Office to Pilot Station", exact: true }).click();
  await expect(other.getByRole("button", { name: "Unlock Harbour Office to Pilot Station" })).toBeVisible();
  await other.getByRole("button", { name: "Unlock Harbour Office to Pilot Station" }).click();
  await expect(page.getByRole("button", { name: "Lock Harbour Office to Pilot Station", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Leave Harbour Office to Pilot Station aside" }).click();
  await expect(blockOf(page, "Pilot Station")).toHaveCount(0);
  await page.getByRole("button", { name: "Count Harbour Office to Pilot Station again" }).click();
  await expect(blockOf(page, "Pilot Station").first()).toBeVisible();
  await saved(page);
  await other.close();
});

test("on a phone nothing runs out of the page; a job without links has nothing to judge", async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, request);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const made = { id: await newJob(request, "Bare rock", 40, -30) };
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`/jobs/${made.id}/air`);
  await expect(page.getByTestId("verdict")).toHaveText("Open");
  await expect(page.getByTestId("empty")).toContainText("Join two sites");
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("No rule set of a country is chosen");
});
