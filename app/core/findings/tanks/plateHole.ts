/**
 * Practice 19 and 55: holes of a plate or a sump larger than their flange, too near an edge, a baffle or each other; no
 * room to lift a part out. Common practice.
 */
import type { HoleUse, Tank } from "../../plan/types";
import { type HoleFault, holeFaults } from "../../tanks/opening";
import { onTank } from "../onTank";
import { type Found, rule } from "../rule";

const useOf = (tank: Tank, holeId: string): HoleUse =>
  tank.opening?.holes.find(({ id }) => id === holeId)?.use ?? "spare";

function byM(fault: HoleFault): number | null {
  switch (fault.code) {
    case "largerThanFlange":
      return fault.overM;
    case "noSaw":
      return null;
    case "nearHole":
      return fault.leftM;
    case "nearEdge":
    case "nearBaffle":
    case "swingFouls":
    case "noRoomAbove":
      return fault.shortM;
  }
}

type HoleFound = Found<{
  tank: string;
  code: Exclude<HoleFault["code"], "noRoomAbove">;
  use: HoleUse | "sump";
  byM: number | null;
}>;

/** What is wrong with a tank's holes as they are drawn. */
const ofPlate = (tank: Tank): HoleFound[] =>
  holeFaults(tank).flatMap((fault) => {
    const { code, holeId } = fault;
    if (code === "noRoomAbove") return [];
    const use = useOf(tank, holeId);
    const figure = byM(fault);
    return [onTank({ grade: "mend", tank, also: holeId, values: { code, use, byM: figure }, figure })];
  });

/** A sump's hole that its flange does not cover; the flange is the maker's. */
function ofSump(tank: Tank): HoleFound[] {
  const { sump } = tank;
  if (sump?.mostHoleM === undefined || !(sump.holeM > sump.mostHoleM)) return [];
  const overM = sump.holeM - sump.mostHoleM;
  return [
    onTank({
      grade: "mend",
      tank,
      also: "sump",
      values: { code: "largerThanFlange", use: "sump", byM: overM },
      figure: overM,
      basis: "maker",
    }),
  ];
}

export const plateHole = rule({
  id: "plateHole",
  practice: [19],
  place: "survey",
  judge: ({ job }) => [...job.tanks.flatMap(ofPlate), ...job.tanks.flatMap(ofSump)],
});

export const noRoomAbove = rule({
  id: "noRoomAbove",
  practice: [55],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) =>
      holeFaults(tank).flatMap((fault) => {
        if (fault.code !== "noRoomAbove") return [];
        const { code, holeId, shortM } = fault;
        return [
          onTank({
            grade: "watch",
            tank,
            also: holeId,
            values: { code, use: useOf(tank, holeId), byM: shortM },
            figure: shortM,
          }),
        ];
      }),
    ),
});
