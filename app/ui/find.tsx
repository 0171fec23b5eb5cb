/** A list that is sought by typing: the palette, and what can be added. */
import { useRef, useState } from "react";
import { Autocomplete, Input, ListBox, ListBoxItem, SearchField, useFilter } from "react-aria-components";
import styled from "styled-components";

export interface Findable {
  id: string;
  name: string;
  /** Other words that it is found by. */
  words?: string;
  key?: string | undefined;
  /** What choosing it does, where its name does not say. */
  note?: string;
}

const Search = styled(Input)`
  width: 100%; min-height: max(40px, var(--finger)); padding: 6px 10px; border: 1px solid var(--idle); background: var(--raised); border-radius: 2px;
  @media (pointer: coarse) { min-height: 44px; }
`;
const Hint = styled.p`
  margin: 0; color: var(--soft); font-size: 0.85rem;
  @media (pointer: coarse) { display: none; }
`;
/** The focus stays in the field while the list is gone through: what scrolls can be come to by itself. */
const Scrolled = styled.div`
  max-height: 50vh; overflow: auto;
  &:focus-visible { outline: 2px solid var(--act); outline-offset: 2px; }
`;
const Found = styled(ListBox)`
  outline: none;
  [role="option"] { padding: 8px 10px; cursor: pointer; display: flex; justify-content: space-between; gap: 12px; }
  [role="option"][data-focused] { background: color-mix(in srgb, var(--act) 14%, transparent); }
  kbd { color: var(--soft); font: inherit; }
  @media (pointer: coarse) { [role="option"] { min-height: 44px; align-items: center; } }
`;

/**
 * What is called so or begins so stands first, the shortest before the others, then what holds it, then what is sought
 * by other words. The first of them changes as little as can be while it is typed: the list keeps its focus there.
 */
export function ranked<T extends Pick<Findable, "name">>(items: readonly T[], sought: string): readonly T[] {
  const text = sought.trim().toLowerCase();
  if (text === "") return items;
  const rank = ({ name }: T) => {
    const own = name.toLowerCase();
    return own.startsWith(text) ? 0 : own.includes(text) ? 1 : 2;
  };
  return items.toSorted((a, b) => rank(a) - rank(b) || a.name.length - b.name.length);
}

export function Find({
  label,
  placeholder,
  of,
  items,
  onChoose,
  goesOn = false,
}: {
  label: string;
  placeholder: string;
  /** What the list holds. */
  of: string;
  items: readonly Findable[];
  /** With `goesOn` a choice made with Shift asks for the next one too. */
  onChoose: (id: string, wantsMore: boolean) => void;
  goesOn?: boolean;
}) {
  const isShifted = useRef(false);
  const noted = ({ shiftKey }: { shiftKey: boolean }) => {
    isShifted.current = shiftKey;
  };
  const { contains } = useFilter({ sensitivity: "base" });
  const [sought, seek] = useState("");
  return (
    <Autocomplete filter={contains} inputValue={sought} onInputChange={seek}>
      <SearchField aria-label={label} autoFocus>
        <Search placeholder={placeholder} onKeyDownCapture={noted} />
      </SearchField>
      {goesOn && <Hint>With Shift the list stays open for what comes next.</Hint>}
      <Scrolled
        role="group"
        tabIndex={0}
        aria-label={of}
        onPointerDownCapture={noted}
        onKeyDownCapture={noted}
      >
        <Found aria-label={of} onAction={(key) => onChoose(String(key), goesOn && isShifted.current)}>
          {ranked(items, sought).map(({ id, name, words, key, note }) => (
            <ListBoxItem key={id} id={id} textValue={words ? `${name} ${words}` : name}>
              <span>{name}</span>
              {(key ?? note) && <kbd>{key ?? note}</kbd>}
            </ListBoxItem>
          ))}
        </Found>
      </Scrolled>
    </Autocomplete>
  );
}
