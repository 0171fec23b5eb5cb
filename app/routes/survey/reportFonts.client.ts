/** The fonts of reports, fetched when one is made: Latin, Greek and Cyrillic letters, and the signs of the trade. */

import textUrl from "dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url";
import strongUrl from "dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url";
import type { ReportFonts } from "./report";

export async function reportFonts(): Promise<ReportFonts> {
  const [text, strong] = await Promise.all(
    [textUrl, strongUrl].map(async (url) => {
      const answer = await fetch(url);
      if (!answer.ok) throw new Error("its letters could not be read");
      return answer.arrayBuffer();
    }),
  );
  return { text: text as ArrayBuffer, strong: strong as ArrayBuffer };
}
