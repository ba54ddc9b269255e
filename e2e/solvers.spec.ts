import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import type { JobBundle, LinkBundleDto } from "../src/contract";
import { demoJob, expectAccessible, linkPath, linkTo, noPageScroll, openSection } from "./helpers";

test.describe.configure({ mode: "serial" });

const panel = (page: Page, name: string) => page.getByRole("tabpanel", { name });
const saved = async (page: Page): Promise<void> => {
  await expect(page.getByTestId("saved")).toContainText("all edits");
};
const linkOf = async (page: Page, linkId: string): Promise<LinkBundleDto> =>
  (await (await page.request.get(await linkPath(page.request, linkId))).json()) as LinkBundleDto;

test("pairs of heights: looked at as a ghost, taken with one press, dragged along and moved by keys, taken back", async ({
  page,
  request,
}) => {
  const link = await openSection(page, request, "Rope Walk");
  const before = (await linkOf(page, link.linkId)).link.design;
  await page.keyboard.press("5");
  const answers = page.getByRole("region", { name: "Heights that work" });
  const alone = answers.getByRole("button", { name: /^Rope Walk alone: Rope Walk \+/ });
  await expect(alone).toBeVisible();
  await expect(answers).toContainText("above what the structure carries");
  await alone.hover();
  await expect(page.getByTestId("ghost")).toContainText("to spare");
  await expectAccessible(page);
  await noPageScroll(page);
  await alone.click();
  await expect(page.getByTestId("path-state")).toContainText("the path is clear by");
  await expect(answers).toContainText("Both mounts stand high enough until 2031");
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("verdict")).toHaveText("Short");

  // Along the chart: to its upper right corner both ends are high.
  const chart = (await page.getByRole("group", { name: "Pairs of mount heights" }).boundingBox())!;
  const pair = (await page.getByTestId("pair").boundingBox())!;
  await page.mouse.move(pair.x + pair.width / 2, pair.y + pair.height / 2);
  await page.mouse.down();
  await page.mouse.move(chart.x + chart.width - 30, chart.y + 20, { steps: 6 });
  await expect(page.getByTestId("path-state")).toContainText("the path is clear by");
  // The point is under the hand: the axes stay as they were while it is held, whatever is worked out meanwhile.
  const held = (await page.getByTestId("pair").boundingBox())!;
  expect(Math.abs(held.x + held.width / 2 - (chart.x + chart.width - 30))).toBeLessThan(2);
  expect(Math.abs(held.y + held.height / 2 - (chart.y + 20))).toBeLessThan(2);
  await page.mouse.up();
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await page.getByTestId("pair").focus();
  const far = page.getByLabel("Rope Walk: mount height above ground, m");
  await page.keyboard.press("Shift+ArrowUp");
  await expect(far).toHaveValue(String(before.farMountAglM + 1));
  await page.keyboard.press("Control+z");
  await expect(far).toHaveValue(String(before.farMountAglM));
  // However fast the keys come, each counts: what stands beside the drawing may be drawn a little later.
  await page.getByTestId("pair").evaluate((point) => {
    for (let i = 0; i < 10; i++) point.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowUp", bubbles: true }));
  });
  await expect(far).toHaveValue(String(before.farMountAglM + 1));
  await saved(page);
  for (let i = 0; i < 10; i++) await page.keyboard.press("Control+z");
  await expect(far).toHaveValue(String(before.farMountAglM));
  await saved(page);
});

