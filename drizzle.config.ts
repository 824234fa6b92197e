import { defineConfig } from "drizzle-kit";

export default defineConfig({
  dialect: "postgresql",
  schema: "./apps/server/db/schema.ts",
  out: "./apps/server/db/migrations",
  casing: "snake_case",
});
