/** Photographs by part in the book, scaled down before they are kept. */
import { Camera } from "lucide-react";
import { useRef } from "react";
import styled from "styled-components";
import type { Id, Photo } from "~/core/plan/types";
import { useEntry } from "~/state/entry";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";

const LONGEST_SIDE = 800;
const QUALITY = 0.72;
/** What a job keeps of one picture, characters of its data URL. */
const LONGEST_PICTURE = 200_000;

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; margin: 6px 0;
  figure { margin: 0; width: 120px; } img { width: 120px; height: 90px; object-fit: cover; border: 1px solid var(--ink); display: block; }
  figcaption { font-size: 12px; color: var(--soft); }
`;

/** A picture file as a small JPEG, or null where it cannot be read or will not shrink enough. */
async function shrink(file: File): Promise<string | null> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return null;
  for (let side = LONGEST_SIDE; side >= LONGEST_SIDE / 4; side /= 2) {
    const scale = Math.min(1, side / Math.max(bitmap.width, bitmap.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.max(1, Math.round(bitmap.width * scale));
    canvas.height = Math.max(1, Math.round(bitmap.height * scale));
    canvas.getContext("2d")?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    const url = canvas.toDataURL("image/jpeg", QUALITY);
    if (url.length <= LONGEST_PICTURE) return url;
  }
  return null;
}

export function Photos({ ofId, name }: { ofId: Id; name: string }) {
  const { job, dispatch, say } = useJob();
  const entry = useEntry();
  const file = useRef<HTMLInputElement>(null);
  const photos = job.book.filter((one): one is Photo => one.kind === "photo" && one.ofId === ofId);
  const take = async (chosen: File) => {
    const picture = await shrink(chosen);
    if (picture === null) return say(`${chosen.name} is not a picture that can be kept.`);
    await dispatch({ name: "enterInBook", entry: { ...entry(), kind: "photo", ofId, note: name, picture } });
  };
  return (
    <div>
      {photos.length > 0 && (
        <Row>
          {photos.map((photo) => (
            <figure key={photo.id}>
              <img src={photo.picture} alt={`${name}, ${new Date(photo.at).toLocaleDateString("en-GB")}`} />
              <figcaption>
                {new Date(photo.at).toLocaleDateString("en-GB")}{" "}
                <Button $quiet onPress={() => void dispatch({ name: "strikeFromBook", id: photo.id })}>
                  Strike
                </Button>
              </figcaption>
            </figure>
          ))}
        </Row>
      )}
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        className="sr"
        tabIndex={-1}
        aria-label={`Photograph of ${name}`}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = "";
          if (chosen) void take(chosen);
        }}
      />
      <Button onPress={() => file.current?.click()}>
        <Camera size={16} /> Photograph
      </Button>
    </div>
  );
}
