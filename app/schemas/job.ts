/**
 * The shape of a job as it is stored and exchanged: strict keys, finite numbers, ids of at most 14 characters.
 * Cross-references (a run to a missing port) are the plan's own business: core/plan/check.
 */

import { gradeIds } from "~/core/fuel/grades";
import { LONGEST_ID } from "~/core/plan/ids";
import { type Job, pumpKinds, type SchoolChoice, type SchoolMatter, schoolChoices } from "~/core/plan/types";
import { dimensions, type UnitOf } from "~/core/units/factors";
import { coordinate, size, tankShape } from "./shape";
import { z } from "./zod";

export const LONGEST_NAME = 80;
export const LONGEST_NOTE = 2000;
/** Ids are keys of records: the names that every object answers to would be lost there. */
export const id = z
  .string()
  .regex(new RegExp(`^[A-Za-z0-9_-]{1,${LONGEST_ID}}$`), "badId")
  .refine((text) => !(text in {}), "badId");
const name = z.string().min(1).max(LONGEST_NAME);
/** What fuel passes is at least half a millimetre wide: a slip of a unit is narrower. */
const bore = z.number().min(5e-4).max(0.3);
/** A jet's nozzle is the narrowest way there is. */
const nozzle = z.number().min(2e-4).max(0.3);
const diameter = z.number().positive().max(0.3);
const positive = z.number().positive().max(1e9);
export const atLeastZero = z.number().min(0).max(1e9);
const share = z.number().min(0).max(1);

const given = z
  .record(
    z.string(),
    z.strictObject({
      entered: z.string().max(40).optional(),
      plusMinus: atLeastZero.optional(),
      basis: z.enum(["measured", "maker", "assumed"]).optional(),
    }),
  )
  .optional();
const position = z.strictObject({ xM: coordinate, yM: coordinate, zM: coordinate });
export const portRef = z.strictObject({ part: id, port: id });

/** No pressure test of a fuel tank goes beyond 5 bar. */
const tankPressure = z.number().positive().max(5e5);
const angle = z.number().min(-45).max(45);
const box = { low: position, high: position };
const look = z.enum(["sound", "worn", "bad", "unseen"]);
export const reading = z.number().min(0).max(1e6);
const length = z.number().min(0).max(20);

const tankFittings = {
  wallM: z.number().min(0).max(0.1).optional(),
  carried: z.enum(["fixed", "portable", "bladder"]).optional(),
  material: z.enum(["aluminium", "steel", "stainless", "plastic", "rubber"]).optional(),
  emptyKg: z.number().min(0).max(5000).optional(),
  droppedBy: z.enum(["hands", "twoPeople", "cradleAndJack"]).optional(),
  plateM3: positive.optional(),
  internals: z
    .array(z.strictObject({ id, name, ...box }))
    .max(40)
    .optional(),
  baffles: z
    .array(z.strictObject({ id, across: z.enum(["x", "y"]), atM: coordinate }))
    .max(40)
    .optional(),
  well: z.strictObject({ ...box, holeBoreM: diameter, holes: z.int().min(0).max(99) }).optional(),
  sump: z
    .strictObject({
      xM: coordinate,
      yM: coordinate,
      diameterM: diameter,
      depthM: size,
      holeM: diameter,
      mostHoleM: diameter.optional(),
      floorOverGroundM: length.optional(),
    })
    .optional(),
  sounding: z.strictObject({ xM: coordinate, yM: coordinate }).optional(),
  sender: z
    .strictObject({
      kind: z.enum(["ohm240to33", "ohm10to180", "ohm0to90", "volt0to5", "own"]),
      emptyReading: reading,
      fullReading: reading,
      lowM: coordinate,
      highM: coordinate,
    })
    .refine(({ emptyReading, fullReading }) => emptyReading !== fullReading, "sameReading")
    .optional(),
  filling: z
    .strictObject({
      fillBoreM: bore,
      fillHoseBoreM: bore,
      ventBoreM: bore,
      ventLengthM: length,
      ventTop: position,
      spill: position,
      hasDip: z.boolean(),
      hasArrester: z.boolean(),
      ratedPa: tankPressure,
    })
    .optional(),
  pickupFit: z
    .strictObject({
      portId: id,
      mouth: z.enum(["square", "bevelled"]),
      depthM: size,
      sagM: length,
      carrierM: length,
      clearanceM: length,
    })
    .optional(),
  cooler: z.strictObject({ effectiveness: share, coolantC: z.number().min(-60).max(120) }).optional(),
  opening: z
    .strictObject({
      aM: size,
      bM: size,
      at: position,
      holes: z
        .array(
          z.strictObject({
            id,
            use: z.enum(["sender", "pickup", "return", "vent", "spare", "sampling"]),
            aM: coordinate,
            bM: coordinate,
            diameterM: diameter,
            mostM: diameter,
            flangeM: diameter,
            swingM: length,
            partLengthM: length,
          }),
        )
        .max(20),
      roomAboveM: length,
      cleaningTaken: z.boolean(),
      warnedBy: z.enum(["nothing", "whistle", "sightGlass", "gauge"]),
    })
    .optional(),
  condition: z
    .strictObject({
      cleanedFirst: z.boolean(),
      seams: look,
      feet: look,
      fittings: look,
      drains: z.enum(["drains", "holdsWater", "foam"]),
      testedPa: tankPressure.optional(),
      testHeld: z.boolean().optional(),
    })
    .optional(),
  installed: z.strictObject({ pitchDeg: angle, rollDeg: angle }).optional(),
};

