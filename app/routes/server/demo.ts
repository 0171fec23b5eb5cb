import { readFile } from "node:fs/promises";
import { join } from "node:path";
import type { Route } from "./+types/demo";

/** The demo job files, as they lie in `demo/`. */
export async function loader({ params }: Route.LoaderArgs) {
  if (!/^[a-z0-9-]+\.keel\.json$/.test(params.file)) throw new Response("No such demo job.", { status: 404 });
  try {
    const text = await readFile(join(process.cwd(), "demo", params.file), "utf8");
    return new Response(text, { headers: { "Content-Type": "application/json" } });
  } catch {
    throw new Response("No such demo job.", { status: 404 });
  }
}
