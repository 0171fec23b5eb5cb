import { useRef, useState } from "react";
import { useFetcher } from "react-router";
import styled from "styled-components";
import { type StarterId, starterIds } from "~/core/edit/starters";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Select, TextField } from "~/ui/fields";

const Form = styled.form`
  display: grid; gap: 14px;
`;

const starterNames: Record<StarterId, string> = {
  nothing: "Nothing: an empty plan",
  oneTank: "Boat, one tank",
  twoTanksTwoSelectors: "Boat, two tanks on two selectors",
  threeTanks: "Boat, three tanks on manifolds",
  twinEngine: "Boat, two engines",
  truck: "Truck, frame tank and frame pump",
  heater: "Heater with its own tank",
};

export default function NewJob({ onClose }: { onClose: () => void }) {
  const [name, setName] = useState("New job");
  const [starter, setStarter] = useState<StarterId>("nothing");
  const fetcher = useFetcher();
  // Enter pressed twice is one job: a second one would call the first off.
  const isBegun = useRef(false);
  const start = async () => {
    if (isBegun.current) return;
    isBegun.current = true;
    await fetcher.submit({ intent: "create", name, starter }, { method: "post" });
    onClose();
  };
  return (
    <Dialog title="New job" isOpen onOpenChange={(open) => !open && onClose()}>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          void start();
        }}
      >
        <TextField label="Name" value={name} onCommit={setName} autoFocus />
        <Select
          label="Start from"
          value={starter}
          options={starterIds.map((id) => ({ id, name: starterNames[id] }))}
          onChange={setStarter}
        />
        <Actions>
          <Button onPress={onClose}>Cancel</Button>
          <Button $main type="submit">
            Start
          </Button>
        </Actions>
      </Form>
    </Dialog>
  );
}
