import { defineConfig } from "@playwright/test";
import base from "./screenshots.config";
export default defineConfig({ ...base, testMatch: "zz.ts" });
