/*
 * Decides: what is done with the fuel in each tank: nothing, strip and polish, wait, treat, or clean by hand.
 * Seen in three seconds: each tank's jar as it last stood, and the verdict.
 */

import { useState } from "react";
import styled from "styled-components";
import { entriesOf, type JarLook, type Sample } from "~/core/book/entries";
import { judgeJar, settleHours } from "~/core/care/jar";
import { fuelAt } from "~/core/fuel/fuel";
import type { Tank } from "~/core/plan/types";
import { heightsOf } from "~/core/tanks/tank";
import { formatNumber } from "~/core/units/format";
import { panUnit } from "~/core/units/trade";
import { notNegative } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { Strike } from "~/fields/Strike";
import { jarVerdicts } from "~/messages/care";
import { dayText } from "~/messages/when";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { Caution, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { Fields, Small, useUnits } from "./tankContext";

const Jars = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 12px; padding: 0 16px 12px;
`;
const Card = styled.section`
  background: var(--raised); border: 1px solid var(--hairline); padding: 10px 12px; display: grid; grid-template-columns: 76px 1fr; gap: 4px 12px; align-content: start;
  h3 { grid-column: 1 / -1; }
  p { font-size: 13px; margin: 0 0 6px; }
`;

const FIRST_LOOK: JarLook = { afterH: 0.25, water: "none", haze: "clear", growth: "none", colour: "bright" };
const SIZES_UM = [50, 10, 3];

export function Samples() {
  const { job, book, plan } = useJob();
  const { length, volume, temperature } = useUnits();
  const state = fuelAt(job.fuel, plan.conditions.fuelC);
  return (
    <>
      <Caution>
        Draw from the lowest point into a clear jar, gloves and eye protection on, no flame; a pan under it.
        Waste fuel goes its legal way.
      </Caution>
      <Jars>
        {job.tanks.map((tank) => {
          const samples = entriesOf(book, "sample").filter((one) => one.tankId === tank.id);
          const last = samples.at(-1);
          const verdict = last && judgeJar(last);
          return (
            <Card key={tank.id} aria-label={`Sample of ${tank.name}`}>
              <h3>
                {tank.name}: {verdict ? jarVerdicts[verdict].name : "no sample yet"}
              </h3>
              <Jar look={last?.looks.at(-1) ?? null} />
              <div>
                {last && verdict && (
                  <>
                    <p>{jarVerdicts[verdict].next}</p>
                    <p style={{ color: "var(--soft)" }}>
                      {dayText(last.at)}, {volume(last.drainedM3)} drained, looked at{" "}
                      {last.looks.length === 1 ? "once" : `${last.looks.length} times`}{" "}
                      <Strike entryId={last.id} what={`sample of ${dayText(last.at)}`} />
                    </p>
                  </>
                )}
                <SampleForm tank={tank} last={last} />
              </div>
            </Card>
          );
        })}
      </Jars>
      {job.tanks.length === 0 && <p style={{ padding: "0 16px" }}>No tank to sample yet.</p>}
      {state && job.tanks.length > 0 && (
        <Sheet>
          <h3>Hours for water to settle through the tank, at {temperature(plan.conditions.fuelC)}</h3>
          <Table>
            <thead>
              <tr>
                <th>Tank</th>
                <th className="n">Depth</th>
                {SIZES_UM.map((um) => (
                  <th className="n" key={um}>
                    {um} µm drops
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {job.tanks.map((tank) => {
                const { lowM, highM } = heightsOf(tank);
                return (
                  <tr key={tank.id}>
                    <td>{tank.name}</td>
                    <td className="n">{length(highM - lowM)}</td>
                    {SIZES_UM.map((um) => {
                      const hours = settleHours(state, um * 1e-6, highM - lowM);
                      return (
                        <td className="n" key={um}>
                          {hours === null
                            ? "never"
                            : hours > 24 * 14
                              ? `${formatNumber(hours / 24, 2)} days`
                              : `${formatNumber(hours, 2)} h`}
                        </td>
                      );
                    })}
                  </tr>
                );
              })}
            </tbody>
          </Table>
          <Small>
            Stokes's law in still fuel. Drops of 3 µm do not settle in useful time: a coalescer, not patience.
          </Small>
        </Sheet>
      )}
    </>
  );
}

/** The jar as it was last seen: water at the bottom in waves, haze as stipple, growth between them. */
function Jar({ look }: { look: JarLook | null }) {
  const water = look?.water === "layer" ? 26 : look?.water === "drops" ? 8 : 0;
  const dots = look?.haze === "opaque" ? 60 : look?.haze === "hazy" ? 26 : 0;
  return (
    <svg
      viewBox="0 0 76 130"
      role="img"
      aria-label={
        look ? `Jar: water ${look.water}, ${look.haze}, growth ${look.growth}, ${look.colour}` : "No sample"
      }
    >
      {look && (
        <>
          <rect
            x={11}
            y={30}
            width={54}
            height={92}
            fill={look.colour === "dark" ? "var(--idle)" : "var(--atRest)"}
          />
          {Array.from({ length: dots }, (_, i) => (
            <circle
              key={i}
              cx={13 + ((i * 31) % 50)}
              cy={34 + ((i * 17) % (84 - water))}
              r={1.3}
              fill="var(--raised)"
              stroke="var(--ink)"
              strokeWidth={0.5}
            />
          ))}
          {water > 0 && (
            <>
              <rect x={11} y={122 - water} width={54} height={water} fill="var(--water)" />
              <path
                d={`M11 ${122 - water}q7 -5 13.5 0t13.5 0t13.5 0t13.5 0`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={1.2}
              />
            </>
          )}
          {look.growth !== "none" && (
            <path
              d={`M14 ${120 - water}l5 -5l6 4l5 -6l7 5l6 -5l6 5l6 -4l7 5`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={look.growth === "mat" ? 5 : 2}
            />
          )}
        </>
      )}
      <path
        d="M18 8H58V18Q66 22 66 30V122H10V30Q10 22 18 18Z"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.2}
      />
    </svg>
  );
}

function SampleForm({ tank, last }: { tank: Tank; last: Sample | undefined }) {
  const { enter: enterInBook } = useJob();
  const { units } = useUnits();
  const [open, setOpen] = useState<"no" | "new" | "again">("no");
  const [drained, setDrained] = useState(0.0005);
  const [look, setLook] = useState<JarLook>(FIRST_LOOK);
  const set = (change: Partial<JarLook>) => setLook({ ...look, ...change });
  const enter = async () => {
    const isSame = open === "again" && last;
    const result = await enterInBook({
      kind: "sample",
      tankId: tank.id,
      drainedM3: isSame ? last.drainedM3 : drained,
      looks: isSame ? [...last.looks, look] : [look],
    });
    if (result.ok) setOpen("no");
  };
  if (open === "no")
    return (
      <div style={{ display: "flex", gap: 6, flexWrap: "wrap" }}>
        <Button
          onPress={() => {
            setLook(FIRST_LOOK);
            setOpen("new");
          }}
        >
          New sample
        </Button>
        {last && (
          <Button
            onPress={() => {
              setLook({ ...(last.looks.at(-1) ?? FIRST_LOOK), afterH: 24 });
              setOpen("again");
            }}
          >
            Look again
          </Button>
        )}
      </div>
    );
  return (
    <Fields>
      {open === "new" && (
        <QuantityField
          label="Drained"
          dimension="volume"
          unit={panUnit(units)}
          value={drained}
          check={notNegative}
          onCommit={setDrained}
        />
      )}
      <QuantityField
        label="Stood for, hours"
        dimension="ratio"
        unit=""
        value={look.afterH}
        check={notNegative}
        onCommit={(afterH) => set({ afterH })}
      />
      <Select
        label="Water"
        value={look.water}
        options={[
          { id: "none", name: "none" },
          { id: "drops", name: "drops" },
          { id: "layer", name: "a layer" },
        ]}
        onChange={(water) => set({ water })}
      />
      <Select
        label="Haze"
        value={look.haze}
        options={[
          { id: "clear", name: "clear" },
          { id: "hazy", name: "hazy" },
          { id: "opaque", name: "opaque" },
        ]}
        onChange={(haze) => set({ haze })}
      />
      <Select
        label="Growth"
        value={look.growth}
        options={[
          { id: "none", name: "none" },
          { id: "specks", name: "specks" },
          { id: "mat", name: "a mat" },
        ]}
        onChange={(growth) => set({ growth })}
      />
      <Select
        label="Colour"
        value={look.colour}
        options={[
          { id: "bright", name: "bright" },
          { id: "dark", name: "dark" },
        ]}
        onChange={(colour) => set({ colour })}
      />
      <Button $main onPress={() => void enter()}>
        Enter in the log
      </Button>
      <Button onPress={() => setOpen("no")}>Cancel</Button>
    </Fields>
  );
}
