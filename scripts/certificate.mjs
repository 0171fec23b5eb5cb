/**
 * The shop's own certificate: a root that a phone is told to trust once, and one for this computer's addresses, made
 * anew at each start. Keys stay in a folder of the project that no commit and no server gives away.
 */
import { X509Certificate } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { generate } from "selfsigned";

const DAY_MS = 24 * 3600 * 1000;
/** Phones refuse a server's certificate that holds longer than 825 days; a year is plenty for one that is made anew. */
const LEAF_DAYS = 365;
const ROOT_DAYS = 3650;

const until = (days) => new Date(Date.now() + days * DAY_MS);

async function rootOf(folder) {
  const [keyFile, certFile] = [join(folder, "root.key"), join(folder, "root.crt")];
  if (existsSync(keyFile) && existsSync(certFile)) {
    const cert = readFileSync(certFile, "utf8");
    if (Date.parse(new X509Certificate(cert).validTo) > Date.now() + 30 * DAY_MS)
      return { key: readFileSync(keyFile, "utf8"), cert };
  }
  const made = await generate([{ name: "commonName", value: "Iron Keel in this shop" }], {
    keyType: "ec",
    curve: "P-256",
    algorithm: "sha256",
    notAfterDate: until(ROOT_DAYS),
    extensions: [
      { name: "basicConstraints", cA: true, critical: true },
      { name: "keyUsage", keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
  writeFileSync(keyFile, made.private, { mode: 0o600 });
  writeFileSync(certFile, made.cert);
  return { key: made.private, cert: made.cert };
}

/** Root, key and certificate for some addresses, PEM. */
export async function shopCertificate(folder, addresses) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const root = await rootOf(folder);
  const made = await generate([{ name: "commonName", value: addresses[0] ?? "localhost" }], {
    keyType: "ec",
    curve: "P-256",
    algorithm: "sha256",
    notAfterDate: until(LEAF_DAYS),
    ca: root,
    extensions: [
      { name: "basicConstraints", cA: false },
      { name: "keyUsage", digitalSignature: true, critical: true },
      { name: "extKeyUsage", serverAuth: true },
      {
        name: "subjectAltName",
        altNames: [{ type: 2, value: "localhost" }, ...addresses.map((ip) => ({ type: 7, ip }))],
      },
    ],
  });
  writeFileSync(join(folder, "server.key"), made.private, { mode: 0o600 });
  writeFileSync(join(folder, "server.crt"), `${made.cert}\n${root.cert}`);
  return { root: root.cert, key: made.private, cert: `${made.cert}\n${root.cert}` };
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const [folder = ".shop", ...addresses] = process.argv.slice(2);
  await shopCertificate(folder, addresses);
}
