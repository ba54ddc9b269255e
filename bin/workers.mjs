// Builds the browser's workers into public/workers (one plain file each, which a cache or an offline page can serve), and the
// server's worker and its readers into build.
import { build } from "esbuild";

await build({
  entryPoints: ["relief", "doubt", "view", "solve", "relay", "rack", "hub", "air", "offline"].map(
    (name) => `src/workers/${name}.worker.ts`,
  ),
  outdir: "public/workers",
  bundle: true,
  minify: true,
  format: "iife",
  platform: "browser",
  target: "es2022",
  tsconfig: "tsconfig.json",
  logLevel: "warning",
});

await build({
  entryPoints: { worker: "src/jobs/worker.ts", reader: "src/jobs/reader.ts", front: "src/front/main.ts" },
  outdir: "build",
  outExtension: { ".js": ".mjs" },
  bundle: true,
  format: "esm",
  platform: "node",
  target: "node20",
  packages: "external",
  tsconfig: "tsconfig.json",
  logLevel: "warning",
});
