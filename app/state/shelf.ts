/** The shop's shelf: job files that this network's devices lay down for one another, where the server has one. */
import { z } from "~/schemas/zod";

const listing = z.strictObject({
  files: z.array(
    z.strictObject({ id: z.string(), name: z.string(), at: z.string(), bytes: z.number(), tag: z.string() }),
  ),
});
export type OnShelf = z.infer<typeof listing>["files"][number];

/** What lies on it; null where this server has none, or cannot be reached. */
export async function readShelf(): Promise<OnShelf[] | null> {
  try {
    const answer = await fetch("/shelf", { headers: { Accept: "application/json" } });
    if (!answer.ok || !answer.headers.get("content-type")?.includes("json")) return null;
    return listing.parse(await answer.json()).files;
  } catch {
    return null;
  }
}

export async function takeFromShelf(id: string): Promise<Blob> {
  const answer = await fetch(`/shelf/${encodeURIComponent(id)}`);
  if (!answer.ok) throw new Error("It is not on the shelf any more.");
  return answer.blob();
}

const WORD = "iron-keel-shelf-word";
/** The word as this tab knows it: new at each start of the shop's server, so kept no longer than the tab. */
export function shelfWord(): string {
  try {
    // A phone that photographed it came with it in the address.
    const [, came] = /^#shelf=([\w-]+)$/.exec(location.hash) ?? [];
    if (came) {
      sessionStorage.setItem(WORD, came);
      history.replaceState(history.state, "", location.pathname + location.search);
    }
    return sessionStorage.getItem(WORD) ?? "";
  } catch {
    return "";
  }
}
export function keepShelfWord(word: string): void {
  try {
    sessionStorage.setItem(WORD, word);
  } catch {
    // Storage closed.
  }
}

/** What the shelf said to a change; `there` where another file lies under the job's name, as it lies. */
export type ShelfAnswer =
  | { done: true }
  | { done: false; why: string; there: string | null; isWord: boolean };

async function answered(answer: Response): Promise<ShelfAnswer> {
  if (answer.ok) return { done: true };
  const why = (await answer.text()).trim() || "The shelf refused it.";
  const there = answer.status === 412 ? answer.headers.get("ETag") : null;
  return { done: false, why, there, isWord: answer.status === 401 };
}

/**
 * Lays a stored job on it, with its pictures.
 * @param replacing the file that lies there and may go, by its tag; none where nothing may
 */
export async function putOnShelf(
  id: string,
  name: string,
  word: string,
  replacing: string | null,
): Promise<ShelfAnswer> {
  const { exportJob } = await import("~/store/files");
  const file = await exportJob(id, true);
  if (!file) throw new Error("The job is not here any more.");
  return answered(
    await fetch(`/shelf/${encodeURIComponent(id)}`, {
      method: "PUT",
      headers: {
        "Content-Type": "application/octet-stream",
        "X-Job-Name": encodeURIComponent(name),
        "X-Shelf-Word": word,
        ...(replacing !== null && { "If-Match": replacing }),
      },
      body: file.blob,
    }),
  );
}

export const takeOffShelf = async ({ id, tag }: OnShelf, word: string): Promise<ShelfAnswer> =>
  answered(
    await fetch(`/shelf/${encodeURIComponent(id)}`, {
      method: "DELETE",
      headers: { "X-Shelf-Word": word, "If-Match": tag },
    }),
  );
