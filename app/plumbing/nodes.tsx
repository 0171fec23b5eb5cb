import { memo } from "react";
import type { Placed } from "~/core/drawing/placed";
import type { Tank } from "~/core/plan/types";
import { heightsOf, levelOfVolumeM } from "~/core/tanks/tank";
import { type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { TankGlyph } from "./glyphs";
import { type Drawn, halo } from "./kinds/drawing";
import { drawingOf } from "./kinds/index";

type NodeBox = Drawn["box"];

const tankHalo = { ...halo, stroke: "var(--atRest)" } as const;

/** Of its name and the figure under it, from the foot of the first line: what they take up and down. */
const NAME = { up: 13, down: 20 } as const;

/** Where a tank's name stands, from its top: in its middle, or clear of the level line. */
function nameClear(tank: Tank, levelM: number, heightPx: number, text: number): number {
  const { lowM, highM } = heightsOf(tank);
  const middle = heightPx * 0.45;
  const surface = ((highM - levelM) / (highM - lowM)) * heightPx;
  const [up, down] = [NAME.up * text, NAME.down * text];
  if (surface < middle - up || surface > middle + down) return middle;
  return surface + up + down < heightPx - 4 ? surface + up + 2 : surface - down;
}

export const TankNode = memo(function TankNode({
  tank,
  box,
  placed,
  units,
  text,
  aboardM3,
}: {
  tank: Tank;
  box: NodeBox;
  placed: Placed;
  units: UnitChoice;
  text: number;
  aboardM3: number;
}) {
  const levelM = levelOfVolumeM(tank, aboardM3);
  const nameY = nameClear(tank, levelM, box.height, text);
  return (
    <g>
      {tank.ports.map(({ id }) => {
        const port = placed.ports.get(`${tank.id}.${id}`);
        return port ? (
          <path
            key={id}
            d={`M${box.width / 2} ${port.y - box.y}H${box.width}`}
            stroke="var(--idle)"
            strokeWidth={1.6}
          />
        ) : null;
      })}
      <TankGlyph tank={tank} levelM={levelM} width={box.width} height={box.height} />
      <text
        x={box.width / 2}
        y={nameY}
        fontSize={13 * text}
        fontWeight={650}
        fill="var(--ink)"
        textAnchor="middle"
        style={tankHalo}
      >
        {tank.name}
      </text>
      <text
        x={box.width / 2}
        y={nameY + 15 * text}
        fontSize={12 * text}
        fill="var(--ink)"
        textAnchor="middle"
        style={tankHalo}
      >
        {tradeIn(units).volume(aboardM3)}
      </text>
    </g>
  );
});

/** A part as its kind draws it. */
export const PartNode = memo(function PartNode(of: Drawn) {
  return drawingOf(of.part)(of);
});
