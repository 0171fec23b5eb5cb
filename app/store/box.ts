/** The shop's box: rows of its own, each change with the way back. */
import type { BoxItem } from "~/core/box/box";
import { BOX_VERSION, boxItem } from "~/schemas/box";
import { type BoxRow, database } from "./database";

const MOST_STEPS = 100;

export interface ReadBoxRows {
  items: BoxItem[];
  /** Rows that did not parse: left as they are, and counted. */
  unread: number;
  canUndo: boolean;
}

export async function readBox(): Promise<ReadBoxRows> {
  const db = database();
  const rows = await db.box.toArray();
  const read = rows.map(({ version, item }) => (version > BOX_VERSION ? null : boxItem.safeParse(item)));
  return {
    items: read.flatMap((one) => (one?.success ? [one.data] : [])),
    unread: read.filter((one) => !one?.success).length,
    canUndo: (await db.boxSteps.count()) > 0,
  };
}

/** Changes the box as it stands now, in one transaction; what cannot be read is not touched. */
export async function changeBox(
  change: (items: readonly BoxItem[]) => readonly BoxItem[],
): Promise<BoxItem[]> {
  const db = database();
  return db.transaction("rw", db.box, db.boxSteps, async () => {
    const before: BoxRow[] = await db.box.toArray();
    const { items } = await readBox();
    const next = change(items).map((item) => boxItem.parse(item));
    const known = new Set(items.map(({ id }) => id));
    await db.boxSteps.add({ rows: before });
    await db.box.bulkDelete([...known].filter((id) => !next.some((one) => one.id === id)));
    await db.box.bulkPut(next.map((item) => ({ id: item.id, version: BOX_VERSION, item })));
    const steps = await db.boxSteps.toCollection().primaryKeys();
    await db.boxSteps.bulkDelete(steps.slice(0, Math.max(0, steps.length - MOST_STEPS)));
    return next;
  });
}

/** Takes the last change back. */
export async function undoBox(): Promise<boolean> {
  const db = database();
  return db.transaction("rw", db.box, db.boxSteps, async () => {
    const last = await db.boxSteps.toCollection().last();
    if (!last) return false;
    await db.box.clear();
    await db.box.bulkPut(last.rows);
    await db.boxSteps.delete(last.seq as number);
    return true;
  });
}
