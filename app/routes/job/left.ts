/** Where a job was left: its place, with what was chosen there. */
import { type Place, places } from "~/core/findings/rule";
import { keep, kept } from "~/ui/kept";

const FIRST: Place = "survey";

export function leftAt(jobId: string): string {
  const left = kept(`left:${jobId}`) ?? FIRST;
  const [place] = left.split("?");
  return places.some((one) => one === place) ? left : FIRST;
}

/** @param pathname of the page, as the router has it */
export function leave(jobId: string, pathname: string, search: string): void {
  const place = pathname.split("/")[3];
  if (places.some((one) => one === place)) keep(`left:${jobId}`, `${place}${search}`);
}
