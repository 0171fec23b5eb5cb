/**
 * The production server. Listens on this machine alone unless HOST says otherwise; PORT is 3000 unless it is set; over
 * https where TLS_KEY and TLS_CERT name its files.
 */
import { readFileSync } from "node:fs";
import https from "node:https";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import compression from "compression";
import express from "express";
import helmet from "helmet";
import sirv from "sirv";
import { servedHosts } from "./hosts.mjs";

// Before React is loaded, which looks at it once.
process.env.NODE_ENV ??= "production";
const { createRequestHandler } = await import("@react-router/express");
const build = await import(pathToFileURL(resolve("build/server/index.js")).href);
const client = resolve("build/client");
const { openSockets, policyOf } = build.entry.module;

const port = Number(process.env.PORT ?? 3000);
const host = process.env.HOST ?? "localhost";
const isServed = servedHosts(host, process.env.NAMES);

const app = express();
app.disable("x-powered-by");
app.use((request, answer, next) => {
  if (isServed(request.headers.host)) return next();
  answer.status(421).type("text/plain").send("This server does not answer under that name.\n");
});
app.use(
  helmet({
    // Each page brings a policy of its own; what is no page gets the one below.
    contentSecurityPolicy: false,
    frameguard: { action: "deny" },
    referrerPolicy: { policy: "no-referrer" },
    // Served over plain HTTP on a machine of one's own too.
    strictTransportSecurity: false,
  }),
);
app.use((_, answer, next) => {
  answer.setHeader("Permissions-Policy", "camera=(self), geolocation=(), microphone=(), payment=(), usb=()");
  next();
});
// Where the shop's phones come in, jobs are laid down for one another.
if (process.env.IRON_KEEL_SHELF === "1") {
  const { shelf } = await import("./shelf.mjs");
  app.use("/shelf", shelf(process.env.IRON_KEEL_SHELF_WORD));
}
// Everything is read here; what is changed is changed in the browser.
app.use((request, answer, next) => {
  if (["GET", "HEAD"].includes(request.method)) return next();
  answer.setHeader("Allow", "GET, HEAD");
  answer.status(405).type("text/plain").send("Not allowed here.\n");
});
/** What is no page runs nothing; a worker starts from here, and reaches this server alone. */
const filePolicy =
  "default-src 'none'; script-src 'self'; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'";
const setHeaders = (answer) => answer.setHeader("Content-Security-Policy", filePolicy);
app.use(["/health", "/schema", "/demo"], (_, answer, next) => {
  setHeaders(answer);
  next();
});
app.use(compression());
app.get("/shell.html", (_, answer) => {
  const html = readFileSync(resolve(client, "shell.html"), "utf8");
  answer.setHeader("Content-Security-Policy", policyOf(html));
  answer.type("html").send(html);
});
// As the build pressed them: to press them for each visit took longer than to send them.
app.use(
  "/assets",
  sirv(resolve(client, "assets"), { gzip: true, immutable: true, maxAge: 31_536_000, setHeaders }),
);
app.use("/assets", (_request, _answer, next) =>
  next(Object.assign(new Error("no such asset"), { status: 404 })),
);
app.use(express.static(client, { index: false, maxAge: 0, setHeaders }));
app.use(createRequestHandler({ build, mode: process.env.NODE_ENV }));
// Four parameters make it what faults come to.
app.use((error, _request, answer, _) => {
  const status = error.status ?? 500;
  if (status >= 500) console.error(error);
  answer
    .status(status)
    .type("text/plain")
    .send(status === 404 ? "Not here.\n" : "The server failed.\n");
});

const { TLS_KEY, TLS_CERT } = process.env;
const server =
  TLS_KEY && TLS_CERT
    ? https.createServer({ key: readFileSync(TLS_KEY), cert: readFileSync(TLS_CERT) }, app).listen(port, host)
    : app.listen(port, host);
// Connections on which nothing is asked, and requests that never end.
server.keepAliveTimeout = 10_000;
server.headersTimeout = 15_000;
server.requestTimeout = 120_000;
server.on("error", (error) => {
  console.error(`cannot listen on ${host}:${port}: ${error.message}`);
  process.exit(1);
});

openSockets(server, isServed);
for (const signal of ["SIGTERM", "SIGINT"]) process.once(signal, () => server.close(() => process.exit(0)));
