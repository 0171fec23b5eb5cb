/** A PDF that is written from the top down in lines, headings and rows. */
import { PDFDocument, type PDFFont, type PDFPage, rgb } from "pdf-lib";
import type { SectionPoint } from "~/core/plan/types";
import { polygonBelow } from "~/core/tanks/polygon";
import { embedded, type Letters, type PdfFonts } from "./pdfLetters";

/** Points of a sheet, 72 to the inch. */
export const sheets = { A4: [595.28, 841.89], Letter: [612, 792] } as const;
export type SheetName = keyof typeof sheets;
export const MARGIN = 48;
const BOTTOM = 56;
const ink = rgb(0.09, 0.13, 0.12);
export const soft = rgb(0.34, 0.38, 0.36);
const fuelColour = rgb(0.85, 0.83, 0.74);

/** A page that is written from the top down, and turns over when it is full. */
export class Paper {
  private page: PDFPage;
  y: number;

  constructor(
    private readonly pdf: PDFDocument,
    private readonly text: PDFFont,
    private readonly strong: PDFFont,
    private readonly letters: Letters,
    private readonly size: readonly [number, number] = sheets.A4,
  ) {
    this.page = pdf.addPage([...size]);
    this.y = size[1] - MARGIN;
  }

  room(height: number): void {
    if (this.y - height >= BOTTOM) return;
    this.page = this.pdf.addPage([...this.size]);
    this.y = this.size[1] - MARGIN;
  }

  line(words: string, { size = 10, bold = false, x = MARGIN, colour = ink } = {}): void {
    const font = bold ? this.strong : this.text;
    for (const part of wrap(this.letters.written(words), font, size, this.size[0] - MARGIN - x)) {
      this.room(size * 1.4);
      this.y -= size * 1.4;
      this.page.drawText(part, { x, y: this.y, size, font, color: colour });
    }
  }

  heading(words: string, size = 14): void {
    this.room(size * 3);
    this.y -= size * 0.8;
    this.line(words, { size, bold: true });
    this.y -= 3;
  }

  /** Rows in columns at given places; numbers to the right of theirs. */
  row(cells: readonly string[], at: readonly number[], { bold = false, size = 9 } = {}): void {
    const font = bold ? this.strong : this.text;
    const columns = cells.map((cell, i) =>
      wrap(this.letters.written(cell), font, size, (at[i + 1] ?? this.size[0] - MARGIN) - (at[i] ?? 0) - 8),
    );
    const height = Math.max(...columns.map((lines) => lines.length)) * size * 1.35;
    this.room(height + 3);
    columns.forEach((lines, i) => {
      lines.forEach((part, k) => {
        this.page.drawText(part, {
          x: at[i] ?? MARGIN,
          y: this.y - size * 1.35 * (k + 1),
          size,
          font,
          color: ink,
        });
      });
    });
    this.y -= height + 3;
    this.page.drawLine({
      start: { x: MARGIN, y: this.y },
      end: { x: this.size[0] - MARGIN, y: this.y },
      thickness: 0.3,
      color: soft,
    });
  }

  /** An outline with its fuel, to one scale in a box; the level given along the outline's second axis. */
  outline(
    points: readonly SectionPoint[],
    levelM: number,
    flip: boolean,
    x: number,
    width: number,
    height: number,
  ): void {
    const us = points.map(([u]) => u);
    const zs = points.map(([, z]) => z);
    const [u0, u1, z1] = [Math.min(...us), Math.max(...us), Math.max(...zs)];
    const scale = Math.min(width / (u1 - u0), height / (z1 - Math.min(...zs)));
    const path = (list: readonly SectionPoint[]) =>
      `${list.map(([u, z], i) => `${i ? "L" : "M"}${(flip ? u1 - u : u - u0) * scale} ${(z1 - z) * scale}`).join("")}Z`;
    const wet = polygonBelow(points, levelM);
    if (wet.length > 2) this.page.drawSvgPath(path(wet), { x, y: this.y, color: fuelColour });
    this.page.drawSvgPath(path(points), { x, y: this.y, borderColor: ink, borderWidth: 1.2 });
  }

  /** Dark squares at the top right, from here down; what is written stands beside them. */
  modules(rows: readonly (readonly boolean[])[], x: number, side: number): void {
    const one = side / rows.length;
    rows.forEach((row, i) =>
      row.forEach((isDark, k) => {
        if (isDark)
          this.page.drawRectangle({
            x: x + k * one,
            y: this.y - (i + 1) * one,
            width: one,
            height: one,
            color: ink,
          });
      }),
    );
  }

  number(pages: number): void {
    this.pdf.getPages().forEach((page, i) => {
      page.drawText(`${i + 1} of ${pages}`, {
        x: this.size[0] - MARGIN - 40,
        y: 28,
        size: 8,
        font: this.text,
        color: soft,
      });
    });
  }
}

function wrap(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = [];
  let line = "";
  for (const word of text.split(" ")) {
    const next = line ? `${line} ${word}` : word;
    if (line && font.widthOfTextAtSize(next, size) > width) {
      lines.push(line);
      line = word;
    } else line = next;
  }
  return [...lines, line];
}

/** A document of one table, made the same for the same words. */
export async function tablePdf(
  {
    title,
    note,
    head,
    rows,
    at,
  }: { title: string; note: string; head: string[]; rows: string[][]; at: number[] },
  fonts: PdfFonts,
  size: SheetName,
): Promise<{ bytes: Uint8Array; missing: string[] }> {
  const pdf = await PDFDocument.create();
  const never = new Date("2000-01-01T00:00:00Z");
  pdf.setCreationDate(never);
  pdf.setModificationDate(never);
  pdf.setProducer("Iron Keel");
  pdf.setTitle(title);
  const { text, strong, letters } = await embedded(pdf, fonts);
  const paper = new Paper(pdf, text, strong, letters, sheets[size]);
  paper.heading(title);
  paper.line(note);
  paper.row(head, at, { bold: true });
  for (const row of rows) paper.row(row, at);
  paper.number(pdf.getPageCount());
  return { bytes: await pdf.save({ useObjectStreams: false }), missing: [...letters.missing] };
}
