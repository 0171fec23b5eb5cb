/** How the names of parts are set in lines. */

/** A drawing that would have to be smaller than this is scrolled: names keep their size and need their room. */
export const LEAST_FIT = 0.7;
/** From this size beside their part on, names stand in narrow lines, so as not to reach into the next one's. */
const NARROW_FROM = 1.2;
const NARROW_LINE = 11;
export const LINE_PX = 12.5;

/** Names are set in two lines where they are long, so that they stay over their own part. */
export function wrapped(name: string, text = 1): string[] {
  if (name.length <= (text > NARROW_FROM ? NARROW_LINE : 12)) return [name];
  const words = name.split(" ");
  if (words.length === 1) return [name];
  if (text > NARROW_FROM)
    return words.reduce<string[]>((lines, word) => {
      const last = lines.at(-1);
      if (last !== undefined && last.length + word.length + 1 <= NARROW_LINE)
        lines[lines.length - 1] = `${last} ${word}`;
      else lines.push(word);
      return lines;
    }, []);
  const ways = words.slice(1).map((_, i) => [words.slice(0, i + 1).join(" "), words.slice(i + 1).join(" ")]);
  return ways.reduce((best, way) =>
    Math.max(...way.map((line) => line.length)) < Math.max(...best.map((line) => line.length)) ? way : best,
  );
}