export const tank = z.strictObject({
  id,
  name,
  given,
  origin: position,
  yawDeg: z.number().min(-360).max(360),
  shape: tankShape,
  ...tankFittings,
  ports: z
    .array(
      z.strictObject({
        id,
        name,
        role: z.enum(["outlet", "return"]),
        fitting: z.enum(["tube", "standpipe", "sump", "side"]).optional(),
        mouth: position,
        outside: position,
        boreM: bore,
      }),
    )
    .max(30),
});

const partBase = {
  id,
  name,
  given,
  position,
  boreM: bore,
  ports: z
    .record(z.string(), z.strictObject({ offset: position.optional(), boreM: bore.optional() }))
    .optional(),
  provisional: z.boolean().optional(),
  flowBasis: z.enum(["arrow", "maker", "outerSide", "guess"]).optional(),
  shopMade: z.strictObject({ tested: z.boolean() }).optional(),
};
const amperes = z.number().min(0).max(2000);
const circuit = z
  .strictObject({
    runA: amperes,
    peakA: amperes,
    wireLengthM: z.number().min(0).max(200),
    wireAreaM2: z.number().positive().max(1e-3),
    fuseA: amperes,
    triggerA: amperes.optional(),
    hasRelay: z.boolean(),
  })
  .optional();
const curve = z
  .array(z.strictObject({ flowM3S: atLeastZero, risePa: z.number().min(-1e6).max(1e8) }))
  .min(2)
  .max(50)
  .refine(
    (points) => points.every((p, i) => i === 0 || p.flowM3S > (points[i - 1]?.flowM3S ?? 0)),
    "flowsNotRising",
  )
  .refine(
    (points) => points.every((p, i) => i === 0 || p.risePa < (points[i - 1]?.risePa ?? 0)),
    "risesNotFalling",
  );

const filterBody = {
  micron: positive,
  ratedFlowM3S: positive,
  ratedDropPa: positive,
  ratedDynamicPaS: z.number().min(1e-5).max(10),
  ratedDensityKgM3: z.number().min(400).max(1500),
  viscousShare: share,
  changeLoading: z.number().min(1).max(100),
  volumeM3: atLeastZero,
  element: z.strictObject({ id, fittedOn: z.iso.date().optional() }).nullable(),
  sensorHeldM3: positive.optional(),
};
const pumpBody = {
  curve,
  reliefPa: positive.optional(),
  off: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("free"), dropPa: positive }),
    z.strictObject({ kind: z.literal("blocked") }),
    z.strictObject({ kind: z.literal("bypass"), opensPa: atLeastZero, dropPa: positive }),
  ]),
  mostSuctionPa: positive.optional(),
  suctionLimitPa: positive.optional(),
  circuit,
};
const ratedDrop = { ratedFlowM3S: positive, ratedDropPa: positive };
const opensBy = { setPa: positive, droopPa: atLeastZero, ratedFlowM3S: positive };

