import { reactRouter } from "@react-router/dev/vite";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [reactRouter()],
  resolve: { tsconfigPaths: true },
  worker: { format: "es" },
  ssr: { noExternal: ["styled-components"] },
  // Class ids must be the same on the server and in the browser: the transform fixes them at compile time.
  oxc: {
    plugins: {
      styledComponents: { displayName: false, fileName: false, minify: true, pure: true },
    },
  },
  optimizeDeps: {
    include: [
      "react-aria-components",
      "dexie",
      "dexie-react-hooks",
      "comlink",
      "immer",
      "zod",
      "styled-components",
      "lucide-react",
      "papaparse",
      "chart.js",
      "react-chartjs-2",
    ],
  },
});
