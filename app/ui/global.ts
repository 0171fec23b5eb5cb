import { createGlobalStyle } from "styled-components";
import { cssVariables, day, night } from "./theme";

export const GlobalStyle = createGlobalStyle`
  :root { ${cssVariables(day)} color-scheme: light; --finger: 0px; }
  [data-theme="night"] { ${cssVariables(night)} color-scheme: dark; }
  *, *::before, *::after { box-sizing: border-box; }
  html { height: 100%; }
  body {
    margin: 0; min-height: 100%;
    background: var(--ground); color: var(--ink);
    font-family: "Archivo Variable", "Archivo", sans-serif;
    font-stretch: 90%; font-size: 14px; line-height: 1.4;
    font-variant-numeric: tabular-nums;
    -webkit-font-smoothing: antialiased;
  }
  [data-type="large"] { --zoom: 1.3; }
  [data-type="large"] body { zoom: var(--zoom); min-height: calc(100% / var(--zoom)); }
  h1, h2, h3 { font-stretch: 84%; font-weight: 650; line-height: 1.2; margin: 0; }
  h1 { font-size: 20px; } h2 { font-size: 16px; } h3 { font-size: 14px; }
  p { margin: 0 0 8px; }
  a { color: var(--act); }
  button, input, select, textarea { font: inherit; color: inherit; }
  :focus-visible { outline: 2px solid var(--act); outline-offset: 2px; }
  table { border-collapse: collapse; width: 100%; }
  th { text-align: left; font-weight: 550; font-stretch: 80%; color: var(--soft); font-size: 13px; }
  th, td { padding: 6px 8px; border-bottom: 1px solid var(--hairline); vertical-align: baseline; }
  td.n, th.n { text-align: right; white-space: nowrap; }
  @media (pointer: coarse) {
    :root { --finger: 44px; }
    /* A finger needs 44 px, where a place says nothing of its own; what stands in a line of text is let off. */
    :where(button, summary, [role="tab"]) { min-height: 44px; min-width: 44px; }
    :where(div, td, header, nav, section, article, span) > a[href] { display: inline-flex; align-items: center; min-height: 44px; min-width: 44px; }
    summary { display: flex; align-items: center; }
  }
  @media (max-width: 600px) { .wide { display: none; } }
  .sr { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
  @media print {
    body { background: #fff; color: #000; }
    .noPrint { display: none !important; }
  }
`;
