import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { language } from "./catalogue.mjs";

const spoken = process.env.GENTLE_HEM_LANGUAGE;

export default defineConfig({
  plugins: [...(spoken ? [language(spoken)] : []), react(), tailwindcss()],
  server: { host: "127.0.0.1", proxy: { "/api": "http://127.0.0.1:8765" } },
});
