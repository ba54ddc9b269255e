// One current picture of each main view, made from the demo job.
import { chromium, type Page } from "@playwright/test";
import { CHROMIUM } from "../e2e/chromium";
import type { JobSummary } from "../src/contract";

const base = process.env.DRYARC_URL!;
const browser = await chromium.launch({
  ...CHROMIUM,
});
const open = async (colorScheme: "light" | "dark" = "light"): Promise<Page> =>
  (await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme })).newPage();

const page = await open();
const jobs = (await (await page.request.get(`${base}/api/jobs`)).json()) as JobSummary[];
const { job, links } = jobs[0]!;
const shot = (p: Page, name: string) => p.screenshot({ path: `docs/screenshots/${name}.png` });
const section = async (p: Page, far: string, label = ""): Promise<void> => {
  const link = links.find((l) => l.farName === far && l.label === label)!;
  await p.goto(`${base}/jobs/${job.id}/section/${link.linkId}`);
  await p.getByTestId("findings").locator("section").first().waitFor();
  await p.evaluate(() => document.fonts.ready);
};

await page.goto(base);
await page.getByRole("link", { name: "Rope Walk" }).waitFor();
await page.evaluate(() => document.fonts.ready);
await shot(page, "jobs");
await page.goto(`${base}/jobs/${job.id}/ground`);
await page.locator(".map[data-drawn]").waitFor();
await page.getByText(/Contours every/).waitFor();
await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
await shot(page, "ground");
await page.keyboard.press("v");
await page.getByLabel("From").selectOption("Water Tower");
await page.getByRole("button", { name: "Look about" }).click();
await page.getByTestId("view-answer").waitFor();
await shot(page, "ground-view");
await page.keyboard.press("Escape");
await page.goto(`${base}/jobs/${job.id}/brief`);
await page.getByTestId("open-points").waitFor();
await shot(page, "brief");
const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })).newPage();
await phone.goto(`${base}/jobs/${job.id}/roof`);
await phone.getByLabel(/^Your name/).fill("Rhona");
await phone.getByRole("button", { name: /Fuel Berth/ }).click();
await phone.getByTestId("turn").waitFor();
await phone.screenshot({ path: "docs/screenshots/roof-phone.png" });
await section(page, "Rope Walk");
await shot(page, "section-short");
await section(page, "Ice House", "60 GHz pair");
await shot(page, "section-clear");
await section(page, "Rope Walk");
await page.keyboard.press("5");
await page.getByRole("button", { name: /^Both ends alike/ }).hover();
await page.getByTestId("ghost").waitFor();
await shot(page, "section-heights");
await section(page, "Tarrowfell Observatory");
await page.keyboard.press("8");
await page.getByRole("button", { name: "Look for a relay", exact: true }).click();
await page.getByTestId("relay").first().waitFor();
await shot(page, "section-long");
await section(page, "Pilot Station");
await page.keyboard.press("4");
await page.getByText("500 draws of all inputs").waitFor();
await shot(page, "section-doubt");
const night = await open("dark");
await section(night, "Pilot Station");
await shot(night, "section-night");
await page.goto(`${base}/jobs/${job.id}/pack/${links.find((l) => l.farName === "Rope Walk")!.linkId}`);
await page.getByRole("button", { name: /^B, 1 of/ }).click();
await page.getByRole("img", { name: /^What is seen/ }).waitFor();
await shot(page, "pack");
await page.goto(`${base}/jobs/${job.id}/gear/${links.find((l) => l.farName === "Ice House" && l.label === "first idea")!.linkId}`);
await page.getByText(/\d+ rejected/).waitFor();
await page.getByText("just enough").nth(1).waitFor();
await shot(page, "gear");
await page.goto(`${base}/jobs/${job.id}/hub`);
await page.getByRole("button", { name: "Make Water Tower a hub" }).click();
await page.getByRole("button", { name: /^Weighbridge, / }).click();
await page.getByTestId("turn").waitFor();
await page
  .getByTestId("shapes")
  .getByRole("row", { name: /Four-faced/ })
  .waitFor();
await page.mouse.move(1270, 790);
await shot(page, "hub");
await page.goto(`${base}/jobs/${job.id}/load`);
await page.getByTestId("narrowest-figure").waitFor();
await shot(page, "load");
await page.goto(`${base}/jobs/${job.id}/air`);
await page.getByTestId("proposal").waitFor();
await shot(page, "air");
const rope = links.find((l) => l.farName === "Rope Walk")!.linkId;
await page.goto(`${base}/jobs/${job.id}/wiring/${rope}`);
await page.getByTestId("decides").waitFor();
await shot(page, "wiring");
await page.goto(`${base}/jobs/${job.id}/kit/${rope}`);
await page.getByTestId("missing").waitFor();
await shot(page, "kit");
// The sheet as it goes on paper.
const paper = await open("light");
await section(paper, "Rope Walk");
await paper.evaluate(() => dispatchEvent(new Event("beforeprint")));
await paper.emulateMedia({ media: "print" });
await paper.setViewportSize({ width: 1003, height: 735 });
await shot(paper, "section-paper");
await browser.close();
