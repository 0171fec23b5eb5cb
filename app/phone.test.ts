/** The shop's certificate held against Node's own reading of X.509 (RFC 5280) and a real TLS handshake. */
import { type ChildProcess, execFileSync, spawn, spawnSync } from "node:child_process";
import { createPrivateKey, X509Certificate } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createServer, get } from "node:https";
import { hostname, networkInterfaces, tmpdir } from "node:os";
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
    // Half a year, and what hangs on the root no longer than it.
    const days = (Date.parse(root.validTo) - Date.parse(root.validFrom)) / 86_400_000;
    expect(days).toBeLessThanOrEqual(181);
    expect(Date.parse(leaf.validTo)).toBeLessThanOrEqual(Date.parse(root.validTo));
  });

  /** Signs what a thief of the root's key would sign, and asks OpenSSL, which is another's reading of RFC 5280, 6.1. */
  const verified = (names: string, more: string[] = []): string => {
    const at = (name: string) => join(folder, name);
    const [key, request, extensions, made] = ["x.key", "x.csr", "x.ext", "x.crt"].map(at) as [
      string,
      string,
      string,
      string,
    ];
    const ssl = (...words: string[]) => execFileSync("openssl", words, { stdio: "pipe" }).toString();
    ssl("ecparam", "-name", "prime256v1", "-genkey", "-noout", "-out", key);
    ssl("req", "-new", "-key", key, "-subj", "/CN=x", "-out", request);
    writeFileSync(extensions, [`subjectAltName=${names}`, ...more].join("\n"));
    ssl(
      "x509",
      "-req",
      "-in",
      request,
      "-CA",
      at("root.crt"),
      "-CAkey",
      at("root.key"),
      "-days",
      "9",
      "-extfile",
      extensions,
      "-out",
      made,
    );
    const asked = spawnSync("openssl", ["verify", "-purpose", "sslserver", "-CAfile", at("root.crt"), made]);
    return String(asked.stdout) + String(asked.stderr);
  };

  test.each([
    "DNS:bank.example",
    "DNS:localhost.bank.example",
    "IP:8.8.8.8",
    "IP:172.32.0.1",
    "IP:2001:db8::1",
    "DNS:localhost,DNS:bank.example",
  ])("its root cannot vouch for %s, by another verifier", (names) =>
    expect(verified(names)).toMatch(/permitted subtree violation/),
  );

  test.each(["DNS:localhost", "IP:192.168.7.21", "IP:10.1.2.3", "IP:172.31.255.1"])(
    "its root can vouch for %s",
    (names) => expect(verified(names)).toMatch(/: OK/),
  );

  test("its root makes no other root: what hangs on one that it signed is refused", () => {
    const at = (name: string) => join(folder, name);
    verified("DNS:localhost", ["basicConstraints=critical,CA:TRUE"]);
    execFileSync("cp", [at("x.crt"), at("sub.crt")]);
    execFileSync("cp", [at("x.key"), at("sub.key")]);
    const ssl = (...words: string[]) => execFileSync("openssl", words, { stdio: "pipe" });
    ssl("req", "-new", "-key", at("sub.key"), "-subj", "/CN=y", "-out", at("y.csr"));
    writeFileSync(at("y.ext"), "subjectAltName=DNS:localhost");
    ssl(
      "x509",
      "-req",
      "-in",
      at("y.csr"),
      "-CA",
      at("sub.crt"),
      "-CAkey",
      at("sub.key"),
      "-days",
      "9",
      "-extfile",
      at("y.ext"),
      "-out",
      at("y.crt"),
    );
    const asked = spawnSync("openssl", [
      "verify",
      "-CAfile",
      at("root.crt"),
      "-untrusted",
      at("sub.crt"),
      at("y.crt"),
    ]);
    expect(String(asked.stderr)).toMatch(/path length constraint exceeded/);
  });

  test("a root of an older kind, which could vouch for any name, is not used again", () => {
    const old = mkdtempSync(join(tmpdir(), "shop-old-"));
    execFileSync(
      "openssl",
      [
        "req",
        "-x509",
        "-newkey",
        "ec",
        "-pkeyopt",
        "ec_paramgen_curve:prime256v1",
        "-nodes",
        "-days",
        "3650",
        "-subj",
        "/CN=Iron Keel in this shop",
        "-keyout",
        join(old, "root.key"),
        "-out",
        join(old, "root.crt"),
      ],
      { stdio: "pipe" },
    );
    const before = readFileSync(join(old, "root.crt"), "utf8");
    execFileSync("node", ["scripts/certificate.mjs", old, "192.168.7.20"]);
    expect(readFileSync(join(old, "root.crt"), "utf8")).not.toBe(before);
    rmSync(old, { recursive: true });
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

describe("the shop's shelf", () => {
  const WORD = "K7QF-2MXA";
  const program = `
    import express from "express";
    import { shelf } from "./scripts/shelf.mjs";
    const app = express();
    app.use("/shelf", shelf("${WORD}"));
    app.use("/other", shelf("${WORD}"));
    app.use("/full", shelf("${WORD}"));
    const server = app.listen(0, "127.0.0.1", () => console.log(server.address().port));`;
  let served: ChildProcess;
  let base = "";
  beforeAll(async () => {
    served = spawn("node", ["--input-type=module", "-e", program]);
    const port = await new Promise<string>((done) =>
      served.stdout!.once("data", (data) => done(String(data).trim())),
    );
    base = `http://127.0.0.1:${port}/shelf`;
  });
  afterAll(() => void served.kill());
  const ask = (
    method: string,
    path: string,
    body: string | Blob | null,
    headers: Record<string, string> = {},
  ) =>
    fetch(path.startsWith("http") ? path : `${base}/${path}`, {
      method,
      ...(body !== null && { body }),
      headers: { "X-Shelf-Word": WORD, ...headers },
    });
  const put = (id: string, body: string, headers: Record<string, string> = {}) =>
    ask("PUT", id, body, headers).then(({ status }) => status);
  const list = async (at = base) =>
    ((await (await fetch(at)).json()) as { files: { id: string; name: string; tag: string }[] }).files;

  test("gives back what was laid down, byte for byte, under its name", async () => {
    expect(await list()).toEqual([]);
    expect(await put("marram", "{\u00e9}", { "X-Job-Name": encodeURIComponent("Marr\u00e9m / 2") })).toBe(
      204,
    );
    expect(await list()).toMatchObject([{ id: "marram", name: "Marr\u00e9m / 2", bytes: 4 }]);
    expect(await (await fetch(`${base}/marram`)).text()).toBe("{\u00e9}");
    expect((await fetch(`${base}/other`)).status).toBe(404);
  });

  test("another's file is replaced only by who has seen it as it lies, and taken off by who has", async () => {
    const refused = await ask("PUT", "marram", "mine");
    expect(refused.status).toBe(412);
    expect(await refused.text()).toMatch(/Marr\u00e9m \/ 2 lies there already/);
    expect(await (await fetch(`${base}/marram`)).text()).toBe("{\u00e9}");
    const tag = refused.headers.get("ETag") ?? "";
    expect(await put("marram", "mine", { "If-Match": tag })).toBe(204);
    // What was seen is not there any more: a third device replaced it meanwhile.
    expect(await put("marram", "late", { "If-Match": tag })).toBe(412);
    expect((await ask("DELETE", "marram", null, { "If-Match": tag })).status).toBe(412);
    const [now] = await list();
    expect((await ask("DELETE", "marram", null, { "If-Match": now!.tag })).status).toBe(204);
    expect(await put("marram", "x", { "If-Match": tag })).toBe(412);
    expect(await list()).toEqual([]);
  });

  test("takes nothing from a page of another place, without a body, or under a name that is none", async () => {
    expect(await put("x", "y", { Origin: "https://elsewhere.example" })).toBe(403);
    expect(await put("x", "y", { Origin: "null" })).toBe(403);
    expect(await put("x", "")).toBe(400);
    expect(await put("x", "y", { "X-Job-Name": "%E0%A4%A" })).toBe(400);
    expect(await put("..%2fetc", "y")).toBe(400);
    expect(await put("a-name-that-is-too-long", "y")).toBe(400);
    expect(await list()).toEqual([]);
  });

  test("wants its word, typed in whatever case and with or without its dash; words cannot be tried by the thousand", async () => {
    const other = base.replace("shelf", "other");
    const tried = (word: string, method = "PUT") =>
      ask(method, `${other}/a`, method === "PUT" ? "y" : null, { "X-Shelf-Word": word }).then(
        ({ status }) => status,
      );
    expect(await tried("k7qf 2mxa")).toBe(204);
    expect(await tried("", "DELETE")).toBe(401);
    expect((await list(other)).length).toBe(1);
    const answers: number[] = [];
    for (let i = 0; i < 25; i++) answers.push(await tried(`AAAA-AA${10 + i}`));
    expect(answers.filter((status) => status === 401)).toHaveLength(19);
    // The right word too is not tried while somebody guesses.
    expect(await tried(WORD)).toBe(429);
  });

  test("holds so many jobs and so much in all, says so in plain words, and refuses a file that is too large at once", async () => {
    const full = base.replace("shelf", "full");
    const answers: number[] = [];
    for (let i = 0; i < 41; i++) answers.push((await ask("PUT", `${full}/job${i}`, "x")).status);
    expect(answers.filter((status) => status === 204)).toHaveLength(40);
    expect(answers.at(-1)).toBe(507);
    for (let i = 0; i < 40; i++) await ask("DELETE", `${full}/job${i}`, null);
    const large = await ask("PUT", `${full}/large`, new Blob([new Uint8Array(65 * 1024 * 1024)])).catch(
      () => null,
    );
    // The connection may be closed while the rest is still on its way.
    if (large)
      expect([large.status, await large.text()]).toEqual([413, expect.stringMatching(/at most 64 MB/)]);
    // What was still on its way is not for the next.
    await new Promise((done) => setTimeout(done, 200));
    const some = new Blob([new Uint8Array(60 * 1024 * 1024)]);
    const kept: number[] = [];
    for (let i = 0; i < 9; i++) kept.push((await ask("PUT", `${full}/job${i}`, some)).status);
    expect(kept).toEqual([204, 204, 204, 204, 204, 204, 204, 204, 507]);
  });
});

describe("names that the server answers under", () => {
  const program = `
    import { servedHosts } from "./scripts/hosts.mjs";
    const asked = JSON.parse(process.argv[1]);
    const isServed = servedHosts("0.0.0.0", "keel.shop.example");
    console.log(JSON.stringify(asked.map(isServed)));`;
  test("are this machine's own and those given, with any port; a name made to point here is none of them", () => {
    const own =
      Object.values(networkInterfaces())
        .flat()
        .find((one) => one?.family === "IPv4")?.address ?? "127.0.0.1";
    const yes = [
      "localhost",
      "localhost:3000",
      "127.0.0.1:3443",
      "[::1]:3000",
      `${own}:99`,
      hostname(),
      "Keel.Shop.Example:3000",
    ];
    const no = [
      "rebound.example",
      "rebound.example:3000",
      "8.8.8.8",
      "localhost.rebound.example",
      "localhost@x",
      "",
      "[::1",
      "127.0.0.1:3000:1",
      "0x7f000001",
    ];
    const found = execFileSync("node", [
      "--input-type=module",
      "-e",
      program,
      JSON.stringify([...yes, ...no]),
    ]);
    expect(JSON.parse(String(found))).toEqual([...yes.map(() => true), ...no.map(() => false)]);
  });
});
