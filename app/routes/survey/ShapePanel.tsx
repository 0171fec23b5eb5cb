/*
 * Decides: which shape the tank has, and whether each size was measured.
 * Seen in three seconds: its capacity against its plate, and which size is still assumed.
 */

import { newId } from "~/core/kinds/ids";
import type { SectionPoint, Tank, TankShape } from "~/core/plan/types";
import { boundsOf, sectionOf } from "~/core/tanks/shape";
import { formatQuantity } from "~/core/units/format";
import { notNegative, positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch, TextField } from "~/ui/fields";
import {
  BoreField,
  Facts,
  Fields,
  LengthField,
  Lengths,
  Panel,
  Small,
  useEditTank,
  useTank,
  useUnits,
} from "./tankContext";

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
            label="Bottom over datum"
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
        <Outline
          tank={tank}
          shape={shape}
          sectionIndex={sectionIndex}
          onSection={onSection}
          corner={corner}
          onCorner={onCorner}
        />
      )}
      <Ports tank={tank} />
      <InsideOf tank={tank} />
    </>
  );
}

/** Corners by number: across and up, or down from the top as a stick through the opening measures. */
function Outline({
  tank,
  shape,
  sectionIndex,
  onSection,
  corner,
  onCorner,
}: {
  tank: Tank;
  shape: Extract<TankShape, { kind: "prism" | "loft" }>;
  sectionIndex: number;
  onSection: (i: number) => void;
  corner: number | null;
  onCorner: (i: number | null) => void;
}) {
  const edit = useEditTank(tank);
  const { units } = useUnits();
  const outline = shape.kind === "prism" ? shape.section : (shape.sections[sectionIndex]?.polygon ?? []);
  const top = Math.max(...outline.map(([, z]) => z));
  const set = (next: TankShape, entered?: string) =>
    void edit({ shape: next }, { field: "section", entered });
  const withPolygons = (change: (polygon: SectionPoint[], i: number) => SectionPoint[]): TankShape =>
    shape.kind === "prism"
      ? { ...shape, section: change(shape.section, 0) }
      : { ...shape, sections: shape.sections.map((one, i) => ({ ...one, polygon: change(one.polygon, i) })) };
  /** One section alone moves; corners come and go in all of them at once. */
  const move = (point: SectionPoint, at: number, entered: string) =>
    set(
      withPolygons((polygon, i) =>
        shape.kind === "prism" || i === sectionIndex
          ? polygon.map((one, k) => (k === at ? point : one))
          : polygon,
      ),
      entered,
    );
  const chosen = corner === null ? null : outline[corner];
  const insertAfter = (at: number) =>
    set(
      withPolygons((polygon) => {
        const [a, b] = [polygon[at], polygon[(at + 1) % polygon.length]] as [SectionPoint, SectionPoint];
        return [
          ...polygon.slice(0, at + 1),
          [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2],
          ...polygon.slice(at + 1),
        ];
      }),
    );
  return (
    <Panel aria-label="Outline">
      <h3>
        {shape.kind === "loft" ? `Section ${sectionIndex + 1} of ${shape.sections.length}` : "Section"}:{" "}
        {outline.length} corners
      </h3>
      <Small>Drag a corner on the drawing, move it with the arrow keys, or type it here.</Small>
      {shape.kind === "loft" && (
        <Fields>
          <Select
            label="Section drawn"
            value={String(sectionIndex)}
            options={shape.sections.map(({ xM }, i) => ({
              id: String(i),
              name: `${i + 1}, at ${formatQuantity("length", xM, units.length, 4)}`,
            }))}
            onChange={(i) => onSection(Number(i))}
          />
          <LengthField
            label="Its place along"
            value={shape.sections[sectionIndex]?.xM}
            onCommit={(xM, entered) =>
              set(
                {
                  ...shape,
                  sections: shape.sections.map((one, i) => (i === sectionIndex ? { ...one, xM } : one)),
                },
                entered,
              )
            }
          />
          <Button
            onPress={() => {
              const last = shape.sections.at(-1);
              const before = shape.sections.at(-2);
              if (!last || !before) return;
              set({
                ...shape,
                sections: [
                  ...shape.sections,
                  {
                    xM: 2 * last.xM - before.xM,
                    polygon: last.polygon.map(([a, b]): SectionPoint => [a, b]),
                  },
                ],
              });
              onSection(shape.sections.length);
            }}
          >
            Add a section
          </Button>
          {shape.sections.length > 2 && (
            <Button
              onPress={() => {
                set({ ...shape, sections: shape.sections.filter((_, i) => i !== sectionIndex) });
                onSection(0);
              }}
            >
              Drop this section
            </Button>
          )}
        </Fields>
      )}
      <Fields>
        <Select
          label="Corner"
          value={corner === null ? null : String(corner)}
          options={outline.map((_, i) => ({ id: String(i), name: `Corner ${i + 1}` }))}
          onChange={(i) => onCorner(Number(i))}
        />
        {chosen && corner !== null && (
          <>
            <LengthField
              label={`${corner + 1} across`}
              value={chosen[0]}
              onCommit={(y, entered) => move([y, chosen[1]], corner, entered)}
            />
            <LengthField
              label={`${corner + 1} up`}
              value={chosen[1]}
              onCommit={(z, entered) => move([chosen[0], z], corner, entered)}
            />
            <LengthField
              label={`${corner + 1} down from the top`}
              value={top - chosen[1]}
              onCommit={(down, entered) => move([chosen[0], top - down], corner, entered)}
            />
            <Button onPress={() => insertAfter(corner)}>Add one after it</Button>
            {outline.length > 3 && (
              <Button
                onPress={() => {
                  onCorner(null);
                  set(withPolygons((polygon) => polygon.filter((_, k) => k !== corner)));
                }}
              >
                Drop it
              </Button>
            )}
          </>
        )}
      </Fields>
    </Panel>
  );
}

