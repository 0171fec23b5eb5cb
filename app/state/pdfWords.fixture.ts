/** The words of a PDF, read by its own tables and not by what wrote it (ISO 32000). */
import { inflateSync } from "node:zlib";
import { type PDFDict, PDFDocument, PDFName, PDFRawStream } from "pdf-lib";

const textOf = (stream: PDFRawStream) => {
  const raw = Buffer.from(stream.contents);
  return (stream.dict.has(PDFName.of("Filter")) ? inflateSync(raw) : raw).toString("latin1");
};

/** What each glyph of a font stands for, by its own table for readers (ISO 32000, 9.10.3). */
function lettersOf(font: PDFDict): Map<string, string> {
  const table = textOf(font.lookup(PDFName.of("ToUnicode")) as PDFRawStream);
  const pairs = table.matchAll(/<([0-9A-Fa-f]{4})>\s*<([0-9A-Fa-f]+)>/g);
  const utf16 = (hex: string) => Buffer.from(hex, "hex").swap16().toString("utf16le");
  return new Map([...pairs].map(([, glyph, letters]) => [glyph!.toUpperCase(), utf16(letters!)]));
}

/** The words of each page, in the order they were written: the text operators of its content streams. */
export async function wordsOf(bytes: Uint8Array): Promise<string[]> {
  const pdf = await PDFDocument.load(bytes);
  return pdf.getPages().map((page) => {
    const named = page.node.Resources()?.lookup(PDFName.of("Font")) as PDFDict;
    const fontsOfPage = new Map(
      named.keys().map((key) => [key.asString().slice(1), lettersOf(named.lookup(key) as PDFDict)]),
    );
    const contents = page.node.Contents();
    const streams = contents && "asArray" in contents ? contents.asArray() : [contents];
    return streams
      .map((one) => pdf.context.lookup(one as never))
      .filter((stream): stream is PDFRawStream => stream instanceof PDFRawStream)
      .map((stream) => {
        let letters = new Map<string, string>();
        const words: string[] = [];
        for (const [, name, hex] of textOf(stream).matchAll(/\/(\S+) [\d.]+ Tf|<([0-9A-Fa-f]+)> Tj/g)) {
          if (name !== undefined) letters = fontsOfPage.get(name) ?? letters;
          else
            words.push((hex?.toUpperCase().match(/.{4}/g) ?? []).map((glyph) => letters.get(glyph)).join(""));
        }
        return words.join("\n");
      })
      .join("\n");
  });
}
