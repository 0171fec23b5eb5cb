/**
 * Opens the application to the phones of a shop's network, over https with the shop's own certificate: only so may a phone
 * keep it offline, keep its storage and keep its screen awake. Nothing leaves the network.
 */
import { execFileSync, spawn } from "node:child_process";
import { existsSync } from "node:fs";
import http from "node:http";
import { networkInterfaces } from "node:os";
import { resolve } from "node:path";
import { installPackages } from "./install.mjs";

installPackages();
if (!existsSync("build/server/index.js") || process.env.BUILD === "1")
  execFileSync("npm", ["run", "-s", "build"], { stdio: ["ignore", "inherit", "inherit"] });
const { shopCertificate } = await import("./certificate.mjs");
const { default: qrcode } = await import("qrcode-generator");

const folder = resolve(".shop");
const addresses = Object.values(networkInterfaces())
  .flat()
  .filter((one) => one && one.family === "IPv4" && !one.internal)
  .map(({ address }) => address);
const address = addresses[0] ?? "127.0.0.1";
const port = Number(process.env.PORT ?? 3443);
const rootPort = Number(process.env.ROOT_PORT ?? 3480);
const { root } = await shopCertificate(folder, [...addresses, "127.0.0.1"]);

const app = `https://${address}:${port}/`;
const first = `http://${address}:${rootPort}/`;

/** Prints a square for the phone's camera. */
function square(text) {
  const code = qrcode(0, "M");
  code.addData(text);
  code.make();
  return code.createASCII(1, 2);
}

const steps = [
  "Android: open the file, or Settings, Security, Encryption and credentials, Install a certificate, CA certificate. Accept 'Iron Keel in this shop'.",
  "iPhone or iPad: allow the profile, then Settings, Profile Downloaded, Install; then Settings, General, About, Certificate Trust Settings: switch 'Iron Keel in this shop' on.",
  "Then open the second address and, in the browser's menu, add it to the home screen.",
];
const page = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Iron Keel on this phone</title>
<body style="font: 17px/1.5 sans-serif; max-width: 34em; margin: 1.5em auto; padding: 0 1em">
<h1>Iron Keel on this phone</h1>
<p>Once per phone: it must trust this shop's own certificate, which was made on the computer in the shop. It is good for addresses that this computer answers at and for nothing in the Internet; take it off the phone again when the shop no longer uses it.</p>
<p><a href="/shop.crt" style="display: inline-block; padding: 12px 18px; border: 2px solid">Get the shop's certificate</a></p>
<ol>${steps.map((step) => `<li>${step}</li>`).join("")}</ol>
<p><a href="${app}">${app}</a></p></body></html>`;
const pages = http.createServer((request, answer) => {
  if (request.url === "/shop.crt") {
    answer.writeHead(200, { "Content-Type": "application/x-x509-ca-cert" });
    answer.end(root);
  } else {
    answer.writeHead(200, { "Content-Type": "text/html; charset=utf-8" });
    answer.end(page);
  }
});
pages.on("error", (error) => {
  console.error(`cannot listen on port ${rootPort}: ${error.message}`);
  process.exit(1);
});
pages.listen(rootPort, "0.0.0.0");

const server = spawn("node", ["scripts/serve.mjs"], {
  stdio: "inherit",
  env: {
    ...process.env,
    PORT: String(port),
    HOST: "0.0.0.0",
    NODE_ENV: "production",
    TLS_KEY: resolve(folder, "server.key"),
    TLS_CERT: resolve(folder, "server.crt"),
    IRON_KEEL_SHELF: "1",
  },
});
console.log(`
Iron Keel for the phones of this network. Whoever is on it can open the application; jobs stay in each browser.

1. Once per phone: ${first}
${square(first)}
${steps.map((step) => `   ${step}`).join("\n")}

2. Then, and from then on: ${app}
${square(app)}
A job goes over by the shop's shelf: 'Put it on the shelf' where it is saved, 'On the shop's shelf' where it is opened.
The key of the certificate lies in .shop/ on this computer: give it to nobody; delete the folder to begin anew.
`);
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => {
    pages.close();
    server.kill(signal);
  });
server.on("exit", (code) => process.exit(code ?? 0));
