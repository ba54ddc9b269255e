import { type APIRequestContext, expect, type Locator, type Page, test } from "@playwright/test";
import type { PartDto, PickDto } from "../src/contract";
import { demoJob, expectAccessible, linkTo, newJob, noPageScroll } from "./helpers";

test.describe.configure({ mode: "serial" });

const open = async (page: Page, request: APIRequestContext, far: string): Promise<string> => {
  const summary = await demoJob(request);
  await page.goto(`/jobs/${summary.job.id}/kit/${linkTo(summary, far).linkId}`);
  await expect(page.getByTestId("missing")).toBeVisible();
  return summary.job.id;
};
const saved = async (page: Page): Promise<void> => {
  await expect(page.getByTestId("saved")).toContainText("all edits");
};
const finding = (page: Page, code: string): Locator => page.locator(`[data-finding="${code}"]`);
const line = (page: Page, end: "near" | "far", name: string): Locator => page.getByTestId(`kit-${end}`).locator(`[data-kit="${name}"]`);
const stockOf = async (request: APIRequestContext, id: string): Promise<number | undefined> =>
  ((await (await request.get("/api/hardware/parts")).json()) as PartDto[]).find((p) => p.id === id)!.stock;
const tab = async (page: Page, name: string): Promise<void> => page.getByRole("tab", { name }).click();

test("what is missing in one look, with what it costs; each line says why; straps, gland and ladder that do not suit", async ({
  page,
  request,
}) => {
  await open(page, request, "Rope Walk");
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("missing")).toContainText(/^\d+ missing/);
  await expect(page.getByTestId("missing")).toContainText("to order");
  await expect(line(page, "far", "Thrift 8 Small Power")).toHaveAttribute("data-state", "missing");
  await expect(finding(page, "saw")).toContainText("a hole of 25 mm; the saws on the van make 16, 20, 22 mm");
  await expect(finding(page, "ladder").first()).toContainText("The longest ladder on the van is 6.0 m");
  await line(page, "far", "Whelk Gland M25").locator("summary").click();
  await expect(line(page, "far", "Whelk Gland M25")).toContainText("through the wall");
  await noPageScroll(page);
  await expectAccessible(page);
  for (const name of ["Mount and wall", "Wind, van, crew", "Before anyone climbs", "Money"]) {
    await tab(page, name);
    await expectAccessible(page);
  }
  await open(page, request, "Pilot Station");
  await expect(finding(page, "strap")).toContainText("go round 30 to 75 mm, the pole is 89 mm");
  await expect(line(page, "far", "strap for a pole of 89 mm")).toBeVisible();
  // Other sheets say the same of it.
  await page.goto(page.url().replace("/kit/", "/wiring/"));
  await expect(page.getByRole("link", { name: /09\s*Kit/ })).toContainText("short");
});

test("a line is picked, taken from the firm's stock, put back and given back; undo does the same", async ({ page, request }) => {
  const jobId = await open(page, request, "Rope Walk");
  const before = (await stockOf(request, "whelk-25"))!;
  const box = line(page, "far", "Whelk Gland M25").getByRole("checkbox");
  await box.focus();
  await page.keyboard.press("Space");
  await expect(line(page, "far", "Whelk Gland M25")).toHaveAttribute("data-state", "picked");
  await expect.poll(() => stockOf(request, "whelk-25")).toBe(before - 1);
  await page.reload();
  await expect(line(page, "far", "Whelk Gland M25")).toHaveAttribute("data-state", "picked");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(line(page, "far", "Whelk Gland M25")).not.toHaveAttribute("data-state", "picked");
  await expect.poll(() => stockOf(request, "whelk-25")).toBe(before);
  // Picked again after it was taken back, and put back by its own tick.
  await line(page, "far", "Whelk Gland M25").getByRole("checkbox").click();
  await expect.poll(() => stockOf(request, "whelk-25")).toBe(before - 1);
  await line(page, "far", "Whelk Gland M25").getByRole("checkbox").click();
  await expect.poll(() => stockOf(request, "whelk-25")).toBe(before);
  const picks = (await (await request.get(`/api/jobs/${jobId}/picks`)).json()) as PickDto[];
  expect(picks.filter((p) => p.name === "Whelk Gland M25")).toHaveLength(1);
});

test("what was picked for a line that the plan has no more is told, and put back from there", async ({ page, request }) => {
  const jobId = await open(page, request, "Rope Walk");
  const before = (await stockOf(request, "whelk-25"))!;
  const made = await request.post(`/api/jobs/${jobId}/picks`, {
    data: { id: crypto.randomUUID(), name: "a gland of before", partId: "whelk-25", count: 1 },
  });
  expect(made.ok()).toBe(true);
  await page.reload();
  await expect(page.getByTestId("beside")).toContainText("1 × a gland of before");
  await page.getByTestId("beside").getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByTestId("beside")).toHaveCount(0);
  expect(await stockOf(request, "whelk-25")).toBe(before);
});

