import type { ReactNode } from "react";
import { Button as AriaButton, Dialog, DialogTrigger } from "react-aria-components";
import styled from "styled-components";
import { type TermId, terms } from "~/messages/terms";
import { Floating } from "~/ui/fields";

const Word = styled(AriaButton)`
  border: 0; background: none; padding: 0; font: inherit; color: inherit; cursor: help;
  text-decoration: underline dotted var(--soft); text-underline-offset: 3px;
  @media (pointer: coarse) { padding: 12px 4px; margin: -12px -4px; }
  &[data-focus-visible] { outline: 2px solid var(--act); }
`;
const Said = styled(Dialog)`
  outline: none; padding: 8px 12px; font-size: 13px; width: min(300px, calc(100vw - 48px));
`;

/** A word of the house where it first stands: opened, it says what it is. */
export function Term({ of, children }: { of: TermId; children?: ReactNode }) {
  const text = terms[of];
  return (
    <DialogTrigger>
      <Word aria-label={`${of}: what it is`}>{children ?? of}</Word>
      <Floating placement="bottom left">
        <Said aria-label={of}>
          {text.charAt(0).toUpperCase()}
          {text.slice(1)}.
        </Said>
      </Floating>
    </DialogTrigger>
  );
}
