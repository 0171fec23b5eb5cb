/** The schools of practice, and which of them a job follows. */
export type AntiSiphonSchool = "abycH33" | "iso10088";

/** Where practice is divided; the first of each is the default. */
export const schoolChoices = {
  returnMouth: ["away", "jetOrSwirl"],
  liftPump: ["frame", "inTank"],
  priming: ["keyCycles", "relayJumper", "tankLifted", "loosenedOutlet"],
  waterSensor: ["firstBowl", "factoryFilter"],
  filterFill: ["finalDry", "primaryByHand", "bothByHand"],
  finest: ["afterPump", "beforePump", "allAfterPump"],
  factoryFilter: ["kept", "removed", "adapter"],
  takeOff: ["byKind", "drawStraw", "inTankModule", "bottomWithShutOff"],
  heaterFuel: ["ownTank", "vehicleAboveReserve", "vehicleAll"],
  primer: ["bulb", "electricBypass", "liftLever"],
  joints: ["flareAndBarb", "pushOnBarb", "pushToConnect"],
  torque: ["makers", "lowerBySixth"],
  dirtyTank: ["stripWipePolish", "polishOnly", "discard"],
  support: ["close", "wide"],
} as const;
export type SchoolMatter = keyof typeof schoolChoices;
export type SchoolChoice<M extends SchoolMatter> = (typeof schoolChoices)[M][number];

export type Schools = { shutOff: AntiSiphonSchool } & { [M in SchoolMatter]?: SchoolChoice<M> };

export const schoolOf = <M extends SchoolMatter>(schools: Schools, matter: M): SchoolChoice<M> =>
  (schools[matter] as SchoolChoice<M> | undefined) ?? (schoolChoices[matter][0] as SchoolChoice<M>);
