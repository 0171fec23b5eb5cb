/** The survey as a PDF: tanks with drawings and dip tables, hoses, samples, findings. Loaded when it is asked for. */
import { PDFDocument, type PDFFont, type PDFPage, rgb } from "pdf-lib";
import { type Book, entriesOf } from "~/core/book/entries";
import { judgeJar } from "~/core/care/jar";
import { findingsOf } from "~/core/findings/findings";
import { judgeHose } from "~/core/hose/survey";
import { envelopeOf } from "~/core/plan/envelope";
import { currentPlan } from "~/core/plan/ports";
import type { Job, SectionPoint, Tank } from "~/core/plan/types";
import { fittedAttitude } from "~/core/tanks/attitude";
import { dipTable } from "~/core/tanks/dip";
import { worstDeadFuel } from "~/core/tanks/pickup";
import { polygonBelow } from "~/core/tanks/polygon";
import { profileAt, sectionAt } from "~/core/tanks/shape";
import { capacityM3, levelOfVolumeM, soundingOf } from "~/core/tanks/tank";
import { INCH_M } from "~/core/units/factors";
import { tradeIn } from "~/core/units/trade";
import { findingText } from "~/messages/findings";
import { hoseReasonText } from "~/messages/findings/hoses";
import { nameOf } from "~/messages/notes";
import { embedded, type Letters, type PdfFonts } from "~/state/pdfLetters";

const PAGE = [595.28, 841.89] as const;
const MARGIN = 48;
const BOTTOM = 56;
const ink = rgb(0.09, 0.13, 0.12);
const soft = rgb(0.34, 0.38, 0.36);
const fuelColour = rgb(0.85, 0.83, 0.74);

/** A page that is written from the top down, and turns over when it is full. */
class Paper {
  private page: PDFPage;
  y = PAGE[1] - MARGIN;

  constructor(
    private readonly pdf: PDFDocument,
    private readonly text: PDFFont,
    private readonly strong: PDFFont,
    private readonly letters: Letters,
  ) {
    this.page = pdf.addPage([...PAGE]);
  }

  room(height: number): void {
    if (this.y - height >= BOTTOM) return;
    this.page = this.pdf.addPage([...PAGE]);
    this.y = PAGE[1] - MARGIN;
  }

