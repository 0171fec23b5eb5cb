/** What a PDF is written in: fonts with their letters, and what stands for a letter that they lack. */
import fontkit from "@pdf-lib/fontkit";
import type { PDFDocument, PDFFont } from "pdf-lib";

/** Two whole fonts, of which what is used is embedded. */
export interface PdfFonts {
  text: ArrayBuffer | Uint8Array;
  strong: ArrayBuffer | Uint8Array;
}

/** Stands where a letter is in no font; which letters those are is told beside the document. */
const NO_GLYPH = "\u25a1";

/** Text as a font can write it. */
export class Letters {
  readonly missing = new Set<string>();
  private readonly known: ReadonlySet<number>;

  constructor(font: PDFFont) {
    this.known = new Set(font.getCharacterSet());
  }

  written(text: string): string {
    return [...text.normalize("NFC")]
      .map((letter) => {
        if (this.known.has(letter.codePointAt(0) ?? 0)) return letter;
        this.missing.add(letter);
        return NO_GLYPH;
      })
      .join("");
  }
}

export interface Embedded {
  text: PDFFont;
  strong: PDFFont;
  letters: Letters;
}

export async function embedded(pdf: PDFDocument, fonts: PdfFonts): Promise<Embedded> {
  pdf.registerFontkit(fontkit);
  const text = await pdf.embedFont(fonts.text, { subset: true });
  const strong = await pdf.embedFont(fonts.strong, { subset: true });
  return { text, strong, letters: new Letters(text) };
}
