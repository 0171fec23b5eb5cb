/*
 * Decides: whether the fuel is fit to run on, and what is done with it where it is not.
 * Seen in three seconds: what the last jar said, what came aboard, how far a polish has come against its course.
 */
import { useMemo, useState } from "react";
import styled from "styled-components";
import { entriesOf, type Particles } from "~/core/book/entries";
import { readCode, WANTED_CODE } from "~/core/care/iso4406";
import { judgeJar, WATER_KG_M3 } from "~/core/care/jar";
import { polishProgress } from "~/core/care/polishProgress";
import { DAMP, fillShares, seasonsOf } from "~/core/care/seasons";
import { COMMON_BIOCIDE, commonPolish, polishCourse, polishWay } from "~/core/care/treatments";
import { EN590_MOST } from "~/core/fuel/grades";
import { capacityM3 } from "~/core/tanks/tank";
import { formatNumber, percentText } from "~/core/units/format";
import { notNegative, positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { Strike } from "~/fields/Strike";
import { jarVerdicts, polishedText, seasonNames } from "~/messages/care";
import { nameOf } from "~/messages/notes";
import { dayText } from "~/messages/when";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, TextField } from "~/ui/fields";
import { ActionsHead, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import Treatments from "./Treatments";

const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 8px 14px; align-items: start; margin: 6px 0 10px;
  > button { margin-top: 22px; }
`;
const Frame = styled.div`
  overflow-x: auto;
`;
const day = (at: string) => dayText(new Date(at));

export function Fuel() {
  const { job, plan, book, solver, enter } = useJob();
  const say = useTrade();
  const [tankId, setTank] = useState(
    () => (job.tanks.find((one) => polishWay(solver, plan, one)) ?? job.tanks[0])?.id,
  );
  const tank = job.tanks.find(({ id }) => id === tankId) ?? job.tanks[0];
  const way = useMemo(() => (tank ? polishWay(solver, plan, tank) : null), [solver, plan, tank]);
  const samples = entriesOf(book, "sample").filter((one) => one.tankId === tank?.id);
  const particles = entriesOf(book, "particles").filter((one) => one.tankId === tank?.id);
  const aboardM3 = tank ? (plan.conditions.aboardM3[tank.id] ?? 0) : 0;
  const course = useMemo(
    () => (way ? polishCourse({ ...commonPolish, volumeM3: aboardM3, flowM3S: way.flowM3S }) : []),
    [way, aboardM3],
  );
  const progress = polishProgress(particles, course);
  const [code, setCode] = useState("");
  const [from, setFrom] = useState<Particles["from"]>("line");
  const [polishedH, setPolished] = useState(0);
  const numbers = readCode(code);
  if (!tank) return <Sheet>No tank yet.</Sheet>;
  const capacity = capacityM3(tank);
  return (
    <>
      <Sheet>
        <Fields>
          <Select
            label="Tank"
            value={tank.id}
            options={job.tanks.map(({ id, name }) => ({ id, name }))}
            onChange={setTank}
          />
        </Fields>
        <h3>Jars</h3>
        {samples.length === 0 ? (
          <p>Not sampled yet: draw a jar from the lowest point (Survey, Condition).</p>
        ) : (
          <ul>
            {[...samples].reverse().map((one) => (
              <li key={one.id}>
                {day(one.at)}: <b>{jarVerdicts[judgeJar(one)].name}</b>. {jarVerdicts[judgeJar(one)].next}
              </li>
            ))}
          </ul>
        )}
      </Sheet>
      <Sheet>
        <h3>Taken aboard</h3>
        <TakenAboard key={tank.id} tankId={tank.id} />
      </Sheet>
      <Sheet>
        <h3>Particles, and how far a polish has come</h3>
        <p style={{ margin: 0 }}>
          Wanted {WANTED_CODE} or better for common rail; water under {EN590_MOST.waterMgPerKg} mg and dirt
          under {EN590_MOST.dirtMgPerKg} mg in a kilogram (EN 590, from memory). The line looks clean before
          the tank does: sample the bottom too.
        </p>
        <Fields>
          <TextField label="Code by ISO 4406, such as 22/20/17" value={code} onCommit={setCode} />
          <Select
            label="Drawn from"
            value={from}
            options={[
              { id: "line", name: "the line" },
              { id: "bottom", name: "the bottom of the tank" },
            ]}
            onChange={setFrom}
          />
          <QuantityField
            label="Polished for so many hours"
            dimension="ratio"
            unit=""
            value={polishedH}
            check={notNegative}
            onCommit={setPolished}
          />
          <Button
            $main
            isDisabled={!numbers}
            onPress={() =>
              numbers && void enter({ kind: "particles", tankId: tank.id, from, code: numbers, polishedH })
            }
          >
            Enter in the log
          </Button>
        </Fields>
        {code !== "" && !numbers && (
          <p role="alert">
            Three whole numbers from 0 to 28, none greater than the one before it, such as 22/20/17.
          </p>
        )}
        {particles.length > 0 && (
          <Table>
            <thead>
              <tr>
                <th>When</th>
                <th>Code</th>
                <th>From</th>
                <th className="n">Left</th>
                <th>Against the course</th>
              </tr>
            </thead>
            <tbody>
              {particles.map((one, i) => (
                <tr key={one.id}>
                  <td>
                    {day(one.at)}, after {formatNumber(one.polishedH)} h
                  </td>
                  <td>{one.code.join("/")}</td>
                  <td>{one.from}</td>
                  <td className="n">{percentText(progress[i]?.share ?? 1)}</td>
                  <td>{progress[i] && polishedText(progress[i])}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
      </Sheet>
      <Treatments key={tank.id} />
      <Sheet>
        <h3>Water out of the air, in a month</h3>
        <Table>
          <thead>
            <tr>
              <th>Season</th>
              {fillShares.map((share) => (
                <th key={share} className="n">
                  {percentText(share)} full
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {seasonsOf(job.site, capacity).map(({ name, warmC, coldC, waterKg }) => (
              <tr key={name}>
                <td>
                  {seasonNames[name]}, {say.temperature(warmC)} by day and {say.temperature(coldC)} by night
                </td>
                {waterKg.map((kg, i) => (
                  <td key={fillShares[i]} className="n">
                    {say.pan(kg / WATER_KG_M3)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
        <p style={{ fontSize: 13, color: "var(--soft)" }}>
          {nameOf(job, tank.id)} breathing once a day, all of the damp kept: more than it can be. It is
          little: water in a tank comes in with the fuel or by the deck fill. Damp {percentText(DAMP)} and
          nights so much colder: assumed.
        </p>
      </Sheet>
    </>
  );
}

/** What was taken aboard into a tank, where, and by what certificate; of a tank that is told, else one that is chosen. */
export function TakenAboard({ tankId }: { tankId?: string }) {
  const { job, book, enter } = useJob();
  const { units } = job;
  const say = useTrade();
  const [chosen, choose] = useState(tankId ?? job.tanks[0]?.id ?? "");
  const bunkered = entriesOf(book, "bunkered").filter((one) => one.tankId === chosen);
  const [added, setAdded] = useState<number>();
  const [place, setPlace] = useState("");
  const [certificate, setCertificate] = useState("");
  return (
    <>
      <Fields>
        {tankId === undefined && (
          <Select
            label="Tank"
            value={chosen}
            options={job.tanks.map(({ id, name }) => ({ id, name }))}
            onChange={choose}
          />
        )}
        <QuantityField
          label="Fuel added"
          dimension="volume"
          unit={units.volume}
          value={added}
          check={positive}
          onCommit={setAdded}
        />
        <TextField label="Where" value={place} onCommit={setPlace} />
        <TextField label="Certificate or delivery note" value={certificate} onCommit={setCertificate} />
        <Button
          $main
          isDisabled={added === undefined}
          onPress={() =>
            added !== undefined &&
            void enter({
              kind: "bunkered",
              tankId: chosen,
              addedM3: added,
              place: place.trim(),
              certificate: certificate.trim(),
            }).then((result) => result.ok && setAdded(undefined))
          }
        >
          Enter in the log
        </Button>
      </Fields>
      {bunkered.length > 0 && (
        <Frame tabIndex={0} role="region" aria-label="Fuel taken aboard">
          <Table>
            <thead>
              <tr>
                <th>When</th>
                <th className="n">Added</th>
                <th>Where</th>
                <th>Certificate</th>
                <th className="n">Biocide for it</th>
                <ActionsHead />
              </tr>
            </thead>
            <tbody>
              {[...bunkered].reverse().map((one) => (
                <tr key={one.id}>
                  <td>{day(one.at)}</td>
                  <td className="n">{say.volume(one.addedM3)}</td>
                  <td>{one.place || "–"}</td>
                  <td>{one.certificate || "none"}</td>
                  <td className="n">{say.pan(one.addedM3 * COMMON_BIOCIDE)}</td>
                  <td>
                    <Strike entryId={one.id} what={`fuel taken aboard on ${day(one.at)}`} />
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Frame>
      )}
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        Biocide {say.pan(COMMON_BIOCIDE * DOSE_OF_M3)} for {say.volume(DOSE_OF_M3)}: assumed, only where
        growth was seen; the maker's figure goes first.
      </p>
    </>
  );
}

/** A dose is told for so much fuel. */
const DOSE_OF_M3 = 0.1;
