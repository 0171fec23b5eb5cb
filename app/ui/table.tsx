import { type ComponentProps, useLayoutEffect, useRef } from "react";
import styled from "styled-components";

const Frame = styled.table`
  @media screen and (max-width: 600px) {
    &[data-cards="true"] {
      &, > tbody, > tbody > tr, > tbody > tr > * { display: block; }
      > thead { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
      > tbody > tr { border: 1px solid var(--hairline); border-left: 3px solid var(--idle); padding: 4px 10px; margin: 0 0 8px; background: var(--raised); }
      > tbody > tr > * { display: flow-root; border: 0; padding: 4px 0; text-align: right; white-space: normal; color: inherit; font-size: 14px; }
      > tbody > tr > *:empty { display: none; }
      > tbody > tr > *::before { content: attr(data-label); float: left; margin-right: 12px; color: var(--soft); font-weight: 500; font-size: 13px; font-stretch: 84%; text-align: left; max-width: 55%; }
      > tbody > tr > :first-child { text-align: left; font-weight: 650; font-size: 15px; }
      > tbody > tr > :first-child::before { content: none; }
    }
  }
`;

/** Fewer columns than this stand beside one another on a phone too. */
const LEAST_COLUMNS = 3;

/**
 * A table; on a phone each of its rows is a card, its first cell the card's name, every other one behind the name of its
 * column. `stays` where a row is short enough to be read as it is.
 */
export function Table({ stays = false, ...props }: ComponentProps<"table"> & { stays?: boolean }) {
  const table = useRef<HTMLTableElement>(null);
  // The names of columns are read from the head as it was drawn: they are written once.
  useLayoutEffect(() => {
    const element = table.current;
    if (!element) return;
    const heads = [...(element.tHead?.rows[0]?.cells ?? [])].flatMap((cell) =>
      Array.from({ length: cell.colSpan }, () => cell.textContent?.trim() ?? ""),
    );
    // What is as it was is not written again.
    const write = (one: HTMLElement, key: string, value: string) => {
      if (one.dataset[key] !== value) one.dataset[key] = value;
    };
    write(element, "cards", String(!stays && heads.length >= LEAST_COLUMNS));
    for (const body of element.tBodies)
      for (const row of body.rows) {
        let column = 0;
        for (const cell of row.cells) {
          write(cell, "label", cell.colSpan > 1 ? "" : (heads[column] ?? ""));
          column += cell.colSpan;
        }
      }
  });
  return <Frame ref={table} {...props} />;
}
