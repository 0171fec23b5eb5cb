/** What differs between two devices' jobs, in words: the figure, and how it stands on each side. */
import type { Difference, What } from "~/core/edit/reconcile";
import type { Field } from "~/core/kinds/fields";
import { kinds, type PartKind } from "~/core/kinds/index";
import type { Job, Run } from "~/core/plan/types";
import { fieldText, tradeIn } from "~/core/units/trade";
import { fieldLabel, optionNames, partKindName, unitOf } from "./kinds";
import { nameOf } from "./notes";

const whats: Record<What, string> = {
  job: "job",
  plan: "plan",
  tank: "tank",
  consumer: "consumer",
  part: "part",
  run: "hose",
  joint: "screwed joint",
  lineUp: "line-up",
  board: "board",
  tankLine: "tank's line",
};

/** Fields that are told in words of their own; all others as figures of their kind. */
const labels: Readonly<Record<string, string>> = {
  name: "name",
  kind: "what it is",
  note: "note",
  boreM: "bore",
  position: "where it stands",
  origin: "where it stands",
  shape: "shape and sizes",
  ports: "ports",
  route: "way and length",
  product: "which hose",
  from: "end",
  to: "end",
  element: "element",
  curve: "pump curve",
  positions: "positions",
  branches: "branches",
  ways: "ways",
  valves: "valves",
  pumps: "pumps",
  consumers: "what runs",
  purpose: "purpose",
  duty: "run over time",
  limits: "limits",
  ends: "ends of ports and hoses",
  passages: "holes and passages",
  chains: "adapters",
  mounted: "what hangs on boards",
  awaited: "what is awaited",
  deliveries: "deliveries",
  covers: "covers",
  units: "units",
  fuel: "fuel",
  site: "site",
  schools: "rules followed",
  prices: "prices",
  "conditions.fuelC": "fuel temperature",
  "conditions.aboardM3": "fuel aboard",
  "conditions.loading": "loading of elements",
  "conditions.load": "load",
  "conditions.trim": "trim",
};

export interface SaidDifference {
  title: string;
  figure: string;
  here: string;
  there: string;
}

/** @param job the one here: its names and units */
export function differenceText(job: Job, one: Difference): SaidDifference {
  const own = one.what === "run" || one.what === "joint" ? nameOf(job, one.id) : one.name;
  const title = own === "" || own === one.id ? `A ${whats[one.what]}` : `${own} (${whats[one.what]})`;
  if (one.field === null) {
    const kind = (value: unknown) => {
      if (value === undefined) return "is not there";
      const of = (value as { kind?: PartKind }).kind;
      return (one.what === "part" || one.what === "consumer") && of !== undefined
        ? `is there: ${partKindName(of)}`
        : "is there";
    };
    return { title, figure: "", here: kind(one.here), there: kind(one.there) };
  }
  const kind = kindOfThing(job, one);
  const label = labels[one.field] ?? ((kind && fieldLabel(kind, one.field).toLowerCase()) || "other figures");
  const say = valueText(job, one, kind);
  const [here, there] = [say(one.here), say(one.there)];
  // Where the words do not tell them apart, that they differ is all that is said.
  return here === there
    ? { title, figure: label, here: "as here", there: "as there" }
    : { title, figure: label, here, there };
}

const kindOfThing = (job: Job, { what, id, planId }: Difference): PartKind | null => {
  if (what === "consumer") return job.consumers.find((one) => one.id === id)?.kind ?? null;
  if (what !== "part") return null;
  return job.plans.find((plan) => plan.id === planId)?.parts.find((one) => one.id === id)?.kind ?? null;
};

function valueText({ units }: Job, { field }: Difference, kind: PartKind | null) {
  const trade = tradeIn(units);
  return (value: unknown): string => {
    if (value === undefined) return "nothing";
    if (field === "boreM") return trade.bore(Number(value));
    if (field === "conditions.fuelC") return fieldText("temperature", Number(value), units.temperature);
    if (field === "route") {
      const route = value as Run["route"];
      return route.kind === "measured"
        ? `${trade.length(route.lengthM)} long`
        : `traced, ${route.points.length} points`;
    }
    if (typeof value === "string") return value === "" ? "nothing" : value;
    if (typeof value === "boolean") return value ? "yes" : "no";
    const known = kind ? (kinds[kind].fields as Readonly<Record<string, Field>>)[field ?? ""] : undefined;
    if (typeof value === "number" && known?.form === "quantity")
      return fieldText(known.dimension, value, unitOf(known.unit, units));
    if (known?.form === "choice" && kind)
      return optionNames(kind, field ?? "").find(({ id }) => id === value)?.name ?? String(value);
    return typeof value === "number" ? String(value) : "";
  };
}
