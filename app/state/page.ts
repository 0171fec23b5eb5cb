import { newId } from "~/core/kinds/ids";

/** This page, for as long as it is open: what it changes is its own to undo. */
export const PAGE = newId();
