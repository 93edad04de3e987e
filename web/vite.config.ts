import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
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
