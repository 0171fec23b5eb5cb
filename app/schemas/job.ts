/**
 * The shape of a job as it is stored and exchanged: strict keys, finite numbers, ids of at most 14 characters.
 * Cross-references (a run to a missing port) are the plan's own business: core/plan/check.
 */

import { gradeIds } from "~/core/fuel/grades";
import { UNPRINTABLE } from "~/core/kinds/words";
import { SHEET } from "~/core/plan/places";
import {
  type Job,
  markColours,
  type SchoolChoice,
  type SchoolMatter,
  schoolChoices,
} from "~/core/plan/types";
import { dimensions, type UnitOf } from "~/core/units/factors";
import { adapterShape, endSchema } from "./end";
import { engine, planPart } from "./part";
import {
  atLeastZero,
  bore,
  diameter,
  given,
  id,
  line,
  name,
  nameOrNone,
  note,
  position,
  positive,
  share,
} from "./primitives";
import { coordinate, size, tankShape } from "./shape";

import { z } from "./zod";

export const portRef = z.strictObject({ part: id, port: id });

/** No pressure test of a fuel tank goes beyond 5 bar. */
const tankPressure = z.number().positive().max(5e5);
const angle = z.number().min(-45).max(45);
const box = { low: position, high: position };
const look = z.enum(["sound", "worn", "bad", "unseen"]);
export const reading = z.number().min(0).max(1e6);
const length = z.number().min(0).max(20);
const vehicleSize = z.number().min(0.1).max(60);

const tankFittings = {
  wallM: z.number().min(0).max(0.1).exactOptional(),
  carried: z.enum(["fixed", "portable", "bladder"]).exactOptional(),
  heatersOwn: z.boolean().exactOptional(),
  material: z.enum(["aluminium", "steel", "stainless", "plastic", "rubber"]).exactOptional(),
  emptyKg: z.number().min(0).max(5000).exactOptional(),
  droppedBy: z.enum(["hands", "twoPeople", "cradleAndJack"]).exactOptional(),
  attachments: z
    .array(
      z.strictObject({ id, name, kind: z.enum(["strap", "filler", "vent", "connector", "earth", "other"]) }),
    )
    .max(20)
    .exactOptional(),
  plateM3: positive.exactOptional(),
  internals: z
    .array(z.strictObject({ id, name, ...box }))
    .max(40)
    .exactOptional(),
  baffles: z
    .array(z.strictObject({ id, across: z.enum(["x", "y"]), atM: coordinate }))
    .max(40)
    .exactOptional(),
  well: z.strictObject({ ...box, holeBoreM: diameter, holes: z.int().min(0).max(99) }).exactOptional(),
  sump: z
    .strictObject({
      xM: coordinate,
      yM: coordinate,
      diameterM: diameter,
      depthM: size,
      holeM: diameter,
      mostHoleM: diameter.exactOptional(),
      floorOverGroundM: length.exactOptional(),
    })
    .exactOptional(),
  sounding: z.strictObject({ xM: coordinate, yM: coordinate }).exactOptional(),
  sender: z
    .strictObject({
      kind: z.enum(["ohm240to33", "ohm10to180", "ohm0to90", "volt0to5", "own"]),
      emptyReading: reading,
      fullReading: reading,
      lowM: coordinate,
      highM: coordinate,
    })
    .refine(({ emptyReading, fullReading }) => emptyReading !== fullReading, "sameReading")
    .exactOptional(),
  filling: z
    .strictObject({
      fillBoreM: bore,
      fillHoseBoreM: bore,
      ventBoreM: bore,
      ventLengthM: length,
      ventTop: position,
      spill: position,
      hasDip: z.boolean().exactOptional(),
      hasArrester: z.boolean().exactOptional(),
      ratedPa: tankPressure,
    })
    .exactOptional(),
  pickupFit: z
    .strictObject({
      portId: id,
      mouth: z.enum(["square", "bevelled"]),
      depthM: size,
      sagM: length,
      carrierM: length,
      taken: z.enum(["free", "fitted"]).exactOptional(),
      clearanceM: length,
    })
    .exactOptional(),
  cooler: z.strictObject({ effectiveness: share, coolantC: z.number().min(-60).max(120) }).exactOptional(),
  wayOut: z
    .strictObject({ widthM: z.number().positive().max(10), heightM: z.number().positive().max(10) })
    .exactOptional(),
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
            portId: id.exactOptional(),
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
      cleaningTaken: z.boolean().exactOptional(),
      warnedBy: z.enum(["nothing", "whistle", "sightGlass", "gauge"]),
    })
    .exactOptional(),
  condition: z
    .strictObject({
      cleanedFirst: z.boolean(),
      seams: look,
      feet: look,
      fittings: look,
      drains: z.enum(["drains", "holdsWater", "foam", "unseen"]),
      testedPa: tankPressure.exactOptional(),
      testHeld: z.boolean().exactOptional(),
    })
    .exactOptional(),
  installed: z.strictObject({ pitchDeg: angle, rollDeg: angle }).exactOptional(),
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
        fitting: z.enum(["tube", "standpipe", "sump", "side"]).exactOptional(),
        mouth: position,
        outside: position,
        boreM: bore,
      }),
    )
    .max(30),
});

