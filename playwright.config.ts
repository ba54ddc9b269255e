import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "./e2e/chromium";

export default defineConfig({
  testDir: "e2e",
  testIgnore: "lan/**",
  workers: 1,
  retries: 0,
  // The longest looks at twenty pages: on a machine that is half away it is late, not wrong.
  timeout: 150_000,
  expect: { timeout: 15_000 },
  reporter: [["list"], ["json", { outputFile: ".data/test/browser.json" }]],
  outputDir: "test-results",
  use: {
    baseURL: process.env.DRYARC_URL ?? "http://127.0.0.1:4620",
    viewport: { width: 1280, height: 800 },
    colorScheme: "light",
    timezoneId: "UTC",
    launchOptions: {
      ...CHROMIUM,
    },
    screenshot: "only-on-failure",
  },
});
