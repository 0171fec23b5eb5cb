/**
 * Names that this server answers under. A page of elsewhere whose name is made to point at this machine sends its own
 * name: it is refused, for pages, for the shelf and for the socket.
 */
import { hostname, networkInterfaces } from "node:os";

/** Addresses of this machine in a form in which a browser writes them. */
const ownAddresses = () =>
  Object.values(networkInterfaces())
    .flat()
    .map((one) => (one.family === "IPv6" ? `[${one.address.split("%")[0]}]` : one.address));

/**
 * @param listen what the server listens at; @param more names that a shop gave it, separated by commas
 * @returns whether a request's Host names this server, whatever the port
 */
export function servedHosts(listen = "localhost", more = "") {
  const own = hostname().toLowerCase();
  const named = [listen, ...more.split(",")].map((name) => name.trim().toLowerCase()).filter(Boolean);
  const fixed = new Set(["localhost", "127.0.0.1", "[::1]", own, `${own}.local`, ...named]);
  // Any address that the machine has now: networks come and go while the server runs.
  return (host = "") => {
    const [, name] = /^(\[[0-9a-f:.]+\]|[^:[\]]+)(?::\d{1,5})?$/.exec(host.toLowerCase()) ?? [];
    return name !== undefined && (fixed.has(name) || ownAddresses().includes(name));
  };
}
