import { expect, type Page, test } from "@playwright/test";
import type { JobBundle, JobSummary } from "../src/contract";
import { demoJob, expectAccessible, openSection } from "./helpers";

/* A newcomer: from the register to the first verdict, counted in actions. */

const MOST_ACTIONS = 10;

const counting = (page: Page) => {
  let actions = 0;
  return {
    press: async (name: string): Promise<void> => {
      actions++;
      await page.getByRole("button", { name, exact: true }).click();
    },
    type: async (label: string, text: string): Promise<void> => {
      actions++;
      await page.getByLabel(label, { exact: true }).fill(text);
    },
    choose: async (label: string, value: string): Promise<void> => {
      actions++;
      await page.getByLabel(label, { exact: true }).selectOption(value);
    },
    count: () => actions,
  };
};

const jobOf = async (page: Page): Promise<JobBundle> =>
  (await (await page.request.get(`/api/jobs/${/jobs\/([0-9a-f-]{36})/.exec(page.url())![1]}`)).json()) as JobBundle;

for (const [where, size] of [
  ["at a desk", { width: 1280, height: 800 }],
  ["on a phone", { width: 390, height: 844 }],
] as const) {
  test(`a distance, two heights and flat ground are enough for a verdict, ${where}`, async ({ page }) => {
    await page.setViewportSize(size);
    await page.goto("/");
    await expect(page.getByRole("heading", { name: "Register of jobs" })).toBeVisible();
    const started = Date.now();
    const do_ = counting(page);
    await do_.press("Quick path");
    await expectAccessible(page);
    await do_.type("Distance", "640");
    await do_.type("Near mount above ground", "7");
    await do_.type("Far mount above ground", "5");
    await do_.type("Wanted at the far end, Mbps", "60");
    await do_.press("Draw the path");
    await expect(page.getByTestId("verdict")).toHaveText("Clear", { timeout: 30_000 });
    console.log(`first verdict ${where}: ${do_.count()} actions, ${((Date.now() - started) / 1000).toFixed(1)} s`);
    expect(do_.count()).toBeLessThanOrEqual(MOST_ACTIONS);
    await expect(page.getByTestId("first-design")).toContainText("A first design");
    const { job, sites, links } = await jobOf(page);
    expect(job.name).toBe("Quick path");
    expect(sites.map((s) => [s.name, s.mountAglM])).toEqual([
      ["Near end", 7],
      ["Far end", 5],
    ]);
    expect(sites[0]!.notes).toContain("Its place is not known");
    expect(links[0]!.design.needToFarMbps).toBe(60);
    const { links: judged } = ((await (await page.request.get("/api/jobs")).json()) as JobSummary[]).find((j) => j.job.id === job.id)!;
    expect(judged[0]!.pathM).toBeCloseTo(640, 2);
  });
}