  line(words: string, { size = 10, bold = false, x = MARGIN, colour = ink } = {}): void {
    const font = bold ? this.strong : this.text;
    for (const part of wrap(this.letters.written(words), font, size, PAGE[0] - MARGIN - x)) {
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
      wrap(this.letters.written(cell), font, size, (at[i + 1] ?? PAGE[0] - MARGIN) - (at[i] ?? 0) - 8),
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
      end: { x: PAGE[0] - MARGIN, y: this.y },
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

  number(pages: number): void {
    this.pdf.getPages().forEach((page, i) => {
      page.drawText(`${i + 1} of ${pages}`, {
        x: PAGE[0] - MARGIN - 40,
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

function writeTank(paper: Paper, job: Job, tank: Tank): void {
  const { units } = job;
  const volume = (m3: number) => tradeIn(units).volume(m3);
  const length = (m: number) => tradeIn(units).length(m);
  const aboard = currentPlan(job).conditions.aboardM3[tank.id] ?? 0;
  const sounding = soundingOf(tank);
  // A tank's name, figures and drawing stay together.
  paper.room(200);
  paper.heading(tank.name, 12);
  paper.line(
    `Capacity ${volume(capacityM3(tank))}${tank.plateM3 ? `, plate ${volume(tank.plateM3)}` : ""}; aboard ${volume(aboard)}. Sounded ${length(sounding.xM)} along, ${length(sounding.yM)} across.`,
  );
  const outlets = tank.ports.filter(({ role }) => role === "outlet").map(({ mouth }) => mouth);
  if (outlets.length > 0) {
    const envelope = envelopeOf(job);
    const worst = worstDeadFuel(tank, outlets, envelope);
    paper.line(
      `Left behind at the worst of pitch ${envelope.pitchDeg}, roll ${envelope.rollDeg} degrees: ${volume(worst.deadM3)}.`,
    );
  }
  paper.room(118);
  paper.y -= 10;
  const levelM = levelOfVolumeM(tank, aboard);
  paper.outline(sectionAt(tank.shape, sounding.xM), levelM, true, MARGIN, 190, 96);
  paper.outline(profileAt(tank.shape, sounding.yM), levelM, false, MARGIN + 250, 230, 96);
  paper.y -= 102;
  const rows = dipTable(
    tank,
    fittedAttitude(tank),
    units.length === "in" || units.length === "ft" ? INCH_M : 0.025,
  );
  const columns = 4;
  const lines = Math.ceil(rows.length / columns);
  const at = Array.from({ length: columns }, (_, i) => MARGIN + i * 125);
  paper.row(
    at.map(() => "depth: volume"),
    at,
    { bold: true, size: 8 },
  );
  for (let i = 0; i < lines; i++)
    paper.row(
      at.map((_, c) => {
        const row = rows[c * lines + i];
        return row ? `${length(row.depthM)}: ${volume(row.volumeM3)}` : "";
      }),
      at,
      { size: 8 },
    );
}

/** The report, and letters in it that its fonts have not; `today` is printed on it and dates the hoses' age. */
export async function surveyReport(
  job: Job,
  book: Book,
  today: Date,
  fonts: PdfFonts,
): Promise<{ bytes: Uint8Array; missing: string[] }> {
  const pdf = await PDFDocument.create();
  const { text, strong, letters } = await embedded(pdf, fonts);
  pdf.setTitle(`${job.name}: survey`);
  pdf.setCreationDate(today);
  const paper = new Paper(pdf, text, strong, letters);
  const plan = currentPlan(job);
  paper.line(`${job.name}: survey`, { size: 20, bold: true });
  paper.line(`${job.note ? `${job.note} ` : ""}${today.toLocaleDateString("en-GB")}`, { colour: soft });
  paper.heading("Tanks");
  for (const tank of job.tanks) writeTank(paper, job, tank);
  paper.heading("Hoses");
  const hoseAt = [MARGIN, 190, 330, 400];
  paper.row(["Hose", "Printed on it", "Verdict", "Because"], hoseAt, { bold: true });
  for (const run of plan.runs) {
    const found = run.survey ? judgeHose(run.survey, run.boreM, job.fuel, today) : null;
    paper.row(
      [
        nameOf(job, run.id),
        run.survey?.printed ?? "",
        found?.verdict ?? "not read",
        found?.reasons.map(({ code }) => hoseReasonText(code, found.years, run.survey?.feel)).join("; ") ??
          "",
      ],
      hoseAt,
    );
  }
  paper.heading("Samples");
  const samples = entriesOf(book, "sample");
  if (samples.length === 0) paper.line("None taken.");
  const sampleAt = [MARGIN, 130, 240, 320];
  for (const sample of samples) {
    const look = sample.looks.at(-1);
    paper.row(
      [
        new Date(sample.at).toLocaleDateString("en-GB"),
        nameOf(job, sample.tankId),
        judgeJar(sample).replace(/([A-Z])/g, (capital) => ` ${capital.toLowerCase()}`),
        look
          ? `water ${look.water}, ${look.haze}, growth ${look.growth}, ${look.colour}, after ${look.afterH} h`
          : "",
      ],
      sampleAt,
    );
  }
  paper.heading("Findings");
  for (const finding of findingsOf(job, book, undefined, undefined, today)) {
    const text = findingText(finding, job.units, (id) => nameOf(job, id));
    paper.line(`${finding.grade[0]?.toUpperCase()}${finding.grade.slice(1)}: ${text.title}`, { bold: true });
    paper.line(`${text.detail} ${text.mend} (${text.basis})`.trim(), { size: 9, x: MARGIN + 12 });
    if (finding.setAside)
      paper.line(`Set aside: ${finding.setAside.reason}`, { size: 9, x: MARGIN + 12, colour: soft });
  }
  paper.y -= 8;
  paper.line(
    "Computed from what was measured and entered. The maker's manual, local codes and licensed trades go before it.",
    { size: 8, colour: soft },
  );
  paper.number(pdf.getPageCount());
  return { bytes: await pdf.save(), missing: [...letters.missing] };
}
