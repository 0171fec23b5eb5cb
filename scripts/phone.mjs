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
const { forgetCertificate, isPrivate, shopCertificate } = await import("./certificate.mjs");
const { newWord } = await import("./shelf.mjs");
const { servedHosts } = await import("./hosts.mjs");
const { default: qrcode } = await import("qrcode-generator");

const folder = resolve(".shop");
if (process.argv.includes("--forget")) {
  forgetCertificate(folder);
  console.log(
    "The shop's certificate and its key are taken off this computer: nothing new can be signed by it.\nTake it off each phone too: Android: Settings, Security, Encryption and credentials, User credentials. iPhone or iPad: Settings, General, VPN and Device Management.",
  );
  process.exit(0);
}
const all = Object.values(networkInterfaces())
  .flat()
  .filter((one) => one && one.family === "IPv4" && !one.internal)
  .map(({ address }) => address);
// The certificate vouches for private addresses alone.
const addresses = all.filter(isPrivate);
if (addresses.length === 0) {
  console.error(
    `This computer has no address in a private network${all.length > 0 ? ` (it has ${all.join(", ")})` : ""}: phones cannot reach it so. Join the shop's network first.`,
  );
  process.exit(1);
}
const [address] = addresses;
const port = Number(process.env.PORT ?? 3443);
const rootPort = Number(process.env.ROOT_PORT ?? 3480);
const { root, until } = await shopCertificate(folder, [...addresses, "127.0.0.1"]);
const word = newWord();
const day = until.toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" });

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
<p>Once per phone: it must trust this shop's own certificate, which was made on the computer in the shop.</p>
<p><b>What the phone then trusts, and until when:</b> until ${day}, whoever holds the certificate's key (a file on the shop's computer) can pass for any computer at a private address (10.…, 172.16 to 172.31.…, 192.168.…, 169.254.…, 127.…) or named localhost. It can vouch for no name and no address on the Internet. After that day the phone must be told anew.</p>
<p><b>To take it off:</b> Android: Settings, Security, Encryption and credentials, User credentials. iPhone or iPad: Settings, General, VPN and Device Management. On the shop's computer: <code>npm run phone -- --forget</code>.</p>
<p><a href="/shop.crt" style="display: inline-block; padding: 12px 18px; border: 2px solid">Get the shop's certificate</a></p>
<ol>${steps.map((step) => `<li>${step}</li>`).join("")}</ol>
<p><a href="${app}">${app}</a></p></body></html>`;
const isServed = servedHosts(address, process.env.NAMES);
const pages = http.createServer((request, answer) => {
  if (!isServed(request.headers.host)) {
    answer.writeHead(421, { "Content-Type": "text/plain" });
    answer.end("This server does not answer under that name.\n");
  } else if (request.url === "/shop.crt") {
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
    IRON_KEEL_SHELF_WORD: word,
  },
});
console.log(`
Iron Keel for the phones of this network. Whoever is on it can open the application; jobs stay in each browser.

1. Once per phone: ${first}
${square(first)}
${steps.map((step) => `   ${step}`).join("\n")}

2. Then, and from then on: ${app}
${square(app)}
3. A job goes over by the shop's shelf: 'Put it on the shelf' where it is saved, 'On the shop's shelf' where it is opened.
   To put there or take off wants the shelf's word, new at each start: ${word}
   Or photograph it:
${square(`${app}#shelf=${word}`)}
The certificate holds to ${day} and vouches for private addresses and localhost alone. Its key lies in .shop/ on this
computer: give it to nobody. To take both off again: npm run phone -- --forget
`);
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => {
    pages.close();
    server.kill(signal);
  });
server.on("exit", (code) => process.exit(code ?? 0));
