/*
 * Decides: which joint leaks, from when it is seen to.
 * Seen in three seconds: the joints that fit what was seen, best first, with what each is under.
 */
import { useMemo, useState } from "react";
import { jointStates, type LeakState, leakStates, rankLeaks, type Seen } from "~/core/work/leakStates";
import { leakStateNames, underText } from "~/messages/leaks";
import { useJob, useTrade } from "~/state/job";
import { Select } from "~/ui/fields";
import { Caution } from "~/ui/place";
import { Table } from "~/ui/table";

const seenNames: { id: Seen | "unseen"; name: string }[] = [
  { id: "unseen", name: "not looked" },
  { id: "weeps", name: "fuel weeps" },
  { id: "air", name: "air comes in" },
  { id: "dry", name: "neither" },
];
const SHOWN = 12;

export default function Leaks() {
  const { job, plan, network, lineUp, select } = useJob();
  const say = useTrade();
  const [seen, setSeen] = useState<Partial<Record<LeakState, Seen>>>({});
  const joints = useMemo(
    () => (lineUp ? jointStates(network, lineUp, plan.conditions) : []),
    [network, lineUp, plan.conditions],
  );
  if (!lineUp) return <p>No line-up yet.</p>;
  const ranked = rankLeaks(joints, seen);
  const shown =
    ranked.length > 0 ? ranked.slice(0, SHOWN) : joints.map((joint) => ({ ...joint, fit: Number.NaN }));
  const consumers = job.consumers.filter(({ id }) => lineUp.consumers[id] === "running");
  return (
    <div>
      <div
        style={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(150px, 200px))", gap: 12 }}
      >
        {leakStates.map((state) => (
          <Select
            key={state}
            label={`Seen: ${leakStateNames[state].toLowerCase()}`}
            value={seen[state] ?? "unseen"}
            options={seenNames}
            onChange={(next) => {
              const { [state]: _, ...others } = seen;
              setSeen(next === "unseen" ? others : { ...others, [state]: next });
            }}
          />
        ))}
      </div>
      <Table>
        <thead>
          <tr>
            <th>Joint</th>
            {leakStates.map((state) => (
              <th key={state} className="n">
                {leakStateNames[state]}
              </th>
            ))}
            <th className="n">Fits</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((joint) => (
            <tr key={joint.key}>
              <td>
                <button type="button" className="plain" onClick={() => select(joint.partId)}>
                  {joint.partName}, {joint.portName}
                </button>
              </td>
              {leakStates.map((state) => {
                const gauge = joint.gaugePa[state];
                return (
                  <td key={state} className="n">
                    {underText(joint.under[state], gauge, job.units)}
                  </td>
                );
              })}
              <td className="n">{Number.isNaN(joint.fit) ? "–" : `${Math.round(joint.fit * 100)} %`}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {consumers.map((engine) => (
        <p key={engine.id}>
          {engine.name}: maker's feed window{" "}
          {engine.leastFeedPa === undefined && engine.mostFeedPa === undefined
            ? "not entered; its feed pressure is shown, not judged."
            : `${say.gauge(engine.leastFeedPa ?? 0)} to ${engine.mostFeedPa === undefined ? "no limit" : say.gauge(engine.mostFeedPa)}.`}
        </p>
      ))}
      <Caution style={{ margin: "8px 0" }}>
        A pressure that falls after switch-off through an open return is no leak: judge with the pump on, or
        with the return blanked. Dry cloth, not fingers: the high-pressure side injects fuel through skin and
        is left to a licensed workshop.
      </Caution>
    </div>
  );
}
