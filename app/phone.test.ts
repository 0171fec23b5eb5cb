/** The shop's certificate held against Node's own reading of X.509 (RFC 5280) and a real TLS handshake. */
import { type ChildProcess, execFileSync, spawn } from "node:child_process";
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

describe("the shop's shelf", () => {
  const program = `
    import express from "express";
    import { shelf } from "./scripts/shelf.mjs";
    const app = express();
    app.use("/shelf", shelf());
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
  const put = (id: string, body: string, headers: Record<string, string> = {}) =>
    fetch(`${base}/${id}`, { method: "PUT", body, headers }).then(({ status }) => status);
  const list = async () =>
    ((await (await fetch(base)).json()) as { files: { id: string; name: string }[] }).files;

  test("gives back what was laid down, byte for byte, under its name; the newer takes the place of the older", async () => {
    expect(await list()).toEqual([]);
    expect(await put("marram", "first")).toBe(204);
    expect(await put("marram", "{\u00e9}", { "X-Job-Name": encodeURIComponent("Marr\u00e9m / 2") })).toBe(
      204,
    );
    expect(await list()).toMatchObject([{ id: "marram", name: "Marr\u00e9m / 2", bytes: 4 }]);
    expect(await (await fetch(`${base}/marram`)).text()).toBe("{\u00e9}");
    expect((await fetch(`${base}/other`)).status).toBe(404);
  });

  test("takes nothing from a page of another place, without a body, or under a name that is none", async () => {
    const before = await list();
    expect(await put("x", "y", { Origin: "https://elsewhere.example" })).toBe(403);
    expect(await put("x", "y", { Origin: "null" })).toBe(403);
    expect(await put("x", "")).toBe(400);
    expect(await put("x", "y", { "X-Job-Name": "%E0%A4%A" })).toBe(400);
    expect(await put("..%2fetc", "y")).toBe(400);
    expect(await put("a-name-that-is-too-long", "y")).toBe(400);
    expect(await list()).toEqual(before);
  });

  test("holds forty jobs and says when it is full", async () => {
    const answers: number[] = [];
    for (let i = 0; i < 41; i++) answers.push(await put(`job${i}`, "x"));
    expect(answers.filter((status) => status === 204)).toHaveLength(39);
    expect(answers.at(-1)).toBe(507);
    // One that lies there already can still be laid down anew.
    expect(await put("marram", "again")).toBe(204);
  });
});
