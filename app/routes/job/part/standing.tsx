/** How a part stands in the plan: what is known of its way, and what is done to it as a whole. */
import { throughPorts } from "~/core/edit/standing";
import { newId } from "~/core/kinds/ids";
import type { PlanPart } from "~/core/kinds/index";
import { hasArrow } from "~/core/plan/ports";
import { Buttons, Group } from "~/fields/layout";
import { letInKinds } from "~/messages/kinds";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch } from "~/ui/fields";
import { KeepPart } from "./kept";

const flowBases = [
  { id: "arrow", name: "its arrow" },
  { id: "maker", name: "its maker" },
  { id: "outerSide", name: "inlet to the element's outer side" },
  { id: "guess", name: "a guess" },
] as const;

/** How it is known which way it flows, and whether it stands for good. */
export function Provenance({ part, edit }: { part: PlanPart; edit: (change: object) => void }) {
  return (
    <Group>
      {hasArrow(part) && (
        <Select
          label="Which way it flows is known by"
          value={part.flowBasis ?? "arrow"}
          options={[...flowBases]}
          onChange={(flowBasis) => edit({ flowBasis })}
        />
      )}
      <Switch isOn={part.provisional ?? false} onChange={(provisional) => edit({ provisional })}>
        Provisional
      </Switch>
      <Switch
        isOn={part.shopMade !== undefined}
        onChange={(on) => edit({ shopMade: on ? { tested: false } : undefined })}
      >
        Built in the shop
      </Switch>
      {part.shopMade && (
        <Switch isOn={part.shopMade.tested} onChange={(tested) => edit({ shopMade: { tested } })}>
          Proof tested
        </Switch>
      )}
    </Group>
  );
}

export function PartActions({ part }: { part: PlanPart }) {
  const { dispatch, select } = useJob();
  return (
    <Group>
      <Select
        label="Replace by"
        value={null}
        options={letInKinds.filter(({ id }) => id !== part.kind)}
        onChange={(kind) => {
          const id = newId();
          void dispatch({ name: "replacePart", id: part.id, newId: id, kind }).then(
            (result) => result.ok && select(id),
          );
        }}
      />
      <KeepPart part={part} />
      <Buttons>
        {throughPorts(part) && (
          <Button onPress={() => void dispatch({ name: "turnPart", id: part.id })}>
            Reverse its direction
          </Button>
        )}
        <Button
          onPress={() => {
            void dispatch({ name: "removePart", id: part.id });
            select(null);
          }}
        >
          Delete it from the plan
        </Button>
      </Buttons>
    </Group>
  );
}
