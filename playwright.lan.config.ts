import { defineConfig } from "@playwright/test";
import base from "./playwright.config";

/** Tests of a server that others reach: over TLS, with sign-in, each browser a fresh profile that trusts its authority. */
export default defineConfig({
  ...base,
  testDir: "e2e/lan",
  testIgnore: [],
  reporter: [["list"], ["json", { outputFile: ".data/test/lan.json" }]],
});