test("what is missing or wrong is named; two positions and terrain leave the ground open, with ways out of it", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Quick path" }).click();
  const dialog = page.getByRole("dialog", { name: "Quick path" });
  await dialog.getByRole("button", { name: "Draw the path" }).click();
  await expect(dialog.getByRole("alert")).toContainText("The distance must be a number");
  await dialog.getByLabel("Distance", { exact: true }).fill("800");
  // A slip is never taken for the height that stood there before.
  await dialog.getByLabel("Near mount above ground").fill("-3");
  await dialog.getByRole("button", { name: "Draw the path" }).click();
  await expect(dialog.getByText("One figure cannot be taken as it is typed.")).toBeVisible();
  await expect(dialog.getByLabel("Near mount above ground")).toBeFocused();
  await dialog.getByLabel("Near mount above ground").fill("6");
  await dialog.getByLabel("Ground between").selectOption("terrain");
  await dialog.getByRole("button", { name: "Draw the path" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Terrain is read at positions");
  await dialog.getByLabel("Wanted at the far end, Mbps").fill("20");
  await dialog.getByLabel("What is known of the path").selectOption("positions");
  await dialog.getByLabel("Near end: latitude, longitude").fill("46.2 N, 27.4 W");
  await dialog.getByLabel("Far end: latitude, longitude").fill("91, 4");
  await dialog.getByRole("button", { name: "Draw the path" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Far end:");
  await dialog.getByLabel("Far end: latitude, longitude").fill("46.21 N, 27.4 W");
  await dialog.getByRole("button", { name: "Draw the path" }).click();
  await expect(page.getByTestId("verdict")).toHaveText("Unknown", { timeout: 30_000 });
  const findings = page.getByTestId("findings");
  await expect(findings.getByRole("link", { name: "Bring in a terrain file" })).toHaveAttribute("href", /beside=import/);
  await findings.getByRole("button", { name: "It is flat" }).click();
  await expect(page.getByTestId("verdict")).not.toHaveText("Unknown");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByTestId("verdict")).toHaveText("Unknown");
  await findings.getByRole("link", { name: "Type its heights" }).click();
  await expect(page.getByRole("heading", { name: /^Ground from Near end/ })).toBeVisible();
});

test("every sheet fits a phone and a tablet: nothing beside the screen, the worst word in view", async ({ page, request }) => {
  const { job, links } = await demoJob(request);
  const rope = links.find((l) => l.farName === "Rope Walk")!;
  const weighbridge = links.find((l) => l.farName === "Weighbridge")!;
  const sheets = [
    ["/", "Register of jobs"],
    [`/jobs/${job.id}/brief`, "Brief"],
    [`/jobs/${job.id}/ground`, "Ground"],
    [`/jobs/${job.id}/section/${rope.linkId}`, "Harbour Office to Rope Walk"],
    [`/jobs/${job.id}/gear/${rope.linkId}`, "Harbour Office to Rope Walk"],
    [`/jobs/${job.id}/gear`, "Catalogue"],
  ] as const;
  for (const [width, height] of [
    [390, 844],
    [768, 1024],
    // A desk of 1280 x 800 at 200 %.
    [640, 400],
  ] as const) {
    await page.setViewportSize({ width, height });
    for (const [path, heading] of sheets) {
      await page.goto(path);
      const head = page.getByRole("heading", { name: heading, exact: true });
      await expect(head).toBeInViewport();
      expect([path, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([path, width]);
      // Nor does a table run out of the part that holds it.
      if (path === "/") expect(await page.getByRole("main").evaluate((m) => m.scrollWidth - m.clientWidth)).toBe(0);
    }
    // Ten figures of a path of 200 m: they stand apart.
    await page.goto(`/jobs/${job.id}/section/${weighbridge.linkId}`);
    await expect(page.getByTestId("section")).toBeVisible();
    const figures = await page
      .locator('svg[data-drawing="axis"] text')
      .evaluateAll((all) => all.map((t) => t.getBoundingClientRect()).map((r) => ({ from: r.left, to: r.right })));
    for (let i = 1; i < figures.length; i++) expect(figures[i]!.from).toBeGreaterThan(figures[i - 1]!.to);
    await page.goto(`/jobs/${job.id}/section/${rope.linkId}`);
    await expect(page.getByTestId("section")).toBeVisible();
    await expect(page.getByTestId("verdict")).toBeInViewport();
    await expectAccessible(page);
    // A mend is pressed with the thumb, and taken back from the tools of the index.
    await page.getByTestId("findings").getByRole("button").first().click();
    await expect(page.getByTestId("saved")).toContainText(":");
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.getByTestId("saved")).toContainText("undone");
  }
});

test("the history of a job opens over any sheet: from what to what, by whom, and back; alike edits fold", async ({ page, request }) => {
  await openSection(page, request, "Ferry Ramp");
  const mast = page.getByTestId("mast-far");
  await mast.focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowUp");
  await expect(page.getByTestId("saved")).toContainText(":");
  await page.getByRole("button", { name: "History" }).click();
  const dialog = page.getByRole("dialog", { name: "History of the job" });
  const fold = dialog.getByTestId("history").getByRole("listitem").first();
  await expect(fold).toContainText(/design \d+, Water Tower to Ferry Ramp, changed: far mount .* m to .* m \(4 edits\)/);
  await expect(fold).toContainText("here");
  await expectAccessible(page);
  await fold.getByRole("button", { name: "Show 4" }).click();
  await fold.getByRole("button", { name: "Take back" }).first().click();
  await expect(dialog.getByTestId("history").getByRole("listitem").first()).toContainText("design 10, Water Tower to Ferry Ramp, undone");
  await dialog.getByRole("button", { name: "Close" }).click();
  await expect(page.getByLabel("Ferry Ramp: mount height above ground, m")).toHaveValue("7.3");
  await mast.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("Control+z");
  await expect(page.getByLabel("Ferry Ramp: mount height above ground, m")).toHaveValue("7.0");
});
