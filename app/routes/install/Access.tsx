/*
 * Decides: what must come away before a thing can be reached, and how many have room behind it.
 * Seen in three seconds: the plan with what the chosen cover hides hatched, and which covers this work opens.
 */

import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { newId } from "~/core/kinds/ids";
import type { Id } from "~/core/kinds/record";
import { PAN_M3 } from "~/core/order/pans";
import { progressOf, startsFrom } from "~/core/order/progress";
import { partsOf } from "~/core/plan/ports";
import type { Cover } from "~/core/plan/types";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { counted } from "~/messages/counted";
import { coverKindNames } from "~/messages/workOrder";
import { Plumbing } from "~/plumbing/Plumbing";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { useJob } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { Select, TextField } from "~/ui/fields";
import { PlaceHead, Sheet } from "~/ui/place";
import { PlanDrawing } from "./PlanDrawing";

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: flex-end; margin: 8px 0;
  > * { min-width: 120px; }
`;
const Things = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px; margin: 6px 0;
`;
const Covers = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px; margin: 0 16px 8px;
`;

const kinds = (Object.keys(coverKindNames) as Cover["kind"][]).map((id) => ({
  id,
  name: coverKindNames[id],
}));

/** A cover of another kind: a window is of a tank or an engine, the first one until another is chosen. */
function asKind(cover: Cover, kind: Cover["kind"], tanks: { id: Id }[], engines: { id: Id }[]): Cover {
  const { id, name, hides, bodies } = cover;
  const rest = { id, name, hides, ...(bodies === undefined ? {} : { bodies }) };
  if (kind !== "engineOut" && kind !== "tankDown") return { ...rest, kind };
  const of = (kind === "tankDown" ? tanks : engines)[0]?.id;
  return of === undefined ? cover : { ...rest, kind, of };
}

export function Access() {
  const { job, plan, book, network, stored, dispatch } = useJob();
  const placed = usePlumbing(network);
  const [asked] = useSearchParams();
  const covers = useMemo(() => plan.covers ?? [], [plan.covers]);
  const [chosenId, choose] = useState<Id | null>(covers[0]?.id ?? null);
  const chosen = covers.find(({ id }) => id === chosenId) ?? covers[0];
  const from = asked.get("from");
  const opened = useMemo(() => {
    const { steps } = progressOf(job, startsFrom(job, plan, from), plan, book);
    return new Map(covers.map(({ id }) => [id, steps.filter((step) => step.within === id).length] as const));
  }, [job, plan, book, from, covers]);
  const put = (next: Cover[]) => void dispatch({ name: "editPlan", change: { covers: next } });
  const edit = (next: Cover) => put(covers.map((one) => (one.id === next.id ? next : one)));
  const toggle = (id: Id) => {
    if (!chosen || ("of" in chosen && chosen.of === id)) return;
    const hides = chosen.hides.includes(id)
      ? chosen.hides.filter((one) => one !== id)
      : [...chosen.hides, id];
    edit({ ...chosen, hides });
  };
  const add = () => {
    const id = newId();
    put([...covers, { id, name: `Cover ${covers.length + 1}`, kind: "floor", hides: [] }]);
    choose(id);
  };
  const things = [
    ...job.tanks,
    ...partsOf(job, plan),
    ...plan.runs.map(({ id, from: a, to }) => ({
      id,
      name: `hose ${network.ports.get(`${a.part}.${a.port}`)?.ownerName ?? ""} to ${network.ports.get(`${to.part}.${to.port}`)?.ownerName ?? ""}`,
    })),
  ];
  const hidden = new Set(chosen?.hides);
  return (
    <>
      <PlaceHead>
        <p>
          {covers.length === 0
            ? "Nothing is in the way: add a floor, a hatch or a panel where something must come away first."
            : `${chosen?.name}: ${counted(chosen?.hides.length ?? 0, "thing")} behind it. ${used(opened.get(chosen?.id ?? "") ?? 0)}`}
        </p>
      </PlaceHead>
      <Covers role="group" aria-label="Covers and windows">
        {covers.map(({ id, name }) => (
          <ToggleButton key={id} isSelected={id === chosen?.id} onChange={() => choose(id)}>
            {name}
          </ToggleButton>
        ))}
        <Button onPress={add}>Add a cover</Button>
      </Covers>
      {chosen && placed && (
        <PlanDrawing placed={placed} label={`The plan; press what is behind ${chosen.name}`}>
          {(scale) => (
            <Plumbing
              network={network}
              placed={placed}
              verdict={stored}
              units={job.units}
              selectedId={null}
              glowIds={[]}
              hiddenIds={hidden}
              onSelect={toggle}
              scale={scale}
            />
          )}
        </PlanDrawing>
      )}
      <Sheet>
        {chosen && (
          <>
            <Row>
              <TextField
                key={chosen.id}
                label="It is called"
                value={chosen.name}
                onCommit={(name) => name && edit({ ...chosen, name })}
              />
              <Select
                label="It is"
                value={chosen.kind}
                options={kinds}
                onChange={(kind) => edit(asKind(chosen, kind, job.tanks, job.consumers))}
              />
              {"of" in chosen && (
                <Select
                  label="Which"
                  value={chosen.of}
                  options={(chosen.kind === "tankDown" ? job.tanks : job.consumers).map(({ id, name }) => ({
                    id,
                    name,
                  }))}
                  onChange={(of) => edit({ ...chosen, of, hides: chosen.hides.filter((id) => id !== of) })}
                />
              )}
              <Select
                label="Room for"
                value={String(chosen.bodies ?? 1)}
                options={["1", "2", "3"].map((id) => ({ id, name: counted(Number(id), "person") }))}
                onChange={(bodies) => edit({ ...chosen, bodies: Number(bodies) })}
              />
              <Button $quiet onPress={() => put(covers.filter((one) => one !== chosen))}>
                Take {chosen.name} out
              </Button>
            </Row>
            <h3>Behind it, by name</h3>
            <Things role="group" aria-label={`Behind ${chosen.name}`}>
              {things
                .filter(({ id }) => !("of" in chosen && chosen.of === id))
                .map(({ id, name }) => (
                  <ToggleButton key={id} isSelected={hidden.has(id)} onChange={() => toggle(id)}>
                    {name}
                  </ToggleButton>
                ))}
            </Things>
          </>
        )}
        <h3>The pan that catches fuel</h3>
        <Row>
          <QuantityField
            label="It holds"
            dimension="volume"
            unit={job.units.volume}
            value={job.panM3 ?? PAN_M3}
            check={positive}
            onCommit={(panM3) => void dispatch({ name: "editJob", change: { panM3 } })}
          />
          <p style={{ margin: 0, flex: 1 }}>
            {job.panM3 === undefined && "Assumed: nobody has said. "}
            Swapped before it is four fifths full, by the litres that the steps give.
          </p>
        </Row>
      </Sheet>
    </>
  );
}

const used = (steps: number) =>
  steps === 0
    ? "This work needs nothing behind it, so it stays shut."
    : `${counted(steps, "step")} of this work ${steps === 1 ? "is" : "are"} done behind it.`;
