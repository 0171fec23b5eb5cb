/*
 * Decides: whether every joint of a line-up is dry before it is handed over.
 * Seen in three seconds: the plan with its joints ticked, and the next joint to look at.
 */
import styled from "styled-components";
import type { LeakCheck } from "~/core/book/entries";
import { type LeakJoint, leakJoints } from "~/core/work/leakTest";
import { Plumbing } from "~/plumbing/Plumbing";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { useJob, useTrade } from "~/state/job";
import { ToggleButton } from "~/ui/button";
import { Caution, PlaceHead, Sheet } from "~/ui/place";

export const meta = () => [{ title: "Install · Iron Keel" }];

const Drawing = styled.div`
  margin: 0 16px 12px; overflow-x: auto; border: 1px solid var(--hairline); background: var(--raised);
  svg { display: block; width: 100%; height: auto; }
  @media (max-width: 600px) { display: none; }
`;
const Tick = styled.div`
  display: flex; gap: 6px;
`;
const none: string[] = [];

export default function Install() {
  const { job, plan, book, network, stored: verdict, lineUp, enter, select, selectedId } = useJob();
  const { gauge } = useTrade();
  const { placed } = usePlumbing(network);
  const joints = verdict?.way ? leakJoints(job, plan, book, verdict.way) : [];
  const done = joints.filter(({ check }) => check?.result === "dry");
  const next = joints.find(({ check }) => check?.result !== "dry");
  const tick = ({ joint }: LeakJoint, result: LeakCheck["result"]) =>
    lineUp && void enter({ kind: "leakCheck", lineUpId: lineUp.id, joint, result });
  return (
    <div>
      <PlaceHead>
        <h2>Install</h2>
        <p>
          Leak test of {lineUp?.name ?? "no line-up"}: {done.length} of {joints.length} joints dry.
          {next && ` Next: ${next.partName}, ${next.portName}.`}
        </p>
      </PlaceHead>
      <Caution>
        Pump on, engine off: look at each joint with a dry cloth, no flame or spark, ventilate, extinguisher
        to hand. A joint under vacuum draws air in and may show no drop. Pressure that falls through an open
        return after switch-off is no leak. Never loosen the high-pressure side; that is for a licensed
        workshop.
      </Caution>
      {placed && (
        <Drawing>
          <svg
            viewBox={`0 0 ${placed.width} ${placed.height}`}
            role="group"
            aria-label="Plan with the joints that are dry ticked"
          >
            <Plumbing
              network={network}
              placed={placed}
              verdict={verdict}
              units={job.units}
              selectedId={selectedId}
              glowIds={none}
              onSelect={select}
              scale={Math.min(1, 800 / placed.width)}
              doneKeys={new Set(done.map(({ key }) => key))}
            />
          </svg>
        </Drawing>
      )}
      <Sheet>
        <table>
          <thead>
            <tr>
              <th className="n">No.</th>
              <th>Joint</th>
              <th>In this line-up</th>
              <th>Looked at</th>
              <th className="wide">Last check</th>
            </tr>
          </thead>
          <tbody>
            {joints.map((item, i) => (
              <tr key={item.key}>
                <td className="n">{i + 1}</td>
                <td>
                  <b>{item.partName}</b>, {item.portName}
                </td>
                <td>
                  {item.state === "vacuum" ? "under vacuum" : "under pressure"}, {gauge(item.gaugePa)}
                </td>
                <td>
                  <Tick>
                    <ToggleButton
                      isSelected={item.check?.result === "dry"}
                      aria-label={`${item.partName}, ${item.portName}: dry`}
                      onChange={() => tick(item, "dry")}
                    >
                      dry
                    </ToggleButton>
                    <ToggleButton
                      isSelected={item.check?.result === "wet"}
                      aria-label={`${item.partName}, ${item.portName}: wet`}
                      onChange={() => tick(item, "wet")}
                    >
                      wet
                    </ToggleButton>
                  </Tick>
                </td>
                <td className="wide">
                  {item.check
                    ? new Date(item.check.at).toLocaleString("en-GB", {
                        dateStyle: "short",
                        timeStyle: "short",
                      })
                    : "–"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {joints.length === 0 && (
          <p>Nothing flows in this line-up, so there is no joint to test with the pump on.</p>
        )}
      </Sheet>
    </div>
  );
}
