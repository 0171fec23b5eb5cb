/** The shop's box, live: what is in it, and the ways to change it. */
import { useLiveQuery } from "dexie-react-hooks";
import { useEffect } from "react";
import type { BoxItem } from "~/core/box/box";
import { faultText } from "~/messages/faults";
import { storageFault } from "~/messages/storage";
import { readBoxFile, writeBoxFile } from "~/schemas/box";
import type { FileFault } from "~/schemas/file";
import { changeBox, type ReadBoxRows, readBox, undoBox } from "~/store/box";
import { answerInTime } from "~/store/faults";
import { saveText } from "./files";

type Say = (text: string, lasts?: boolean) => void;
type Live =
  | { status: "reading" }
  | { status: "open"; rows: ReadBoxRows }
  | { status: "failed"; fault: string };

const MOST_TOLD = 3;
const told = (faults: readonly FileFault[]) =>
  faults
    .slice(0, MOST_TOLD)
    .map((fault) => `${fault.path} ${faultText(fault)}`)
    .join("; ");

export function useBox(say: Say) {
  const live = useLiveQuery<Live, Live>(
    () =>
      readBox().then(
        (rows) => ({ status: "open", rows }),
        (error: unknown) => ({ status: "failed", fault: storageFault(error) }),
      ),
    [],
    { status: "reading" },
  );
  const fault = live.status === "failed" ? live.fault : null;
  useEffect(() => {
    if (fault !== null) say(fault, true);
    // Told once a fault, whoever tells it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [fault]);
  const inTime = async <T>(work: Promise<T>): Promise<T | null> => {
    try {
      return await answerInTime(work);
    } catch (error) {
      say(storageFault(error), true);
      return null;
    }
  };
  const change = async (how: (items: readonly BoxItem[]) => readonly BoxItem[], name = "The box") => {
    const result = await inTime(changeBox(how));
    if (result?.ok === false) say(`${name}: ${told(result.faults)}. Nothing was changed.`, true);
  };
  const { items, unread, canUndo } =
    live.status === "open" ? live.rows : { items: [], unread: 0, canUndo: false };
  return {
    items,
    unread,
    canUndo,
    /** Read, so that what it says can be relied on: an unread box is not an empty one. */
    isOpen: live.status === "open",
    change,
    undo: () => inTime(undoBox()),
    save: () => saveText("box.keel-box.json", writeBoxFile(items), "application/json"),
    open: async (file: File) => {
      const read = readBoxFile(await file.text());
      if (read.ok) await change(() => read.items, file.name);
      else say(`${file.name}: ${told(read.faults)}`, true);
    },
  };
}
