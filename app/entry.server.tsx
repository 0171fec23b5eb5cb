import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { renderToPipeableStream } from "react-dom/server";
import { type EntryContext, ServerRouter } from "react-router";
import { ServerStyleSheet } from "styled-components";
import { policyOf } from "./policy.server";
import { openSockets } from "./sockets.server";

export { openSockets, policyOf };

const RENDER_LIMIT_MS = 10000;

function renderHtml(element: React.ReactElement): Promise<string> {
  return new Promise((resolve, reject) => {
    const { pipe, abort } = renderToPipeableStream(element, {
      onAllReady() {
        const chunks: Buffer[] = [];
        const body = new PassThrough();
        body.on("data", (chunk: Buffer) => chunks.push(chunk));
        body.on("end", () => resolve(Buffer.concat(chunks).toString("utf8")));
        pipe(body);
      },
      onShellError: reject,
    });
    setTimeout(abort, RENDER_LIMIT_MS).unref();
  });
}

/** Styles are collected over the whole render and stand in the head of the first HTML. */
export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
) {
  const sheet = new ServerStyleSheet();
  try {
    const html = await renderHtml(sheet.collectStyles(<ServerRouter context={context} url={request.url} />));
    const styled = `<!DOCTYPE html>${html.replace("</head>", () => `${sheet.getStyleTags()}</head>`)}`;
    headers.set("Content-Type", "text/html; charset=utf-8");
    // The development server writes scripts and styles of its own into the page.
    if (import.meta.env.PROD) headers.set("Content-Security-Policy", policyOf(styled));
    const body = new PassThrough();
    body.end(styled);
    return new Response(createReadableStreamFromReadable(body), { headers, status });
  } finally {
    sheet.seal();
  }
}
