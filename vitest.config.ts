import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const alias = { "@": fileURLToPath(new URL("./src", import.meta.url)) };

export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: "unit",
          include: ["src/**/*.test.ts"],
          exclude: ["src/ops/backup.test.ts", "src/ops/firm.test.ts", "src/data/**", "src/jobs/**", "src/service/**", "src/cli/**"],
          environment: "node",
          // Slow machines under load: a test that hangs is told apart from one that is only late.
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "integration",
          include: [
            "src/data/**/*.test.ts",
            "src/jobs/**/*.test.ts",
            "src/service/**/*.test.ts",
            "src/cli/**/*.test.ts",
            "src/ops/backup.test.ts",
            "src/ops/firm.test.ts",
            "demo/**/*.test.ts",
          ],
          environment: "node",
          fileParallelism: false,
          testTimeout: 120_000,
          hookTimeout: 180_000,
        },
      },
    ],
  },
});
