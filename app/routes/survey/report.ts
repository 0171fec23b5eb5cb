/** The survey as a PDF: tanks with drawings and dip tables, hoses, samples, findings. Loaded when it is asked for. */

import { PDFDocument } from "pdf-lib";
import { type Book, entriesOf } from "~/core/book/entries";
import { judgeJar } from "~/core/care/jar";
import { findingsOf } from "~/core/findings/findings";
import { judgeHose } from "~/core/hose/survey";
import { envelopeOf } from "~/core/plan/envelope";
import { currentPlan } from "~/core/plan/ports";
import type { Job, Tank } from "~/core/plan/types";
import { fittedAttitude } from "~/core/tanks/attitude";
import { dipTable } from "~/core/tanks/dip";
import { worstDeadFuel } from "~/core/tanks/pickup";
import { profileAt, sectionAt } from "~/core/tanks/shape";
import { capacityM3, levelOfVolumeM, soundingOf } from "~/core/tanks/tank";
import { INCH_M } from "~/core/units/factors";
import { tradeIn } from "~/core/units/trade";
import { findingText } from "~/messages/findings";
import { hoseReasonText } from "~/messages/findings/hoses";
import { nameOf } from "~/messages/notes";
import { dayText } from "~/messages/when";
import { MARGIN, Paper, soft } from "~/state/paper";
import { embedded, type PdfFonts } from "~/state/pdfLetters";

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
  paper.line(`${job.note ? `${job.note} ` : ""}${dayText(today)}`, { colour: soft });
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
        dayText(sample.at),
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
