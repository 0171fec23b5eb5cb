/*
 * Decides: how tanks and consumers are joined so that no handle can be left wrong.
 * Seen in three seconds: how many positions the valves have, how many are dangerous, and which handles to lock together.
 */
import { useState } from "react";
import styled from "styled-components";
import { newId } from "~/core/kinds/ids";
import type { Id } from "~/core/kinds/record";
import { type Cause, type Danger, type HandleSetting, MOST_POSITIONS } from "~/core/manifold/positions";
import { proposeManifold } from "~/core/manifold/propose";
import type { Plan } from "~/core/plan/types";
import { positionsOf } from "~/core/plan/valves";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { usePositions } from "~/state/work";
import { Button, ToggleButton } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Switch } from "~/ui/fields";
import { Tabs } from "~/ui/tabs";

/** Of so many positions, in the plural. */
const dangerNames: Record<Danger, string> = {
  returnElsewhere: "return into another tank",
  returnClosed: "shut a return with the engine running",
  tanksJoined: "open two tanks to each other",
};
const dangerOf = (danger: Danger, consumer: string): string =>
  ({
    returnElsewhere: `${consumer} returns into another tank`,
    returnClosed: `the return of ${consumer} is shut while it runs`,
    tanksJoined: "two tanks are open to each other",
  })[danger];
const SHOWN = 12;

const List = styled.ul`
  margin: 0; padding: 0; list-style: none; font-size: 13.5px;
  li { padding: 5px 0; border-bottom: 1px solid var(--hairline); }
  small { color: var(--soft); display: block; font-size: 13px; }
`;
const Chips = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin: 4px 0 8px;
  > b { min-width: 90px; }
