import { readFileSync } from "node:fs";
import { inflateSync } from "node:zlib";
import { describe, expect, test } from "@jest/globals";
import DxfParser from "dxf-parser";
import { PDFDocument, PDFName, PDFRawStream } from "pdf-lib";
import { boardJudged, boardLayout } from "~/core/boards/board";
import { passageHoles } from "~/core/boards/passages";
import {
  boardTemplate,
  passageTemplate,
  plateTemplate,
  templateLayers,
  tilingOf,
} from "~/core/boards/template";
import { currentPlan } from "~/core/plan/ports";
import type { Job, Passage } from "~/core/plan/types";
import { type PaperName, papers, templateDxf, templatePdf, templateSvg } from "./template";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const judged = boardJudged(boardLayout(job, plan, "hatch")!);
const template = boardTemplate(judged, (id) => plan.parts.find((part) => part.id === id)?.name ?? id);

const font = (name: string) => readFileSync(`node_modules/dejavu-fonts-ttf/ttf/${name}.ttf`);
const fonts = { text: font("DejaVuSansCondensed"), strong: font("DejaVuSansCondensed-Bold") };
const pdfOf = (of = template) => templatePdf(of, "A4", fonts).then(({ bytes }) => bytes);

describe("a board's template", () => {
  test("DXF, read by another's parser: layers, millimetres, the board's size and every hole where it hangs", () => {
    const dxf = new DxfParser().parseSync(templateDxf(template))!;
    expect(dxf.header.$INSUNITS).toBe(4);
    for (const layer of templateLayers) expect(Object.keys(dxf.tables.layer.layers)).toContain(layer);
    const lines = dxf.entities.filter(
      ({ type, layer }) => type === "LINE" && layer === "BOARD",
    ) as unknown as { vertices: { x: number; y: number }[] }[];
    const xs = lines.flatMap(({ vertices }) => vertices.map(({ x }) => x));
    const ys = lines.flatMap(({ vertices }) => vertices.map(({ y }) => y));
    expect([Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]).toEqual([0, 800, 0, 600]);
    const circles = dxf.entities.filter(({ type }) => type === "CIRCLE") as unknown as {
      center: { x: number; y: number };
      radius: number;
    }[];
    expect(circles).toHaveLength(template.holes.length);
    template.holes.forEach(({ xM, zM, diameterM }, i) => {
      expect(circles[i]?.center.x).toBeCloseTo(xM * 1000, 2);
      expect(circles[i]?.center.y).toBeCloseTo(zM * 1000, 2);
      expect(circles[i]?.radius).toBeCloseTo((diameterM * 1000) / 2, 3);
    });
    const ruler = dxf.entities.filter(
      ({ layer, type }) => layer === "RULER" && type === "LINE",
    ) as unknown as { vertices: { x: number }[] }[];
    expect(
      Math.max(...ruler.flatMap(({ vertices }) => vertices.map(({ x }) => x))) -
        Math.min(...ruler.flatMap(({ vertices }) => vertices.map(({ x }) => x))),
    ).toBeCloseTo(100, 1);
  });

  test("SVG: a unit is a millimetre, and the ruler a hundred of them", () => {
    const svg = templateSvg({ ...template, name: "A <board> & more" });
    const [, width, , box] = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="([^"]+)"/.exec(svg) ?? [];
    expect(Number(width)).toBe(Number(box?.split(" ")[2]));
    const ruler = /<g id="RULER"[^>]*><line x1="([^"]+)" y1="[^"]+" x2="([^"]+)"/.exec(svg) ?? [];
    expect(Number(ruler[2]) - Number(ruler[1])).toBeCloseTo(100, 1);
    expect(svg).toContain("A &#60;board&#62; &#38; more");
    expect(svg.match(/<circle/g)).toHaveLength(template.holes.length);
  });

  const streams = (pdf: PDFDocument) =>
    pdf.getPages().map((page) => {
      const contents = page.node.Contents();
      const refs = contents && "asArray" in contents ? contents.asArray() : [contents];
      return refs
        .map((ref) => pdf.context.lookup(ref as never))
        .filter((stream): stream is PDFRawStream => stream instanceof PDFRawStream)
        .map((stream) => {
          const isPacked = stream.dict.get(PDFName.of("Filter")) !== undefined;
          return Buffer.from(isPacked ? inflateSync(stream.contents) : stream.contents).toString("latin1");
        })
        .join("\n");
    });

  test.each(Object.keys(papers) as PaperName[])(
    "PDF on %s: pages of its size, a ruler of 100 mm on each, crosses that lie on each other",
    async (paper) => {
      const pdf = await PDFDocument.load(
        await templatePdf(template, paper, fonts).then(({ bytes }) => bytes),
      );
      const tiling = tilingOf(template, papers[paper]);
      expect(pdf.getPageCount()).toBe(tiling.columns * tiling.rows);
      const [wide] = papers[paper];
      for (const page of pdf.getPages()) expect(page.getWidth()).toBeCloseTo((wide / 0.0254) * 72, 3);
      const paths = streams(pdf).map((text) =>
        [...text.matchAll(/(-?[\d.]+) (-?[\d.]+) m\s+(-?[\d.]+) (-?[\d.]+) l/g)].map(
          (found) => found.slice(1).map(Number) as [number, number, number, number],
        ),
      );
      const points = (mm: number) => (mm / 25.4) * 72;
      paths.forEach((lines) => {
        // The tile's own ruler: level, 100 mm within a tenth.
        const rulers = lines.filter(
          ([x0, y0, x1, y1]) =>
            Math.abs(y1 - y0) < 1e-6 && Math.abs(Math.abs(x1 - x0) - points(100)) < points(0.1),
        );
        expect(rulers.length).toBeGreaterThan(0);
      });
      // A place of the board lies at its own place on every page that shows it.
      const at = (i: number, [x, z]: readonly [number, number]) => {
        const tile = tiling.tiles[i]!;
        return [points(10 + (x - tile.xM) * 1000), points(10 + (z - tile.zM) * 1000)] as const;
      };
      for (const cross of tiling.crosses) {
        const shown = tiling.tiles.flatMap((tile, i) => {
          const inside =
            cross[0] >= tile.xM &&
            cross[0] <= tile.xM + tiling.widthM &&
            cross[1] >= tile.zM &&
            cross[1] <= tile.zM + tiling.heightM;
          return inside ? [i] : [];
        });
        expect(shown.length).toBeGreaterThanOrEqual(2);
        for (const i of shown) {
          const [x, y] = at(i, cross);
          expect(
            paths[i]!.some(
              ([x0, y0, x1, y1]) => Math.abs((x0 + x1) / 2 - x) < 0.01 && Math.abs((y0 + y1) / 2 - y) < 0.01,
            ),
          ).toBe(true);
        }
      }
    },
  );

  test("the same plan gives the same bytes, in each form", async () => {
    expect(Buffer.from(await pdfOf()).equals(Buffer.from(await pdfOf()))).toBe(true);
    expect(templateDxf(template)).toBe(templateDxf(template));
  });

  test("names keep their letters; what no font has is told, not dropped", async () => {
    const named = (name: string) => templatePdf({ ...template, name }, "A4", fonts);
    expect((await named("Tablica paliwowa, Żółw; Топливо; Καύσιμα")).missing).toEqual([]);
    expect((await named("漁船")).missing).toEqual(["漁", "船"]);
  });

  test("tiles cover the board and what is round it, each overlapping the next by ten millimetres", () => {
    for (const [widthM, heightM] of [
      [0.1, 0.1],
      [0.46, 0.46],
      [1.2, 0.3],
      [2.9, 2.9],
    ] as const)
      for (const paper of Object.values(papers)) {
        const { tiles, columns, rows, widthM: wide, heightM: high } = tilingOf({ widthM, heightM }, paper);
        expect(tiles).toHaveLength(columns * rows);
        expect(Math.max(...tiles.map(({ xM }) => xM + wide))).toBeGreaterThanOrEqual(widthM + 0.03 - 1e-9);
        expect(Math.max(...tiles.map(({ zM }) => zM + high))).toBeGreaterThanOrEqual(heightM + 0.03 - 1e-9);
        const row = tiles.filter(({ row: own }) => own === 0);
        for (const [i, tile] of row.entries())
          if (i > 0) expect(row[i - 1]!.xM + wide - tile.xM).toBeCloseTo(0.01, 9);
      }
  });
});

