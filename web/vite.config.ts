import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src/offline",
      filename: "sw.ts",
      injectRegister: false,
      manifest: false,
      injectManifest: { globPatterns: ["**/*.{js,css,html,svg,woff2,png,webmanifest}"] },
    }),
  ],
  build: { target: "es2023" },
  // Bodega answers to its own name and its own pages only: the development server asks as one of them.
  server: {
    proxy: {
      "/api": {
        target: "http://127.0.0.1:4730",
        changeOrigin: true,
        headers: { origin: "http://127.0.0.1:4730", "sec-fetch-site": "same-origin" },
      },
    },
  },
});
