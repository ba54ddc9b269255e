import { expect, test } from "@playwright/test";
import { isProblem, type LinkDto, planOf, profileFromDto } from "../src/contract";
import { evaluatePrepared, pathStateOf, preparePath, widthSweep } from "../src/core/link";
import { demoJob, expectAccessible, hardwareOf, linkPath, noPageScroll, openSection, profileOf } from "./helpers";

test.describe.configure({ mode: "serial" });

test("rate, year and doubt under the section: the core's figures, by key and by pointer, accessible", async ({ page, request }) => {
  const said = await openSection(page, request, "Pilot Station");
  const summary = await demoJob(request);
  const link = (await (await request.get(await linkPath(request, said.linkId))).json()) as { link: LinkDto; near: never; far: never };
  const plan = planOf(summary.job, link.near, link.far, link.link.design, await hardwareOf(request), link.link.groundTold);
  if (isProblem(plan)) throw new Error(plan.id);
  const path = preparePath(plan, profileFromDto(await profileOf(request, said.linkId)));
  const toFar = evaluatePrepared(plan, path).service.toFar!;

  // The tide's second ray makes a link over a clear path tight: the largest word is the worst, the path's own state the smaller line.
  await expect(page.getByTestId("verdict")).toHaveText("Tight");
  await expect(page.getByTestId("path-state")).toContainText("the path is clear by");
  await expect(page.getByTestId("link-verdict")).toHaveText("Tight");
  await expect(page.getByTestId("findings")).toContainText("second ray");

  await page.getByText("What the figures rest on").click();
  await expect(page.getByTestId("findings")).toContainText("A second ray off the water at");
  await expect(page.getByTestId("findings")).toContainText("No interference is counted");

  await page.keyboard.press("2");
  await expect(page.getByRole("tab", { name: "rate" })).toHaveAttribute("data-state", "active");
  const panel = page.getByRole("tabpanel", { name: "rate" });
  await expect(panel).toContainText(`TCP carries ${toFar.airtime!.tcpMbps.toFixed(0)}\u00a0Mbps`);
  for (const w of widthSweep(plan, pathStateOf(plan, path))) {
    await expect(panel.getByRole("row", { name: new RegExp(`^${w.widthMhz} MHz`) })).toContainText(w.usableMbps.toFixed(0));
  }
  await expectAccessible(page);
  const bar = page.getByRole("toolbar", { name: "Over the drawing" });
  await panel.getByRole("button", { name: "20 MHz" }).click();
  await expect(bar).toContainText("20 MHz");
  await page.keyboard.press("Control+z");
  await expect(bar).toContainText("40 MHz");

  await page.getByRole("tab", { name: "year" }).click();
  await expect(page.getByRole("tabpanel", { name: "year" })).toContainText(`${toFar.staircase!.at9999Mbps.toFixed(0)}\u00a0Mbps`);
  await expectAccessible(page);

  await page.getByRole("tab", { name: "doubt" }).click();
  const doubt = page.getByRole("tabpanel", { name: "doubt" });
  await expect(doubt).toContainText("500 draws of all inputs");
  await expect(doubt.getByRole("row").nth(1)).toContainText("reflection");
  await expectAccessible(page);
  await noPageScroll(page);

  // A column of the level line opens its formula and source.
  await page.keyboard.press("1");
  await page.getByRole("button", { name: /of air$/ }).focus();
  await expect(page.locator("main")).toContainText("20 log10(4 pi d / lambda). P.525 (3).");
});

