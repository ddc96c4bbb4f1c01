import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  base: "/static/",
  plugins: [react(), tailwindcss()],
  html: { cspNonce: "{{ CSP_NONCE }}" }, // index.html is served as a Django template
  build: { chunkSizeWarningLimit: 900 },
});
