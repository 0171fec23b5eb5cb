import { useState } from "react";
import { counted } from "~/messages/counted";
import type { ReadAll } from "~/schemas/zip";
import { readAllOf, saveBlob, sizeText } from "~/state/files";
import { exportAll, noteSavedAll, type RestoreResult, restoreAll } from "~/store/files";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { say } from "~/ui/toast";
import { FileFaults } from "./FileFaults";
import { sayingFaults } from "./saying";

/** Everything in one file, out and in. */
export default function Everything({
  onClose,
  onRestored,
}: {
  onClose: () => void;
  onRestored: () => Promise<void>;
}) {
  const [made, setMade] = useState<Blob | null>(null);
  const [file, setFile] = useState<ReadAll | null>(null);
  const [result, setResult] = useState<RestoreResult | null>(null);
  const [isBusy, setBusy] = useState(false);
  const busy = (work: Promise<unknown>) => {
    setBusy(true);
    sayingFaults(work.finally(() => setBusy(false)));
  };
  const open = async (chosen: Blob) => {
    setResult(null);
    const read = await readAllOf(chosen);
    setFile(read);
    await restore(read, false);
  };
  const restore = async (read: ReadAll, isAsked: boolean) => {
    const found = await restoreAll(read, isAsked);
    setResult(found);
    if (found.outcome !== "restored") return;
    await onRestored();
    say({ text: `${counted(found.jobs, "job")} restored.` });
    onClose();
  };
  const save = async (blob: Blob) => {
    saveBlob(`iron-keel-${new Date().toISOString().slice(0, 10)}.keel-all.zip`, blob);
    await noteSavedAll();
    await onRestored();
    onClose();
  };
  return (
    <Dialog title="Everything in one file" isOpen onOpenChange={(open) => !open && onClose()}>
      <p>Every job with its log and pictures, and the settings of this browser.</p>
      <Actions style={{ justifyContent: "flex-start" }}>
        {made ? (
          <Button $main onPress={() => void save(made)}>
            Save the file, {sizeText(made.size)}
          </Button>
        ) : (
          <Button onPress={() => busy(exportAll().then(setMade))}>Put everything together</Button>
        )}
      </Actions>
      <label htmlFor="allFile">Restore from a .keel-all.zip file</label>
      <input
        id="allFile"
        type="file"
        accept=".zip,application/zip"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (!chosen) return;
          busy(open(chosen));
        }}
      />
      {isBusy && <p role="status">Working on the file…</p>}
      {result?.outcome === "asks" && file && (
        <div role="alert">
          <p>
            {counted(result.jobs, "job")} in the file.{" "}
            {result.replaced.length > 0
              ? `Replaced here, each by one change that can be undone in it: ${result.replaced.join(", ")}.`
              : "None of them is here yet."}{" "}
            Other jobs stay.
          </p>
          <Actions>
            <Button $main onPress={() => busy(restore(file, true))}>
              Restore
            </Button>
          </Actions>
        </div>
      )}
      {result?.outcome === "refused" && <FileFaults faults={result.faults} />}
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  );
}
