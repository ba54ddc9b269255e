import { expect, test } from "@playwright/test";
import { isProblem, type LinkDto, planOf, profileFromDto } from "../src/contract";
import { evaluateLink } from "../src/core/link";
import { demoJob, expectAccessible, hardwareOf, linkPath, noPageScroll, openSection, profileOf } from "./helpers";

test.describe.configure({ mode: "serial" });

test("from the register to the verdict of Rope Walk, and the far mast dragged until the path is clear", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Register of jobs" })).toBeVisible();
  await page.getByRole("link", { name: "Merrow Harbour Trust" }).click();
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);
  await page.getByRole("button", { name: /^Rope Walk/ }).click();
  await page.getByRole("link", { name: "Open section" }).click();
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  const findings = page.getByTestId("findings");
  await expect(findings).toContainText("Poplar row stands 1.8 m into the zone");
  await expect(findings).toContainText("from Harbour Office");
  await noPageScroll(page);

  const mast = page.getByTestId("mast-far");
  const box = (await mast.boundingBox())!;
  const x = box.x + box.width / 2;
  const y = box.y + 14;
  await page.mouse.move(x, y);
  await page.mouse.down();
  const seen = new Set<string>();
  for (let up = 0; up <= 130; up += 5) {
    await page.mouse.move(x, y - up);
    seen.add((await page.getByTestId("verdict").textContent())!);
  }
  await page.mouse.up();
  // The path is clear; the structure is said not to carry so high a mount: that is the worst of it now.
  await expect(page.getByTestId("path-state")).toContainText("the path is clear by");
  await expect(page.getByTestId("verdict")).toHaveText("Tight");
  await expect(page.getByTestId("headline-trouble")).toHaveText("above what the structure carries");
  // On the way the word passes through what lies between.
  expect([...seen]).toEqual(expect.arrayContaining(["Short", "Tight"]));
  await expect(findings).toContainText("above what the structure is said to carry");
  await expect(page.getByTestId("saved")).toContainText("all edits");
  await expect(page.getByTestId("saved")).toContainText(":");

  // Saved: a fresh page shows it; undone in one step, by key.
  const height = await page.getByLabel("Rope Walk: mount height above ground, m").inputValue();
  await page.reload();
  await expect(page.getByTestId("verdict")).toHaveText("Tight");
  await expect(page.getByLabel("Rope Walk: mount height above ground, m")).toHaveValue(height);
  await page.getByLabel("Rope Walk: mount height above ground, m").fill("7.5");
  await page.getByTestId("mast-far").focus();
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("verdict")).not.toHaveText("Short");
  await page.keyboard.press("Control+Shift+z");
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("saved")).toContainText("all edits");
});

test("the verdict that is known stands there while the ground is sampled, and stays where it is when the section opens", async ({
  page,
  request,
}) => {
  const { job, links } = await demoJob(request);
  const link = links.find((l) => l.farName === "Tarrowfell Observatory")!;
  let sample = (): void => undefined;
  const sampled = new Promise<void>((resolve) => {
    sample = resolve;
  });
  let profiles = 0;
  await page.route("**/profile*", async (route) => {
    profiles++;
    await sampled;
    await route.continue();
  });
  await page.goto(`/jobs/${job.id}/section/${link.linkId}`);
  const word = page.getByTestId("verdict");
  await expect(word).toHaveText("Short");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Harbour Office to Tarrowfell Observatory");
  await expect(page.getByRole("status").filter({ hasText: "Sampling the ground" })).toBeVisible();
  const before = await word.boundingBox();
  // The keys of a sheet that is not open yet do no harm.
  await page.keyboard.press("r");
  await page.keyboard.press("Control+z");
  sample();
  await expect(page.getByTestId("section")).toBeVisible();
  await expect(word).toHaveText("Short");
  expect(await word.boundingBox()).toEqual(before);
  // Asked for ahead and read: once in all.
  expect(profiles).toBeLessThanOrEqual(2);
});

test("the numbers on the screen are the core's, to the digit shown", async ({ page, request }) => {
  const said = await openSection(page, request, "Rope Walk");
  const summary = await demoJob(request);
  const link = (await (await request.get(await linkPath(request, said.linkId))).json()) as { link: LinkDto; near: never; far: never };
  const plan = planOf(summary.job, link.near, link.far, link.link.design, await hardwareOf(request), link.link.groundTold);
  if (isProblem(plan)) throw new Error(plan.id);
  const result = evaluateLink(plan, profileFromDto(await profileOf(request, said.linkId)));
  const minus = (text: string) => text.replace("-", "\u2212");
  const toFar = result.service.toFar!;
  await expect(page.getByTestId("expected-level")).toHaveText(minus(`${toFar.levelDbm.toFixed(0)} dBm`));
  await expect(page.getByTestId("findings")).toContainText(`${result.clearance.worst!.missM.toFixed(1)}\u00a0m into the zone`);
  await expect(page.getByTestId("rate")).toContainText(`plan with ${toFar.plannedMbps.toFixed(0)}\u00a0Mbps`);
  const air = toFar.terms.find((t) => t.id === "free-space")!.valueDb + toFar.terms.find((t) => t.id === "gas")!.valueDb;
  await expect(page.locator("main")).toContainText(minus(`${air.toFixed(1)} dB`));
  await page.getByRole("button", { name: "Harbour Office to Rope Walk" }).click();
  await expect(page.getByTestId("expected-level")).toHaveText(minus(`${result.service.toNear!.levelDbm.toFixed(0)} dBm`));
});

