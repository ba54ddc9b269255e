import { expect, test } from "@playwright/test";

test("a part of the application that cannot be fetched: told on a page of our own, and loading again mends it", async ({ page }) => {
  const loaded = new Set<string>();
  page.on("response", (r) => {
    if (r.url().includes("/_next/static/chunks/")) loaded.add(r.url());
  });
  await page.goto("/");
  await expect(page.getByRole("link", { name: "Merrow Harbour Trust" })).toBeVisible();
  await page.route("**/_next/static/chunks/**", (route) => (loaded.has(route.request().url()) ? route.continue() : route.abort()));
  await page.getByRole("link", { name: "Merrow Harbour Trust" }).click();
  await expect(page.getByRole("heading", { name: "This page could not be drawn" })).toBeVisible();
  await expect(page.getByText("What is safe: everything that was saved")).toBeVisible();
  await page.unroute("**/_next/static/chunks/**");
  await page.getByRole("button", { name: "Load the page again" }).press("Enter");
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);
});

test("a dialog whose code cannot be fetched says so where it would open, and comes when it is asked again", async ({ page }) => {
  const loaded = new Set<string>();
  page.on("response", (r) => loaded.add(r.url()));
  await page.goto("/", { waitUntil: "domcontentloaded" });
  await expect(page.getByRole("link", { name: "Merrow Harbour Trust" })).toBeVisible();
  await page.route("**/_next/static/chunks/**", (route) => (loaded.has(route.request().url()) ? route.continue() : route.abort()));
  await page.getByRole("button", { name: "New job" }).click();
  const told = page.getByText("This part of the page could not be fetched.");
  await expect(told).toBeVisible();
  await page.unroute("**/_next/static/chunks/**");
  await page.getByRole("button", { name: "Ask again" }).click();
  await expect(page.getByRole("dialog", { name: "New job" })).toBeVisible();
  // What is typed stays while the dialog is shut, and the keys go back to the button that opened it.
  await page.getByLabel("Customer or job").fill("Isle of reeds");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "New job" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Customer or job")).toHaveValue("Isle of reeds");
});

test("an address that is no page says so and leads back to the register", async ({ page }) => {
  await page.goto("/jobs/nowhere/at/all");
  await page.getByRole("link", { name: "Register of jobs" }).click();
  await expect(page.getByRole("button", { name: "New job" })).toBeVisible();
});
