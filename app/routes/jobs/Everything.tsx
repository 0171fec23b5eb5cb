import { useState } from "react";
import { counted } from "~/messages/counted";
import { saveBytes, sizeText } from "~/state/files";
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
  const [made, setMade] = useState<Uint8Array | null>(null);
  const [file, setFile] = useState<Uint8Array | null>(null);
  const [result, setResult] = useState<RestoreResult | null>(null);
  const restore = async (bytes: Uint8Array, isAsked: boolean) => {
    const found = await restoreAll(bytes, isAsked);
    setResult(found);
    if (found.outcome !== "restored") return;
    await onRestored();
    say({ text: `${counted(found.jobs, "job")} restored.` });
    onClose();
  };
  const save = async (bytes: Uint8Array) => {
    saveBytes(`iron-keel-${new Date().toISOString().slice(0, 10)}.keel-all.zip`, bytes, "application/zip");
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
            Save the file, {sizeText(made.length)}
          </Button>
        ) : (
          <Button onPress={() => sayingFaults(exportAll().then(setMade))}>Put everything together</Button>
        )}
      </Actions>
      <label htmlFor="allFile">Restore from a .keel-all.zip file</label>
      <input
        id="allFile"
        type="file"
        accept=".zip,application/zip"
        onChange={async (event) => {
          const chosen = event.target.files?.[0];
          if (!chosen) return;
          const bytes = new Uint8Array(await chosen.arrayBuffer());
          setFile(bytes);
          sayingFaults(restore(bytes, false));
        }}
      />
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
            <Button $main onPress={() => sayingFaults(restore(file, true))}>
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
