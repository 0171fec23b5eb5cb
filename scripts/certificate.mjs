/**
 * The shop's own certificate: a root that a phone is told to trust, and one for this computer's addresses, made anew at
 * each start. The root can vouch for 'localhost' and for addresses of private networks alone (name constraints, RFC 5280,
 * 4.2.1.10), for servers alone, and makes no other root; it holds half a year. Keys stay in a folder of the project that
 * no commit and no server gives away.
 */
import "reflect-metadata";
import { createPrivateKey, X509Certificate as Read, webcrypto } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { BlockList, isIP } from "node:net";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { AsnConvert } from "@peculiar/asn1-schema";
import { GeneralName, GeneralSubtree, GeneralSubtrees, NameConstraints } from "@peculiar/asn1-x509";
import * as x509 from "@peculiar/x509";

x509.cryptoProvider.set(webcrypto);

const DAY_MS = 24 * 3600 * 1000;
export const ROOT_DAYS = 180;
/** A root is made anew when it would not outlast a season's work. */
const RENEWED_BEFORE_DAYS = 14;
const COMMON_NAME = "Iron Keel in this shop";
const NAME_CONSTRAINTS = "2.5.29.30";

/** Private, link-local and loopback networks: RFC 1918, RFC 3927, RFC 1122. */
const privateNetworks = ["10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8"];
const inPrivate = new BlockList();
for (const [net, bits] of privateNetworks.map((one) => one.split("/")))
  inPrivate.addSubnet(net, Number(bits), "ipv4");

/** Whether an IPv4 address is of a private network: the shop's certificate can vouch for no other. */
export const isPrivate = (address) => isIP(address) === 4 && inPrivate.check(address);

/** What the root may vouch for, as its extension. What is of a kind that stands in it, and is not in it, is refused. */
function constraints() {
  const subtree = (base) => new GeneralSubtree({ base: new GeneralName(base) });
  const permitted = [
    subtree({ dNSName: "localhost" }),
    // A kind of name that does not stand here would be free: mail and links are bound to this machine too.
    subtree({ rfc822Name: "localhost" }),
    subtree({ uniformResourceIdentifier: "localhost" }),
    ...privateNetworks.map((iPAddress) => subtree({ iPAddress })),
  ];
  const value = new NameConstraints({
    permittedSubtrees: new GeneralSubtrees(permitted),
  });
  return new x509.Extension(NAME_CONSTRAINTS, true, AsnConvert.serialize(value));
}

const algorithm = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" };
const serial = () =>
  Buffer.from(webcrypto.getRandomValues(new Uint8Array(16)))
    .toString("hex")
    .replace(/^[89a-f]/, "1");
const pemOf = async (key) =>
  createPrivateKey({
    key: Buffer.from(await webcrypto.subtle.exportKey("pkcs8", key)),
    format: "der",
    type: "pkcs8",
  }).export({ format: "pem", type: "pkcs8" });
const keyOf = (pem) =>
  webcrypto.subtle.importKey(
    "pkcs8",
    createPrivateKey(pem).export({ format: "der", type: "pkcs8" }),
    algorithm,
    false,
    ["sign"],
  );

/** A kept root that still holds, and that vouches for no more than one made today would. */
function keptRoot(keyFile, certFile) {
  if (!existsSync(keyFile) || !existsSync(certFile)) return null;
  const cert = readFileSync(certFile, "utf8");
  const read = new x509.X509Certificate(cert);
  const days = (read.notAfter - read.notBefore) / DAY_MS;
  const isBound = read.extensions.some(({ type }) => type === NAME_CONSTRAINTS);
  if (!isBound || days > ROOT_DAYS + 1) return null;
  if (read.notAfter.getTime() < Date.now() + RENEWED_BEFORE_DAYS * DAY_MS) return null;
  return { key: readFileSync(keyFile, "utf8"), cert };
}

async function rootOf(folder) {
  const [keyFile, certFile] = [join(folder, "root.key"), join(folder, "root.crt")];
  const kept = keptRoot(keyFile, certFile);
  if (kept) return kept;
  const keys = await webcrypto.subtle.generateKey(algorithm, true, ["sign", "verify"]);
  const made = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=${COMMON_NAME}`,
    notBefore: new Date(),
    notAfter: new Date(Date.now() + ROOT_DAYS * DAY_MS),
    signingAlgorithm: algorithm,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth], false),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      constraints(),
    ],
  });
  const key = await pemOf(keys.privateKey);
  writeFileSync(keyFile, key, { mode: 0o600 });
  writeFileSync(certFile, made.toString("pem"));
  return { key, cert: made.toString("pem") };
}

/** Root, key and certificate for addresses of private networks, PEM, and the day to which the root holds. */
export async function shopCertificate(folder, addresses) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const root = await rootOf(folder);
  const issuer = new x509.X509Certificate(root.cert);
  const keys = await webcrypto.subtle.generateKey(algorithm, true, ["sign", "verify"]);
  const made = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${addresses[0] ?? "localhost"}`,
    issuer: issuer.subject,
    notBefore: new Date(),
    // Never longer than what it hangs on.
    notAfter: issuer.notAfter,
    signingAlgorithm: algorithm,
    publicKey: keys.publicKey,
    signingKey: await keyOf(root.key),
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth], false),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
      new x509.SubjectAlternativeNameExtension([
        { type: "dns", value: "localhost" },
        ...addresses.map((value) => ({ type: "ip", value })),
      ]),
    ],
  });
  const key = await pemOf(keys.privateKey);
  const chain = `${made.toString("pem")}\n${root.cert}`;
  writeFileSync(join(folder, "server.key"), key, { mode: 0o600 });
  writeFileSync(join(folder, "server.crt"), chain);
  return { root: root.cert, key, cert: chain, until: new Date(new Read(root.cert).validTo) };
}

/** Takes the root and its key off this computer: nothing can be signed by it any more. */
export const forgetCertificate = (folder) => rmSync(folder, { recursive: true, force: true });

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const [folder = ".shop", ...addresses] = process.argv.slice(2);
  await shopCertificate(folder, addresses);
}
