import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { KEPT_CACHE } from "./app/kept.ts";
import { VitePWA } from "vite-plugin-pwa";

const DAY_SECONDS = 24 * 60 * 60;

/**
 * What a device keeps of the floor's pages, so that one that was opened at a machine opens there without a network: the
 * app itself, and the last answers about the lane and who is signed in. Everything else goes to the server, always.
 */
const kept = VitePWA({
  injectRegister: false,
  registerType: "autoUpdate",
  manifest: false,
  workbox: {
    // what the floor does not need is fetched when it is wanted
    globPatterns: ["**/*.{html,js,css,woff2,svg}"],
    globIgnores: ["**/{SpaceView,ScenePanel,ProgramEditor,ProvePage,reader.worker,BenchPage,MarksPage}-*.js"],
    navigateFallback: "index.html",
    navigateFallbackAllowlist: [/^\/floor(\/|$)/],
    cleanupOutdatedCaches: true,
    clientsClaim: true,
    skipWaiting: true,
    sourcemap: false,
    runtimeCaching: [
      {
        urlPattern: /\/api\/(session|floor|floor\/lanes\/[^/]+)$/,
        handler: "NetworkFirst",
        options: {
          cacheName: KEPT_CACHE,
          networkTimeoutSeconds: 6,
          cacheableResponse: { statuses: [200] },
          expiration: { maxEntries: 60, maxAgeSeconds: 14 * DAY_SECONDS },
        },
      },
    ],
  },
});

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss(), kept],
  build: { manifest: true, outDir: "../../dist/web", emptyOutDir: true, target: "es2022", chunkSizeWarningLimit: 700 },
  server: { proxy: { "/api": "http://127.0.0.1:4310" } },
});
