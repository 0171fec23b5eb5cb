/** The policy of content that a page is served with: nothing from other hosts, no script or style but its own. */
import { createHash } from "node:crypto";

const hashOf = (text: string) => `'sha256-${createHash("sha256").update(text).digest("base64")}'`;

/** Hashes of what stands between the tags of a kind in a page. */
function inline(html: string, tag: "script" | "style"): string {
  const found = html.matchAll(new RegExp(`<${tag}\\b([^>]*)>([\\s\\S]*?)</${tag}>`, "g"));
  const hashes = [...found]
    .filter(([, attributes]) => !/\ssrc=/.test(attributes ?? ""))
    .map(([, , text]) => hashOf(text ?? ""));
  return [...new Set(hashes)].join(" ");
}

/** The sheet that styled-components begins with is an empty one. */
const EMPTY = hashOf("");

/**
 * The policy for one page. Scripts and styles that stand in it are let through by the hash of their text: a nonce would
 * be constant in the shell that is kept for use without network. Styles made later are written rule by rule into an
 * empty sheet, which no policy governs; `style` attributes of the first HTML carry places and sizes, never text of a user.
 */
export function policyOf(html: string): string {
  return [
    "default-src 'none'",
    `script-src 'self' ${inline(html, "script")}`,
    `style-src 'self' ${EMPTY} ${inline(html, "style")}`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
    "object-src 'none'",
  ].join("; ");
}