function Ports({ tank }: { tank: Tank }) {
  const edit = useEditTank(tank);
  return (
    <Panel>
      <h3>Pickup and return</h3>
      {tank.ports.map((port) => {
        const set = (change: Partial<typeof port>, entered: string) =>
          void edit(
            { ports: tank.ports.map((one) => (one.id === port.id ? { ...one, ...change } : one)) },
            { field: port.id, entered },
          );
        const basis = tank.given?.[port.id]?.basis ?? "assumed";
        const mouth = (label: string, axis: "xM" | "yM" | "zM") => (
          <LengthField
            label={`${port.name}: ${label}`}
            value={port.mouth[axis]}
            basis={basis}
            onCommit={(si, entered) => set({ mouth: { ...port.mouth, [axis]: si } }, entered)}
          />
        );
        return (
          <Fields key={port.id}>
            {mouth("mouth along", "xM")}
            {mouth("mouth across", "yM")}
            {mouth("mouth over the bottom", "zM")}
            <LengthField
              label={`${port.name}: hose goes on at`}
              value={port.outside.zM}
              basis={basis}
              onCommit={(zM, entered) => set({ outside: { ...port.outside, zM } }, entered)}
            />
            <BoreField
              label={`${port.name}: bore`}
              value={port.boreM}
              basis={basis}
              onCommit={(boreM, entered) => set({ boreM }, entered)}
            />
          </Fields>
        );
      })}
    </Panel>
  );
}

