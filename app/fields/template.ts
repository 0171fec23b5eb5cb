/** A board's template at true size: SVG and DXF in millimetres, and PDF pages to be glued. Loaded when it is asked for. */
import { Colors, DxfWriter, point3d, Units } from "@tarikjabiri/dxf";
import { clip, endPath, PDFDocument, popGraphicsState, pushGraphicsState, rectangle, rgb } from "pdf-lib";
import {
  rulerAt,
  type Template,
  type TemplateLayer,
  type TemplateShape,
  templateLayers,
  tilingOf,
} from "~/core/boards/template";
import { oneLine } from "~/core/kinds/words";
import { embedded, type PdfFonts } from "~/state/pdfLetters";

const MM = 1000;
/** Points of a page: 72 to the inch. */
const POINTS_M = 72 / 0.0254;
const MARGIN_MM = 10;

const mm = (m: number) => Math.round(m * MM * 1000) / 1000;
const escaped = (text: string) => oneLine(text).replace(/[<>&"]/g, (letter) => `&#${letter.charCodeAt(0)};`);

const strokes: Record<TemplateLayer, { width: number; dash?: string }> = {
  BOARD: { width: 0.5, dash: "4 2" },
  OPENING: { width: 0.7 },
  PARTS: { width: 0.35 },
  SERVICE: { width: 0.2, dash: "2 2" },
  HOLES: { width: 0.35 },
  CENTRES: { width: 0.2 },
  TEXT: { width: 0.2 },
  RULER: { width: 0.35 },
};
const AROUND_MM = 30;

/** One unit is one millimetre; y is turned, since SVG counts down. */
export function templateSvg({ name, widthM, heightM, shapes }: Template): string {
  const [width, height] = [mm(widthM) + 2 * AROUND_MM, mm(heightM) + 2 * AROUND_MM];
  const y = (z: number) => mm(heightM - z);
  const drawn = (shape: TemplateShape): string => {
    switch (shape.kind) {
      case "line":
        return `<line x1="${mm(shape.from[0])}" y1="${y(shape.from[1])}" x2="${mm(shape.to[0])}" y2="${y(shape.to[1])}"/>`;
      case "circle":
        return `<circle cx="${mm(shape.at[0])}" cy="${y(shape.at[1])}" r="${mm(shape.diameterM / 2)}"/>`;
      case "text":
        return `<text x="${mm(shape.at[0])}" y="${y(shape.at[1])}" font-size="${mm(shape.heightM)}" fill="#000" stroke="none">${escaped(shape.text)}</text>`;
    }
  };
  const groups = templateLayers.map((layer) => {
    const { width: stroke, dash } = strokes[layer];
    const all = shapes.filter((shape) => shape.layer === layer).map(drawn);
    return `<g id="${layer}" stroke-width="${stroke}"${dash ? ` stroke-dasharray="${dash}"` : ""}>${all.join("")}</g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="${-AROUND_MM} ${-AROUND_MM} ${width} ${height}" fill="none" stroke="#000" font-family="sans-serif"><title>${escaped(name)}</title>${groups.join("")}</svg>\n`;
}

/** A layer each, millimetres, y up. */
export function templateDxf({ shapes }: Template): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const layer of templateLayers) dxf.addLayer(layer, Colors.White);
  for (const shape of shapes) {
    const layerName = shape.layer;
    if (shape.kind === "line")
      dxf.addLine(point3d(mm(shape.from[0]), mm(shape.from[1])), point3d(mm(shape.to[0]), mm(shape.to[1])), {
        layerName,
      });
    else if (shape.kind === "circle")
      dxf.addCircle(point3d(mm(shape.at[0]), mm(shape.at[1])), mm(shape.diameterM / 2), { layerName });
    else
      dxf.addText(point3d(mm(shape.at[0]), mm(shape.at[1])), mm(shape.heightM), oneLine(shape.text), {
        layerName,
      });
  }
  return dxf.stringify();
}

export const papers = { A4: [0.21, 0.297], Letter: [0.2159, 0.2794] } as const;
export type PaperName = keyof typeof papers;

/** The tiles of one paper: each with its place, crosses that coincide, and a ruler to check the print by. */
export async function templatePdf(
  template: Template,
  paper: PaperName,
  fonts: PdfFonts,
): Promise<{ bytes: Uint8Array; missing: string[] }> {
  const page = papers[paper];
  const tiling = tilingOf(template, page);
  const pdf = await PDFDocument.create();
  // Same plan, same bytes.
  const never = new Date("2000-01-01T00:00:00Z");
  pdf.setCreationDate(never);
  pdf.setModificationDate(never);
  pdf.setProducer("Iron Keel");
  pdf.setCreator("Iron Keel");
  pdf.setTitle(template.name);
  const { text: font, letters } = await embedded(pdf, fonts);
  const written = (text: string) => letters.written(text);
  const ink = rgb(0, 0, 0);
  for (const tile of tiling.tiles) {
    const sheet = pdf.addPage([page[0] * POINTS_M, page[1] * POINTS_M]);
    const margin = (MARGIN_MM / MM) * POINTS_M;
    const x = (m: number) => margin + (m - tile.xM) * POINTS_M;
    const y = (m: number) => margin + (m - tile.zM) * POINTS_M;
    sheet.pushOperators(
      pushGraphicsState(),
      rectangle(margin, margin, tiling.widthM * POINTS_M, tiling.heightM * POINTS_M),
      clip(),
      endPath(),
    );
    const crosses = tiling.crosses.flatMap(([cx, cz]): TemplateShape[] => [
      { layer: "CENTRES", kind: "line", from: [cx - 0.004, cz], to: [cx + 0.004, cz] },
      { layer: "CENTRES", kind: "line", from: [cx, cz - 0.004], to: [cx, cz + 0.004] },
    ]);
    for (const shape of [...template.shapes, ...crosses, ...rulerAt(tile.xM + 0.012, tile.zM + 0.003)]) {
      const thickness = (strokes[shape.layer].width / MM) * POINTS_M;
      if (shape.kind === "line")
        sheet.drawLine({
          start: { x: x(shape.from[0]), y: y(shape.from[1]) },
          end: { x: x(shape.to[0]), y: y(shape.to[1]) },
          thickness,
          color: ink,
        });
      else if (shape.kind === "circle")
        sheet.drawCircle({
          x: x(shape.at[0]),
          y: y(shape.at[1]),
          size: (shape.diameterM / 2) * POINTS_M,
          borderWidth: thickness,
          borderColor: ink,
        });
      else
        sheet.drawText(written(shape.text), {
          x: x(shape.at[0]),
          y: y(shape.at[1]),
          size: shape.heightM * POINTS_M,
          font,
          color: ink,
        });
    }
    sheet.pushOperators(popGraphicsState());
    sheet.drawText(
      written(
        `${template.name}: column ${tile.column + 1} of ${tiling.columns}, row ${tile.row + 1} of ${tiling.rows} from below. Print at 100 %; measure the ruler.`,
      ),
      { x: margin, y: margin / 3, size: 7, font, color: ink },
    );
  }
  return { bytes: await pdf.save({ useObjectStreams: false }), missing: [...letters.missing] };
}
