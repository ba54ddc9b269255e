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
          exclude: ["src/data/**", "src/jobs/**", "src/service/**", "src/cli/**"],
          environment: "node",
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
            "demo/**/*.test.ts",
          ],
          environment: "node",
          fileParallelism: false,
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
