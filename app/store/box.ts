/** The shop's box: rows of its own, each change with the way back. */
import type { BoxItem } from "~/core/box/box";
import { boxFile, boxItem, broughtUp } from "~/schemas/box";
import { type FileFault, faultsOf } from "~/schemas/file";
import { BOX_VERSION } from "~/schemas/version";
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
  const read = rows.map(({ version, item }) =>
    version > BOX_VERSION ? null : boxItem.safeParse(broughtUp(version, item)),
  );
  return {
    items: read.flatMap((one) => (one?.success ? [one.data] : [])),
    unread: read.filter((one) => !one?.success).length,
    canUndo: (await db.boxSteps.count()) > 0,
  };
}

export type ChangeResult = { ok: true } | { ok: false; faults: FileFault[] };

/**
 * Changes the box as it stands now, in one transaction; what cannot be read is not touched. A change that makes something
 * that cannot be writes nothing and says what it is.
 */
export async function changeBox(
  change: (items: readonly BoxItem[]) => readonly BoxItem[],
): Promise<ChangeResult> {
  const db = database();
  return db.transaction("rw", db.box, db.boxSteps, async () => {
    const before: BoxRow[] = await db.box.toArray();
    const { items } = await readBox();
    const next = boxFile.shape.items.safeParse(change(items));
    if (!next.success) return { ok: false as const, faults: faultsOf(next.error) };
    const kept = new Set(next.data.map(({ id }) => id));
    await db.boxSteps.add({ rows: before });
    await db.box.bulkDelete(items.flatMap(({ id }) => (kept.has(id) ? [] : [id])));
    await db.box.bulkPut(next.data.map((item) => ({ id: item.id, version: BOX_VERSION, item })));
    const steps = await db.boxSteps.toCollection().primaryKeys();
    await db.boxSteps.bulkDelete(steps.slice(0, Math.max(0, steps.length - MOST_STEPS)));
    return { ok: true as const };
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
