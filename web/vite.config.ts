import { svelte } from "@sveltejs/vite-plugin-svelte";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

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
});
