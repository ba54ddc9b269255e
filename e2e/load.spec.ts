import { type APIRequestContext, expect, type Page, test } from "@playwright/test";
import type { BriefDto, LinkVerdict, NetworkDto } from "../src/contract";
import { demoJob, expectAccessible, linkTo, newJob, noPageScroll } from "./helpers";

test.describe.configure({ mode: "serial" });

const jobIdOf = async (request: APIRequestContext): Promise<string> => (await demoJob(request)).job.id;
const networkOf = async (request: APIRequestContext): Promise<NetworkDto> =>
  (await (await request.get(`/api/jobs/${await jobIdOf(request)}/network`)).json()) as NetworkDto;
const open = async (page: Page, request: APIRequestContext): Promise<string> => {
  const jobId = await jobIdOf(request);
  await page.goto(`/jobs/${jobId}/load`);
  await expect(page.getByTestId("narrowest-figure")).toBeVisible();
  return jobId;
};
const saved = async (page: Page): Promise<void> => {
  await expect(page.getByTestId("saved")).toContainText("all edits");
};
const row = (page: Page, name: RegExp | string) => page.getByTestId("places").getByRole("row", { name });

test("the narrowest place of the job in one look, and its links are not clear by their own section either", async ({ page, request }) => {
  await open(page, request);
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toHaveText(/Water Tower: \d+ Mbps asked, \d+ fit$/);
  await expect(page.getByTestId("narrowest-figure")).toHaveText(/^\d+ Mbps short$/);
  const findings = page.getByRole("region", { name: "Findings" });
  await expect(findings).toContainText("Tarrowfell Observatory");
  await expect(findings).toContainText("no link that holds leads there");
  await expect(findings).toContainText(/A loop: link \d+, Harbour Office to Old Exchange/);
  await noPageScroll(page);
  await expectAccessible(page);

  // The link by itself is clear; the air that it shares is not enough for all.
  const ferry = linkTo(await demoJob(request), "Ferry Ramp");
  expect(ferry).toMatchObject({
    clearanceVerdict: "clear",
    serviceVerdict: "clear",
    verdict: "short",
    trouble: "air-blinded",
    chain: { code: "sector-over" },
  });
  await page.goto(`/jobs/${await jobIdOf(request)}/section/${ferry.linkId}`);
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toHaveText("blinded by a radio on its mast");
  await expect(page.locator('[data-code="sector-over"]')).toContainText("ask together for more");
  await page.getByRole("link", { name: "What it is, and what mends it" }).click();
  await expect(page.getByTestId("narrowest-figure")).toBeVisible();
});

test("four ways, four narrowest places: a sector, an air, a slow switch, the feed", async ({ page, request }) => {
  await open(page, request);
  const narrowestBy = async (name: RegExp | string): Promise<string> => {
    await row(page, name).getByRole("button").click();
    await expect(row(page, name).getByRole("button")).toHaveAttribute("aria-pressed", "true");
    return (
      (await page
        .locator("svg")
        .getByText(/^Narrowest: /)
        .textContent()) ?? ""
    );
  };
  expect(await narrowestBy(/Water Tower, shared|south-west/)).toMatch(/Water Tower/);
  expect(await narrowestBy("Pilot Station")).toContain("air to Pilot Station");
  expect(await narrowestBy("Old Exchange")).toContain("switch at Old Exchange");
  expect(await narrowestBy("Ice House")).toContain("fibre");
});

test("what if more were asked: dragged at the fill, by keys, and back to what it is; nothing of it is saved", async ({ page, request }) => {
  await open(page, request);
  const before = await networkOf(request);
  await row(page, "Pilot Station").getByRole("button").click();
  await expect(page.locator("svg").getByText("Narrowest: air to Pilot Station")).toBeVisible();
  const was = await page.getByTestId("narrowest-figure").textContent();
  const handle = page.getByTestId("what-if");
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y - 80, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId("narrowest-figure")).toHaveText(/short$/);
  await expect(page.getByTestId("times")).toContainText(/as if \d+ % were asked/);
  await page.getByRole("button", { name: "As it is" }).click();
  await expect(page.getByTestId("narrowest-figure")).toHaveText(was!);
  await handle.focus();
  await page.keyboard.press("Shift+ArrowUp");
  await expect(page.getByTestId("times")).toContainText("as if 125 % were asked");
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("times")).toHaveCount(0);
  expect((await networkOf(request)).version).toBe(before.version);
});

test("the moment and the school are looked at by keys, and said not to be the job's", async ({ page, request }) => {
  await open(page, request);
  const figure = page.getByTestId("narrowest-figure");
  const worst = await figure.textContent();
  await page.keyboard.press("m");
  await expect(page.getByRole("button", { name: "Usual moment" })).toBeVisible();
  await expect(figure).not.toHaveText(worst!);
  await page.keyboard.press("m");
  await expect(figure).toHaveText(worst!);
  await page.keyboard.press("s");
  await expect(page.getByRole("button", { name: "all of it" })).toBeVisible();
  await expect(page.getByText("looked at, not the job's")).toBeVisible();
  await expect(figure).not.toHaveText(worst!);
});

