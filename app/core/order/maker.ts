/** What the derivation of a work order offers to whoever adds steps to it. */
import type { Id } from "../kinds/record";
import type { Plan, PortRef, Tank, TankLine } from "../plan/types";
import type { Fact, Verb, WorkStep } from "./facts";

/** What the order's derivation offers. */
export interface StepMaker {
  readonly steps: ReadonlyMap<string, WorkStep>;
  /** What each fact is to be when all is done. */
  readonly wanted: ReadonlyMap<string, string>;
  fact(fact: string, found: string): void;
  step(
    verb: Verb,
    object: string,
    rest: Pick<WorkStep, "of" | "place" | "pre" | "post"> & Partial<WorkStep>,
  ): WorkStep;
  add(id: string, more: { pre?: readonly Fact[]; post?: readonly Fact[] }): void;
  change(id: string, change: Partial<WorkStep>): void;
  batteryOff(): Fact;
  safe(place: string): Fact[];
  /** Where a thing is worked on. */
  placeOf(id: Id): string;
  /** A part that is put in, or put back elsewhere, is there first. */
  owner(id: Id): Fact[];
  undo(plan: Plan, ref: PortRef, litresM3: number): WorkStep;
  join(withId: Id, ref: PortRef, pre: Fact[], benchOf: Id | null): Fact;
  drainTank(tank: Tank, litresM3: number): Fact;
  tankLineSafe(line: TankLine): Fact[];
}
