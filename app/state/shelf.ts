/** The shop's shelf: job files that this network's devices lay down for one another, where the server has one. */
import { z } from "~/schemas/zod";

const listing = z.strictObject({
  files: z.array(z.strictObject({ id: z.string(), name: z.string(), at: z.string(), bytes: z.number() })),
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

/** Lays a stored job on it, with its pictures. */
export async function putOnShelf(id: string, name: string): Promise<void> {
  const { exportJob } = await import("~/store/files");
  const file = await exportJob(id, true);
  if (!file) throw new Error("The job is not here any more.");
  const answer = await fetch(`/shelf/${encodeURIComponent(id)}`, {
    method: "PUT",
    headers: { "Content-Type": "application/octet-stream", "X-Job-Name": encodeURIComponent(name) },
    body: file.blob,
  });
  if (!answer.ok) throw new Error((await answer.text()) || "The shelf refused it.");
}
