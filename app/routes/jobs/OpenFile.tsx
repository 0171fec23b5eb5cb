import { useState } from "react";
import { storageFault } from "~/messages/storage";
import { type ImportMode, type ImportResult, importJob } from "~/store/files";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { say } from "~/ui/toast";
import { FileFaults } from "./FileFaults";

export default function OpenFile({ onClose, onKept }: { onClose: () => void; onKept: () => Promise<void> }) {
  const [file, setFile] = useState<Uint8Array | null>(null);
  const [result, setResult] = useState<ImportResult | null>(null);
  const take = async (bytes: Uint8Array, mode: ImportMode) => {
    try {
      const found = await importJob(bytes, mode);
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
          const bytes = new Uint8Array(await chosen.arrayBuffer());
          setFile(bytes);
          await take(bytes, "ask");
        }}
      />
      {result?.outcome === "exists" && file && (
        <div role="alert">
          <p>
            {result.name} is here already. Replacing it joins the two logs, and can be undone in the job; its
            log alone can be joined to the one here, as where two phones worked on it.
          </p>
          <Actions>
            <Button onPress={() => void take(file, "replace")}>Replace it</Button>
            <Button onPress={() => void take(file, "logAlone")}>Take its log alone</Button>
            <Button $main onPress={() => void take(file, "keepBoth")}>
              Keep both
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