const product = z.strictObject({
  marking: nameOrNone,
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
const neighbours = z
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
  .exactOptional();
const covering = { id, name, hides: z.array(id).max(300), bodies: z.int().min(1).max(9).exactOptional() };
const cover = z.discriminatedUnion("kind", [
  z.strictObject({ ...covering, kind: z.enum(["hatch", "floor", "panel"]) }),
  z.strictObject({ ...covering, kind: z.enum(["engineOut", "tankDown"]), of: id }),
]);
const mark = nameOrNone.exactOptional();
const survey = z
  .strictObject({
    printed: line.max(120),
    place: z.enum(["engineRoom", "outside"]),
    feel: z.enum(["sound", "stiff", "soft", "oily", "cracked"]),
  })
  .exactOptional();
const colour = z.enum(markColours).exactOptional();
const make = z.enum(["hose", "rigid"]).exactOptional();
const run = z.strictObject({
  id,
  from: portRef,
  to: portRef,
  boreM: bore,
  endBoreM: z.tuple([bore, bore]).exactOptional(),
  roughnessM: atLeastZero,
  product,
  route,
  survey,
  neighbours,
  supportEveryM: size.exactOptional(),
  slack: z.strictObject({ name, lengthM: z.number().positive().max(5) }).exactOptional(),
  mark,
  colour,
  make,
  provisional: z.boolean().exactOptional(),
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
  trim: z.strictObject({ pitchDeg: angle, rollDeg: angle }).exactOptional(),
});
const dutyStep = z.strictObject({
  id,
  hours: z.number().positive().max(1000),
  lineUpId: id,
  load: share,
  pitchDeg: angle,
  rollDeg: angle,
});
/** No board in a vehicle is smaller than a hand or larger than a door. */
const boardSide = z.number().min(0.05).max(3);
const onBoard = z.number().min(-3).max(3);
const board = z.strictObject({
  id,
  name,
  given,
  corner: position,
  facing: z.enum(["forward", "aft", "port", "starboard"]),
  widthM: boardSide,
  heightM: boardSide,
  opening: z.strictObject({
    xM: onBoard,
    zM: onBoard,
    widthM: boardSide,
    heightM: boardSide,
    lidM: z.number().min(0.02).max(3),
  }),
  beyondM: z.number().min(0).max(2),
  obstacles: z
    .array(
      z
        .strictObject({
          id,
          name,
          xM: onBoard,
          zM: onBoard,
          widthM: z.number().positive().max(3),
          heightM: z.number().positive().max(3),
          fromM: z.number().min(0).max(3),
          toM: z.number().min(0).max(3),
        })
        .refine(({ fromM, toM }) => toM > fromM, { path: ["toM"], message: "endsBeforeItBegins" }),
    )
    .max(40),
});
const passage = z.strictObject({
  id,
  name,
  through: z.enum(["floor", "bulkhead", "stringer", "board", "body"]),
  made: z.enum(["wood", "cored", "metal", "plastic"]),
  wallM: z.number().positive().max(0.5),
  runs: z.array(id).max(40),
  alsoM: diameter.exactOptional(),
  grommetM: z.number().positive().max(0.05).exactOptional(),
  sleeveM: z.number().positive().max(0.6).exactOptional(),
  fromEdgeM: z.tuple([z.number().min(0).max(20), z.number().min(0).max(20)]).exactOptional(),
  behind: z.enum(["free", "chassis", "stringer", "tank", "wires"]).exactOptional(),
});
const tankLine = z.strictObject({
  id,
  tank: id,
  use: z.enum(["fill", "vent", "drain"]),
  boreM: bore,
  product,
  points: z.array(position).min(2).max(60),
  radiusM: atLeastZero,
  supportEveryM: size.exactOptional(),
  neighbours,
  mark,
  colour,
  make,
  isDoubleClamped: z.boolean().exactOptional(),
  survey,
  given,
});
const mounted = z.strictObject({
  boardId: id,
  turn: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]),
  pinned: z.boolean().exactOptional(),
  handle: z.strictObject({ position: id, standsOutM: z.number().positive().max(2) }).exactOptional(),
});
/** A port as `part.port`. */
const jointKey = z.string().regex(/^[\w-]{1,14}\.[\w-]{1,14}$/);
const looked = z.boolean().exactOptional();
const jointLook = z.strictObject({
  newWashers: looked,
  antiSeize: looked,
  clampPlaced: looked,
  outOfReach: looked,
  clocked: looked,
});
const chosenChain = z.strictObject({
  parts: z.array(adapterShape).min(1).max(12),
  leakPoints: z.int().min(1).max(40),
  boreM: bore.exactOptional(),
});
const delivery = z.strictObject({
  from: nameOrNone.exactOptional(),
  due: z.iso.date().exactOptional(),
  wrong: note.exactOptional(),
});
export const plan = z.strictObject({
  id,
  name,
  basedOn: id.exactOptional(),
  parts: z.array(planPart).max(1000),
  runs: z.array(run).max(2000),
  joints: z.array(z.strictObject({ id, from: portRef, to: portRef })).max(1000),
  lineUps: z.array(lineUp).max(200),
  conditions,
  duty: z.array(dutyStep).max(200).exactOptional(),
  limits: z.strictObject({
    suctionCleanPa: positive,
    suctionChangePa: positive,
    suctionNeverPa: positive,
    freeAirFraction: z.number().positive().max(1),
  }),
  serviceAllowanceM: atLeastZero,
  ends: z.record(id, z.record(id, endSchema)).exactOptional(),
  awaited: z.array(id).max(1000).exactOptional(),
  deliveries: z.record(id, delivery).exactOptional(),
  jointLooks: z.record(jointKey, jointLook).exactOptional(),
  chains: z.record(jointKey, chosenChain).exactOptional(),
  passages: z.array(passage).max(200).exactOptional(),
  tanksDown: z.array(id).max(60).exactOptional(),
  covers: z.array(cover).max(60).exactOptional(),
  tankLines: z.array(tankLine).max(60).exactOptional(),
  boards: z.array(board).max(20).exactOptional(),
  mounted: z.record(id, mounted).exactOptional(),
  places: z
    .record(
      id,
      z.strictObject({
        x: z.int().min(SHEET.left).max(SHEET.right),
        y: z.int().min(SHEET.top).max(SHEET.bottom),
        byHand: z.literal(true).exactOptional(),
      }),
    )
    .exactOptional(),
  sides: z
    .record(id, z.strictObject({ west: z.array(id).max(60), east: z.array(id).max(60) }))
    .exactOptional(),
});

