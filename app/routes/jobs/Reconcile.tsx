/*
 * Decides: of a job that was changed on two devices, which side each difference is taken from.
 * Seen in three seconds: how many there are, and for each part and figure what stands here and what there.
 */
import { useMemo, useState } from "react";
import styled from "styled-components";
import { differencesOf } from "~/core/edit/reconcile";
import type { Job } from "~/core/plan/types";
import { counted } from "~/messages/counted";
import { differenceText } from "~/messages/reconcile";
import { Button, ToggleButton } from "~/ui/button";
import { Actions } from "~/ui/dialog";

const Rows = styled.ul`
  list-style: none; margin: 0; padding: 0; max-height: 46vh; overflow: auto; border-top: 1px solid var(--hairline);
  li { padding: 8px 0; border-bottom: 1px solid var(--hairline); display: grid; gap: 4px; }
  li > div { display: grid; grid-template-columns: 1fr 1fr; gap: 6px; }
  li button { text-align: left; white-space: normal; }
  small { color: var(--soft); font-size: 13px; }
`;

export function Reconcile({
  here,
  there,
  onDone,
}: {
  here: Job;
  there: Job;
  onDone: (taken: ReadonlySet<string>) => void;
}) {
  const differences = useMemo(() => differencesOf(here, there), [here, there]);
  const [taken, setTaken] = useState<ReadonlySet<string>>(() => new Set());
  const take = (key: string, isThere: boolean) => {
    const next = new Set(taken);
    if (isThere) next.add(key);
    else next.delete(key);
    setTaken(next);
  };
  if (differences.length === 0)
    return (
      <>
        <p>The job is the same on both; only its logs are joined.</p>
        <Actions>
          <Button $main onPress={() => onDone(new Set())}>
            Join the logs
          </Button>
        </Actions>
      </>
    );
  return (
    <>
      <p style={{ margin: 0 }}>
        {counted(differences.length, "difference")}. Each is taken as it is here, or as it is in the file; the
        whole is one step that can be undone in the job. The logs are joined.
      </p>
      <Actions style={{ justifyContent: "flex-start" }}>
        <Button onPress={() => setTaken(new Set())}>All as here</Button>
        <Button onPress={() => setTaken(new Set(differences.map(({ key }) => key)))}>
          All as in the file
        </Button>
      </Actions>
      <Rows aria-label="Differences" tabIndex={0}>
        {differences.map((one) => {
          const { title, figure, here: own, there: other } = differenceText(here, one);
          const isThere = taken.has(one.key);
          const name = figure === "" ? title : `${title}, ${figure}`;
          return (
            <li key={one.key}>
              <span>
                <b>{title}</b> {figure}
              </span>
              <div role="group" aria-label={name}>
                <ToggleButton isSelected={!isThere} onChange={() => take(one.key, false)}>
                  Here: {own}
                </ToggleButton>
                <ToggleButton isSelected={isThere} onChange={() => take(one.key, true)}>
                  In the file: {other}
                </ToggleButton>
              </div>
            </li>
          );
        })}
      </Rows>
      <Actions>
        <Button $main onPress={() => onDone(taken)}>
          Keep: {differences.length - taken.size} as here, {taken.size} as in the file
        </Button>
      </Actions>
    </>
  );
}
