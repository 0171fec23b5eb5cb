/** What the panels of fields share. */
import styled from "styled-components";
import type { Id } from "~/core/kinds/record";
import type { QuantityProps } from "~/ui/fields";
import { Photos } from "./Photos";
import { QuantityField } from "./QuantityField";

export const Lines = styled.dl`
  margin: 8px 0 10px; display: grid; grid-template-columns: 1fr auto; font-stretch: 84%;
  dt, dd { padding: 4px 0; border-bottom: 1px solid var(--hairline); margin: 0; }
  dt { color: var(--soft); } dd { text-align: right; font-weight: 650; }
`;
export const Group = styled.div`
  display: grid; gap: 8px; margin: 10px 0;
  &.two { grid-template-columns: 1fr 1fr; }
`;
export const Buttons = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px; margin: 8px 0;
`;

type Change<T> = (change: Partial<T>, field?: string, entered?: string) => void;

/** Fields of a record share how they commit: the number, its text as entered, and that it was measured. */
export function useFields<
  T extends { given?: Record<string, { entered?: string; basis?: "measured" | "maker" | "assumed" }> },
>(record: T, change: Change<T>) {
  return (
    field: keyof T & string,
    props: Pick<QuantityProps, "label" | "dimension" | "unit" | "check">,
    basis: "measured" | "maker" = "measured",
  ) => {
    const given = record.given?.[field];
    return (
      <QuantityField
        {...props}
        value={record[field] as number | undefined}
        basis={given?.basis ?? "assumed"}
        entered={given?.entered}
        onCommit={(si, entered) =>
          change({
            [field]: si,
            given: { ...record.given, [field]: { entered, basis } },
          } as unknown as Partial<T>)
        }
      />
    );
  };
}

/** What goes before taking a part out: how it was. */
export function Before({ id, name }: { id: Id; name: string }) {
  return (
    <>
      <h3 style={{ marginTop: 10 }}>Before anything is taken off</h3>
      <Photos ofId={id} name={name} />
    </>
  );
}
