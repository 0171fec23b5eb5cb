/** The room of a drawing on a screen, and the size at which it is shown there. */
import { LEAST_FIT } from "./labels";

/** px. */
export interface Box {
  width: number;
  height: number;
}

/** What is left of 1280 by 800 px beside the places, the inspector and the Keel. */
export const ROOM: Box = { width: 844, height: 487 };

/** Shown larger than this, nothing is read the better; smaller than that, nothing at all. */
const MOST_FIT = 1.15;
const SMALLEST = 0.5;

/** The size at which the whole of a drawing is in a room, however small. */
export const wholeIn = (room: Box, { width, height }: Box): number =>
  Math.min(MOST_FIT, room.width / width, room.height / height);

/** The size at which a drawing is shown: by width, and by height as far as names can still be read. */
export const shownIn = (room: Box, { width, height }: Box): number =>
  Math.max(SMALLEST, Math.min(MOST_FIT, room.width / width, Math.max(room.height / height, LEAST_FIT)));

/** In cells of hose: a drawing at half its size, against one at its full. By eye, on lines of 4 to 25 parts; no source. */
const HALVED = 1200;

/** What a drawing costs by how small it is in its room, in cells of hose: nothing at its full size. */
export const smallness = (drawing: Box, room = ROOM): number =>
  HALVED * Math.max(0, 1 / wholeIn(room, drawing) - 1);
