import { useEffect, useState } from "react";
import { counted } from "~/messages/counted";
import { fileSizesOf, sizeText, writeFile } from "~/state/files";
import { readShelf } from "~/state/shelf";
import type { FileSizes } from "~/store/files";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { PutOnShelf } from "./Shelf";
import { sayingFaults } from "./saying";

/** Says what a job's file will weigh, then writes it: with its pictures or without. */
export default function SaveFile({ id, name, onClose }: { id: string; name: string; onClose: () => void }) {
  const [sizes, setSizes] = useState<FileSizes | null>(null);
  useEffect(() => sayingFaults(fileSizesOf(id).then(setSizes)), [id]);
  const [hasShelf, setShelf] = useState(false);
  useEffect(() => {
    void readShelf().then((files) => setShelf(files !== null));
  }, []);
  const save = (withPictures: boolean) => sayingFaults(writeFile(id, withPictures).then(onClose));
  return (
    <Dialog title={`Save ${name} as a file`} isOpen onOpenChange={(open) => !open && onClose()}>
      <p>
        The file holds the job and its log.{" "}
        {sizes && sizes.pictures > 0
          ? `${counted(sizes.pictures, "picture")} can go with it.`
          : "It has no pictures."}
      </p>
      {hasShelf && <PutOnShelf id={id} name={name} onDone={onClose} />}
      <Actions>
        <Button onPress={onClose}>Cancel</Button>
        {sizes && (
          <Button $main={sizes.pictures === 0} onPress={() => save(false)}>
            Save {sizes.pictures > 0 ? "without pictures" : "the file"}, {sizeText(sizes.plainBytes)}
          </Button>
        )}
        {sizes && sizes.pictures > 0 && (
          <Button $main onPress={() => save(true)}>
            Save with pictures, {sizeText(sizes.plainBytes + sizes.pictureBytes)}
          </Button>
        )}
      </Actions>
    </Dialog>
  );
}
