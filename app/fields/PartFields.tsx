/** The fields of a part, read off the list of figures of its kind. */
import { type ReactNode } from "react";
import { blankOf, type Field, type FieldsOf, type QuantityField as Quantity } from "~/core/kinds/fields";
import { kindOf, type Part } from "~/core/kinds/index";
import { fieldText } from "~/core/units/trade";
import { fieldLabel, optionNames, unitOf } from "~/messages/kinds";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch } from "~/ui/fields";
import { within } from "./checks";
import { LookField } from "./LookField";
import { Buttons, Group } from "./layout";
import { QuantityField } from "./QuantityField";

type Edit = (change: Record<string, unknown>) => void;
type Fields = Readonly<Record<string, Field>>;
interface OfPart {
  part: Part;
  edit: Edit;
}

/** The record that a path stands in: the part, or a group of it. */
const recordAt = (part: Part, group: string | undefined): Record<string, unknown> => {
  const record = part as unknown as Record<string, unknown>;
  return group === undefined ? record : ((record[group] as Record<string, unknown> | undefined) ?? {});
};

function OneField({
  part,
  edit,
  group,
  name,
  field,
}: OfPart & { group?: string | undefined; name: string; field: Field }) {
  const { units } = useJob().job;
  const path = group === undefined ? name : `${group}.${name}`;
  const record = recordAt(part, group);
  const value = record[name];
  const label = fieldLabel(part.kind, path);
  const changed = (next: unknown) =>
    group === undefined ? { [name]: next } : { [group]: { ...record, [name]: next } };
  switch (field.form) {
    case "switch":
      return field.isLook ? (
        <LookField
          label={label}
          value={value as boolean | undefined}
          onChange={(next) => edit(changed(next))}
        />
      ) : (
        <div style={{ gridColumn: "1 / -1" }}>
          <Switch isOn={value === true} onChange={(on) => edit(changed(on))}>
            {label}
          </Switch>
        </div>
      );
    case "choice":
      return (
        <Select
          label={label}
          value={String(value)}
          options={optionNames(part.kind, name)}
          onChange={(id) => edit(changed(id))}
        />
      );
    case "quantity":
      return (
        <NumberField
          {...{ part, field, path, label }}
          value={value as number | undefined}
          unit={unitOf(field.unit, units)}
          onCommit={(si, entered) =>
            edit({
              ...changed(si),
              given: { ...part.given, [path]: { entered, basis: field.basis } },
            })
          }
        />
      );
    case "group":
    case "curve":
    case "off":
    case "element":
    case "loads":
    case "positions":
    case "branches":
      return null;
  }
}

function NumberField({
  part,
  field: { dimension, bounds },
  path,
  label,
  value,
  unit,
  onCommit,
}: {
  part: Part;
  field: Quantity;
  path: string;
  label: string;
  value: number | undefined;
  unit: string;
  onCommit: (si: number, entered: string) => void;
}) {
  const given = part.given?.[path];
  return (
    <QuantityField
      label={label}
      dimension={dimension}
      unit={unit}
      value={value}
      basis={given?.basis ?? "assumed"}
      entered={given?.entered}
      check={within(bounds, (si) => fieldText(dimension, si, unit))}
      onCommit={onCommit}
    />
  );
}

const FieldList = ({ part, edit, group, fields }: OfPart & { group?: string | undefined; fields: Fields }) =>
  Object.entries(fields)
    .filter(([, { fold }]) => fold === undefined)
    .map(([name, field]) => <OneField key={name} {...{ part, edit, group, name, field }} />);

/** All that stand in the open; `children` are what no list describes, and what all parts have. */
export function PartFields({ part, edit, children }: OfPart & { children?: ReactNode }) {
  return (
    <Group className="two">
      <FieldList part={part} edit={edit} fields={kindOf(part).fields as Fields} />
      {children}
    </Group>
  );
}

/** What is folded away under a heading of its own: a circuit, how it stands, a second medium. */
export function PartGroups({ part, edit }: OfPart) {
  return Object.entries(kindOf(part).fields as Fields).map(([name, field]) => {
    if (field.form !== "group" || field.fold === undefined || field.fold === "quiet") return null;
    const label = fieldLabel(part.kind, name);
    const fields = field.fields as Fields;
    const isThere = (part as unknown as Record<string, unknown>)[name] !== undefined;
    return (
      <details key={name}>
        <summary>{label}</summary>
        {isThere ? (
          <>
            <Group className="two">
              <FieldList part={part} edit={edit} group={name} fields={fields} />
            </Group>
            {field.isOptional && (
              <Buttons>
                <Button onPress={() => edit({ [name]: undefined })}>Take it away</Button>
              </Buttons>
            )}
          </>
        ) : (
          <Button onPress={() => edit({ [name]: blankOf(fields as FieldsOf<Record<string, never>>) })}>
            Write it down
          </Button>
        )}
      </details>
    );
  });
}
