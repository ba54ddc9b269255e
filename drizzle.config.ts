import { defineConfig } from "drizzle-kit";

export default defineConfig({
  dialect: "postgresql",
  schema: [
    "./src/data/schema.ts",
    "./src/data/schema-shared.ts",
    "./src/data/schema-work.ts",
    "./src/data/schema-people.ts",
    "./src/data/schema-hooks.ts",
  ],
  out: "./src/data/migrations",
});