`;

function settingName(plan: Plan, { valveId, branchId, position }: HandleSetting): string {
  const valve = plan.parts.find(({ id }) => id === valveId);
  if (!valve) return valveId;
  if (valve.kind === "bank")
    return `${valve.name}, ${valve.branches.find(({ id }) => id === branchId)?.name ?? ""} ${position}`;
  const name =
    valve.kind === "selector" || valve.kind === "twoWay"
      ? (positionsOf(valve).find(({ id }) => id === position)?.name ?? position)
      : position;
  return `${valve.name} on ${name}`;
}

/** What keeps it from happening. */
function interlock({ danger, settings }: Cause): string {
  if (settings.length === 1)
    return danger === "returnClosed"
      ? "A valve without that position, or a handle that blocks the hatch when it is left so."
      : "Take the position away, or lock the handle.";
  if (settings.length > 2)
    return "A key that frees one lever at a time, or selectors in place of banks: then two handles are left to couple.";
  return danger === "tanksJoined"
    ? "A key or a rod that frees one of the two levers at a time."
    : "One handle for both, or a rod between them.";
}

function EveryPosition() {
  const { job, plan } = useJob();
  const work = usePositions(job, true);
  if (work.status === "working")
    return (
      <p aria-busy="true">Going through the positions{work.of > 0 ? `: ${work.done} of ${work.of}` : ""}…</p>
    );
  if (work.status === "failed") return <p>It stopped: {work.reason}</p>;
  const found = work.value;
  if (!found)
    return (
      <p>
        Its valves have more than {MOST_POSITIONS} positions: too many to go through. Divide the plan, or use
        selectors.
      </p>
    );
  const dangers = (Object.keys(dangerNames) as Danger[]).filter((danger) => found.dangerous[danger] > 0);
  return (
    <>
      <p style={{ margin: 0 }}>
        <b>{found.count}</b> positions: <b>{found.safe}</b> feed and return as they should,{" "}
        <b>{found.unfed}</b> starve a consumer,{" "}
        {dangers.length === 0
          ? "none is dangerous."
          : dangers.map((danger, i) => (
              <span key={danger}>
                {i > 0 && ", "}
                <b style={{ color: "var(--danger)" }}>{found.dangerous[danger]}</b> {dangerNames[danger]}
              </span>
            ))}
      </p>
      {found.heldIds.length > 0 && (
        <p style={{ margin: 0, fontSize: 13, color: "var(--soft)" }}>
          Taken as open: {found.heldIds.map((id) => nameOf(job, id)).join(", ")}. Shut, each only starves what
          it feeds.
        </p>
      )}
      <List>
        {found.causes.slice(0, SHOWN).map((cause, i) => (
          <li key={i}>
            <b>{cause.settings.map((setting) => settingName(plan, setting)).join(" with ")}</b>:{" "}
            {dangerOf(cause.danger, cause.consumerId === null ? "" : nameOf(job, cause.consumerId))}.
            <small>{interlock(cause)}</small>
          </li>
        ))}
      </List>
      {found.causes.length > SHOWN && <p>And {found.causes.length - SHOWN} more of the same kind.</p>}
    </>
  );
}

function Propose({ onDone }: { onDone: () => void }) {
  const { job, dispatch, say } = useJob();
  const [feeds, setFeeds] = useState<Record<Id, Id[]>>(() =>
    Object.fromEntries(
      job.consumers.map(({ id, kind }) => [
        id,
        job.tanks.slice(0, kind === "heater" ? 1 : undefined).map((tank) => tank.id),
      ]),
    ),
  );
  const [transfers, setTransfers] = useState<string[]>([]);
  const [polish, setPolish] = useState<Id[]>([]);
  const toggled = <T,>(list: readonly T[], item: T): T[] =>
    list.includes(item) ? list.filter((one) => one !== item) : [...list, item];
  const fed = job.consumers.filter(({ id }) => (feeds[id] ?? []).length > 0);
  const propose = () => {
    const inOrder = (ids: readonly Id[]) => job.tanks.map(({ id }) => id).filter((id) => ids.includes(id));
    const { plan, tanks } = proposeManifold(
      job,
      {
        feeds: fed.map(({ id }) => ({ consumerId: id, tankIds: inOrder(feeds[id] ?? []) })),
        transfers: transfers.map((key) => {
          const [fromId = "", toId = ""] = key.split(">");
          return { fromId, toId };
        }),
        polishIds: inOrder(polish),
      },
      newId(),
      `Manifold ${job.plans.length}`,
    );
    void dispatch({ name: "addPlan", plan, tanks }).then((result) => {
      if (!result.ok) return;
      say(
        `${plan.name} stands beside the other plans, with ${plan.lineUps.length} line-ups and their valve table.`,
      );
      onDone();
    });
  };
  /** All draw from it and return to it, and the other tanks fill it. */
  const makeDayTank = (dayId: Id) => {
    setFeeds(Object.fromEntries(job.consumers.map(({ id }) => [id, [dayId]])));
    setTransfers(job.tanks.filter(({ id }) => id !== dayId).map(({ id }) => `${id}>${dayId}`));
  };
  const isDayTank = (dayId: Id) =>
    fed.length > 0 &&
    fed.every(({ id }) => feeds[id]?.length === 1 && feeds[id][0] === dayId) &&
    job.tanks.every(({ id }) => id === dayId || transfers.includes(`${id}>${dayId}`));
  if (job.tanks.length === 0 || job.consumers.length === 0) return <p>Add a tank and a consumer first.</p>;
  return (
    <>
      {job.tanks.length > 1 && (
        <Chips>
          <b>Day tank</b>
          {job.tanks.map(({ id, name }) => (
            <ToggleButton
              key={id}
              aria-label={`${name} as day tank`}
              isSelected={isDayTank(id)}
              onChange={() => makeDayTank(id)}
            >
              {name}
            </ToggleButton>
          ))}
        </Chips>
      )}
      {job.consumers.map(({ id, name }) => (
        <Chips key={id}>
          <b>{name} from</b>
          {job.tanks.map((tank) => (
            <ToggleButton
              key={tank.id}
              isSelected={(feeds[id] ?? []).includes(tank.id)}
              onChange={() => setFeeds({ ...feeds, [id]: toggled(feeds[id] ?? [], tank.id) })}
            >
              {tank.name}
            </ToggleButton>
          ))}
        </Chips>
      ))}
      {job.tanks.length > 1 && (
        <Chips>
          <b>Transfers</b>
          {job.tanks.flatMap((from) =>
            job.tanks
              .filter(({ id }) => id !== from.id)
              .map((to) => (
                <ToggleButton
                  key={`${from.id}>${to.id}`}
                  isSelected={transfers.includes(`${from.id}>${to.id}`)}
                  onChange={() => setTransfers(toggled(transfers, `${from.id}>${to.id}`))}
                >
                  {from.name} to {to.name}
                </ToggleButton>
              )),
          )}
        </Chips>
      )}
      {job.tanks.map(({ id, name }) => (
        <Switch key={id} isOn={polish.includes(id)} onChange={() => setPolish(toggled(polish, id))}>
          Polish {name}
        </Switch>
      ))}
      <p style={{ margin: 0, fontSize: 13, color: "var(--soft)" }}>
        Each tank gets one outlet with a shut-off and one return for the engines. Supply and return of an
        engine that has a choice get a selector each without an 'off', to be turned by one handle; a heater a
        standpipe of its own and a dosing pump; transfers and polishing a pump between two banks, on outlets
        and returns of their own. It is put beside the plans as an alternative, with run, transfer, polish,
        prime and purge line-ups.
      </p>
      <Actions>
        <Button $main onPress={propose} isDisabled={fed.length === 0}>
          Put it beside the plan
        </Button>
      </Actions>
    </>
  );
}

export function ManifoldDialog({
  isOpen,
  onOpenChange,
}: {
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const { plan } = useJob();
  const [tab, setTab] = useState<"every" | "propose">("every");
  return (
    <Dialog title="Manifold" isOpen={isOpen} onOpenChange={onOpenChange}>
      <Tabs<"every" | "propose">
        label="Manifold"
        chosen={tab}
        onChoose={setTab}
        tabs={[
          { id: "every", name: `Every position of ${plan.name}`, body: () => <EveryPosition /> },
          {
            id: "propose",
            name: "Propose one",
            body: () => (
              <Propose
                onDone={() => {
                  setTab("every");
                  onOpenChange(false);
                }}
              />
            ),
          },
        ]}
      />
    </Dialog>
  );
}