test("the last one is not had twice: another job's pick is told, and nothing is half done", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  const left = (await stockOf(request, "whelk-25"))!;
  const other = { id: await newJob(request, "Another job") };
  const taken = await request.post(`/api/jobs/${other.id}/picks`, {
    data: { id: crypto.randomUUID(), name: "glands", partId: "whelk-25", count: left },
  });
  expect(taken.ok()).toBe(true);
  // The page still shows what it read: the tick is refused in words.
  await line(page, "far", "Whelk Gland M25").getByRole("checkbox").click();
  await expect(page.getByTestId("said")).toContainText("Of Whelk Gland M25 0 are left in stock; 1 are asked.");
  await expect(line(page, "far", "Whelk Gland M25")).toHaveAttribute("data-state", "missing");
  expect(await stockOf(request, "whelk-25")).toBe(0);
});

test("what is in stock is reserved as one step: no longer there for others, ticked without taking it twice, given back", async ({
  page,
  request,
}) => {
  const jobId = await open(page, request, "Rope Walk");
  const before = (await stockOf(request, "kelp-outdoor"))!;
  const reserve = page.getByTestId("reserve");
  await reserve.getByRole("button", { name: /Reserve \d+ lines? in stock/ }).click();
  await expect(reserve).toContainText(/(is|are) reserved: no other job gets them/);
  const picks = async () =>
    ((await (await request.get(`/api/jobs/${jobId}/picks`)).json()) as PickDto[]).filter((p) => p.state === "reserved");
  const held = (await picks()).filter((p) => p.name === "Kelp Outdoor").reduce((sum, p) => sum + Math.ceil(p.count), 0);
  expect(held).toBeGreaterThan(0);
  expect(await stockOf(request, "kelp-outdoor")).toBe(before - held);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await picks()).length).toBe(0);
  expect(await stockOf(request, "kelp-outdoor")).toBe(before);
  await reserve.getByRole("button", { name: /Reserve \d+ lines? in stock/ }).click();
  await expect.poll(async () => (await picks()).length).toBeGreaterThan(0);
  await reserve.getByRole("button", { name: "Reserve them no longer" }).click();
  await expect(reserve.getByRole("button", { name: "Reserve them no longer" })).toHaveCount(0);
  expect(await stockOf(request, "kelp-outdoor")).toBe(before);
});

test("the drawing beside the list leads to its lines by keys; a lesson of another site is put on the list; one is written down", async ({
  page,
  request,
}) => {
  const jobId = await open(page, request, "Rope Walk");
  const inside = page.getByRole("button", { name: /^Indoors at Rope Walk: \d+ (missing|to pick)/ });
  await inside.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("kit-far").getByRole("region", { name: "indoors" })).toBeFocused();
  const offered = page.getByTestId("offered");
  await expect(offered).toContainText("Lesson of Ice House: The gland goes on before the plug. For Rope Walk (Whelk Gland M25).");
  await offered.getByRole("button", { name: /^Put on the list/ }).click();
  await expect(offered).toHaveCount(0);
  await expect(line(page, "far", "The gland goes on before the plug.")).toBeVisible();
  await saved(page);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(offered).toBeVisible();
  // Another job's lesson is offered by its names.
  const other = { id: await newJob(request, "Skerry job") };
  const site = (await (
    await request.post(`/api/jobs/${other.id}/sites`, { data: { name: "Kiln", latDeg: 47.31, lonDeg: -19.41, mountAglM: 5 } })
  ).json()) as { id: string };
  const lesson = { id: crypto.randomUUID(), siteId: site.id, words: "count the ladders twice" };
  const put = await request.patch(`/api/jobs/${other.id}/kit`, { data: { version: 0, lessons: [lesson] } });
  expect(put.ok()).toBe(true);
  await page.reload();
  await expect(offered).toContainText("Lesson of Kiln, Skerry job: count the ladders twice");
  await offered.getByRole("button", { name: "Read: count the ladders twice" }).click();
  await expect(offered).not.toContainText("count the ladders twice");
  const own = page.getByTestId("lessons");
  await own.getByLabel("A lesson for later sites").fill("the rope is short");
  await page.keyboard.press("Enter");
  await expect(own).toContainText("Learnt at Harbour Office: the rope is short");
  await saved(page);
  await expectAccessible(page);
  const kit = (await (await request.get(`/api/jobs/${jobId}/kit`)).json()) as { lessons: { words: string }[] };
  expect(kit.lessons.map((l) => l.words)).toContain("the rope is short");
});