const unit = <D extends keyof typeof dimensions>(dimension: D) =>
  z.enum(Object.keys(dimensions[dimension].units) as [UnitOf<D>, ...UnitOf<D>[]]);

const school = <M extends SchoolMatter>(matter: M) =>
  z.enum(schoolChoices[matter] as unknown as [SchoolChoice<M>, ...SchoolChoice<M>[]]).exactOptional();
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

const handOverName = nameOrNone.exactOptional();

export const jobSchema = z.strictObject({
  id,
  name,
  kind: z.enum(["boat", "truck", "heater", "other"]),
  note,
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
      .exactOptional(),
    accelerationG: z.number().min(0).max(20).exactOptional(),
    supply: z
      .strictObject({ volts: z.number().positive().max(100), regulatorPeakW: positive.exactOptional() })
      .exactOptional(),
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
    cloudPointC: z.number().min(-80).max(40).exactOptional(),
    reidPa: z.number().min(1e4).max(2e5).exactOptional(),
    biodieselShare: share.exactOptional(),
  }),
  tanks: z.array(tank).max(40),
  consumers: z.array(engine).max(10),
  plans: z.array(plan).min(1).max(20),
  currentPlanId: id,
  handOver: z
    .strictObject({
      vessel: handOverName,
      engine: handOverName,
      owner: handOverName,
      fitter: handOverName,
      signedBy: handOverName,
      on: z.iso.date().exactOptional(),
    })
    .exactOptional(),
  service: z
    .record(
      z.string().regex(/^[\w:-]{1,40}$/),
      z.strictObject({
        months: z.number().min(0).max(240).exactOptional(),
        hours: z.number().min(0).max(1e5).exactOptional(),
        basis: z.enum(["common", "maker", "own"]),
        name: name.exactOptional(),
      }),
    )
    .exactOptional(),
  panM3: z.number().positive().max(0.2).exactOptional(),
  outline: z
    .strictObject({
      form: z.enum(["hull", "truck", "van", "none"]).exactOptional(),
      lengthM: vehicleSize.exactOptional(),
      widthM: vehicleSize.exactOptional(),
      heightM: vehicleSize.exactOptional(),
      frontXM: coordinate.exactOptional(),
      groundZM: coordinate.exactOptional(),
      draughtM: vehicleSize.exactOptional(),
      wheelbaseM: vehicleSize.exactOptional(),
    })
    .exactOptional(),
  prices: z
    .record(z.string().regex(new RegExp(`^[A-Za-z]+:[^${UNPRINTABLE}]{0,120}$`)), z.number().min(0).max(1e7))
    .exactOptional(),
}) satisfies z.ZodType<Job>;

/** Compile-time check that nothing is in the core's type that the schema does not know, and the other way round. */
export type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
true satisfies Same<z.infer<typeof jobSchema>, Job>;