test("trees through the years by keys; the trim list meets the policy; one link's own policy is named and kept", async ({
  page,
  request,
}) => {
  await openSection(page, request, "Rope Walk");
  await page.keyboard.press("6");
  await expect(page.getByTestId("clear-until")).toHaveText("Not clear this year.");
  await page.keyboard.press(".");
  await page.keyboard.press(".");
  await expect(page.getByTestId("later-year")).toContainText("2028");
  await expect(page.getByRole("row", { name: /^2028 Short 3.0/ })).toBeVisible();
  await page.keyboard.press(",");
  await page.keyboard.press(",");
  const list = page.getByRole("region", { name: "Trim list" });
  await expect(list).toContainText("the owner's written consent");
  const cut = list.getByRole("button", { name: /^Poplar row: .* off, to/ });
  await cut.focus();
  await expect(page.getByTestId("ghost")).toContainText("to spare");
  await expectAccessible(page);
  await cut.press("Enter");
  await expect(page.getByTestId("verdict")).not.toHaveText("Short");
  await expect(page.getByTestId("clear-until")).toContainText("Met until 2031");
  await expect(list).toContainText("No tree stands in the zone by 2031");
  await list.getByRole("button", { name: "Plan no cutting at all" }).press("Enter");
  await expect(page.getByTestId("verdict")).toHaveText("Short");

  await page.getByTestId("policy").press("Enter");
  const policy = page.getByRole("dialog", { name: "Policy of this link" });
  await expect(policy.getByRole("button", { name: /^whole F1 Short 2\.7/ })).toBeVisible();
  await expectAccessible(page);
  await policy.getByRole("button", { name: /^through/ }).press("Enter");
  await expect(page.getByTestId("policy")).toContainText("trees through, in leaf, this link's own");
  await expect(page.getByTestId("verdict")).toHaveText("Clear");
  await page.keyboard.press("Escape");
  await saved(page);
  await page.reload();
  await expect(page.getByTestId("policy")).toContainText("this link's own");
  await page.getByTestId("policy").click();
  await page.getByRole("dialog", { name: "Policy of this link" }).getByRole("button", { name: "As the job has it" }).click();
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("policy")).not.toContainText("own");
  await page.keyboard.press("Escape");
  await saved(page);
});

test("the water's ray against tide and heights; a height that avoids a null is set and taken back", async ({ page, request }) => {
  await openSection(page, request, "Pilot Station");
  await page.getByTestId("findings").getByRole("button", { name: "See the heights that avoid a null" }).click();
  const heights = page.getByRole("region", { name: "Heights without a null" });
  // About 9, 15 and 21 m AMSL on 4 m of ground.
  for (const about of [
    /Set Pilot Station to (4\.[5-9]|5\.[0-5])\sm/,
    /Set Pilot Station to 1[01]\.\d\sm/,
    /Set Pilot Station to 1[67]\.\d\sm/,
  ])
    await expect(heights.getByRole("button", { name: about })).toBeVisible();
  await expect(page.getByRole("img", { name: "Over the tide, mounts as they are" })).toBeVisible();
  await expectAccessible(page);
  const mount = page.getByLabel("Pilot Station: mount height above ground, m");
  const was = await mount.inputValue();
  await heights.getByRole("button", { name: /Set Pilot Station to (4\.[5-9]|5\.[0-5])\sm/ }).click();
  await expect(mount).toHaveValue(/^(4\.|5)/);
  await page.keyboard.press("Control+z");
  await expect(mount).toHaveValue(was);
  await saved(page);
  await openSection(page, request, "Rope Walk");
  await page.keyboard.press("7");
  await expect(panel(page, "water")).toContainText("throws a second ray");
});

test("a relay where no height is sane: sites first, then the ridge, with both sections; put there and taken back as one step", async ({
  page,
  request,
}) => {
  const summary = await demoJob(request);
  const links = async (): Promise<JobBundle> => (await (await page.request.get(`/api/jobs/${summary.job.id}`)).json()) as JobBundle;
  const before = await links();
  await openSection(page, request, "Tarrowfell Observatory");
  await page.keyboard.press("5");
  await expect(panel(page, "heights")).toContainText("No height is an answer");
  await page.getByTestId("findings").getByRole("button", { name: "Look for a relay or another spot" }).click();

  // Stopped: nothing is left of it, and it can be asked again.
  await page.route("**/relays", () => undefined);
  await page.getByRole("button", { name: "Look for a relay", exact: true }).click();
  await expect(page.getByText("Cutting both sections of each spot")).toBeVisible();
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByTestId("spots")).toContainText("A spot nearby may see");
  await page.unroute("**/relays");

  await page.getByRole("button", { name: "Look for a relay", exact: true }).click();
  await expect(page.getByTestId("spots")).toContainText("No site of the job sees both ends.", { timeout: 30_000 });
  const first = page.getByTestId("relay").first();
  await expect(first).toContainText("1. On the Long Ridge");
  await expect(first.getByRole("img", { name: "Section to Harbour Office" })).toBeVisible();
  await expect(first.getByRole("img", { name: "Section to Tarrowfell Observatory" })).toBeVisible();
  await expectAccessible(page);
  await first.getByRole("button", { name: "Put a relay here" }).dblclick();
  await expect(page.getByText("The relay stands in the job with a link to each end.")).toBeVisible();
  const after = await links();
  expect([after.sites.length - before.sites.length, after.links.length - before.links.length]).toEqual([1, 2]);
  await page.goto(`/jobs/${summary.job.id}/ground`);
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await links()).sites.length).toBe(before.sites.length);
  expect((await links()).links.length).toBe(before.links.length);
});

