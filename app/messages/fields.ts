/** Names of figures as they are said. */
export const fieldNames: Record<string, string> = {
  lengthM: "length",
  widthM: "width",
  heightM: "height",
  diameterM: "diameter",
  section: "corners of its section",
  boreM: "bore",
  position: "height over datum",
  curve: "pump curve",
  loads: "feed and burn",
  ratedFlowM3S: "rated flow",
  ratedDropPa: "drop at rated flow",
  crackingPa: "opening pressure",
};
