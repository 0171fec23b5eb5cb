/** The hand-over as a PDF; a QR code carries the job's name and the day of its baseline, and nothing else. */
import { PDFDocument } from "pdf-lib";
import qrcode from "qrcode-generator";
import type { Book } from "~/core/book/entries";
import type { Job } from "~/core/plan/types";
import { baselineDay, type HandOverPart, handOverSections, handOverTitles } from "~/messages/handOver";
import { MARGIN, Paper, type PaperDrawing, type PaperPicture, type SheetName, sheets } from "./paper";
import { embedded, type PdfFonts } from "./pdfLetters";

const QR_POINTS = 64;

export interface HandOverAsked {
  job: Job;
  book: Book;
  parts: ReadonlySet<HandOverPart>;
  today: Date;
  size: SheetName;
  /** The plumbing as it is drawn on the page; a document made without a page has none. */
  drawing?: PaperDrawing | null;
  pictures?: readonly PaperPicture[];
  /** Told after each section; false stops it. */
  onSection?: (done: number, of: number) => boolean | Promise<boolean>;
}

/** Null where it was stopped; letters that no font has are told beside it. */
export async function handOverPdf(
  { job, book, parts, today, size, drawing, pictures = [], onSection }: HandOverAsked,
  fonts: PdfFonts,
): Promise<{ bytes: Uint8Array; missing: string[] } | null> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(`${job.name}: hand-over`);
  pdf.setProducer("Iron Keel");
  pdf.setCreationDate(today);
  pdf.setModificationDate(today);
  const { text, strong, letters } = await embedded(pdf, fonts);
  const paper = new Paper(pdf, text, strong, letters, sheets[size]);
  const width = sheets[size][0] - 2 * MARGIN;
  const baseline = baselineDay(book);
  paper.modules(
    codeOf(`${job.name}${baseline ? `, baseline ${baseline}` : ""}`),
    sheets[size][0] - MARGIN - QR_POINTS,
    QR_POINTS,
  );
  paper.heading(`${job.name}: hand-over`, 18);
  paper.line(`${today.toISOString().slice(0, 10)}${baseline ? `; baseline of ${baseline}` : ""}`);
  for (const part of parts) {
    const [section] = handOverSections(job, book, new Set([part]), today);
    if (!section) continue;
    paper.heading(handOverTitles[part]);
    for (const line of section.lines) paper.line(line);
    if (section.table) {
      const { head, rows, shares } = section.table;
      const at = shares.map((_, i) => MARGIN + width * shares.slice(0, i).reduce((sum, one) => sum + one, 0));
      paper.row(head, at, { bold: true });
      for (const row of rows) paper.row(row, at);
    }
    if (part === "drawing") {
      if (drawing) paper.drawing(drawing);
      else paper.line("Made without a page, this document has no drawing: the application's own has it.");
    }
    if (part === "pictures") {
      if (pictures.length > 0) await paper.pictures(pictures);
      else paper.line("None goes with it.");
    }
    const done = [...parts].indexOf(part) + 1;
    if (onSection && !(await onSection(done, parts.size))) return null;
  }
  paper.heading("Before anything is opened");
  paper.line(
    "No flame, no spark; ventilate. Battery off, extinguisher at hand, eyes covered, a pan that holds what comes. The high-pressure side is never loosened. The makers' manuals, local codes and licensed trades go before this document.",
  );
  paper.number(pdf.getPageCount());
  return { bytes: await pdf.save({ useObjectStreams: false }), missing: [...letters.missing] };
}

/** Dark modules of a QR code, row by row (ISO/IEC 18004, by a package). */
export function codeOf(words: string): boolean[][] {
  const code = qrcode(0, "M");
  code.addData(words, "Byte");
  code.make();
  const count = code.getModuleCount();
  return Array.from({ length: count }, (_, row) =>
    Array.from({ length: count }, (_, column) => code.isDark(row, column)),
  );
}