test("an end moved along its roof's edge and to a mounting point; a site without a drawn building says so", async ({ page, request }) => {
  const link = await openSection(page, request, "Rope Walk");
  await page.keyboard.press("8");
  const spots = page.getByTestId("spots");
  await page.getByRole("button", { name: "Look along it" }).click();
  await expect(spots.getByRole("button", { name: /^North gable/ })).toBeVisible();
  await page.getByRole("combobox", { name: "Along" }).selectOption("roof");
  await page.getByRole("button", { name: "Look along it" }).click();
  await expect(spots.getByRole("button", { name: /^Roof edge/ }).first()).toBeVisible();
  await expect(spots.getByRole("img", { name: /seen from above/ })).toBeVisible();
  const was = (await linkOf(page, link.linkId)).link.design;
  await spots
    .getByRole("button", { name: /^Roof edge/ })
    .first()
    .click();
  await expect(page.getByText(/Rope Walk now stands at Roof edge/)).toBeVisible();
  await expect.poll(async () => (await linkOf(page, link.linkId)).link.design.farMountId).not.toBe(was.farMountId);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await linkOf(page, link.linkId)).link.design.farMountId).toBe(was.farMountId);

  const summary = await demoJob(request);
  const place = async (name: string, latDeg: number): Promise<string> => {
    const made = await page.request.post(`/api/jobs/${summary.job.id}/sites`, { data: { name, latDeg, lonDeg: -19.1, mountAglM: 5 } });
    return ((await made.json()) as { id: string }).id;
  };
  const [a, b] = [await place("Bare pole", 47.4), await place("Other pole", 47.402)];
  const joined = (await (
    await page.request.post(`/api/jobs/${summary.job.id}/links`, { data: { nearSiteId: a, farSiteId: b } })
  ).json()) as {
    id: string;
    version: number;
  };
  await page.goto(`/jobs/${summary.job.id}/section/${joined.id}`);
  await page.getByRole("tab", { name: "elsewhere" }).click();
  await page.getByRole("combobox", { name: "Along" }).selectOption("roof");
  await page.getByRole("button", { name: "Look along it" }).click();
  await expect(page.getByTestId("spots").getByRole("alert")).toContainText("No building is drawn under Other pole");
  await page.request.patch(`/api/jobs/${summary.job.id}/links/${joined.id}`, { data: { version: joined.version, deleted: true } });
});

test("a design is kept, held against a changed one, taken and forgotten", async ({ page, request }) => {
  await openSection(page, request, "Rope Walk");
  await page.getByRole("tab", { name: "compare" }).click();
  await page.getByRole("button", { name: "Keep this design to compare" }).dblclick();
  await expect(page.getByRole("button", { name: "Against B" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: /^Against/ })).toHaveCount(1);
  const mount = page.getByLabel("Rope Walk: mount height above ground, m");
  const was = await mount.inputValue();
  await mount.fill("15");
  await page.getByTestId("mast-far").focus();
  await expect(page.getByTestId("ghost")).toContainText("B");
  const compare = page.getByRole("region", { name: "Compare" });
  const differing = compare.locator('tr[data-differs="true"]');
  await expect(differing.filter({ hasText: "Far mount" })).toContainText("15.0\u00a0m");
  await expect(differing.filter({ hasText: "Near mount" })).toHaveCount(0);
  await expect(differing.filter({ hasText: "Clearance" })).toContainText("Short");
  await expectAccessible(page);
  await compare.getByRole("button", { name: "Plan with B instead" }).click();
  await expect(mount).toHaveValue(was);
  await saved(page);
  await compare.getByRole("button", { name: "Forget B" }).click();
  await expect(compare).toContainText("Nothing is kept yet");
  // Kept in the same breath as it is changed, before the change is saved.
  await mount.fill("9");
  await page.getByRole("button", { name: "Keep this design to compare" }).click();
  await expect(compare.getByRole("row", { name: /Far mount/ })).toContainText("9.0\u00a0m9.0\u00a0m");
  await compare.getByRole("button", { name: "Forget B" }).click();
  await mount.fill(was);
  await page.getByTestId("mast-far").focus();
  await saved(page);
});

