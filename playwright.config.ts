import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "e2e",
  testIgnore: "lan/**",
  workers: 1,
  retries: 0,
  timeout: 60_000,
  expect: { timeout: 15_000 },
  reporter: [["list"], ["json", { outputFile: ".data/test/browser.json" }]],
  outputDir: "test-results",
  use: {
    baseURL: process.env.DRYARC_URL ?? "http://127.0.0.1:4620",
    viewport: { width: 1280, height: 800 },
    colorScheme: "light",
    timezoneId: "UTC",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
    screenshot: "only-on-failure",
  },
});