const planPart = z.discriminatedUnion("kind", [
  z.strictObject({ ...partBase, kind: z.literal("twoWay") }),
  z.strictObject({
    ...partBase,
    kind: z.literal("selector"),
    ways: z.int().min(2).max(8),
    positions: z
      .array(z.strictObject({ id, name, joins: z.array(z.array(id).min(2).max(9)).max(8) }))
      .min(1)
      .max(16),
    makesBeforeBreaks: z.boolean(),
  }),
  z.strictObject({ ...partBase, kind: z.literal("tee") }),
  z.strictObject({
    ...partBase,
    kind: z.literal("bank"),
    branches: z.array(z.strictObject({ id, name })).min(1).max(12),
  }),
  z.strictObject({
    ...partBase,
    kind: z.literal("filter"),
    medium: z.enum(["separator", "secondary"]),
    ...filterBody,
    sparePorts: z.strictObject({ count: z.int().min(0).max(8), plugged: z.boolean() }).optional(),
  }),
  z.strictObject({ ...partBase, kind: z.enum(pumpKinds), ...pumpBody }),
  z.strictObject({
    ...partBase,
    kind: z.literal("dosingPump"),
    strokeM3: z.number().positive().max(1e-5),
    mostHz: z.number().positive().max(100),
    drawShare: z.number().min(0.05).max(1),
    mostRisePa: positive,
    suctionLimitPa: positive.optional(),
    mostSuctionPa: positive.optional(),
    tiltDeg: z.number().min(-90).max(90).optional(),
    rubberMounted: z.boolean().optional(),
    mostBeforeM: positive.optional(),
    mostAfterM: positive.optional(),
    mostLiftM: z.number().min(-20).max(20).optional(),
    circuit,
  }),
  z.strictObject({
    ...partBase,
    kind: z.literal("pumpFilterUnit"),
    ...filterBody,
    ...pumpBody,
    reliefPa: positive,
  }),
  z.strictObject({ ...partBase, kind: z.enum(["check", "antiSiphon"]), crackingPa: atLeastZero }),
  z.strictObject({
    ...partBase,
    kind: z.literal("bulb"),
    ...ratedDrop,
    crackingPa: atLeastZero,
    strokeM3: positive,
    forDiesel: z.boolean(),
  }),
  z.strictObject({ ...partBase, kind: z.literal("relief"), ...opensBy }),
  z.strictObject({
    ...partBase,
    kind: z.literal("regulator"),
    ...opensBy,
    holds: z.enum(["before", "after"]),
  }),
  z.strictObject({
    ...partBase,
    kind: z.literal("cooler"),
    ...ratedDrop,
    effectiveness: share,
    coolantC: z.number().min(-60).max(120),
  }),
  z.strictObject({ ...partBase, kind: z.literal("flowMeter"), ...ratedDrop }),
  z.strictObject({ ...partBase, kind: z.literal("fuelHeater"), ...ratedDrop, powerW: positive, circuit }),
  z
    .strictObject({ ...partBase, kind: z.literal("jetPump"), nozzleM: nozzle, throatM: bore })
    .refine(({ nozzleM, throatM }) => nozzleM < throatM, "nozzleTooWide"),
  z.strictObject({ ...partBase, kind: z.literal("swirlPot"), volumeM3: positive }),
  z.strictObject({ ...partBase, kind: z.literal("bleedScrew") }),
  z.strictObject({ ...partBase, kind: z.literal("samplingTap") }),
  z.strictObject({ ...partBase, kind: z.literal("waterSensor"), heldM3: positive }),
  z.strictObject({ ...partBase, kind: z.literal("bulkhead"), wallM: length, reachM: length }),
  z.strictObject({ ...partBase, kind: z.literal("gauge"), measures: z.enum(["vacuum", "pressure"]) }),
]);

