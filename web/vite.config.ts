import { svelte } from "@sveltejs/vite-plugin-svelte";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [svelte(), tailwindcss()],
  base: "/static/",
  build: {
    outDir: "dist",
    manifest: "manifest.json",
    // a strict content policy allows no data: scripts or styles
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
    rolldownOptions: { input: "src/main.ts" },
  },
  resolve: process.env.VITEST ? { conditions: ["browser"] } : {},
  test: { environment: "jsdom", setupFiles: ["tests/setup.ts"], include: ["tests/**/*.test.ts"] },
});
