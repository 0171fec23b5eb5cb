import { useEffect, useState } from "react";
import { counted } from "~/messages/counted";
import { fileSizesOf, sizeText, writeFile } from "~/state/files";
import { putOnShelf, readShelf } from "~/state/shelf";
import type { FileSizes } from "~/store/files";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { say } from "~/ui/toast";
import { sayingFaults } from "./saying";

/** Says what a job's file will weigh, then writes it: with its pictures or without. */
export default function SaveFile({ id, name, onClose }: { id: string; name: string; onClose: () => void }) {
  const [sizes, setSizes] = useState<FileSizes | null>(null);
  useEffect(() => sayingFaults(fileSizesOf(id).then(setSizes)), [id]);
  const [hasShelf, setShelf] = useState(false);
  useEffect(() => {
    void readShelf().then((files) => setShelf(files !== null));
  }, []);
  const put = () =>
    sayingFaults(
      putOnShelf(id, name).then(() => {
        say({ text: `${name} lies on the shop's shelf.` });
        onClose();
      }),
    );
  const save = (withPictures: boolean) => sayingFaults(writeFile(id, withPictures).then(onClose));
  return (
    <Dialog title={`Save ${name} as a file`} isOpen onOpenChange={(open) => !open && onClose()}>
      <p>
        The file holds the job and its log.{" "}
        {sizes && sizes.pictures > 0
          ? `${counted(sizes.pictures, "picture")} can go with it.`
          : "It has no pictures."}
      </p>
      <Actions>
        <Button onPress={onClose}>Cancel</Button>
        {hasShelf && <Button onPress={put}>Put it on the shelf</Button>}
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
