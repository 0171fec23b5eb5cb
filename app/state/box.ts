/** The shop's box, live: what is in it, and the ways to change it. */
import { useLiveQuery } from "dexie-react-hooks";
import type { BoxItem } from "~/core/box/box";
import { faultText } from "~/messages/faults";
import { storageFault } from "~/messages/storage";
import { readBoxFile, writeBoxFile } from "~/schemas/box";
import { changeBox, type ReadBoxRows, readBox, undoBox } from "~/store/box";
import { answerInTime } from "~/store/faults";
import { saveText } from "./files";

const EMPTY: ReadBoxRows = { items: [], unread: 0, canUndo: false };
type Say = (text: string, lasts?: boolean) => void;

export function useBox(say: Say) {
  const box = useLiveQuery(() => readBox().catch(() => EMPTY), [], EMPTY);
  const told = async <T>(work: Promise<T>): Promise<T | null> => {
    try {
      return await answerInTime(work);
    } catch (error) {
      say(storageFault(error), true);
      return null;
    }
  };
  return {
    ...box,
    change: (how: (items: readonly BoxItem[]) => readonly BoxItem[]) => told(changeBox(how)),
    undo: () => told(undoBox()),
    save: () => saveText("box.keel-box.json", writeBoxFile(box.items), "application/json"),
    open: async (file: File) => {
      const read = readBoxFile(await file.text());
      if (read.ok) await told(changeBox(() => read.items));
      else
        say(
          `${file.name}: ${read.faults
            .slice(0, 3)
            .map((fault) => `${fault.path} ${faultText(fault)}`)
            .join("; ")}`,
          true,
        );
    },
  };
}
