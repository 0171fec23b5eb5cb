/*
 * Decides: what the owner is given, and whether it may be given yet.
 * Seen in three seconds: what is missing or provisional, and the one button that makes the document.
 */
import { Download } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { type Book, entriesOf } from "~/core/book/entries";
import type { Job } from "~/core/plan/types";
import { counted } from "~/messages/counted";
import { type HandOverPart, handOverParts, handOverTitles, logRows } from "~/messages/handOver";
import { nameOf, provisionalOf } from "~/messages/notes";
import { plainDrawing } from "~/plumbing/plain";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { fileName, saveBytes, saveText } from "~/state/files";
import { useJob } from "~/state/job";
import type { PaperPicture } from "~/state/paper";
import { readPicture } from "~/store/book";
import { Button } from "~/ui/button";
import { DateField, Switch, TextField } from "~/ui/fields";
import { Sheet } from "~/ui/place";

const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(170px, 1fr)); gap: 8px 14px; align-items: start;
`;
const Choices = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 4px 14px; margin: 8px 0;
`;
const names = {
  vessel: "Vessel or vehicle",
  engine: "Engine",
  owner: "Owner",
  fitter: "Fitted by",
  signedBy: "Signed off by",
} as const;

async function saveLog(job: Job, book: Book): Promise<void> {
  const { toCsv } = await import("~/core/export/csv");
  const rows = logRows(job, book).map(([day = "", what = "", found = ""]) => ({ day, what, found }));
  saveText(`${fileName(job.name)}-log.csv`, toCsv(rows), "text/csv");
}

/** So many pictures go into a document; the newest of each thing goes first. */
const MOST_PICTURES = 16;

/** With how many of them are not here: a job may have come without its pictures. */
async function picturesOf(job: Job, book: Book): Promise<{ pictures: PaperPicture[]; missing: number }> {
  const photos = entriesOf(book, "photo").toReversed().slice(0, MOST_PICTURES);
  const read = await Promise.all(
    photos.map(async ({ pictureId, ofId, note, at }): Promise<PaperPicture[]> => {
      const blob = await readPicture(job.id, pictureId, "full");
      if (!blob) return [];
      const words = [nameOf(job, ofId), note, at.slice(0, 10)].filter(Boolean).join(", ");
      return [{ words, type: blob.type, bytes: new Uint8Array(await blob.arrayBuffer()) }];
    }),
  );
  const pictures = read.flat();
  return { pictures, missing: photos.length - pictures.length };
}

export function HandOver() {
  const { job, book, network, stored, dispatch, say } = useJob();
  const placed = usePlumbing(network);
  const [left, setLeft] = useState<ReadonlySet<HandOverPart>>(new Set());
  const [isNamed, setNamed] = useState(false);
  const [done, setDone] = useState<number | null>(null);
  const isStopped = useRef(false);
  const told = job.handOver ?? {};
  const set = (change: object) =>
    void dispatch({
      name: "editJob",
      change: { handOver: { ...told, ...change } },
      shown: { handOver: job.handOver },
    });
  const provisional = provisionalOf(job);
  const parts = new Set(handOverParts.filter((part) => !left.has(part)));
  const isHeld = provisional.length > 0 && !isNamed;
  const make = async (size: "A4" | "Letter") => {
    isStopped.current = false;
    setDone(0);
    try {
      const [{ handOverPdf }, { pdfFonts }] = await Promise.all([
        import("~/state/handOverPdf"),
        import("~/state/pdfFonts.client"),
      ]);
      const onSection = async (count: number) => {
        setDone(count);
        await new Promise((next) => setTimeout(next, 0));
        return !isStopped.current;
      };
      const drawing = placed && plainDrawing(network, placed, stored);
      const { pictures, missing } = parts.has("pictures")
        ? await picturesOf(job, book)
        : { pictures: [], missing: 0 };
      const made = await handOverPdf(
        { job, book, parts, today: new Date(), size, drawing, pictures, onSection },
        await pdfFonts(),
      );
      if (!made) return say("Stopped: no document was made.");
      saveBytes(`${fileName(job.name)}-hand-over-${size}.pdf`, made.bytes, "application/pdf");
      if (missing > 0)
        say(`${counted(missing, "photograph")} are not in this browser and were left out.`, true);
      if (made.missing.length > 0)
        say(`The document's letters lack ${made.missing.join(" ")}: a box stands in their place.`, true);
    } catch (error) {
      say(`The document was not made: ${String(error)}`, true);
    } finally {
      setDone(null);
    }
  };
  return (
    <Sheet aria-label="Hand-over">
      <h3>Hand-over</h3>
      <Fields>
        {(Object.keys(names) as (keyof typeof names)[]).map((key) => (
          <TextField
            key={key}
            label={names[key]}
            value={told[key] ?? ""}
            onCommit={(text) => set({ [key]: text })}
          />
        ))}
        <DateField label="On" value={told.on ?? ""} onCommit={(on) => set({ on })} />
      </Fields>
      <Choices>
        {handOverParts.map((part) => (
          <Switch
            key={part}
            isOn={!left.has(part)}
            onChange={(isOn) => {
              const next = new Set(left);
              if (isOn) next.delete(part);
              else next.add(part);
              setLeft(next);
            }}
          >
            {handOverTitles[part]}
          </Switch>
        ))}
      </Choices>
      {provisional.length > 0 && (
        <>
          <p style={{ fontWeight: 650 }}>
            {counted(provisional.length, "thing")} for the time being only: {provisional.join(", ")}.
          </p>
          <Switch isOn={isNamed} onChange={setNamed}>
            Name them in the document
          </Switch>
        </>
      )}
      <div style={{ display: "flex", flexWrap: "wrap", gap: 10, alignItems: "center" }}>
        {(["A4", "Letter"] as const).map((size) => (
          <Button
            key={size}
            $main={size === "A4"}
            isDisabled={isHeld || done !== null || parts.size === 0}
            onPress={() => void make(size)}
          >
            <Download size={16} /> Document, {size}
          </Button>
        ))}
        {done !== null && (
          <span role="status">
            {done} of {parts.size} parts{" "}
            <Button
              $quiet
              onPress={() => {
                isStopped.current = true;
              }}
            >
              Stop
            </Button>
          </span>
        )}
      </div>
      <p style={{ margin: "8px 0 0" }}>
        <Link to={`/job/${job.id}/print/log`}>The log, to print</Link>{" "}
        <Button $quiet onPress={() => void saveLog(job, book)}>
          The log as CSV
        </Button>
      </p>
      <p style={{ margin: "8px 0 0" }}>
        <Link to={`/job/${job.id}/owner`}>The owner's page</Link>: to look and to log, made for a phone.
      </p>
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        The job's file goes with it: save it from the head of the page. What nobody measured is listed as
        assumed.
      </p>
    </Sheet>
  );
}
