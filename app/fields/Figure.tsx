import type { ReactNode } from "react";
import { Button as AriaButton, Dialog, DialogTrigger, Heading } from "react-aria-components";
import styled from "styled-components";
import type { Explanation } from "~/messages/explain";
import { Floating } from "~/ui/fields";

const Number = styled(AriaButton)`
  border: 0; background: none; padding: 0 2px; cursor: pointer; font-weight: 650; text-decoration: underline dotted var(--soft); text-underline-offset: 3px; text-align: right;
  @media (pointer: coarse) { min-height: 44px; }
  &[data-focus-visible] { outline: 2px solid var(--act); }
`;
const Body = styled(Dialog)`
  outline: none; padding: 10px 12px; font-size: 13px; width: min(360px, calc(100vw - 48px));
  h2 { font-size: 15px; margin: 0 0 4px; }
  dl { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 2px 12px; margin: 6px 0; }
  dt { color: var(--soft); } dd { margin: 0; text-align: right; font-weight: 600; }
`;

/** A computed number that opens its formula, its inputs and its source. */
export function Figure({
  children,
  explain,
  label,
}: {
  children: ReactNode;
  explain: () => Explanation;
  label: string;
}) {
  return (
    <DialogTrigger>
      <Number aria-label={`${label}: how it is worked out`}>{children}</Number>
      <Floating placement="left top">
        <Explained explain={explain} />
      </Floating>
    </DialogTrigger>
  );
}

function Explained({ explain }: { explain: () => Explanation }) {
  const { title, formula, inputs, source } = explain();
  return (
    <Body>
      <Heading slot="title" level={2}>
        {title}
      </Heading>
      <p>{formula}</p>
      <dl>
        {inputs.map(([name, value], i) => [<dt key={`n${i}`}>{name}</dt>, <dd key={`v${i}`}>{value}</dd>])}
      </dl>
      <p style={{ color: "var(--soft)", margin: 0 }}>{source}</p>
    </Body>
  );
}
