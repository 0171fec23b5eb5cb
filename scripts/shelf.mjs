/** A shelf in the shop: job files laid down by one device and taken by another, held in memory alone until the server ends. */
import express from "express";

const MOST_BYTES = 64 * 1024 * 1024;
const MOST_FILES = 40;
const MOST_NAME = 120;

export function shelf() {
  const files = new Map();
  const router = express.Router();
  router.get("/", (_, answer) => {
    answer.setHeader("Cache-Control", "no-store");
    answer.json({
      files: [...files].map(([id, { name, at, bytes }]) => ({ id, name, at, bytes: bytes.length })),
    });
  });
  router.get("/:id", (request, answer) => {
    const file = files.get(request.params.id);
    if (!file) return answer.status(404).type("text/plain").send("Not on the shelf.\n");
    answer.setHeader("Cache-Control", "no-store");
    answer.type("application/octet-stream").send(file.bytes);
  });
  router.put("/:id", express.raw({ type: "*/*", limit: MOST_BYTES }), (request, answer) => {
    const { id } = request.params;
    // A page from elsewhere lays nothing down here.
    const { origin, host } = request.headers;
    if (origin !== undefined && ![`https://${host}`, `http://${host}`].includes(origin))
      return answer.status(403).type("text/plain").send("From another place.\n");
    if (!/^[\w-]{1,14}$/.test(id) || !Buffer.isBuffer(request.body) || request.body.length === 0)
      return answer.status(400).type("text/plain").send("No job file.\n");
    if (!files.has(id) && files.size >= MOST_FILES)
      return answer.status(507).type("text/plain").send("The shelf is full.\n");
    let name = id;
    try {
      name = decodeURIComponent(String(request.headers["x-job-name"] ?? id)).slice(0, MOST_NAME);
    } catch {
      return answer.status(400).type("text/plain").send("Its name cannot be read.\n");
    }
    files.set(id, { name, at: new Date().toISOString(), bytes: request.body });
    answer.status(204).end();
  });
  return router;
}
