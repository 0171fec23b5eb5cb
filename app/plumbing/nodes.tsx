/** Tanks and parts on the drawing, with their names and figures. */
import { memo } from "react";
import { gaugeAtPort, type Passing } from "~/core/hydraulics/derive";
import type { ConsumerOutcome, SolvedLineUp } from "~/core/hydraulics/solve";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import { isPowered } from "~/core/kinds/families";
import type { Engine, Part } from "~/core/kinds/index";
import type { Tank } from "~/core/plan/types";
import { isOpen, waysThrough } from "~/core/plan/valves";
import { levelOfVolumeM } from "~/core/tanks/tank";
import { formatQuantity, type UnitChoice } from "~/core/units/format";
import {
  CheckGlyph,
  EngineGlyph,
  FilterGlyph,
  GaugeGlyph,
  HeaterGlyph,
  InlineGlyph,
  isValveOpen,
  JetGlyph,
  Lever,
  PotGlyph,
  PumpGlyph,
  TankGlyph,
} from "./glyphs";
import { BANK_HEAD_PX } from "./graph";
import { firstLinePx, LINE_PX, wrapped } from "./labels";
import type { Placed } from "./layout.client";
import { settingText } from "./settingText";

const halo = {
  paintOrder: "stroke",
  stroke: "var(--ground)",
  strokeWidth: 3,
  strokeLinejoin: "round",
  fontStretch: "78%",
} as const;

/** On a drawing so small that names outgrow their parts, figures under them are left to the inspector. */
const MOST_TEXT_WITH_FIGURES = 1.5;

type NodeBox = { x: number; y: number; width: number; height: number };

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
        {formatQuantity("volume", aboardM3, units.volume)}
      </text>
    </g>
  );
});