test("read by keys, looked at closer, in true shape, as a table, as files and on paper", async ({ page, request }, info) => {
  const link = await openSection(page, request, "Rope Walk");
  const drawing = page.getByTestId("section");
  await drawing.focus();
  for (let i = 0; i < 6 && !(await page.getByTestId("reading").textContent())!.includes("Poplar row"); i++)
    await page.keyboard.press("PageDown");
  await expect(page.getByTestId("reading")).toContainText(
    /290\sm: ground 5\.\d\sm, Poplar row to 14\.\d\sm, ray 13\.\d\sm; 0\.\d\sm inside, −0\.\d\d of F1/,
  );
  // The widest block: beside a narrow one its outline's own width would count.
  const blocks = page.locator('svg[data-drawing="section"] rect:has(title)');
  const width = (): Promise<number> => blocks.evaluateAll((all) => Math.max(...all.map((b) => b.getBoundingClientRect().width)));
  const small = await width();
  await page.keyboard.press("+");
  await page.keyboard.press("+");
  await expect.poll(width).toBeGreaterThan(small * 2);
  await page.keyboard.press("0");
  await expect.poll(width).toBeCloseTo(small, 1);
  const box = (await drawing.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height / 2);
  await page.mouse.wheel(0, -500);
  await expect.poll(width).toBeGreaterThan(small * 1.5);
  await page.getByRole("button", { name: "Show the whole path" }).click();
  await expect.poll(width).toBeCloseTo(small, 1);
  await page.keyboard.press("t");
  await expect(page.getByRole("button", { name: "heights 1:1" })).toBeVisible();
  await page.keyboard.press("t");

  await page.keyboard.press("9");
  await expect(page.getByTestId("in-words")).toContainText(/Poplar row comes nearest, 292\sm from Harbour Office/);
  await expect(page.getByRole("region", { name: "Table of the path" }).getByRole("row", { name: /292\sm.*Poplar row/ })).toBeVisible();
  await expectAccessible(page);
  const take = async (press: () => Promise<void>): Promise<Buffer> => {
    const [file] = await Promise.all([page.waitForEvent("download"), press()]);
    return readFileSync(await file.path());
  };
  const csv = (await take(() => page.getByRole("button", { name: "All points as CSV" }).click())).toString();
  expect(csv.split("\n").length).toBeGreaterThan(200);
  expect(csv).toContain('"Poplar row"');
  const picture = (item: string) => async (): Promise<void> => {
    await page.getByRole("button", { name: "Picture" }).click();
    await page.getByRole("menuitem", { name: item }).click();
  };
  const svg = (await take(picture("Save as SVG"))).toString();
  expect(svg.startsWith("<svg xmlns")).toBe(true);
  expect(svg.includes("Harbour Office to Rope Walk: Short")).toBe(true);
  // It stands alone: nothing of the page's styles is asked for.
  expect([svg.includes("var(--"), svg.includes("class="), svg.includes("currentColor")]).toEqual([false, false, false]);
  // What the page says stands in it too: the mounts, both levels, every finding, and the type itself.
  const parts = [
    />\d+\.\d\sm</,
    /Leaves, Poplar row/,
    /Rope Walk to Harbour Office:/,
    /Short: Poplar row stands/,
    /To know: Radar shares this channel/,
    /@font-face/,
  ];
  expect(parts.filter((words) => !words.test(svg))).toEqual([]);
  const png = await take(picture("Save as PNG"));
  expect(png.subarray(1, 4).toString()).toBe("PNG");
  expect(png.readUInt32BE(16)).toBeGreaterThan(1500);
  const pdf = await page.pdf({ path: info.outputPath("section.pdf"), preferCSSPageSize: true });
  // A sheet drawn for paper: the drawing, then what is found with the table, which may run on.
  expect(pdf.toString("latin1").match(/\/Type\s*\/Page\b/g)!.length).toBeGreaterThanOrEqual(2);
  await expect(page.locator(".paper-sheet")).toHaveCount(0);
  await page.evaluate(() => dispatchEvent(new Event("beforeprint")));
  await page.emulateMedia({ media: "print" });
  const paper = page.locator(".paper-sheet");
  await expect(page.getByRole("navigation", { name: "Sheets of the job" })).toBeHidden();
  await expect(paper).toContainText("Poplar row stands");
  await expect(paper).toContainText(/Mends: .*Raise/);
  await expect(paper.locator('svg[data-drawing="level"]')).toHaveCount(2);
  // The drawing has a page of its own, and nothing of it hangs over.
  const drawn = (await paper.locator(".paper-page").first().boundingBox())!;
  expect(drawn.height).toBeLessThanOrEqual(736);
  await page.evaluate(() => dispatchEvent(new Event("afterprint")));
  await page.emulateMedia({ media: "screen" });
  await expect(paper).toHaveCount(0);
  expect(linkTo(await demoJob(request), "Rope Walk").linkId).toBe(link.linkId);
});