test("the pole that stands above its bracket sways, and the plan counts it so by one press", async ({ page, request }) => {
  const jobId = await open(page, request, "Rope Walk");
  const found = page.locator('[data-finding="sways"]');
  await expect(found).toContainText("The pole stands 1.35 m above its bracket, and wind turns it like a thin pole, by about 1.0°.");
  await found.getByRole("button", { name: "Count it as a thin pole" }).click();
  await expect(found).toHaveCount(0);
  const { sites } = (await (await request.get(`/api/jobs/${jobId}`)).json()) as { sites: { name: string; stands: string | null }[] };
  expect(sites.find((s) => s.name === "Rope Walk")?.stands).toBe("thin pole");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(found).toHaveCount(1);
});

test("wind, wall and pole are typed and felt at once; a mean without its gust factor is no wind", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  await tab(page, "Mount and wall");
  const far = page.getByRole("region", { name: "Mount and wall at Rope Walk" });
  await expect(far.getByTestId("wind")).toContainText("N·m about the upper bracket");
  await far.getByLabel("A fixing holds, pull, N").fill("120");
  await expect(finding(page, "fixing")).toContainText("it holds less");
  await far.getByLabel("A fixing holds, pull, N").press("Enter");
  await saved(page);
  await tab(page, "Wind, van, crew");
  await page.getByRole("tabpanel").getByLabel("It is").selectOption("mean");
  await expect(finding(page, "wind-untold").first()).toContainText("gust factor");
  await page.getByLabel("Gust factor of the local code").fill("1.5");
  await expect(finding(page, "wind-untold")).toHaveCount(0);
  await page.getByLabel("Gust factor of the local code").press("Enter");
  await saved(page);
  await page.getByLabel("Saws and bits on the van, mm").fill("16 20 22 25");
  await page.getByLabel("Saws and bits on the van, mm").press("Tab");
  await expect(finding(page, "saw")).toHaveCount(0);
  await saved(page);
});

test("a stop is lifted only by somebody who does not do the work", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  await tab(page, "Before anyone climbs");
  const alone = page.getByRole("table", { name: "Risks at Rope Walk" }).locator('[data-risk="alone"]');
  await expect(alone).toContainText("stop");
  await alone.getByLabel(/^Who is competent/).fill("Ada");
  await alone.getByRole("checkbox").check();
  await expect(alone).toContainText("Ada does the work and cannot lift it");
  await alone.getByLabel(/^Who is competent/).fill("Carol");
  await expect(alone).toContainText("stop, lifted by Carol");
  await alone.getByLabel(/^Who is competent/).press("Enter");
  await saved(page);
  await page.getByRole("button", { name: "Begin the risk screen of Harbour Office" }).click();
  await expect(page.getByRole("table", { name: "Risks at Harbour Office" })).toBeVisible();
});

test("a row of one's own, the money, and the table without prices", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  await page.getByLabel("A row of your own").fill("tea for four");
  await page.getByRole("button", { name: "Add the row" }).click();
  await expect(line(page, "far", "tea for four")).toBeVisible();
  await saved(page);
  await tab(page, "Money");
  await expect(page.getByTestId("money")).toContainText("728.00 €");
  await expect(page.getByTestId("money")).toContainText(/in \d+ months|not paid back/);
  const file = page.waitForEvent("download");
  await page.getByRole("button", { name: "As CSV", exact: true }).click();
  const path = await (await file).path();
  const { readFileSync } = await import("node:fs");
  const text = readFileSync(path, "utf8");
  expect(text).toContain("site,where,item,quantity,unit,state,in_stock,why,cost,currency");
  expect(text).toContain("Rope Walk,tools,tea for four,1,pieces");
  await page.getByRole("button", { name: "Undo" }).click();
  await tab(page, "What to pick");
  await expect(line(page, "far", "tea for four")).toHaveCount(0);
});

test("labour by task, and a quote on paper of what was typed last, without margin", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  await tab(page, "Money");
  await page.getByLabel("Labour is").selectOption("tasks");
  await expect(page.getByTestId("labour")).toContainText("Office, Ada and Ben");
  await expect(page.getByTestId("labour")).toContainText("the tree people: of others, not counted here");
  await page.getByLabel("For", { exact: true }).fill("the harbour master");
  const quote = page.waitForEvent("download");
  await page.getByRole("button", { name: "Quote as PDF" }).click();
  const pdf = (await import("node:child_process")).execFileSync("pdftotext", ["-layout", await (await quote).path(), "-"], {
    encoding: "utf8",
  });
  expect(pdf).toContain("the harbour master");
  expect(pdf).toMatch(/To pay +\d+\.\d\d €/);
  expect(pdf).not.toContain("Margin");
  await page.getByLabel("Labour is").selectOption("hours");
  await saved(page);
});

