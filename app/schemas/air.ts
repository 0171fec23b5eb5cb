/** Hands at a plan, as a file has them, and what `keel bleed` and `keel air` print: published as JSON Schemas. */
import type { AirAction } from "~/core/air/session";
import { LITRE_M3 } from "~/core/units/factors";
import { z } from "./zod";

const ML_M3 = LITRE_M3 / 1000;
const MOST_ACTIONS = 10_000;
const id = z.string().min(1).max(14);
const joint = z.string().min(1).max(31);
/** An hour at a time. */
const seconds = z.number().min(0).max(3600);

const action = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("open"), joint, quarters: z.int().min(0).max(4).optional() }),
  z.strictObject({ do: z.literal("shut"), joint }),
  z.strictObject({ do: z.literal("pump"), id: z.string().min(1).max(31), on: z.boolean() }),
  z.strictObject({ do: z.literal("strokes"), id, count: z.int().min(1).max(1000) }),
  z.strictObject({
    do: z.literal("valve"),
    id,
    position: id.optional(),
    open: z.array(id).max(64).optional(),
  }),
  z.strictObject({ do: z.literal("pour"), id, ml: z.number().positive().max(100_000) }),
  z.strictObject({ do: z.literal("draw"), id, load: z.number().min(0).max(1) }),
  z.strictObject({ do: z.literal("take"), id, on: z.boolean() }),
  z.strictObject({ do: z.literal("lift"), id, m: z.number().min(0).max(3) }),
  z.strictObject({ do: z.literal("wait"), seconds }),
]);
export const airActionsSchema = z.array(action).max(MOST_ACTIONS);

type Written = z.infer<typeof action>;

export const readAction = (written: Written): AirAction => {
  if (written.do === "pour") return { do: "pour", id: written.id, m3: written.ml * ML_M3 };
  if (written.do === "open") {
    const { quarters } = written;
    return { do: "open", joint: written.joint, ...(quarters === undefined ? {} : { quarters }) };
  }
  if (written.do !== "valve") return written;
  const { position, open = [] } = written;
  return {
    do: "valve",
    id: written.id,
    setting: position === undefined ? { kind: "branches", open } : { kind: "position", position },
  };
};

const share = z.number().min(0);
const by = z.strictObject({
  kind: z.enum(["gravity", "lifted", "pump", "bulb", "lever", "primer"]),
  id: z.string().nullable(),
});
const actions = z.array(action);
const step = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("valves"), isBack: z.boolean(), ids: z.array(z.string()), actions }),
  z.strictObject({
    kind: z.literal("fill"),
    isAgain: z.boolean(),
    vessels: z.array(
      z.strictObject({
        id: z.string(),
        pouredMl: z.number(),
        shut: z.array(z.string()),
        isToInlet: z.boolean(),
      }),
    ),
    actions,
  }),
  z.strictObject({
    kind: z.literal("runOn"),
    isAgain: z.boolean(),
    by,
    seconds: z.number(),
    strokes: z.int().nullable(),
    presses: z.int().nullable(),
    through: z.string().nullable(),
    fillsMl: z.number(),
    actions,
  }),
  z.strictObject({
    kind: z.literal("bleed"),
    isAgain: z.boolean(),
    joint: z.string(),
    jointKind: z.enum(["lid", "headScrew", "screw", "inlet", "outlet", "crest", "feed", "deadEnd"]),
    overFuelM: z.number(),
    by,
    seconds: z.number(),
    strokes: z.int().nullable(),
    presses: z.int().nullable(),
    fillsMl: z.number(),
    panMl: z.number(),
    isSolid: z.boolean(),
    goes: z.number(),
    dryS: z.number(),
    actions,
  }),
]);
const air = { at: z.string(), airMl: z.number() };
const reason = z.discriminatedUnion("code", [
  z.strictObject({ code: z.literal("underVacuum"), at: z.string(), overFuelM: z.number() }),
  z.strictObject({ code: z.literal("dryLift"), at: z.string(), dryS: z.number(), limitS: z.number() }),
  z.strictObject({ code: z.literal("notSwept"), ...air, hadMS: z.number(), needsMS: z.number() }),
  ...(["headHolds", "deadLeg", "runsBack", "stays"] as const).map((code) =>
    z.strictObject({ code: z.literal(code), ...air }),
  ),
]);
const content = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("dry") }),
  z.strictObject({ kind: z.literal("ranDry") }),
  z.strictObject({ kind: z.literal("filterChanged"), partId: z.string() }),
  z.strictObject({ kind: z.literal("opened"), joint: z.string() }),
]);

export const bleedReportSchema = z.discriminatedUnion("outcome", [
  z.strictObject({ lineup: z.string(), content, outcome: z.literal("noPath") }),
  z.strictObject({
    lineup: z.string(),
    content,
    outcome: z.enum(["bled", "airStays"]),
    steps: z.array(step),
    airMl: z.number(),
    roomMl: z.number(),
    left: share,
    pouredMl: z.number(),
    panMl: z.number(),
    panRoomL: z.number(),
    seconds: z.number(),
    dry: z.array(z.strictObject({ id: z.string(), seconds: z.number(), limitS: z.number() })),
    whyNot: z.array(reason),
    where: z.array(z.strictObject(air)),
    proof: z.strictObject({
      replayed: share.nullable(),
      weakPump: share.nullable(),
      cold: share.nullable(),
      lowest: share.nullable(),
    }),
  }),
]);

const state = z.strictObject({
  atS: z.number(),
  after: z.int().nullable(),
  airMl: z.number(),
  left: share,
  joints: z.record(
    z.string(),
    z.strictObject({
      isOpen: z.boolean(),
      fuelMl: z.number(),
      airMl: z.number(),
      drawnMl: z.number(),
      solidS: z.number(),
    }),
  ),
  pouredMl: z.record(z.string(), z.number()),
  dryS: z.record(z.string(), z.number()),
});
export const airReportSchema = z.strictObject({
  lineup: z.string(),
  roomMl: z.number(),
  states: z.array(state),
  refused: z.strictObject({ code: z.string(), at: z.string(), action: z.int() }).nullable(),
});

export const airJsonSchemas = () => ({
  "air-actions": z.toJSONSchema(airActionsSchema, { reused: "ref" }),
  bleed: z.toJSONSchema(bleedReportSchema, { reused: "ref" }),
  air: z.toJSONSchema(airReportSchema, { reused: "ref" }),
});
