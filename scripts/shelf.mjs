/**
 * A shelf in the shop: job files laid down by one device and taken by another, held in memory alone until the server ends.
 * Whoever is on the network may look and take; to lay down, replace or take off wants the word that is shown where the
 * server was started. Nothing that lies there is replaced unless it is named as it lies (If-Match, RFC 9110, 13.1.1).
 */
import { createHash, randomInt, timingSafeEqual } from "node:crypto";
import express from "express";

const MIB = 1024 * 1024;
const MOST_BYTES = 64 * MIB;
const MOST_IN_ALL = 512 * MIB;
const MOST_FILES = 40;
const MOST_NAME = 120;
/** Letters and figures that are not taken for one another. */
const ALPHABET = "23456789ABCDEFGHJKMNPQRSTVWXYZ";
/** Wrong words in a minute, from all devices together: 30^8 words are not gone through so. */
const MOST_WRONG = 20;
const MINUTE_MS = 60_000;

/** A word of eight letters, in two halves to be read out. */
export const newWord = () => {
  const letters = Array.from({ length: 8 }, () => ALPHABET[randomInt(ALPHABET.length)]).join("");
  return `${letters.slice(0, 4)}-${letters.slice(4)}`;
};

const plain = (word) => word.toUpperCase().replace(/[^0-9A-Z]/g, "");
const digest = (word) => createHash("sha256").update(plain(word)).digest();

export function shelf(word) {
  const files = new Map();
  const wanted = digest(word);
  let wrong = { count: 0, since: 0 };
  const router = express.Router();
  const said = (answer, status, text) => answer.status(status).type("text/plain").send(`${text}\n`);

  router.get("/", (_, answer) => {
    answer.setHeader("Cache-Control", "no-store");
    answer.json({
      files: [...files].map(([id, { name, at, bytes, tag }]) => ({ id, name, at, bytes: bytes.length, tag })),
    });
  });
  router.get("/:id", (request, answer) => {
    const file = files.get(request.params.id);
    if (!file) return said(answer, 404, "Not on the shelf.");
    answer.setHeader("Cache-Control", "no-store");
    answer.setHeader("ETag", file.tag);
    answer.type("application/octet-stream").send(file.bytes);
  });

  const mayWrite = (request, answer, next) => {
    const { origin, host } = request.headers;
    // A page from elsewhere lays nothing down here.
    if (origin !== undefined && ![`https://${host}`, `http://${host}`].includes(origin))
      return said(answer, 403, "From another place.");
    if (Date.now() - wrong.since > MINUTE_MS) wrong = { count: 0, since: Date.now() };
    if (wrong.count >= MOST_WRONG) return said(answer, 429, "Too many wrong words. Try again in a minute.");
    if (!timingSafeEqual(digest(String(request.headers["x-shelf-word"] ?? "")), wanted)) {
      wrong.count += 1;
      return said(
        answer,
        401,
        "That is not the shelf's word. It is shown where the shop's server was started.",
      );
    }
    if (!/^[\w-]{1,14}$/.test(request.params.id)) return said(answer, 400, "No job file.");
    next();
  };
  router.put(
    "/:id",
    mayWrite,
    (request, answer, next) => {
      if (Number(request.headers["content-length"] ?? 0) > MOST_BYTES) {
        // The rest of it is not waited for: nothing else comes over this connection.
        answer.setHeader("Connection", "close");
        return said(
          answer,
          413,
          "A file on the shelf is at most 64 MB. Save it as a file, and carry it over.",
        );
      }
      next();
    },
    express.raw({ type: () => true, limit: MOST_BYTES }),
    (request, answer) => {
      const { id } = request.params;
      if (!Buffer.isBuffer(request.body) || request.body.length === 0)
        return said(answer, 400, "No job file.");
      const there = files.get(id);
      if (there && request.headers["if-match"] !== there.tag) {
        answer.setHeader("ETag", there.tag);
        return said(answer, 412, `${there.name} lies there already, since ${there.at}.`);
      }
      if (!there && request.headers["if-match"] !== undefined)
        return said(answer, 412, "What was to be replaced is not on the shelf any more.");
      if (!there && files.size >= MOST_FILES)
        return said(answer, 507, `The shelf holds ${MOST_FILES} jobs. Take one off first.`);
      const others = [...files].reduce((sum, [key, { bytes }]) => sum + (key === id ? 0 : bytes.length), 0);
      if (others + request.body.length > MOST_IN_ALL)
        return said(answer, 507, `The shelf holds ${MOST_IN_ALL / MIB} MB in all. Take something off first.`);
      let name = id;
      try {
        name = decodeURIComponent(String(request.headers["x-job-name"] ?? id)).slice(0, MOST_NAME);
      } catch {
        return said(answer, 400, "Its name cannot be read.");
      }
      const tag = `"${createHash("sha256").update(request.body).digest("hex").slice(0, 24)}"`;
      files.set(id, { name, at: new Date().toISOString(), bytes: request.body, tag });
      answer.setHeader("ETag", tag);
      answer.status(204).end();
    },
  );
  router.delete("/:id", mayWrite, (request, answer) => {
    const { id } = request.params;
    const there = files.get(id);
    if (!there) return said(answer, 404, "Not on the shelf.");
    const match = request.headers["if-match"];
    if (match !== undefined && match !== there.tag)
      return said(answer, 412, `${there.name} has been replaced meanwhile.`);
    files.delete(id);
    answer.status(204).end();
  });
  // A body that is longer than was announced.
  router.use((error, _request, answer, next) =>
    error.type === "entity.too.large"
      ? said(answer, 413, "A file on the shelf is at most 64 MB. Save it as a file, and carry it over.")
      : next(error),
  );
  return router;
}
