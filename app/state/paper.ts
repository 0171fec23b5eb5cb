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

/** Of names in a drawing, points. */
const [DRAWN_SIZE, DRAWN_WIDE] = [6, 34];
const [PICTURE_GAP, PICTURE_HIGH] = [14, 190];

/** In units of the drawing, down from its top left. */
export interface PaperDrawing {
  width: number;
  height: number;
  lines: { d: string; isBack: boolean; isIdle: boolean }[];
  boxes: { name: string; x: number; y: number; width: number; height: number }[];
}

export interface PaperPicture {
  words: string;
  type: string;
  bytes: Uint8Array;
}

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

  /** Lines and boxes with their names, as wide as the page and no higher than it. */
  drawing({ width, height, lines, boxes }: PaperDrawing): void {
    const wide = this.size[0] - 2 * MARGIN;
    const scale = Math.min(wide / width, (this.size[1] - MARGIN - BOTTOM - 20) / height, 1);
    this.room(height * scale + 6);
    const top = this.y;
    for (const { d, isBack, isIdle } of lines)
      this.page.drawSvgPath(d, {
        x: MARGIN,
        y: top,
        scale,
        borderColor: isIdle ? soft : ink,
        borderWidth: isIdle ? 0.8 : 2,
        ...(isBack && { borderDashArray: [6, 4] }),
      });
    const placed = boxes.map(({ name, x, y, width: w, height: h }) => ({
      name,
      box: { x: MARGIN + x * scale, y: top - (y + h) * scale, width: w * scale, height: h * scale },
    }));
    for (const { box } of placed)
      this.page.drawRectangle({ ...box, color: rgb(1, 1, 1), borderColor: ink, borderWidth: 0.8 });
    for (const { name, box } of placed) {
      const words = wrap(this.letters.written(name), this.text, DRAWN_SIZE, Math.max(box.width, DRAWN_WIDE));
      // What is too small to hold its name has it underneath.
      const isUnder = words.some((part) => this.text.widthOfTextAtSize(part, DRAWN_SIZE) > box.width - 1);
      const middle = isUnder ? box.y - (words.length / 2) * DRAWN_SIZE * 1.15 - 2 : box.y + box.height / 2;
      words.forEach((part, i) => {
        const from = box.x + (box.width - this.text.widthOfTextAtSize(part, DRAWN_SIZE)) / 2;
        const at = middle + (words.length / 2 - i - 1) * DRAWN_SIZE * 1.15 + 1.5;
        this.page.drawText(part, { x: from, y: at, size: DRAWN_SIZE, font: this.text, color: ink });
      });
    }
    this.y = top - height * scale - 6;
  }

  /** Pictures side by side, each with what it shows under it. */
  async pictures(all: readonly PaperPicture[]): Promise<void> {
    const wide = (this.size[0] - 2 * MARGIN - PICTURE_GAP) / 2;
    for (let i = 0; i < all.length; i += 2) {
      const pair = all.slice(i, i + 2);
      const made = await Promise.all(
        pair.map(({ bytes, type }) =>
          type === "image/png" ? this.pdf.embedPng(bytes) : this.pdf.embedJpg(bytes),
        ),
      );
      const heights = made.map((one) => Math.min(PICTURE_HIGH, (wide * one.height) / one.width));
      const high = Math.max(...heights);
      this.room(high + 22);
      made.forEach((one, k) => {
        const h = heights[k] as number;
        const w = Math.min(wide, (h * one.width) / one.height);
        const x = MARGIN + k * (wide + PICTURE_GAP);
        this.page.drawImage(one, { x, y: this.y - h, width: w, height: h });
        const [words = ""] = wrap(this.letters.written((pair[k] as PaperPicture).words), this.text, 8, wide);
        this.page.drawText(words, { x, y: this.y - high - 11, size: 8, font: this.text, color: soft });
      });
      this.y -= high + 22;
    }
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
