import type { Change } from "~/core/edit/merge";
/** The tank that is surveyed: how it is held on the drawing, what is in it, and the one way to change it. */

import { createContext, type ReactNode, useContext, useMemo } from "react";
import styled from "styled-components";
import type { Tank } from "~/core/plan/types";
import type { Attitude } from "~/core/tanks/attitude";
import { TiltedTank } from "~/core/tanks/tank";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { useJob, useTrade } from "~/state/job";

export interface SurveyedTank {
  tank: Tank;
  attitude: Attitude;
  setAttitude: (attitude: Attitude) => void;
  /** Litres on the drawing: the stored ones, or what the slider tries. */
  aboardM3: number;
  tilted: TiltedTank;
  /** Height of the fuel's surface along the vertical. */
  offset: number;
}

const Context = createContext<SurveyedTank | null>(null);

export function SurveyedTankProvider({
  tank,
  attitude,
  setAttitude,
  aboardM3,
  children,
}: Pick<SurveyedTank, "tank" | "attitude" | "setAttitude" | "aboardM3"> & { children: ReactNode }) {
  const { pitchDeg, rollDeg } = attitude;
  const tilted = useMemo(() => new TiltedTank(tank, { pitchDeg, rollDeg }), [tank, pitchDeg, rollDeg]);
  const value = useMemo(
    () => ({ tank, attitude, setAttitude, aboardM3, tilted, offset: tilted.offsetOfVolume(aboardM3) }),
    [tank, attitude, setAttitude, aboardM3, tilted],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useTank(): SurveyedTank {
  const surveyed = useContext(Context);
  if (!surveyed) throw new Error("no tank is surveyed here");
  return surveyed;
}

/** Changes the tank; a figure that was typed is noted as measured, with the text it was typed as. */
export function useEditTank(tank: Tank) {
  const { dispatch } = useJob();
  return (
    change: Change<Omit<Tank, "id">>,
    typed?: { field: string; entered?: string | undefined },
    gesture?: string,
  ) =>
    dispatch(
      {
        name: "editTank",
        id: tank.id,
        change: {
          ...change,
          ...(typed && {
            given: { ...tank.given, [typed.field]: { entered: typed.entered, basis: "measured" as const } },
          }),
        },
      },
      gesture,
    );
}

interface LengthProps {
  label: string;
  value: number | undefined;
  onCommit: (si: number, entered: string) => void;
  check?: ((si: number) => string | null) | undefined;
  basis?: "measured" | "maker" | "assumed" | undefined;
  entered?: string | undefined;
}

/** A length in the job's units. */
export function LengthField(props: LengthProps) {
  const { units } = useJob().job;
  return <QuantityField dimension="length" unit={units.length} {...props} />;
}

/** Lengths of one record, each changed by itself. */
export function Lengths<T extends object>({
  of,
  set,
  fields,
}: {
  of: T;
  set: (change: Partial<T>) => void;
  fields: readonly { key: keyof T; label: string; check?: (si: number) => string | null }[];
}) {
  return fields.map(({ key, label, check }) => (
    <LengthField
      key={label}
      label={label}
      value={of[key] as number | undefined}
      check={check}
      onCommit={(si) => set({ [key]: si } as Partial<T>)}
    />
  ));
}

export const BoreField = (props: LengthProps) => {
  const { units } = useJob().job;
  return <QuantityField dimension="length" unit={units.bore} check={positive} {...props} />;
};

/** Formats quantities in the job's units. */
export function useUnits() {
  const { units } = useJob().job;
  return { units, ...useTrade() };
}

export const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(124px, 1fr)); gap: 6px 12px; align-items: start; margin-bottom: 8px;
`;
export const Facts = styled.dl`
  display: grid; grid-template-columns: 1fr auto; gap: 2px 12px; margin: 4px 0 10px; font-size: 14px;
  dt { color: var(--soft); } dd { margin: 0; font-weight: 600; text-align: right; }
`;
export const Small = styled.p`
  font-size: 13px; color: var(--soft); margin: 4px 0 8px;
`;
export const Panel = styled.section`
  background: var(--raised); border: 1px solid var(--hairline); padding: 10px 12px; min-width: 0; overflow-x: auto; margin-bottom: 10px;
  h3 { margin: 0 0 6px; }
  h4 { margin: 12px 0 4px; font-stretch: 86%; font-size: 15px; }
`;