test("the basis of the job: a policy changed is seen at once, kept, undone; a wrong figure is named", async ({ page, request }) => {
  await openSection(page, request, "Rope Walk");
  const missed = page.getByTestId("findings");
  await expect(missed).toContainText("1.8\u00a0m into the zone");
  await page.getByTestId("basis").click();
  const dialog = page.getByRole("dialog", { name: "Basis of the job" });
  await expectAccessible(page);
  await dialog.getByLabel("k, median").fill("0");
  await expect(dialog.getByText("k must be 0.3 or above")).toBeVisible();
  await dialog.getByLabel("k, median").fill("1.3333");
  await dialog.getByLabel("Clearance").selectOption("whole");
  await expect(dialog.getByRole("button", { name: "Undo" })).toBeEnabled();
  await dialog.getByRole("button", { name: "Done" }).click();
  await expect(page.getByTestId("basis")).toContainText("whole F1");
  await expect(missed).not.toContainText("1.8\u00a0m into the zone");
  await page.reload();
  await expect(page.getByTestId("basis")).toContainText("whole F1");
  await page.getByTestId("basis").click();
  // Walking through a rounded figure is no edit; two edits are undone one after the other.
  const { job: untouched } = await demoJob(request);
  await dialog.getByLabel("k, median").focus();
  await page.keyboard.press("Tab");
  await dialog.getByLabel("Tide range, m").fill("2.5");
  await dialog.getByLabel("Tide range, m").press("Enter");
  await page.keyboard.press("Tab");
  await dialog.getByLabel("Trees").selectOption("trim");
  await expect(page.getByTestId("basis")).toContainText("trees trim");
  await dialog.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByTestId("basis")).toContainText("trees strict");
  await dialog.getByRole("button", { name: "Undo" }).click();
  await expect(dialog.getByLabel("Tide range, m")).toHaveValue("1.5");
  expect((await demoJob(request)).job).toMatchObject({ kFactor: untouched.kFactor, version: untouched.version + 4 });
  await dialog.getByLabel("Clearance").selectOption("two-condition");
  await expect(page.getByTestId("basis")).toContainText("two conditions");
  await dialog.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByTestId("basis")).toContainText("whole F1");
  await dialog.getByLabel("Clearance").selectOption("sixty");
  await expect(page.getByTestId("basis")).toContainText("60 % of F1");
  await page.keyboard.press("Escape");
  await expect(missed).toContainText("1.8\u00a0m into the zone");
});

test("two people on one basis: the second sees both sides and loses nothing", async ({ page, request }) => {
  // News of the first does not come through: the second edits what was read before.
  await page.route(/\/events\?client=/, (route) => route.abort());
  await openSection(page, request, "Rope Walk");
  await page.getByTestId("basis").click();
  const dialog = page.getByRole("dialog", { name: "Basis of the job" });
  const { job } = await demoJob(request);
  const origin = { origin: new URL(page.url()).origin };
  const elsewhere = await request.patch(`/api/jobs/${job.id}`, {
    data: { version: job.version, marginDb: 12, horizonYears: 9 },
    headers: origin,
  });
  expect(elsewhere.ok()).toBe(true);
  await dialog.getByLabel("Years it must last").fill("7");
  await dialog.getByLabel("Years it must last").press("Enter");
  const clash = dialog.getByRole("alert", { name: "Changed elsewhere" });
  await expect(clash).toContainText("Someone else changed this basis of the job");
  await expect(clash.getByRole("row", { name: /horizon/ })).toHaveText("horizon7 years9 years");
  await expect(dialog.getByLabel("Years it must last")).toHaveValue("7");
  await expectAccessible(page);
  await clash.getByRole("button", { name: "Keep mine" }).click();
  await expect(clash).toHaveCount(0);
  await expect(dialog.getByRole("button", { name: "Undo" })).toBeEnabled();
  await dialog.getByRole("button", { name: "Undo" }).click();
  await expect(dialog.getByLabel("Years it must last")).toHaveValue("9");
  // What only the other changed stands; so does what only this one changes now.
  await expect(dialog.getByLabel("Margin a modulation must keep, dB")).toHaveValue("12");
  await dialog.getByLabel("Years it must last").fill("5");
  await dialog.getByLabel("Years it must last").press("Enter");
  await dialog.getByLabel("Margin a modulation must keep, dB").fill("10");
  await dialog.getByLabel("Margin a modulation must keep, dB").press("Enter");
  await expect(dialog.getByRole("alert")).toHaveCount(0);
  await expect(async () => expect((await demoJob(request)).job).toMatchObject({ marginDb: 10, horizonYears: 5 })).toPass();
});

test("a wall before the unit, and a sector that looks over the near remote", async ({ page, request }) => {
  await openSection(page, request, "Weighbridge");
  await expect(page.getByTestId("findings")).toContainText("points past the other end");
  await openSection(page, request, "Old Exchange", "behind the glass");
  await expect(page.locator("main")).toContainText("Wall, coated glass");
  await page.getByRole("tab", { name: "gear" }).click();
  await page.getByText("More of this end, 1 set").click();
  const wall = page.getByLabel("Wall or window before the unit").last();
  await wall.selectOption("unknown");
  await page.getByRole("tab", { name: "findings" }).click();
  await expect(page.getByTestId("findings")).toContainText("Nothing is known of the wall before Old Exchange");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("findings")).not.toContainText("Nothing is known of the wall");
  await expect(page.getByTestId("saved")).toContainText("all edits");
});