test("Ice House at 5 GHz would be overloaded, Tarrowfell names the saddle", async ({ page, request }) => {
  await openSection(page, request, "Ice House", "first idea");
  await expect(page.getByTestId("findings")).toContainText("It would be overloaded");
  await expect(page.getByTestId("link-verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toContainText("receiver overloaded");
  await openSection(page, request, "Tarrowfell Observatory");
  await expect(page.getByTestId("findings")).toContainText("The ground at Corrie Saddle stands 103 m into the zone");
});

test("keyboard only: a mend is applied, the mast is nudged, gear is chosen, figures refuse letters", async ({ page, request }) => {
  await openSection(page, request, "Rope Walk");
  const far = page.getByLabel("Rope Walk: mount height above ground, m");
  const mast = page.getByTestId("mast-far");
  await mast.focus();
  const before = Number(await far.inputValue());
  await page.keyboard.press("ArrowUp");
  await expect(far).toHaveValue((before + 0.1).toFixed(1));
  await page.keyboard.press("Shift+ArrowDown");
  await expect(far).toHaveValue((before - 0.9).toFixed(1));
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(far).toHaveValue(before.toFixed(1));

  await far.focus();
  await page.keyboard.type("abc");
  await expect(page.getByText('"abc" is not a number.')).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(far).toHaveValue(before.toFixed(1));
  await page.keyboard.type("-3");
  await expect(page.getByRole("alert").filter({ hasText: "must be 0.0 to 300.0 m" })).toBeVisible();
  await page.keyboard.press("Escape");

  const mend = page.getByRole("button", { name: /Plan a trim of Poplar row/ });
  await mend.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("verdict")).toHaveText("Clear");
  await mast.focus();
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("verdict")).toHaveText("Short");

  await page.getByRole("tab", { name: "findings" }).focus();
  await page.keyboard.press("ArrowRight");
  await page.getByLabel("Width, MHz").selectOption("80");
  const bar = page.getByRole("toolbar", { name: "Over the drawing" });
  await expect(bar).toContainText("80 MHz");
  await page
    .getByLabel(/^Radio/)
    .first()
    .selectOption("eider-small");
  await expect(bar).toContainText("60.480\u00a0GHz, 2160 MHz");
  await page.getByLabel("Same radio at both ends").uncheck();
  await page
    .getByLabel(/^Radio/)
    .nth(1)
    .selectOption("razorbill-dish");
  await page.getByRole("tab", { name: "findings" }).click();
  await expect(page.getByTestId("findings")).toContainText("These radios do not talk to each other");
  await mast.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("Control+z");
  await expect(bar).toContainText("5.510\u00a0GHz, 40 MHz");
  await expect(page.getByTestId("saved")).toContainText("all edits");
});

test("feet and night: the same drawing in other units and colours, and axe finds nothing", async ({ page, request }) => {
  await openSection(page, request, "Rope Walk");
  await expectAccessible(page);
  await page.getByRole("button", { name: /Units: metric/ }).click();
  await expect(page.getByTestId("findings")).toContainText("6.0 ft into the zone");
  await page.emulateMedia({ colorScheme: "dark" });
  await expectAccessible(page);
  await page.getByRole("tab", { name: "gear" }).click();
  await expectAccessible(page);
});

test("two people on one link: the second is told, and chooses", async ({ browser, request }) => {
  const [a, b] = [await (await browser.newContext()).newPage(), await (await browser.newContext()).newPage()];
  // The second does not hear of the first's edit: its connection for news is cut.
  await b!.route(/\/events\?client=/, (route) => route.abort());
  await openSection(a!, request, "Rope Walk");
  await openSection(b!, request, "Rope Walk");
  const label = "Harbour Office: mount height above ground, m";
  await a!.getByLabel(label).fill("12.0");
  await a!.keyboard.press("Enter");
  await expect(a!.getByTestId("saved")).toContainText(":");
  await b!.getByLabel(label).fill("13.0");
  await b!.keyboard.press("Enter");
  await expect(b!.getByText("Someone else changed this design")).toBeVisible();
  await b!.getByRole("button", { name: "Take theirs" }).click();
  await expect(b!.getByLabel(label)).toHaveValue("12.0");
  await b!.getByLabel(label).fill("11.0");
  await b!.keyboard.press("Enter");
  await expect(b!.getByTestId("saved")).toContainText(":");
  // The first hears of it, and having nothing unsaved follows.
  await expect(a!.getByLabel(label)).toHaveValue("11.0");

  // What the first did to the height has been overtaken: its undo says so once, and then goes on to the step before.
  await a!.getByLabel("Rope Walk: mount height above ground, m").fill("8.2");
  await a!.keyboard.press("Enter");
  await a!.getByTestId("mast-near").focus();
  await expect(a!.getByTestId("saved")).toContainText(":");
  await a!.keyboard.press("Control+z");
  await expect(a!.getByLabel("Rope Walk: mount height above ground, m")).not.toHaveValue("8.2");
  await a!.keyboard.press("Control+z");
  await expect(a!.getByText("was changed again since by someone else, and stays")).toBeVisible();
  await expect(a!.getByLabel(label)).toHaveValue("11.0");
  await a!.keyboard.press("Control+z");
  await expect(a!.getByText("was changed again since by someone else, and stays")).toHaveCount(0);
  await expect(a!.getByLabel(label)).toHaveValue("11.0");
  await a!.close();
  await b!.close();
});
