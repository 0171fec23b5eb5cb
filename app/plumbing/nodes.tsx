import { memo } from "react";
import type { Placed } from "~/core/drawing/placed";
import type { Tank } from "~/core/plan/types";
import { levelOfVolumeM } from "~/core/tanks/tank";
import { type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { TankGlyph } from "./glyphs";
import { type Drawn, halo } from "./kinds/drawing";
import { drawingOf } from "./kinds/index";

type NodeBox = Drawn["box"];

const tankHalo = { ...halo, stroke: "var(--atRest)" } as const;

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
      <TankGlyph tank={tank} levelM={levelOfVolumeM(tank, aboardM3)} width={box.width} height={box.height} />
      <text
        x={box.width / 2}
        y={box.height * 0.45}
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
        y={box.height * 0.45 + 15 * text}
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
