/** Sockets of a real server, opened by another's client as any program may open them. */
import { readFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { WebSocket } from "ws";
import { openSockets } from "./sockets.server";

const IDLE_MS = 120;
let server: Server;
let port: number;
beforeEach(async () => {
  server = createServer();
  openSockets(server, (host) => host?.startsWith("127.0.0.1") ?? false, { idleMs: IDLE_MS, most: 2 });
  await new Promise<void>((done) => void server.listen(0, "127.0.0.1", done));
  ({ port } = server.address() as AddressInfo);
});
afterEach(() => new Promise<void>((done) => void server.close(() => done())));

function opened(path = "/signalk/v1/stream", headers = {}) {
  const socket = new WebSocket(`ws://127.0.0.1:${port}${path}`, { headers });
  const heard: unknown[] = [];
  socket.on("message", (data) => heard.push(JSON.parse(String(data))));
  const when = (event: string) => new Promise<void>((done) => void socket.on(event, () => done()));
  const refused = new Promise<string>((done) => void socket.on("error", ({ message }) => done(message)));
  return { socket, heard, refused, closed: when("close"), open: when("open") };
}

describe("a socket", () => {
  test("on which nothing is said is closed, and not before its time", async () => {
    const began = performance.now();
    const { heard, closed } = opened();
    await closed;
    expect(heard).toEqual([{ name: expect.any(String), ...(heard[0] as object) }]);
    expect(performance.now() - began).toBeGreaterThanOrEqual(IDLE_MS - 5);
  });

  test("that asks is answered on, though the silent are closed before the second delta comes", async () => {
    const { socket, heard, open, closed } = opened();
    await open;
    const file = readFileSync("demo/marram.keel.json", "utf8");
    socket.send(JSON.stringify({ file, lineUp: "runPort", seed: 3, minutes: 2 }));
    while (heard.length < 4) await new Promise((done) => void socket.once("message", done));
    socket.close();
    await closed;
    expect(heard[3]).toMatchObject({ updates: [{ timestamp: expect.any(String) }] });
  });

  test("that asks for what is none is told so", async () => {
    const { socket, heard, open, closed } = opened();
    await open;
    socket.send("?");
    await closed;
    expect(heard[1]).toEqual({ fault: "what was asked is no JSON" });
  });

  test("is refused under another host, at another address, and where the room is full", async () => {
    expect(await opened(undefined, { host: "evil.example" }).refused).toMatch("421");
    expect(await opened("/other").refused).toMatch("404");
    const there = [opened(), opened()];
    await Promise.all(there.map(({ open }) => open));
    expect(await opened().refused).toMatch("503");
    await Promise.all(there.map(({ closed }) => closed));
  });
});
