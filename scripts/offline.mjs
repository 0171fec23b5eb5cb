/** After the build: the application shell and the offline worker, so that it opens with the server stopped; and what is sent, pressed once. */
import { readdir, readFile, writeFile } from "node:fs/promises";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { gzipSync } from "node:zlib";
import { generateSW } from "workbox-build";

process.env.NODE_ENV ??= "production";
// The shell is asked for as the framework's own build asks for a page without server rendering.
process.env.IS_RR_BUILD_REQUEST = "yes";
const { createRequestHandler } = await import("react-router");
const build = await import(pathToFileURL(resolve("build/server/index.js")).href);
const handle = createRequestHandler(build, "production");
const answer = await handle(
  new Request("http://localhost/", { headers: { "X-React-Router-SPA-Mode": "yes" } }),
);
const html = await answer.text();
if (!html.includes('"isSpaMode":true'))
  throw new Error("the shell is not one: the framework's header has changed");
await writeFile("build/client/shell.html", html);

const { count, size, warnings } = await generateSW({
  globDirectory: "build/client",
  globPatterns: ["**/*.{js,css,woff2,ttf,svg,html,webmanifest}"],
  swDest: "build/client/sw.js",
  maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
  skipWaiting: false,
  clientsClaim: true,
  inlineWorkboxRuntime: true,
  sourcemap: false,
  navigateFallback: undefined,
  runtimeCaching: [
    {
      urlPattern: ({ request }) => request.mode === "navigate",
      handler: "NetworkOnly",
      options: { precacheFallback: { fallbackURL: "shell.html" } },
    },
  ],
});
for (const warning of warnings) console.warn(warning);

const assets = (await readdir("build/client/assets")).filter((name) => /\.(js|css|svg|ttf)$/.test(name));
for (const name of assets) {
  const file = `build/client/assets/${name}`;
  await writeFile(`${file}.gz`, gzipSync(await readFile(file)));
}
console.log(`offline: ${count} files, ${Math.round(size / 1024)} kB`);
process.exit(0);
