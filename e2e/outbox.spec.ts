import { expect, type Page, test } from "@playwright/test";
import type { JobBundle } from "../src/contract";
import { cluster, expectAccessible } from "./helpers";

/* Edits on the ground while the database is away: kept, shown, sent in order, also by a window that comes after. */
test.afterEach(() => cluster("start"));

const openJob = async (page: Page, name: string): Promise<string> => {
  const made = await page.request.post("/api/jobs", {
    data: { name, visitOn: "2026-12-03", centreLatDeg: 46, centreLonDeg: -25, ruleDomain: "cautious", rainRate001MmH: 28 },
  });
  const { id } = (await made.json()) as { id: string };
  await page.request.post(`/api/jobs/${id}/sites`, { data: { name: "Shed", latDeg: 46, lonDeg: -25, mountAglM: 5 } });
  await page.goto(`/jobs/${id}/ground`);
  await expect(page.getByText("Sites, 1")).toBeVisible();
  return id;
};
const sitesOf = async (page: Page, jobId: string) => ((await (await page.request.get(`/api/jobs/${jobId}`)).json()) as JobBundle).sites;
const place = async (page: Page, name: string, where: string): Promise<void> => {
  await page.getByRole("button", { name: "Place a site" }).click();
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("Latitude, longitude").fill(where);
  await page.getByRole("button", { name: "Place it" }).click();
};

test("a new site and a moved one wait in the browser, are drawn at once, and are sent in order when the database is back", async ({
  page,
}) => {
  const jobId = await openJob(page, "Away");
  await page.getByText("Sites, 1").click();
  await page.getByRole("button", { name: "Shed", exact: true }).click();
  cluster("stop");
  await page.getByLabel("Latitude, longitude").fill("46.0010, -25.0010");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByTestId("outbox")).toContainText("1 edit waits in this browser.", { timeout: 30_000 });
  await expect(page.getByTestId("outbox")).toContainText("The database does not answer.");
  await expectAccessible(page);
  await place(page, "Mole", "N 46 0 18 W 25 0 18");
  await expect(page.getByTestId("outbox")).toContainText("2 edits wait in this browser.");
  await expect(page.getByText("Sites, 2")).toBeVisible();
  cluster("start");
  await expect(page.getByTestId("outbox")).toHaveCount(0, { timeout: 30_000 });
  await expect
    .poll(async () => (await sitesOf(page, jobId)).map((s) => [s.name, s.latDeg, s.lonDeg]))
    .toEqual([
      ["Shed", 46.001, -25.001],
      ["Mole", 46.005, -25.005],
    ]);
  await expect(page.getByText("Sites, 2")).toBeVisible();
});

test("a tab killed while edits wait leaves them to the next one", async ({ page }) => {
  const jobId = await openJob(page, "Killed");
  await page.getByText("Sites, 1").click();
  await page.getByRole("button", { name: "Shed", exact: true }).click();
  cluster("stop");
  await page.getByLabel(/Mount above ground/).fill("12.5");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByTestId("outbox")).toBeVisible({ timeout: 30_000 });
  const next = await page.context().newPage();
  await page.close({ runBeforeUnload: false });
  cluster("start");
  await next.goto(`/jobs/${jobId}/ground`);
  await expect.poll(async () => (await sitesOf(next, jobId))[0]!.mountAglM, { timeout: 30_000 }).toBe(12.5);
  await expect(next.getByTestId("outbox")).toHaveCount(0);
  // It is an edit like any other, made once.
  const { changes } = (await (await next.request.get(`/api/jobs/${jobId}/history`)).json()) as {
    changes: { entity: string; action: string }[];
  };
  expect(changes.filter((c) => c.entity === "site" && c.action === "update")).toHaveLength(1);
});

test("an edit whose answer is lost is one's own: it is asked for again and no clash is shown", async ({ page }) => {
  const jobId = await openJob(page, "Lost answer");
  await page.getByText("Sites, 1").click();
  await page.getByRole("button", { name: "Shed", exact: true }).click();
  let lost = 0;
  await page.route("**/sites/*", async (route) => {
    if (route.request().method() !== "PATCH" || lost++ > 0) return route.continue();
    // The server makes the edit; its answer never comes.
    await route.fetch();
    await route.abort("connectionreset");
  });
  await page.getByLabel(/Mount above ground/).fill("9.5");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect.poll(() => lost, { timeout: 30_000 }).toBe(2);
  await expect(page.getByRole("form", { name: "Site Shed" })).toHaveCount(0);
  await expect(page.getByTestId("outbox")).toHaveCount(0);
  expect((await sitesOf(page, jobId))[0]).toMatchObject({ mountAglM: 9.5, version: 2 });
});
