// Builds the browser's workers into public/workers: one plain file each, which a cache or an offline page can serve.
import { build } from "esbuild";

await build({
  entryPoints: ["relief", "doubt", "view", "solve", "relay"].map((name) => `src/workers/${name}.worker.ts`),
  outdir: "public/workers",
  bundle: true,
  minify: true,
  format: "iife",
  platform: "browser",
  target: "es2022",
  tsconfig: "tsconfig.json",
  logLevel: "warning",
});
