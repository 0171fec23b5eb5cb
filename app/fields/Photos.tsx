/** Photographs by what they show, kept with the book. */

import { Camera } from "lucide-react";
import { useRef, useState } from "react";
import styled from "styled-components";
import { entriesOf, type Photo } from "~/core/book/entries";
import { newId } from "~/core/kinds/ids";
import type { Id } from "~/core/kinds/record";
import { dayText } from "~/messages/when";
import { useJob } from "~/state/job";
import { scaledDown, usePicture } from "~/state/pictures";
import { Button } from "~/ui/button";
import { Dialog } from "~/ui/dialog";
import { Strike } from "./Strike";

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; margin: 6px 0;
  figure { margin: 0; width: 120px; }
  figure > button { display: block; padding: 0; border: 1px solid var(--ink); background: none; width: 120px; height: 90px; cursor: zoom-in; }
  img { width: 100%; height: 100%; object-fit: cover; display: block; }
  figcaption { font-size: 12px; color: var(--soft); }
`;
const Full = styled.img`
  max-width: 100%; max-height: 70vh; margin: 0 auto; display: block;
`;

const dayOf = (photo: Photo) => dayText(photo.at);

function Shown({ photo, name }: { photo: Photo; name: string }) {
  const { job } = useJob();
  const [isOpen, setOpen] = useState(false);
  const address = usePicture(job.id, photo.pictureId, "preview");
  const text = `${name}, ${dayOf(photo)}`;
  return (
    <figure>
      {address === "missing" ? (
        <p>This picture is not in this browser: the file it came in had none.</p>
      ) : (
        <button type="button" aria-label={`Enlarge ${text}`} onClick={() => setOpen(true)}>
          {address && <img src={address} alt={text} />}
        </button>
      )}
      <figcaption>
        {dayOf(photo)} <Strike entryId={photo.id} what={`photograph of ${text}`} />
      </figcaption>
      <Dialog title={text} isOpen={isOpen} onOpenChange={setOpen}>
        {(close) => (
          <>
            <Enlarged photo={photo} text={text} />
            <Button onPress={close}>Close</Button>
          </>
        )}
      </Dialog>
    </figure>
  );
}

function Enlarged({ photo, text }: { photo: Photo; text: string }) {
  const { job } = useJob();
  const address = usePicture(job.id, photo.pictureId, "full");
  return address && address !== "missing" ? <Full src={address} alt={text} /> : null;
}

export function Photos({ ofId, name }: { ofId: Id; name: string }) {
  const { book, enter, say } = useJob();
  const file = useRef<HTMLInputElement>(null);
  const photos = entriesOf(book, "photo").filter((one) => one.ofId === ofId);
  const take = async (chosen: File) => {
    const picture = await scaledDown(chosen);
    if (picture === null) return say(`${chosen.name} is not a picture that can be read here.`);
    const pictureId = newId();
    await enter({ kind: "photo", ofId, note: name, pictureId }, new Map([[pictureId, picture]]));
  };
  return (
    <div>
      {photos.length > 0 && (
        <Row>
          {photos.map((photo) => (
            <Shown key={photo.id} photo={photo} name={name} />
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
