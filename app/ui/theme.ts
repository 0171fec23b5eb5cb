import { keep } from "./kept";

/** The two colour schemes. A unit test holds their contrast and that no two meanings look alike. */
export interface Scheme {
  ground: string;
  panel: string;
  raised: string;
  ink: string;
  soft: string;
  hairline: string;
  idle: string;
  atRest: string;
  pressure: string;
  vacuum: string;
  back: string;
  water: string;
  danger: string;
  act: string;
}

export const day: Scheme = {
  ground: "#E9ECE6",
  panel: "#F4F5F0",
  raised: "#FBFBF8",
  ink: "#17211E",
  soft: "#56625C",
  hairline: "#C2C9BF",
  idle: "#757F78",
  atRest: "#D9D3BC",
  pressure: "#A2385E",
  vacuum: "#34135C",
  back: "#1759C4",
  water: "#0B94A0",
  danger: "#C92700",
  act: "#04352A",
};

export const night: Scheme = {
  ground: "#0D1412",
  panel: "#121B18",
  raised: "#18231F",
  ink: "#DCE4DE",
  soft: "#98A69E",
  hairline: "#2B3A34",
  idle: "#61726A",
  atRest: "#3A3A2A",
  pressure: "#EC5A50",
  vacuum: "#AE72F2",
  back: "#8CD6FF",
  water: "#327478",
  danger: "#FFCB66",
  act: "#84A394",
};

export const cssVariables = (scheme: Scheme) =>
  Object.entries(scheme)
    .map(([name, value]) => `--${name}: ${value};`)
    .join("");

export type ThemeName = "day" | "night";
const KEY = "iron-keel-theme";
const TYPE_KEY = "large-type";

/** Runs before first paint, so that a dark engine room is never lit up. */
export const themeScript = `try{var t=localStorage.getItem("${KEY}")||(matchMedia("(prefers-color-scheme: dark)").matches?"night":"day");document.documentElement.dataset.theme=t;if(localStorage.getItem("iron-keel-${TYPE_KEY}")==="1")document.documentElement.dataset.type="large"}catch(e){document.documentElement.dataset.theme="day"}`;

/** Everything larger by three tenths, for eyes and gloves; kept in this browser. */
export const isTypeLarge = (): boolean =>
  typeof document !== "undefined" && document.documentElement.dataset.type === "large";

export function setTypeLarge(isLarge: boolean): void {
  if (isLarge) document.documentElement.dataset.type = "large";
  else delete document.documentElement.dataset.type;
  keep(TYPE_KEY, isLarge ? "1" : "0");
}

export const currentTheme = (): ThemeName =>
  typeof document !== "undefined" && document.documentElement.dataset.theme === "night" ? "night" : "day";

export function setTheme(name: ThemeName): void {
  document.documentElement.dataset.theme = name;
  keep("theme", name);
}