test("a mend is drawn before it is planned, planned in one step, and taken back in one", async ({ page, request }) => {
  const jobId = await open(page, request);
  const figure = page.getByTestId("narrowest-figure");
  const was = await figure.textContent();
  await page.getByRole("button", { name: "Record at each far end" }).click();
  await expect(page.getByTestId("tried")).toContainText("Drawn as if: record at each far end");
  await expect(figure).not.toHaveText(was!);
  expect((await networkOf(request)).recorder).toBe("brief");
  await page.getByRole("button", { name: "Leave it" }).click();
  await expect(figure).toHaveText(was!);
  await page.getByRole("button", { name: "Record at each far end" }).click();
  await page.getByRole("button", { name: "Plan it", exact: true }).click();
  await saved(page);
  await expect.poll(async () => (await networkOf(request)).recorder).toBe("each");
  await expect(figure).not.toHaveText(was!);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await networkOf(request)).recorder).toBe("brief");
  await expect(figure).toHaveText(was!);

  // Of the cameras it is the brief that changes.
  await page.getByRole("button", { name: "Cameras to H.265" }).click();
  await page.getByRole("button", { name: "Plan it", exact: true }).click();
  const codecs = async (): Promise<string[]> =>
    ((await (await request.get(`/api/jobs/${jobId}/brief`)).json()) as BriefDto).devices
      .filter((d) => d.kind === "camera")
      .map((d) => d.codec);
  await expect.poll(async () => new Set(await codecs())).toEqual(new Set(["h265"]));
  await expect(figure).not.toHaveText(was!);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => new Set(await codecs())).toEqual(new Set(["h264"]));
});

test("what is taken is typed in place: a slow port, a store, a bound; a slip says why and changes nothing", async ({ page, request }) => {
  await open(page, request);
  await row(page, "Rope Walk").getByRole("button").click();
  const port = page.getByLabel("Switch at Rope Walk, Mbps");
  await port.fill("-3");
  await expect(page.getByText("Must be 1 to 400000 Mbps.")).toBeVisible();
  await port.fill("25");
  await port.press("Enter");
  await saved(page);
  await expect(page.locator("svg").getByText(/^Narrowest: switch at Rope Walk/)).toBeVisible();
  await expect(page.getByTestId("narrowest-figure")).toHaveText(/short$/);
  await expect.poll(async () => Object.values((await networkOf(request)).ports).some((p) => p.switchMbps === 25)).toBe(true);
  // Behind a port that is over, its link is not clear.
  const jobId = await jobIdOf(request);
  const rope = async (): Promise<LinkVerdict> =>
    ((await (await request.get(`/api/jobs/${jobId}/verdicts`)).json()) as LinkVerdict[]).find((l) => l.farName === "Rope Walk")!;
  await expect.poll(async () => (await rope()).chain?.code).toBe("port-over");
  await page.getByLabel("Its store, TB").fill("4");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^4\.0 TB last \d/)).toBeVisible();
  await page.getByLabel("Control, delay, ms").fill("2");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("delay")).toContainText("Not for control");
  await saved(page);
  for (let i = 0; i < 3; i++) await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await rope()).chain).toBeNull();
});

test("an end led over another link by hand, and a way that leads nowhere is named and found again", async ({ page, request }) => {
  const jobId = await open(page, request);
  await row(page, "Old Exchange").getByRole("button").click();
  await expect(page.locator("svg").getByText(/^Narrowest: switch at Old Exchange/)).toBeVisible();
  const way = page.getByLabel("The way to Old Exchange");
  await way.selectOption({ label: "link 14, Harbour Office to Old Exchange, behind the glass" });
  await expect(page.locator("svg").getByText(/^Narrowest: air to Old Exchange/)).toBeVisible();
  await saved(page);
  const network = await networkOf(request);
  const exchange = Object.keys(network.uplinks)[0]!;
  const gone = "00000000-0000-4000-8000-000000000000";
  await request.patch(`/api/jobs/${jobId}/network`, { data: { version: network.version, uplinks: { [exchange]: gone } } });
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("The way to Old Exchange was set by hand and leads nowhere");
  await page.getByRole("button", { name: "Find its way again" }).click();
  await expect.poll(async () => Object.keys((await networkOf(request)).uplinks)).toEqual([]);
  await saved(page);
});

test("two people at once: what the other typed is there without a reload, and a clash is asked about", async ({
  page,
  request,
  browser,
}) => {
  const jobId = await open(page, request);
  const other = await (await browser.newContext()).newPage();
  await other.goto(`/jobs/${jobId}/load`);
  await expect(other.getByTestId("narrowest-figure")).toBeVisible();
  // At an end whose way carries more than such a port.
  await other.getByTestId("places").getByRole("row", { name: "Ice House" }).getByRole("button").click();
  await page.getByLabel("The tester's port, Mbps").fill("100");
  await page.keyboard.press("Enter");
  await saved(page);
  await expect(other.getByLabel("The tester's port, Mbps")).toHaveValue("100");
  await expect(other.getByTestId("tests")).toContainText("a floor and no more");
  await other.context().close();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await networkOf(request)).testerMbps).toBe(1000);
});

test("an empty job asks what feeds it and what hangs on it; on a phone the sheet is one column", async ({ page, request }) => {
  const made = { id: await newJob(request, "Load on nothing", 45, -24) };
  await page.goto(`/jobs/${made.id}/load`);
  await expect(page.getByTestId("empty")).toContainText("What feeds it, what hangs on it?");
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, request);
  await expect(page.getByTestId("places")).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBe(0);
  await expectAccessible(page);
});
