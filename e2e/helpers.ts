import { execFileSync } from "node:child_process";
import AxeBuilder from "@axe-core/playwright";
import { type APIRequestContext, expect, type Page } from "@playwright/test";
import type { HardwareDto, JobSummary, LinkVerdict, ProfileDto } from "../src/contract";

export const demoJob = async (request: APIRequestContext): Promise<JobSummary> => {
  // Verdicts that are being worked out are waited for.
  for (;;) {
    const jobs = (await (await request.get("/api/jobs")).json()) as JobSummary[];
    const demo = jobs.find((s) => s.job.name === "Merrow Harbour Trust")!;
    if (demo.links.every((l) => l.fresh)) return demo;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
};

export const linkTo = (summary: JobSummary, far: string, label = ""): LinkVerdict =>
  summary.links.find((l) => l.farName === far && l.label === label)!;

export const openSection = async (page: Page, request: APIRequestContext, far: string, label = ""): Promise<LinkVerdict> => {
  const summary = await demoJob(request);
  const link = linkTo(summary, far, label);
  await page.goto(`/jobs/${summary.job.id}/section/${link.linkId}`);
  await expect(page.getByTestId("verdict")).toBeVisible();
  await expect(page.getByTestId("findings").locator("section").first()).toBeVisible();
  return link;
};

export const profileOf = async (request: APIRequestContext, linkId: string): Promise<ProfileDto> =>
  (await (await request.get(`${await linkPath(request, linkId)}/profile`)).json()) as ProfileDto;

/** Where a link of the demo job is asked for. */
export const linkPath = async (request: APIRequestContext, linkId: string): Promise<string> =>
  `/api/jobs/${(await demoJob(request)).job.id}/links/${linkId}`;
export const hardwareOf = async (request: APIRequestContext): Promise<HardwareDto> =>
  (await (await request.get("/api/hardware")).json()) as HardwareDto;

/** Nothing for axe at WCAG 2.2 AA. The map's canvas carries no text for it to judge. */
export const expectAccessible = async (page: Page): Promise<void> => {
  const found = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]).analyze();
  expect(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join("; ")}`)).toEqual([]);
};

export const noPageScroll = async (page: Page): Promise<void> => {
  const over = await page.evaluate(() => ({
    x: document.documentElement.scrollWidth - innerWidth,
    y: document.documentElement.scrollHeight - innerHeight,
  }));
  expect(over).toEqual({ x: 0, y: 0 });
};

/** Stops or starts the database under the application that is tested. */
export const cluster = (command: "start" | "stop"): void => void execFileSync("node", ["bin/db.mjs", command, "test"], { stdio: "ignore" });

/** A job of its own, far from the demo's. @returns its id. */
export const newJob = async (request: APIRequestContext, name: string, centreLatDeg = 47.3, centreLonDeg = -19.4): Promise<string> => {
  const data = { name, place: "", visitOn: "2026-12-01", centreLatDeg, centreLonDeg, ruleDomain: "cautious", rainRate001MmH: 28 };
  const made = await request.post("/api/jobs", { data });
  expect(made.ok()).toBe(true);
  return ((await made.json()) as { id: string }).id;
};
