import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type BrowserContext, type BrowserContextOptions, chromium, expect, type Page } from "@playwright/test";
import { CHROMIUM } from "../chromium";

/* Browsers as others have them: each a fresh profile, which trusts the authority of this server and nothing else new. */

const PORT = process.env.DRYARC_PORT ?? "4622";
export const ORIGIN = process.env.DRYARC_ORIGIN ?? `https://dryarc.local:${PORT}`;
export const TLS = process.env.DRYARC_TLS ?? ".data/test/tls";
export const PASSWORD = "kelp over granite at noon";

/** A home for a browser. @param trusting whether its owner has let the server's authority in. */
const makeHome = (trusting: boolean): string => {
  const home = mkdtempSync(path.join(tmpdir(), "dry-arc-home-"));
  const db = path.join(home, ".pki/nssdb");
  mkdirSync(db, { recursive: true });
  execFileSync("certutil", ["-N", "-d", `sql:${db}`, "--empty-password"]);
  if (trusting) execFileSync("certutil", ["-A", "-n", "dry-arc", "-t", "C,,", "-i", path.join(TLS, "authority.crt"), "-d", `sql:${db}`]);
  return home;
};

const opened: BrowserContext[] = [];

/** A browser of somebody. @param more.hosts names beside the server's own that lead to this machine. */
export const openBrowser = async (
  more: BrowserContextOptions & { readonly trusting?: boolean; readonly hosts?: readonly string[] } = {},
): Promise<Page> => {
  const { trusting = true, hosts = [], ...options } = more;
  const home = makeHome(trusting);
  const rules = ["dryarc.local", ...hosts].map((h) => `MAP ${h} 127.0.0.1`).join(",");
  const context = await chromium.launchPersistentContext(path.join(home, "profile"), {
    ...CHROMIUM,
    args: [...CHROMIUM.args, `--host-resolver-rules=${rules}`],
    env: { ...process.env, HOME: home } as Record<string, string>,
    baseURL: ORIGIN,
    viewport: { width: 1280, height: 800 },
    colorScheme: "light",
    timezoneId: "UTC",
    ...options,
  });
  opened.push(context);
  return context.pages()[0] ?? (await context.newPage());
};

export const closeAll = async (): Promise<void> => {
  for (const context of opened.splice(0)) await context.close();
};

/** A phone's size, its finger in place of a mouse. */
export const PHONE: BrowserContextOptions = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

export const signIn = async (page: Page, email: string, password = PASSWORD): Promise<void> => {
  await page.goto("/sign-in");
  await page.getByLabel("E-mail address").fill(email);
  await page.getByLabel("Password", { exact: true }).fill(password);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
};

export const atRegister = (page: Page): Promise<void> => expect(page.getByRole("heading", { name: "Register of jobs" })).toBeVisible();

/** Asks the server out of a page, as its own script would. */
export const fetchIn = (
  page: Page,
  path: string,
  init: { readonly method?: string; readonly headers?: Readonly<Record<string, string>>; readonly body?: string } = {},
): Promise<{ status: number; text: string }> =>
  page.evaluate(
    async ([at, how]) => {
      const answer = await fetch(at, how);
      return { status: answer.status, text: await answer.text() };
    },
    [path, init] as const,
  );