test("two people at the same money: what each changed stands without a question; the same figure is asked about by its name", async ({
  page,
  request,
  browser,
}) => {
  const jobId = await open(page, request, "Rope Walk");
  const other = await (await browser.newContext()).newPage();
  // The second does not hear of the first's edits.
  await other.route(/\/events\?client=/, (route) => route.abort());
  await open(other, request, "Rope Walk");
  for (const p of [page, other]) await tab(p, "Money");
  const type = async (p: Page, label: string, text: string): Promise<void> => {
    await p.getByLabel(label).fill(text);
    await p.keyboard.press("Enter");
  };
  await type(page, "Labour, h", "16");
  await saved(page);
  await type(other, "An hour costs", "55");
  await saved(other);
  const moneyNow = async () =>
    ((await (await request.get(`/api/jobs/${jobId}/kit`)).json()) as { money: { labourHours: number; labourPerHour: number } }).money;
  expect(await moneyNow()).toMatchObject({ labourHours: 16, labourPerHour: 55 });
  await expect(other.getByLabel("Labour, h")).toHaveValue("16");
  await type(page, "Labour, h", "17");
  await saved(page);
  await type(other, "Labour, h", "18");
  const clash = other.getByRole("alert", { name: "Changed elsewhere" });
  await expect(clash.getByRole("row", { name: /labour hours/ })).toHaveText("money, labour hours1817");
  await clash.getByRole("button", { name: "Take theirs" }).click();
  await expect(other.getByLabel("Labour, h")).toHaveValue("17");
  await type(page, "Labour, h", "14");
  await type(page, "An hour costs", "52");
  await saved(page);
  await other.context().close();
});

test("the harbour's tide table is pasted, drawn over the days, and its slips named", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  await tab(page, "Days");
  const tide = page.getByTestId("tide");
  await expect(tide).toContainText("11 heights on 2026-12-02 to 2026-12-04, 0.7 to 3.9 m");
  await expect(page.getByTestId("days-strip")).toContainText("high 12:40");
  await tide.getByRole("textbox").fill("2026-12-03 06:10 1.1 12:22 4.5\nsome words at 9:99");
  await tide.getByRole("button", { name: "Take the table" }).click();
  await expect(tide.getByRole("status")).toContainText('2 heights are taken. Not read: line 2 "some words at 9:99".');
  await expect(page.getByTestId("days-strip")).toContainText("high 12:22");
  await saved(page);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByTestId("days-strip")).toContainText("high 12:40");
});

test("days: what stands against them, a task moved, a calendar that another reader reads; undo", async ({ page, request }) => {
  const jobId = await open(page, request, "Rope Walk");
  await tab(page, "Days");
  const clashes = page.getByRole("list", { name: "What stands against the days" });
  await expect(clashes).toContainText("trim waits for the owner of the trees.");
  await expect(clashes).toContainText("re-aim the berth: closed from 12:00 to 15:00, ship alongside at high water.");
  await expectAccessible(page);
  await page
    .getByTestId("days-strip")
    .getByRole("button", { name: /^re-aim the berth/ })
    .focus();
  await page.keyboard.press("Enter");
  const task = page.getByTestId("task");
  await task.getByLabel("From").fill("25:00");
  await expect(task.getByRole("alert")).toContainText("Write it as 09:30");
  await task.getByLabel("From").fill("08:30");
  await task.getByLabel("From").press("Enter");
  await expect(clashes).not.toContainText("re-aim the berth: closed");
  await saved(page);
  const text = await (await request.get(`/api/jobs/${jobId}/calendar`)).text();
  const { default: ICAL } = await import("ical.js");
  const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents("vevent").map((v) => new ICAL.Event(v));
  const berth = events.find((e) => e.summary === "re-aim the berth")!;
  // 08:30 on clocks an hour behind universal time.
  expect(berth.startDate.toJSDate().toISOString()).toBe("2026-12-04T09:30:00.000Z");
  expect(berth.location).toBe("Fuel Berth");
  await page.getByLabel(/^Clocks of/).selectOption("UTC");
  await expect.poll(async () => (await (await request.get(`/api/jobs/${jobId}/calendar`)).text()).includes("20261204T083000Z")).toBe(true);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByLabel(/^Clocks of/)).toHaveValue("Etc/GMT+1");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(clashes).toContainText("re-aim the berth: closed");
});

test("ticked on a phone, and there after a reload; a site without a wiring says so", async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, request, "Rope Walk");
  const cord = line(page, "far", "Kelp Cord, 2 m");
  await cord.getByRole("checkbox").click();
  await expect(cord).toHaveAttribute("data-state", "picked");
  await page.reload();
  await expect(line(page, "far", "Kelp Cord, 2 m")).toHaveAttribute("data-state", "picked");
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  await expectAccessible(page);
  const summary = await demoJob(request);
  await page.goto(`/jobs/${summary.job.id}/kit/${linkTo(summary, "Fuel Berth").linkId}`);
  await expect(page.getByTestId("not-wired").first()).toContainText("names nothing to bring yet");
});
