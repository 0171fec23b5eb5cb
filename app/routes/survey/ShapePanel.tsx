/*
 * Decides: which shape the tank has, and whether each size was measured.
 * Seen in three seconds: its capacity against its plate, and which size is still assumed.
 */

import type { SectionPoint, TankShape } from "~/core/plan/types";
import { boundsOf, sectionOf } from "~/core/tanks/shape";
import { notNegative, positive } from "~/fields/checks";
import { LookField } from "~/fields/LookField";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Select, TextField } from "~/ui/fields";
import { ShapeOutline } from "./ShapeOutline";
import { TankInside } from "./TankInside";
import { TankPortFields } from "./TankPortFields";
import { Facts, Fields, LengthField, Panel, Small, useEditTank, useTank, useUnits } from "./tankContext";

type ShapeChoice = "box" | "prism" | "lyingX" | "lyingY" | "standing" | "loft";

const choices: { id: ShapeChoice; name: string }[] = [
  { id: "box", name: "Box" },
  { id: "prism", name: "Drawn-out section" },
  { id: "lyingX", name: "Lying, fore and aft" },
  { id: "lyingY", name: "Lying, across" },
  { id: "standing", name: "Standing cylinder" },
  { id: "loft", name: "Through sections" },
];

const choiceOf = (shape: TankShape): ShapeChoice =>
  shape.kind !== "cylinder" ? shape.kind : ({ x: "lyingX", y: "lyingY", z: "standing" } as const)[shape.axis];

/** The new kind of shape keeps what it can of the old one's sizes. */
function shapeAs(choice: ShapeChoice, old: TankShape): TankShape {
  const { x, y, z } = boundsOf(old);
  const [lengthM, widthM, heightM] = [x[1] - x[0], y[1] - y[0], z[1] - z[0]];
  const section = sectionOf(old.kind === "cylinder" ? { kind: "box", lengthM, widthM, heightM } : old).map(
    ([a, b]): SectionPoint => [a, b],
  );
  switch (choice) {
    case "box":
      return { kind: "box", lengthM, widthM, heightM };
    case "prism":
      return { kind: "prism", section, lengthM };
    case "loft":
      return {
        kind: "loft",
        sections: [0, lengthM].map((xM) => ({ xM, polygon: section.map(([a, b]): SectionPoint => [a, b]) })),
      };
    case "lyingX":
      return { kind: "cylinder", axis: "x", diameterM: Math.min(widthM, heightM), lengthM };
    case "lyingY":
      return { kind: "cylinder", axis: "y", diameterM: Math.min(lengthM, heightM), lengthM: widthM };
    case "standing":
      return { kind: "cylinder", axis: "z", diameterM: Math.min(lengthM, widthM), lengthM: heightM };
  }
}

const materials = [
  { id: "aluminium", name: "Aluminium" },
  { id: "steel", name: "Steel" },
  { id: "stainless", name: "Stainless steel" },
  { id: "plastic", name: "Plastic" },
  { id: "rubber", name: "Rubber (bladder)" },
] as const;
const carriages = [
  { id: "fixed", name: "Fixed" },
  { id: "portable", name: "Portable" },
  { id: "bladder", name: "Bladder" },
] as const;

export function ShapePanel({
  sectionIndex,
  onSection,
  corner,
  onCorner,
}: {
  sectionIndex: number;
  onSection: (i: number) => void;
  corner: number | null;
  onCorner: (i: number | null) => void;
}) {
  const { job } = useJob();
  const { tank, tilted } = useTank();
  const { units, volume } = useUnits();
  const edit = useEditTank(tank);
  const { shape, given } = tank;
  const setShape = (next: TankShape, field: string, entered?: string) =>
    void edit({ shape: next }, { field, entered });
  const sized = (label: string, field: string, value: number, make: (si: number) => TankShape) => (
    <LengthField
      key={field}
      label={label}
      value={value}
      check={positive}
      basis={given?.[field]?.basis ?? "assumed"}
      entered={given?.[field]?.entered}
      onCommit={(si, entered) => setShape(make(si), field, entered)}
    />
  );
  return (
    <>
      <Panel>
        <Facts>
          <dt>Capacity as measured</dt>
          <dd>{volume(tilted.capacityM3)}</dd>
          {tank.plateM3 !== undefined && (
            <>
              <dt>On its plate</dt>
              <dd>{volume(tank.plateM3)}</dd>
            </>
          )}
        </Facts>
        <Fields>
          <TextField label="Name" value={tank.name} onCommit={(name) => void edit({ name })} />
          <Select
            label="Shape"
            value={choiceOf(shape)}
            options={choices}
            onChange={(choice) => void edit({ shape: shapeAs(choice, shape) })}
          />
          {shape.kind !== "loft" &&
            sized("Length", "lengthM", shape.lengthM, (lengthM) => ({ ...shape, lengthM }))}
          {shape.kind === "box" && sized("Width", "widthM", shape.widthM, (widthM) => ({ ...shape, widthM }))}
          {shape.kind === "box" &&
            sized("Height", "heightM", shape.heightM, (heightM) => ({ ...shape, heightM }))}
          {shape.kind === "cylinder" &&
            sized("Diameter", "diameterM", shape.diameterM, (diameterM) => ({ ...shape, diameterM }))}
          {shape.kind === "cylinder" && (
            <LengthField
              label="Ends dished by (0 flat)"
              value={shape.endDepthM ?? 0}
              check={notNegative}
              onCommit={(endDepthM, entered) => setShape({ ...shape, endDepthM }, "endDepthM", entered)}
            />
          )}
          <LengthField
            label="Wall, if sizes are outside"
            value={tank.wallM ?? 0}
            check={notNegative}
            onCommit={(wallM, entered) => void edit({ wallM }, { field: "wallM", entered })}
          />
          <QuantityField
            label="Capacity on its plate"
            dimension="volume"
            unit={units.volume}
            value={tank.plateM3}
            check={positive}
            onCommit={(plateM3, entered) => void edit({ plateM3 }, { field: "plateM3", entered })}
          />
          <LengthField
            label="Bottom above the zero level"
            value={tank.origin.zM}
            basis={given?.origin?.basis ?? "assumed"}
            onCommit={(zM, entered) =>
              void edit({ origin: { ...tank.origin, zM } }, { field: "origin", entered })
            }
          />
          <Select
            label="Made of"
            value={tank.material ?? null}
            options={materials}
            onChange={(material) => void edit({ material })}
          />
          <Select
            label="Carried"
            value={tank.carried ?? "fixed"}
            options={carriages}
            onChange={(carried) => void edit({ carried })}
          />
          {job.consumers.some(({ kind }) => kind === "heater") && (
            <LookField
              label="It is the heater's own tank"
              value={tank.heatersOwn}
              onChange={(heatersOwn) => void edit({ heatersOwn })}
            />
          )}
        </Fields>
        {tank.carried === "bladder" && (
          <Small>
            A bladder takes the shape of its bed: the sizes are those of the bed, filled. It has no air space
            and no dip.
          </Small>
        )}
        {tank.carried === "portable" && (
          <Small>
            Fill a portable tank on the ground, off the vehicle, with its nozzle touching: static sparks
            otherwise.
          </Small>
        )}
      </Panel>
      {(shape.kind === "prism" || shape.kind === "loft") && (
        <ShapeOutline
          tank={tank}
          shape={shape}
          sectionIndex={sectionIndex}
          onSection={onSection}
          corner={corner}
          onCorner={onCorner}
        />
      )}
      <TankPortFields tank={tank} />
      <TankInside tank={tank} />
    </>
  );
}
