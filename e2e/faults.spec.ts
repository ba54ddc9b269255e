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

test("an address that is no page says so and leads back to the register", async ({ page }) => {
  await page.goto("/jobs/nowhere/at/all");
  await page.getByRole("link", { name: "Register of jobs" }).click();
  await expect(page.getByRole("button", { name: "New job" })).toBeVisible();
});