export const engine = z.strictObject({
  ...partBase,
  kind: z.enum(["engine", "generator", "heater"]),
  powerW: positive,
  loads: z
    .array(z.strictObject({ load: share, feedM3S: atLeastZero, burnM3S: atLeastZero }))
    .min(1)
    .max(20)
    .refine((loads) => loads.every((p, i) => i === 0 || p.load > (loads[i - 1]?.load ?? 0)), "loadsNotRising")
    .refine((loads) => loads.every((p) => p.burnM3S <= p.feedM3S), "burnsMoreThanFed"),
  suctionLimitPa: positive.optional(),
  leastFeedPa: z.number().min(-1e5).max(1e7).optional(),
  mostFeedPa: z.number().min(-1e5).max(1e7).optional(),
  fuelLubricated: z.boolean().optional(),
  returnC: z.number().min(-60).max(150).optional(),
  circuit,
  heater: z
    .strictObject({
      hasCoAlarm: z.boolean(),
      exhaustBendDeg: z.number().min(0).max(3600),
      exhaustFalls: z.boolean(),
      drainAtLowest: z.boolean(),
      outletClear: z.boolean(),
      airFacesRear: z.boolean(),
      airWayClear: z.boolean(),
      clearanceM: length,
      switchCutsRunDown: z.boolean(),
      leastV: z.number().positive().max(100).optional(),
      mostV: z.number().positive().max(100).optional(),
    })
    .optional(),
});

const product = z.strictObject({
  marking: z.string().max(80),
  outerDiameterM: diameter,
  leastRadiusM: atLeastZero,
});
const route = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("measured"),
    lengthM: size,
    bends: z
      .array(z.strictObject({ deg: z.union([z.literal(45), z.literal(90)]), count: z.int().min(0).max(99) }))
      .max(4),
    extremes: z.array(z.strictObject({ atM: atLeastZero, zM: coordinate })).max(40),
  }),
  z.strictObject({ kind: z.literal("traced"), points: z.array(position).max(200), radiusM: atLeastZero }),
]);
const run = z.strictObject({
  id,
  from: portRef,
  to: portRef,
  boreM: bore,
  endBoreM: z.tuple([bore, bore]).optional(),
  roughnessM: atLeastZero,
  product,
  route,
  survey: z
    .strictObject({
      printed: z.string().max(120),
      place: z.enum(["engineRoom", "outside"]),
      feel: z.enum(["sound", "stiff", "soft", "oily", "cracked"]),
    })
    .optional(),
  neighbours: z
    .array(
      z.strictObject({
        id,
        kind: z.enum(["hot", "moving", "sharp", "line", "battery"]),
        name,
        atM: atLeastZero,
        apartM: length,
        guarded: z.boolean(),
      }),
    )
    .max(40)
    .optional(),
  supportEveryM: size.optional(),
  mark: z.string().max(80).optional(),
  make: z.enum(["hose", "rigid"]).optional(),
  provisional: z.boolean().optional(),
  given,
});

