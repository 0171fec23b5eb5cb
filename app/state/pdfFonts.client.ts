/** The fonts of documents, fetched when one is made: Latin, Greek and Cyrillic letters, and the signs of the trade. */

import textUrl from "dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url";
import strongUrl from "dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url";
import type { PdfFonts } from "./pdfLetters";

export async function pdfFonts(): Promise<PdfFonts> {
  const [text, strong] = await Promise.all(
    [textUrl, strongUrl].map(async (url) => {
      const answer = await fetch(url);
      if (!answer.ok) throw new Error("its letters could not be read");
      return answer.arrayBuffer();
    }),
  );
  return { text: text as ArrayBuffer, strong: strong as ArrayBuffer };
}