export const PartNode = memo(function PartNode({
  part,
  placed,
  box,
  verdict,
  passing,
  units,
  text,
}: {
  part: Part;
  placed: Placed;
  box: NodeBox;
  verdict: LineUpVerdict | null;
  /** What passes it, if anything does. */
  passing: Passing | undefined;
  units: UnitChoice;
  text: number;
}) {
  const cx = box.width / 2;
  const setting = verdict?.lineUp.valves[part.id];
  const portSide = (id: string) => placed.ports.get(`${part.id}.${id}`)?.side ?? "WEST";
  const result = verdict?.result.outcome === "solved" ? verdict.result : null;
  const under = (figure = "") => {
    const name = wrapped(part.name, text);
    const figures = figure && text <= MOST_TEXT_WITH_FIGURES ? wrapped(figure, text) : [];
    const y = firstLinePx(part.kind, text);
    return (
      <g textAnchor="middle">
        {[...name, ...figures].map((line, i) => (
          <text
            key={i}
            x={cx}
            y={y + i * LINE_PX * text}
            fontSize={12 * text}
            fontWeight={i < name.length ? 600 : undefined}
            fill={i < name.length ? "var(--ink)" : "var(--soft)"}
            style={halo}
          >
            {line}
          </text>
        ))}
      </g>
    );
  };
  const lead = (y: number, half: number) => (
    <path
      d={`M0 ${y}H${cx - half}M${cx + half} ${y}H${box.width}`}
      stroke={
        passing
          ? passing.isReturn
            ? "var(--back)"
            : passing.beforePa < 0
              ? "var(--vacuum)"
              : "var(--pressure)"
          : "var(--idle)"
      }
      strokeWidth={passing ? 4 : 1.6}
      fill="none"
    />
  );
  const isOn = isPowered(part) && verdict?.lineUp.pumps[part.id] === "on";
  /** Parts with more than two ports: a lead from each to the middle. */
  const portLeads = () => (
    <path
      d={[...placed.ports]
        .filter(([key]) => key.startsWith(`${part.id}.`))
        .map(([, port]) => {
          const y = port.y - box.y;
          return port.side === "WEST" ? `M0 ${y}H${cx - 20}` : `M${cx + 20} ${y}H${box.width}`;
        })
        .join("")}
      stroke={passing ? "var(--ink)" : "var(--idle)"}
      strokeWidth={passing ? 2.4 : 1.6}
      fill="none"
    />
  );
  switch (part.kind) {
    case "twoWay":
      return (
        <g>
          {lead(14, 9)}
          <Lever cx={cx} cy={14} isOpen={isValveOpen(part, setting)} />
          {under()}
        </g>
      );
    case "tee":
      return <circle cx={5} cy={5} r={4.5} fill={passing ? "var(--ink)" : "var(--idle)"} />;
    case "bank":
      return <BankNode part={part} placed={placed} box={box} text={text} verdict={verdict} />;
    case "selector":
      return (
        <g>
          <circle cx={cx} cy={29} r={24} fill="var(--raised)" stroke="var(--ink)" strokeWidth={1.8} />
          {waysThrough(part)
            .filter(({ ports }) => isOpen(part, ports, setting))
            .map(({ id, ports }) => {
              const [a, b] = ports.map((port) => placed.ports.get(`${part.id}.${port}`));
              return a && b ? (
                <path
                  key={id}
                  d={`M${a.x - box.x} ${a.y - box.y}Q${cx} 29 ${b.x - box.x} ${b.y - box.y}`}
                  stroke="var(--ink)"
                  strokeWidth={5}
                  fill="none"
                />
              ) : null;
            })}
          <circle cx={cx} cy={29} r={5} fill="var(--ink)" />
          {under(settingText(part, setting))}
        </g>
      );
    case "filter":
    case "pumpFilterUnit": {
      const loading = part.element ? (result?.settings.conditions.loading[part.element.id] ?? 1) : 1;
      const isUnit = part.kind === "pumpFilterUnit";
      return (
        <g>
          {!isUnit && lead(16, 28)}
          <FilterGlyph
            cx={cx}
            loading={loading}
            hasElement={part.element !== null}
            isSecondary={part.kind === "filter" && part.medium === "secondary"}
          />
          {isUnit && <PumpGlyph cx={cx} isOn={isOn} toLeft={portSide("out") === "WEST"} isSmall />}
          {isUnit && portLeads()}
          {under(`${part.micron}\u00a0µm, ${passing ? "in\u00a0use" : "stand-by"}`)}
        </g>
      );
    }
    case "liftPump":
    case "transferPump":
    case "primingPump":
    case "inTankPump":
    case "dosingPump": {
      // A dosing pump that holds fuel back gives less than none.
      const risePa = passing ? passing.afterPa - passing.beforePa : 0;
      const sub = passing
        ? `${risePa > 0 ? "+" : ""}${formatQuantity("pressure", risePa, units.pressure)}`
        : undefined;
      return (
        <g>
          {lead(22, 30)}
          <PumpGlyph cx={cx} isOn={isOn} toLeft={portSide("out") === "WEST"} kind={part.kind} />
          {under(sub)}
        </g>
      );
    }
    case "antiSiphon":
    case "bulb":
    case "relief":
    case "regulator":
    case "cooler":
    case "flowMeter":
    case "fuelHeater":
    case "bleedScrew":
    case "samplingTap":
    case "waterSensor":
    case "bulkhead":
      return (
        <g>
          {lead(16, 0)}
          <InlineGlyph kind={part.kind} cx={cx} toLeft={portSide("out") === "WEST"} />
          {under()}
        </g>
      );
    case "jetPump":
      return (
        <g>
          {portLeads()}
          <JetGlyph cx={cx} toLeft={portSide("out") === "WEST"} />
          {under()}
        </g>
      );
    case "swirlPot":
      return (
        <g>
          {portLeads()}
          <PotGlyph cx={cx} />
          {under()}
        </g>
      );
    case "check":
      return (
        <g>
          {lead(16, 18)}
          <CheckGlyph cx={cx} toLeft={portSide("out") === "WEST"} />
          {under()}
        </g>
      );
    case "gauge": {
      const gauge = result ? gaugeAtPort(result, `${part.id}.a`) : Number.NaN;
      const known = Number.isFinite(gauge);
      return (
        <g>
          <path
            d={`M0 74H${box.width}`}
            stroke={passing ? (passing.beforePa < 0 ? "var(--vacuum)" : "var(--pressure)") : "var(--idle)"}
            strokeWidth={passing ? 4 : 1.6}
          />
          <GaugeGlyph cx={cx} gaugePa={known ? gauge : null} measures={part.measures} />
          <text x={cx} y={14} fontSize={13 * text} fontWeight={600} textAnchor="middle" fill="var(--ink)">
            {known ? formatQuantity("pressure", gauge, units.pressure) : "–"}
          </text>
        </g>
      );
    }
    case "engine":
    case "generator":
    case "heater":
      return <ConsumerNode part={part} box={box} result={result} units={units} text={text} />;
  }
});

