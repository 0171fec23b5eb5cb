/** Photographs: scaled down in the browser before they are kept, and shown from the store. */
import { useEffect, useState } from "react";
import type { Id } from "~/core/kinds/record";
import type { Picture } from "~/schemas/migrations";
import { readPicture } from "~/store/book";

const LONG_SIDE_PX = 1600;
const PREVIEW_PX = 320;
const QUALITY = 0.8;

/** A bitmap as a JPEG whose longer side has at most so many pixels. */
async function jpeg(bitmap: ImageBitmap, longSide: number): Promise<Blob> {
  const scale = Math.min(1, longSide / Math.max(bitmap.width, bitmap.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * scale)),
    Math.max(1, Math.round(bitmap.height * scale)),
  );
  canvas.getContext("2d")?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return canvas.convertToBlob({ type: "image/jpeg", quality: QUALITY });
}

/** A picture file scaled down, with a small one for lists; null where it is no picture that can be read. */
export async function scaledDown(file: Blob): Promise<Picture | null> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return null;
  try {
    return {
      type: "image/jpeg",
      full: await jpeg(bitmap, LONG_SIDE_PX),
      preview: await jpeg(bitmap, PREVIEW_PX),
    };
  } finally {
    bitmap.close();
  }
}

/** An address for a kept picture while it is shown; `missing` where the job came without its pictures. */
export function usePicture(jobId: Id, id: Id, size: "preview" | "full"): string | "missing" | null {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    let isShown = true;
    let made: string | null = null;
    void readPicture(jobId, id, size)
      .catch(() => null)
      .then((blob) => {
        if (!isShown) return;
        made = blob && URL.createObjectURL(blob);
        setAddress(made ?? "missing");
      });
    return () => {
      isShown = false;
      if (made) URL.revokeObjectURL(made);
    };
  }, [jobId, id, size]);
  return address;
}
