import { useEffect, useState } from "react";
import type { Job } from "~/core/plan/types";
import { fileFault, storageFault } from "~/messages/storage";
import type { ReadFile } from "~/schemas/file";
import { readJobOf, sizeText } from "~/state/files";
import { type OnShelf, readShelf, takeFromShelf } from "~/state/shelf";
import { bothOf, type ImportMode, type ImportResult, importJob } from "~/store/files";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { say } from "~/ui/toast";
import { FileFaults } from "./FileFaults";
import { Reconcile } from "./Reconcile";
import { TakeOff } from "./Shelf";

export default function OpenFile({ onClose, onKept }: { onClose: () => void; onKept: () => Promise<void> }) {
  const [file, setFile] = useState<ReadFile | null>(null);
  const [result, setResult] = useState<ImportResult | null>(null);
  const [both, setBoth] = useState<{ here: Job; there: Job } | null>(null);
  const [onShelf, setOnShelf] = useState<OnShelf[] | null>(null);
  useEffect(() => {
    void readShelf().then(setOnShelf);
  }, []);
  const [isReading, setReading] = useState(false);
  const open = async (chosen: Blob) => {
    setResult(null);
    setReading(true);
    try {
      const read = await readJobOf(chosen);
      setFile(read);
      await take(read, "ask");
    } catch (error) {
      say({ text: fileFault(error), lasts: true });
    } finally {
      setReading(false);
    }
  };
  const compare = async (read: ReadFile) => {
    try {
      const found = await bothOf(read);
      setBoth(found);
      if (!found) say({ text: "The job here cannot be read: save it as a file first.", lasts: true });
    } catch (error) {
      say({ text: storageFault(error), lasts: true });
    }
  };
  const fetched = (id: string) =>
    void takeFromShelf(id).then(open, (error: unknown) =>
      say({ text: String((error as Error).message), lasts: true }),
    );
  const take = async (read: ReadFile, mode: ImportMode) => {
    try {
      const found = await importJob(read, mode);
      setResult(found);
      if (found.outcome !== "kept") return;
      await onKept();
      say({ text: `${found.name} is here.` });
      onClose();
    } catch (error) {
      say({ text: storageFault(error), lasts: true });
    }
  };
  return (
    <Dialog title="Open a job file" isOpen onOpenChange={(open) => !open && onClose()}>
      <label htmlFor="jobFile">A .keel.json or .keel.zip file</label>
      <input
        id="jobFile"
        type="file"
        accept=".json,.zip,application/json,application/zip"
        onChange={async (event) => {
          const chosen = event.target.files?.[0];
          if (!chosen) return;
          await open(chosen);
        }}
      />
      {isReading && <p role="status">Reading the file…</p>}
      {onShelf && (
        <section aria-label="On the shop's shelf">
          <h3 style={{ margin: "4px 0" }}>On the shop's shelf</h3>
          {onShelf.length === 0 && <p style={{ margin: 0 }}>Nothing is on it.</p>}
          <Actions style={{ justifyContent: "flex-start" }}>
            {onShelf.map((one) => (
              <span key={one.id}>
                <Button onPress={() => fetched(one.id)}>
                  {one.name}, {sizeText(one.bytes)}
                </Button>
                <TakeOff file={one} onGone={() => void readShelf().then(setOnShelf)} />
              </span>
            ))}
          </Actions>
        </section>
      )}
      {result?.outcome === "exists" && file && !both && (
        <div role="alert">
          <p>
            {result.name} is here already. Replacing it joins the two logs, and can be undone in the job; its
            log alone can be joined to the one here, as where two phones worked on it.
          </p>
          <Actions>
            <Button onPress={() => void take(file, "replace")}>Replace it</Button>
            <Button onPress={() => void take(file, "logAlone")}>Take its log alone</Button>
            <Button onPress={() => void compare(file)}>Compare and choose</Button>
            <Button $main onPress={() => void take(file, "keepBoth")}>
              Keep both
            </Button>
          </Actions>
        </div>
      )}
      {both && file && <Reconcile {...both} onDone={(taken) => void take(file, { taken })} />}
      {result?.outcome === "refused" && <FileFaults faults={result.faults} />}
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  );
}
