/** The shop's certificate held against Node's own reading of X.509 (RFC 5280) and a real TLS handshake. */
import { execFileSync } from "node:child_process";
import { createPrivateKey, X509Certificate } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { createServer, get } from "node:https";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";

const folder = mkdtempSync(join(tmpdir(), "shop-"));
const make = () => execFileSync("node", ["scripts/certificate.mjs", folder, "192.168.7.20", "127.0.0.1"]);
const read = (name: string) => readFileSync(join(folder, name), "utf8");

beforeAll(() => void make());
afterAll(() => rmSync(folder, { recursive: true }));

describe("the shop's own certificate", () => {
  test("is signed by the root that the phone trusts, for the computer's addresses and no others", () => {
    const [root, leaf] = [new X509Certificate(read("root.crt")), new X509Certificate(read("server.crt"))];
    expect(root.ca).toBe(true);
    expect(leaf.ca).toBe(false);
    expect(leaf.verify(root.publicKey)).toBe(true);
    expect(leaf.checkPrivateKey(createPrivateKey(read("server.key")))).toBe(true);
    for (const ip of ["192.168.7.20", "127.0.0.1"]) expect(leaf.checkIP(ip)).toBe(ip);
    expect(leaf.checkIP("192.168.7.21")).toBeUndefined();
    expect(leaf.checkHost("example.org")).toBeUndefined();
    // Phones refuse what holds longer than 825 days.
    const days = (Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)) / 86_400_000;
    expect(days).toBeLessThanOrEqual(825);
  });

  test("the root stays the same from start to start, so that a phone is told once; its key is the owner's alone", () => {
    const before = read("root.crt");
    make();
    expect(read("root.crt")).toBe(before);
    expect(statSync(join(folder, "root.key")).mode & 0o077).toBe(0);
  });

  test("a device that trusts the root is answered, one that does not is not", async () => {
    const server = createServer({ key: read("server.key"), cert: read("server.crt") }, (_, answer) =>
      answer.end("ok"),
    );
    await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
    const { port } = server.address() as { port: number };
    const ask = (ca?: string) =>
      new Promise<string>((done) => {
        get({ host: "127.0.0.1", port, path: "/", ...(ca ? { ca } : {}) }, (answer) => {
          answer.resume();
          done(String(answer.statusCode));
        }).on("error", (error: NodeJS.ErrnoException) => done(error.code ?? "failed"));
      });
    expect(await ask(read("root.crt"))).toBe("200");
    expect(await ask()).toMatch(/SELF_SIGNED|UNABLE_TO/);
    server.close();
  });
});
