/** The sockets on which the stand-in of gauges and senders is asked with a job, and answers with deltas, one a moment. */
import type { Server } from "node:http";
import { type WebSocket, WebSocketServer } from "ws";
import { hello, mayListen, standIn } from "./standIn.server";

const DELTA_MS = 250;
const MOST_MESSAGE = 24 * 1024 * 1024;
/** A page asks at once; who opens a socket and says nothing is shown out, and so is the next when the room is full. */
const IDLE_MS = 15_000;
const MOST_SOCKETS = 40;

/**
 * Opens them on a server.
 * @param isServed whether it answers under a Host (RFC 9110, 7.4)
 * @param idleMs so long a socket may say nothing
 * @param most so many at once
 */
export function openSockets(
  server: Server,
  isServed: (host: string | undefined) => boolean,
  { idleMs = IDLE_MS, most = MOST_SOCKETS } = {},
): void {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_MESSAGE });
  server.on("upgrade", (request, socket, head): void => {
    const refuse = (status: string): void =>
      void socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
    socket.on("error", () => socket.destroy());
    const { host, origin } = request.headers;
    if (!isServed(host)) return refuse("421 Misdirected Request");
    if (!mayListen(request.url, origin, host)) return refuse("404 Not Found");
    if (sockets.clients.size >= most) return refuse("503 Service Unavailable");
    sockets.handleUpgrade(request, socket, head, (client) => sockets.emit("connection", client));
  });
  sockets.on("connection", (client) => {
    client.send(JSON.stringify(hello));
    client.on("error", () => client.terminate());
    const idle = setTimeout(() => client.terminate(), idleMs);
    client.once("close", () => clearTimeout(idle));
    client.once("message", (data) => {
      clearTimeout(idle);
      tell(client, String(data));
    });
  });
}

function answered(message: string): ReturnType<typeof standIn> {
  try {
    return standIn(message);
  } catch (error) {
    console.error(error);
    return { ok: false, reason: "the server failed" };
  }
}

/** Deltas with the time that it is, until they are told or nobody listens. */
function tell(client: WebSocket, message: string): void {
  const answer = answered(message);
  if (!answer.ok) {
    client.send(JSON.stringify({ fault: answer.reason }));
    client.close();
    return;
  }
  const began = Date.now();
  let i = 0;
  const timer = setInterval(() => {
    const delta = answer.deltas[i++];
    if (!delta || client.readyState !== client.OPEN) {
      clearInterval(timer);
      client.close();
      return;
    }
    const timestamp = new Date(began + i * DELTA_MS).toISOString();
    const updates = delta.updates.map((update) => ({ ...update, timestamp }));
    client.send(JSON.stringify({ ...delta, updates }));
  }, DELTA_MS);
}