const setting = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("position"), position: id }),
  z.strictObject({ kind: z.literal("branches"), open: z.array(id).max(12) }),
  z.strictObject({ kind: z.literal("unset") }),
]);
const lineUp = z.strictObject({
  id,
  name,
  purpose: z.enum(["run", "transfer", "polish", "prime"]),
  valves: z.record(id, setting),
  pumps: z.record(id, z.enum(["on", "off"])),
  consumers: z.record(id, z.enum(["running", "stopped"])),
  intendedTransfer: z.boolean(),
});
export const conditions = z.strictObject({
  fuelC: z.number().min(-60).max(120),
  aboardM3: z.record(id, atLeastZero),
  loading: z.record(id, z.number().min(1).max(1000)),
  load: z.record(id, share),
  trim: z.strictObject({ pitchDeg: angle, rollDeg: angle }).optional(),
});
const dutyStep = z.strictObject({
  id,
  hours: z.number().positive().max(1000),
  lineUpId: id,
  load: share,
  pitchDeg: angle,
  rollDeg: angle,
});
export const plan = z.strictObject({
  id,
  name,
  basedOn: id.optional(),
  parts: z.array(planPart).max(1000),
  runs: z.array(run).max(2000),
  joints: z.array(z.strictObject({ id, from: portRef, to: portRef })).max(1000),
  lineUps: z.array(lineUp).max(200),
  conditions,
  duty: z.array(dutyStep).max(200).optional(),
  limits: z.strictObject({
    suctionCleanPa: positive,
    suctionChangePa: positive,
    suctionNeverPa: positive,
    freeAirFraction: z.number().positive().max(1),
  }),
  serviceAllowanceM: atLeastZero,
  nudges: z.record(
    id,
    z.strictObject({ dx: z.number().min(-1e4).max(1e4), dy: z.number().min(-1e4).max(1e4) }),
  ),
});

const unit = <D extends keyof typeof dimensions>(dimension: D) =>
  z.enum(Object.keys(dimensions[dimension].units) as [UnitOf<D>, ...UnitOf<D>[]]);

const school = <M extends SchoolMatter>(matter: M) =>
  z.enum(schoolChoices[matter] as unknown as [SchoolChoice<M>, ...SchoolChoice<M>[]]).optional();
const schools = {
  returnMouth: school("returnMouth"),
  liftPump: school("liftPump"),
  priming: school("priming"),
  waterSensor: school("waterSensor"),
  filterFill: school("filterFill"),
  finest: school("finest"),
  factoryFilter: school("factoryFilter"),
  takeOff: school("takeOff"),
  heaterFuel: school("heaterFuel"),
  primer: school("primer"),
  joints: school("joints"),
  torque: school("torque"),
  dirtyTank: school("dirtyTank"),
  support: school("support"),
};

export const jobSchema = z.strictObject({
  id,
  name,
  kind: z.enum(["boat", "truck", "heater", "other"]),
  note: z.string().max(LONGEST_NOTE),
  units: z.strictObject({
    length: unit("length"),
    bore: unit("length"),
    volume: unit("volume"),
    flow: unit("flow"),
    pressure: unit("pressure"),
    temperature: unit("temperature"),
  }),
  schools: z.strictObject({ shutOff: z.enum(["abycH33", "iso10088"]), ...schools }),
  site: z.strictObject({
    altitudeM: z.number().min(-500).max(9000),
    ambientLowC: z.number().min(-60).max(60),
    ambientHighC: z.number().min(-60).max(70),
    envelope: z
      .strictObject({ pitchDeg: z.number().min(0).max(45), rollDeg: z.number().min(0).max(45) })
      .optional(),
    accelerationG: z.number().min(0).max(20).optional(),
    supply: z
      .strictObject({ volts: z.number().positive().max(100), regulatorPeakW: positive.optional() })
      .optional(),
    given,
  }),
  fuel: z.strictObject({
    grade: z.enum(gradeIds),
    density15KgM3: z.number().min(600).max(1000),
    viscosityPoints: z
      .tuple([
        z.strictObject({ tempC: z.number().min(-60).max(150), mm2S: z.number().min(0.21).max(100) }),
        z.strictObject({ tempC: z.number().min(-60).max(150), mm2S: z.number().min(0.21).max(100) }),
      ])
      .refine(([a, b]) => a.tempC !== b.tempC, "sameTemperature"),
    cloudPointC: z.number().min(-80).max(40).optional(),
    biodieselShare: share.optional(),
  }),
  tanks: z.array(tank).max(40),
  consumers: z.array(engine).max(10),
  plans: z.array(plan).min(1).max(20),
  currentPlanId: id,
}) satisfies z.ZodType<Job>;

/** Compile-time check that nothing is in the core's type that the schema does not know, and the other way round. */
export type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
true satisfies Same<z.infer<typeof jobSchema>, Job>;
