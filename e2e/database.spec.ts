import { expect, test } from "@playwright/test";
import { cluster, demoJob, openSection } from "./helpers";

test.afterEach(() => cluster("start"));

test("with the database stopped the page says so, keeps what was typed, and saves it when it is back", async ({ page, request }) => {
  await openSection(page, request, "Sailing School");
  const height = page.getByLabel("Sailing School: mount height above ground, m");
  const before = await height.inputValue();
  cluster("stop");
  await height.fill("7.3");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved")).toContainText("not saved, 1 edit kept here", { timeout: 30_000 });
  // Still computing: the drawing does not need the server.
  await height.fill("8.1");
  await page.keyboard.press("Enter");
  await expect(height).toHaveValue("8.1");

  // Another page says plainly what is wrong while it waits.
  const other = await page.context().newPage();
  await other.goto("/");
  await expect(other.getByText("The database does not answer.")).toBeVisible({ timeout: 30_000 });

  cluster("start");
  await expect(page.getByTestId("saved")).toContainText("all edits", { timeout: 30_000 });
  await expect(other.getByRole("link", { name: "Merrow Harbour Trust" })).toBeVisible({ timeout: 30_000 });
  await page.reload();
  await expect(height).toHaveValue("8.1");
  await height.fill(before);
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved")).toContainText(":");
});

test("a tab killed before it could save gives back what was typed", async ({ page, request }) => {
  const link = await openSection(page, request, "Ferry Ramp");
  const height = page.getByLabel("Ferry Ramp: mount height above ground, m");
  const before = await height.inputValue();
  await page.route("**/designs/**", (route) => route.abort());
  await height.fill("6.6");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved")).toContainText("kept here");
  const fresh = await page.context().newPage();
  await page.close({ runBeforeUnload: false });
  await fresh.goto(`/jobs/${(await demoJob(request)).job.id}/section/${link.linkId}`);
  await expect(fresh.getByLabel("Ferry Ramp: mount height above ground, m")).toHaveValue("6.6");
  await expect(fresh.getByTestId("saved")).toContainText(":");
  await fresh.getByLabel("Ferry Ramp: mount height above ground, m").fill(before);
  await fresh.keyboard.press("Enter");
  await expect(fresh.getByTestId("saved")).toContainText(":");
});

test("a request from another site or to another name is refused", async ({ request }) => {
  const cross = await request.post("/api/jobs", { data: {}, headers: { origin: "http://elsewhere.example" } });
  expect(cross.status()).toBe(403);
  const rebound = await request.get("/api/jobs", { headers: { host: "rebound.example" } });
  expect(rebound.status()).toBe(403);
  const headers = (await request.get("/")).headers();
  expect(headers["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[^']+'/);
  expect(headers["x-content-type-options"]).toBe("nosniff");
  const broken = await request.patch(`/api/jobs/${(await demoJob(request)).job.id}/designs/not-a-uuid`, { data: { version: 1 } });
  expect(broken.status()).toBe(400);
});
