import { Button as AriaButton, ToggleButton as AriaToggleButton } from "react-aria-components";
import styled, { css } from "styled-components";

const look = css`
  display: inline-flex; align-items: center; justify-content: center; gap: 6px;
  min-height: 32px; padding: 4px 12px; border-radius: 3px; cursor: pointer;
  border: 1px solid var(--act); background: transparent; color: var(--act);
  font-stretch: 84%; font-weight: 600; font-size: 14px; line-height: 1.2; text-align: center;
  @media (pointer: coarse) { min-height: 44px; min-width: 44px; }
  &[data-hovered] { background: color-mix(in srgb, var(--act) 10%, transparent); }
  &[data-pressed], &[data-selected] { background: var(--act); color: var(--raised); }
  &[data-disabled] { opacity: 0.45; cursor: default; }
  &[data-focus-visible] { outline: 2px solid var(--act); outline-offset: 2px; }
`;

export const Button = styled(AriaButton)<{ $quiet?: boolean; $main?: boolean }>`
  ${look}
  ${({ $quiet }) => $quiet && css`border-color: transparent; padding: 4px 8px;`}
  ${({ $main }) => $main && css`background: var(--act); color: var(--raised); &[data-hovered] { background: var(--ink); }`}
`;

export const ToggleButton = styled(AriaToggleButton)`
  ${look}
`;