describe("templates of plates and holes", () => {
  test("a plate's holes stand where they were measured from its edges, and a floor's hole from its two", () => {
    const tank = job.tanks.find(({ opening }) => opening)!;
    const plate = plateTemplate("Plate", tank.opening!, ({ use }) => use);
    const dxf = new DxfParser().parseSync(templateDxf(plate))!;
    const circles = dxf.entities.filter(
      ({ type, layer }) => type === "CIRCLE" && layer === "HOLES",
    ) as unknown as {
      center: { x: number; y: number };
      radius: number;
    }[];
    tank.opening!.holes.forEach((hole, i) => {
      expect(circles[i]?.center.x).toBeCloseTo(hole.aM * 1000, 2);
      expect(circles[i]?.center.y).toBeCloseTo(hole.bM * 1000, 2);
      expect(circles[i]?.radius).toBeCloseTo((hole.diameterM * 1000) / 2, 2);
    });
    const [run] = plan.runs;
    const passage: Passage = {
      id: "h",
      name: "Floor",
      through: "floor",
      made: "metal",
      wallM: 0.002,
      runs: [run!.id],
      fromEdgeM: [0.12, 0.08],
    };
    const [hole] = passageHoles({ ...plan, passages: [passage] }, "metric");
    const floor = passageTemplate(hole!)!;
    expect(floor.holes).toEqual([{ part: "Floor", xM: 0.12, zM: 0.08, diameterM: hole!.saw.saw!.diameterM }]);
    expect(templateSvg(floor)).toContain(`r="${(hole!.saw.saw!.diameterM * 1000) / 2}"`);
    // Without its edges there is nothing to lay it against.
    const { fromEdgeM: _, ...loose } = passage;
    expect(passageTemplate(passageHoles({ ...plan, passages: [loose] }, "metric")[0]!)).toBeNull();
  });
});
