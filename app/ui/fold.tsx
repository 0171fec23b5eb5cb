import type { ReactNode } from "react";
import { useState } from "react";
import { Button, Disclosure, DisclosurePanel, Heading } from "react-aria-components";
import styled from "styled-components";
import { keep, kept } from "./kept";

const Box = styled(Disclosure)`
  border-top: 1px solid var(--hairline); margin: 8px 0 0;
  h3 { margin: 0; }
`;
const Head = styled(Button)`
  display: flex; width: 100%; align-items: center; gap: 8px; min-height: max(32px, var(--finger)); padding: 4px 0; border: 0; background: none; text-align: left; cursor: pointer; font: inherit; font-weight: 650; color: var(--act);
  &::before { content: "+" / ""; width: 14px; font-weight: 700; }
  [data-expanded] > h3 > &::before { content: "−" / ""; }
  &[data-focus-visible] { outline: 2px solid var(--act); outline-offset: 2px; }
`;

/** What is not always wanted, folded under its own words; how it was left is remembered in this browser. */
export function Fold({ id, title, children }: { id: string; title: string; children: ReactNode }) {
  const key = `fold:${id}`;
  const [isOpen, setOpen] = useState(() => kept(key) === "1");
  const turn = (open: boolean) => {
    setOpen(open);
    keep(key, open ? "1" : "0");
  };
  return (
    <Box isExpanded={isOpen} onExpandedChange={turn}>
      <Heading level={3}>
        <Head slot="trigger">{title}</Head>
      </Heading>
      <DisclosurePanel>{isOpen && children}</DisclosurePanel>
    </Box>
  );
}