const consumerLine = (outcome: ConsumerOutcome | undefined, units: UnitChoice): string => {
  switch (outcome?.outcome) {
    case undefined:
    case "stopped":
      return "stopped";
    case "fed":
      return `feed ${formatQuantity("flow", outcome.feedM3S, units.flow)}`;
    case "starved":
      return "starved";
    case "noPath":
      return "no way";
  }
};

function ConsumerNode({
  part,
  box,
  result,
  units,
  text,
}: {
  part: Engine;
  box: NodeBox;
  result: SolvedLineUp | null;
  units: UnitChoice;
  text: number;
}) {
  const cx = box.width / 2;
  const outcome = result?.consumers.get(part.id);
  const Glyph = part.kind === "heater" ? HeaterGlyph : EngineGlyph;
  const isLong = part.name.length * 7.2 * text > box.width;
  return (
    <g>
      <Glyph width={box.width} height={box.height} />
      <g textAnchor="middle">
        <text
          x={cx}
          y={62}
          fontSize={(isLong ? 12 : 14) * text}
          fontWeight={650}
          fill="var(--ink)"
          style={halo}
        >
          {part.name}
        </text>
        <text x={cx} y={62 + 18 * text} fontSize={12 * text} fill="var(--soft)">
          {consumerLine(outcome, units)}
        </text>
        {outcome?.outcome === "fed" && part.kind !== "heater" && (
          <text x={cx} y={62 + 33 * text} fontSize={12 * text} fill="var(--soft)">
            burn {formatQuantity("flow", outcome.burnM3S, units.flow)}
          </text>
        )}
      </g>
    </g>
  );
}

function BankNode({
  part,
  placed,
  box,
  text,
  verdict,
}: {
  part: Extract<Part, { kind: "bank" }>;
  placed: Placed;
  box: NodeBox;
  text: number;
  verdict: LineUpVerdict | null;
}) {
  const setting = verdict?.lineUp.valves[part.id];
  const railX = box.width / 2;
  return (
    <g>
      <rect
        x={railX - 11}
        y={BANK_HEAD_PX}
        width={22}
        height={box.height - BANK_HEAD_PX}
        fill="var(--raised)"
        stroke="var(--ink)"
        strokeWidth={1.8}
      />
      {wrapped(part.name).map((line, i, lines) => (
        <text
          key={i}
          x={railX}
          y={BANK_HEAD_PX - 6 - (lines.length - 1 - i) * LINE_PX * text}
          fontSize={12 * text}
          fontWeight={600}
          textAnchor="middle"
          fill="var(--ink)"
          style={halo}
        >
          {line}
        </text>
      ))}
      {part.branches.map(({ id }) => {
        const port = placed.ports.get(`${part.id}.${id}`);
        if (!port) return null;
        const y = port.y - box.y;
        const west = port.side === "WEST";
        const open = isOpen(part, ["c", id], setting);
        return (
          <g key={id}>
            <path
              d={west ? `M0 ${y}H${railX - 11}` : `M${railX + 11} ${y}H${box.width}`}
              stroke={open ? "var(--ink)" : "var(--idle)"}
              strokeWidth={open ? 3 : 1.6}
            />
            <Lever cx={west ? 8 : box.width - 8} cy={y} isOpen={open} r={7} />
          </g>
        );
      })}
      {(() => {
        const port = placed.ports.get(`${part.id}.c`);
        if (!port) return null;
        const y = port.y - box.y;
        return (
          <path
            d={port.side === "WEST" ? `M0 ${y}H${railX - 11}` : `M${railX + 11} ${y}H${box.width}`}
            stroke="var(--ink)"
            strokeWidth={2.4}
          />
        );
      })()}
    </g>
  );
}