/** Baffles, a well, a sump, and boxes that take room. */
function InsideOf({ tank }: { tank: Tank }) {
  const edit = useEditTank(tank);
  const { job } = useJob();
  const { x, y, z } = boundsOf(tank.shape);
  const middle = (range: [number, number]) => (range[0] + range[1]) / 2;
  const outlet = tank.ports.find(({ role }) => role === "outlet")?.mouth ?? {
    xM: middle(x),
    yM: middle(y),
    zM: z[0],
  };
  const { baffles = [], internals = [], well, sump } = tank;
  return (
    <Panel>
      <h3>Inside</h3>
      <h4>Baffles</h4>
      {baffles.map((baffle, i) => (
        <Fields key={baffle.id}>
          <Select
            label={`Baffle ${i + 1}`}
            value={baffle.across}
            options={[
              { id: "x", name: "stands across" },
              { id: "y", name: "runs fore and aft" },
            ]}
            onChange={(across) =>
              void edit({ baffles: baffles.map((one) => (one.id === baffle.id ? { ...one, across } : one)) })
            }
          />
          <LengthField
            label="at"
            value={baffle.atM}
            onCommit={(atM) =>
              void edit({ baffles: baffles.map((one) => (one.id === baffle.id ? { ...one, atM } : one)) })
            }
          />
          <Button onPress={() => void edit({ baffles: baffles.filter(({ id }) => id !== baffle.id) })}>
            Take out
          </Button>
        </Fields>
      ))}
      <Button
        onPress={() => void edit({ baffles: [...baffles, { id: newId(), across: "x", atM: middle(x) }] })}
      >
        Add a baffle
      </Button>
      <h4>What takes room</h4>
      {internals.map((box) => {
        const set = (change: Partial<typeof box>) =>
          void edit({ internals: internals.map((one) => (one.id === box.id ? { ...one, ...change } : one)) });
        const size = (label: string, axis: "xM" | "yM" | "zM") => (
          <LengthField
            label={label}
            value={box.high[axis] - box.low[axis]}
            check={positive}
            onCommit={(si) => set({ high: { ...box.high, [axis]: box.low[axis] + si } })}
          />
        );
        return (
          <Fields key={box.id}>
            <TextField label="What" value={box.name} onCommit={(name) => set({ name })} />
            {size("long", "xM")}
            {size("wide", "yM")}
            {size("high", "zM")}
            <Button onPress={() => void edit({ internals: internals.filter(({ id }) => id !== box.id) })}>
              Take out
            </Button>
          </Fields>
        );
      })}
      <Button
        onPress={() =>
          void edit({
            internals: [
              ...internals,
              {
                id: newId(),
                name: "Box",
                low: { xM: middle(x) - 0.04, yM: middle(y) - 0.04, zM: z[0] },
                high: { xM: middle(x) + 0.04, yM: middle(y) + 0.04, zM: z[0] + 0.08 },
              },
            ],
          })
        }
      >
        Add what takes room
      </Button>
      <h4>Sump and well</h4>
      <Switch
        isOn={sump !== undefined}
        onChange={(on) =>
          void edit({
            sump: on ? { xM: outlet.xM, yM: outlet.yM, diameterM: 0.1, depthM: 0.08, holeM: 0.1 } : undefined,
          })
        }
      >
        A sump hangs under the floor
      </Switch>
      {sump && (
        <>
          <Fields>
            <Lengths
              of={sump}
              set={(change) => void edit({ sump: { ...sump, ...change } })}
              fields={[
                { key: "diameterM", label: "Sump: bore", check: positive },
                { key: "depthM", label: "Hangs below the floor", check: positive },
                { key: "holeM", label: "Hole to cut", check: positive },
                { key: "mostHoleM", label: "Flange covers at most", check: positive },
              ]}
            />
            {job.kind === "truck" && (
              <LengthField
                label="Floor over ground"
                value={sump.floorOverGroundM}
                check={notNegative}
                onCommit={(floorOverGroundM) => void edit({ sump: { ...sump, floorOverGroundM } })}
              />
            )}
          </Fields>
          <Small>
            Drilling a tank: emptied, ventilated, no spark; catch the swarf, count every piece out. Never a
            tank that held petrol without a licensed cleaner.
          </Small>
        </>
      )}
      <Switch
        isOn={well !== undefined}
        onChange={(on) =>
          void edit({
            well: on
              ? {
                  low: {
                    xM: Math.max(x[0], outlet.xM - 0.06),
                    yM: Math.max(y[0], outlet.yM - 0.06),
                    zM: z[0],
                  },
                  high: {
                    xM: Math.min(x[1], outlet.xM + 0.06),
                    yM: Math.min(y[1], outlet.yM + 0.06),
                    zM: z[0] + 0.12,
                  },
                  holeBoreM: 0.008,
                  holes: 2,
                }
              : undefined,
          })
        }
      >
        A well stands round the pickup
      </Switch>
      {well && (
        <Fields>
          <LengthField
            label="Well: high"
            value={well.high.zM - well.low.zM}
            check={positive}
            onCommit={(si) => void edit({ well: { ...well, high: { ...well.high, zM: well.low.zM + si } } })}
          />
          <BoreField
            label="Drain holes: bore"
            value={well.holeBoreM}
            onCommit={(holeBoreM) => void edit({ well: { ...well, holeBoreM } })}
          />
          <QuantityField
            label="Drain holes: count"
            dimension="ratio"
            unit=""
            value={well.holes}
            onCommit={(holes) => void edit({ well: { ...well, holes: Math.round(holes) } })}
          />
        </Fields>
      )}
    </Panel>
  );
}
