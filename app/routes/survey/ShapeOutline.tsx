import { inOrder } from "~/core/edit/inOrder";
import type { SectionPoint, Tank, TankShape } from "~/core/plan/types";
import { tradeIn } from "~/core/units/trade";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { Fields, LengthField, Panel, Small, useEditTank, useUnits } from "./tankContext";

/** Corners by number: across and up, or down from the top as a stick through the opening measures. */
export function ShapeOutline({
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
              name: `${i + 1}, at ${tradeIn(units).length(xM)}`,
            }))}
            onChange={(i) => onSection(Number(i))}
          />
          <LengthField
            label="Its place along"
            value={shape.sections[sectionIndex]?.xM}
            onCommit={(typedM, entered) => {
              const places = inOrder(
                shape.sections.map(({ xM }) => xM),
                sectionIndex,
                typedM,
              );
              const sections = shape.sections.map((one, i) => ({ ...one, xM: places[i] ?? one.xM }));
              set({ ...shape, sections }, entered);
            }}
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