test("a yard link of 60 m: the same page in metres, without a kilometre in it", async ({ page, request }) => {
  const made = await request.post("/api/jobs", {
    data: { name: "Yard", visitOn: "2026-12-03", centreLatDeg: 46, centreLonDeg: -22, ruleDomain: "cautious", rainRate001MmH: 28 },
  });
  const jobId = ((await made.json()) as { id: string }).id;
  const site = async (name: string, lonDeg: number): Promise<string> =>
    (
      (await (await request.post(`/api/jobs/${jobId}/sites`, { data: { name, latDeg: 46, lonDeg, mountAglM: 4 } })).json()) as {
        id: string;
      }
    ).id;
  const [nearSiteId, farSiteId] = [await site("Workshop", -22), await site("Gatehouse", -21.999224)];
  const link = (await (await request.post(`/api/jobs/${jobId}/links`, { data: { nearSiteId, farSiteId } })).json()) as {
    id: string;
    version: number;
  };
  await request.patch(`/api/jobs/${jobId}/links/${link.id}`, {
    data: { version: link.version, groundTold: { kind: "level", sigmaM: 0.2, points: [{ distanceM: 0, heightAmslM: 12 }] } },
  });
  await page.goto(`/jobs/${jobId}/section/${link.id}`);
  // The path is clear; whether the link is, hangs on what it must carry, which nobody said yet.
  await expect(page.getByTestId("path-state")).toContainText("the path is clear by");
  await expect(page.getByTestId("verdict")).toHaveText("Unknown");
  await expect(page.getByTestId("headline-trouble")).toHaveText("no required rate");
  await page.getByRole("tab", { name: "gear" }).click();
  for (const need of ["Need to far", "Need to near"]) await page.getByLabel(need).first().fill("20");
  await page.getByTestId("mast-far").focus();
  await expect(page.getByTestId("verdict")).toHaveText("Clear");
  await saved(page);
  await expect(page.locator("main")).toContainText(/60\.\d\sm, bearing/);
  await expect(page.locator("main")).not.toContainText(/\skm\b/);
  for (const key of ["5", "6", "7", "8", "9"]) {
    await page.keyboard.press(key);
    await expect(page.locator("[role=tabpanel][data-state=active]").last()).not.toBeEmpty();
  }
  await page.keyboard.press("5");
  await expect(panel(page, "heights")).toContainText("Both mounts stand high enough until 2031");
  await noPageScroll(page);
  await expectAccessible(page);
});
