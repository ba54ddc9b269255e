// Builds the browser's workers into public/workers (one plain file each, which a cache or an offline page can serve), and the
// server's worker and its readers into build.
import { mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import path from "node:path";
import { build } from "esbuild";

/** Puts what was built in its place, each file at once: a process that is just starting reads the one or the other, never half of it. */
const put = ({ outputFiles }) => {
  for (const file of outputFiles) {
    let before = null;
    try {
      before = readFileSync(file.path);
    } catch {
      // It is the first.
    }
    if (before?.equals(file.contents)) continue;
    mkdirSync(path.dirname(file.path), { recursive: true });
    writeFileSync(`${file.path}.new`, file.contents);
    renameSync(`${file.path}.new`, file.path);
  }
};

put(
  await build({
    write: false,
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
  }),
);

put(
  await build({
    write: false,
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
  }),
);
