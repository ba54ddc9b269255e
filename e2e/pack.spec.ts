import { execFileSync } from "node:child_process";
import { type APIRequestContext, expect, type Page, test } from "@playwright/test";
import { demoJob, expectAccessible, linkTo, newJob, noPageScroll } from "./helpers";

const open = async (page: Page, request: APIRequestContext, far: string): Promise<string> => {
  const summary = await demoJob(request);
  await page.goto(`/jobs/${summary.job.id}/pack/${linkTo(summary, far).linkId}`);
  await expect(page.getByTestId("pages")).toBeVisible();
  return summary.job.id;
};
const textOf = (file: string): string =>
  execFileSync("pdftotext", ["-layout", "-enc", "UTF-8", file, "-"], { encoding: "utf8" }).replace(/\s+/g, " ");
const current = (page: Page) => page.getByRole("navigation", { name: "Pages" }).locator("[aria-current=page]");

test("the pages as they will be printed: the worst of the plan as the largest word, each page by name, by keys too", async ({
  page,
  request,
}) => {
  await open(page, request, "Rope Walk");
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByRole("complementary", { name: "Open points" })).toContainText("Poplar row stands 1.8 m into the zone");
  await expect(current(page)).toHaveText("cover");
  await expect(page.getByRole("img", { name: /^Section from Harbour Office to Rope Walk.*1\.8\sm short, Poplar row/ })).toBeVisible();
  await expectAccessible(page);
  await noPageScroll(page);
  await page.keyboard.press("PageDown");
  await expect(current(page)).toHaveText(/^A, 1 of/);
  await expect(page.getByRole("img", { name: /^What is seen from behind the antenna at Harbour Office/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Level against turn/ })).toBeVisible();
  await page.getByRole("button", { name: /^B, 1 of/ }).click();
  await expect(page.getByRole("img", { name: /Rope Walk\. Harbour Office lies \d{3}\.\d° magnetic/ })).toBeVisible();
  await page.keyboard.press("PageUp");
  await expect(current(page)).toHaveText(/^A, \d of/);
  await page.getByRole("combobox", { name: "For" }).selectOption("permission");
  await expect(page.getByTestId("pages")).toHaveText("1 page");
  await expect(page.getByText("A radio link between two buildings")).toBeVisible();
  await expectAccessible(page);
});

test("the file holds what the screen shows, on the paper that was chosen", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  const pages = Number.parseInt((await page.getByTestId("pages").textContent()) ?? "", 10);
  const a4 = page.waitForEvent("download");
  await page.getByRole("button", { name: "Take the PDF out" }).click();
  const file = await a4;
  expect(file.suggestedFilename()).toBe("merrow-harbour-trust-pack.pdf");
  const at = (await file.path()) ?? "";
  const info = execFileSync("pdfinfo", [at], { encoding: "utf8" });
  expect(info).toContain("(A4)");
  expect(info).toMatch(new RegExp(`Pages:\\s+${pages}\\b`));
  const text = textOf(at);
  expect(text).toContain("Locked: Nothing is powered before the bond is made and checked");
  expect(text).toContain("Poplar row stands 1.8 m into the zone");
  await page.getByRole("combobox", { name: "Paper" }).selectOption("letter");
  const letter = page.waitForEvent("download");
  await page.getByRole("button", { name: "Take the PDF out" }).click();
  expect(execFileSync("pdfinfo", [(await (await letter).path()) ?? ""], { encoding: "utf8" })).toContain("(letter)");
});

test("what is planned elsewhere is on the pages: a mast that somebody raises meanwhile", async ({ page, request, browser }) => {
  const jobId = await open(page, request, "Rope Walk");
  await page.getByRole("button", { name: /^A, 1 of/ }).click();
  await expect(page.getByText("11.0 m above ground")).toBeVisible();
  const other = await (await browser.newContext()).newPage();
  await other.goto(page.url().replace("/pack/", "/section/"));
  const mast = other.getByRole("slider", { name: /Harbour Office/ }).first();
  await mast.focus();
  await other.keyboard.press("ArrowUp");
  await expect(other.getByTestId("saved")).toContainText("all edits");
  await expect(page.getByText("11.0 m above ground")).toHaveCount(0);
  await other.keyboard.press("Control+z");
  await expect(page.getByText("11.0 m above ground")).toBeVisible();
  await other.context().close();
  expect(jobId).not.toBe("");
});

test("while the server cannot answer no other pages pass for those that were asked, and old ones say that they are", async ({
  page,
  request,
  browser,
}) => {
  const PACK = /\/api\/jobs\/[^/]+\/pack\?/;
  await open(page, request, "Rope Walk");
  const other = await (await browser.newContext()).newPage();
  await other.goto(page.url().replace("/pack/", "/section/"));
  const mast = other.getByRole("slider", { name: /Harbour Office/ }).first();
  await mast.focus();
  await page.route(PACK, (route) => route.abort());
  // Somebody changes the plan: what stands there is of before.
  await other.keyboard.press("ArrowUp");
  await expect(page.getByTestId("not-anew")).toContainText("The server does not answer");
  await expect(current(page)).toHaveText("cover");
  await page.getByRole("combobox", { name: "For" }).selectOption("customer");
  await expect(page.getByRole("navigation", { name: "Pages" })).toHaveCount(0);
  await expect(page.getByRole("main")).toContainText("The server does not answer");
  await page.unroute(PACK);
  await expect(page.getByTestId("pages")).toBeVisible();
  await expect(page.getByRole("main")).not.toContainText("Order of work");
  await expect(other.getByTestId("saved")).toContainText("all edits");
  await other.keyboard.press("Control+z");
  await expect(other.getByTestId("saved")).toContainText("undone");
  await other.context().close();
});

test("an empty job says what comes first; on a phone the page fits its width", async ({ page, request }) => {
  const empty = await newJob(request, "Nothing planned");
  await page.goto(`/jobs/${empty}/pack`);
  await expect(page.getByTestId("empty")).toContainText("Join two sites under 02 Ground first");
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, request, "Rope Walk");
  // The page goes on below, as all sheets do there; it is no wider than the phone.
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBe(0);
  await expectAccessible(page);
});
