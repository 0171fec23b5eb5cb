/** A bleed practised on the model: hands act, time goes on, and each act can be taken back. */
import { useCallback, useEffect, useMemo, useState } from "react";
import { type Content, fillContent } from "~/core/air/content";
import { airIn, type Reach, reachOf } from "~/core/air/joints";
import { type AirPicture, airPicture } from "~/core/air/picture";
import type { Mark } from "~/core/air/practice";
import { KEY_CYCLE_S, type ProcedureStep, type ProcedureTask } from "~/core/air/procedure";
import { bleedTask } from "~/core/air/report";
import { type Scenario, scenarioBySeed, scenariosOf, startWrong, wrongTask } from "~/core/air/scenario";
import { type AirAction, type AirRefusal, AirSession, type SavedSession } from "~/core/air/session";
import type { Id } from "~/core/kinds/record";
import type { Job, LineUp } from "~/core/plan/types";

export interface Moment extends Mark {
  saved: SavedSession;
}

export interface Trained extends Reach {
  session: AirSession;
  task: ProcedureTask;
  picture: AirPicture;
  /** Moments of the model at which a timed pump stops by itself. */
  keyUntil: Map<Id, number>;
  /** Steps of a real bleed that it was taken through. */
  played: Set<ProcedureStep>;
  /** What is wrong with it, where it is trained on a fault; and all that could be. */
  scenario: Scenario | null;
  couldBe: Scenario[];
}

interface Held {
  of: Trained | null;
  moments: Moment[];
  refused: AirRefusal | null;
}
const NOTHING_HELD: Held = { of: null, moments: [], refused: null };

/** The model of a line-up with what its lines hold, or with a fault by its seed; null where nothing leads to a consumer. */
interface Start {
  content: Content;
  endId: Id | undefined;
  seed: number | null;
}

function startTrained(job: Job, lineUp: LineUp, { content, endId, seed }: Start): Trained | null {
  const right = bleedTask(job, lineUp, content, { endId });
  if (!right) return null;
  const scenario = seed === null ? null : scenarioBySeed(right, seed);
  const task = scenario ? wrongTask(right, scenario) : right;
  const session = scenario
    ? startWrong(right, scenario, seed ?? 0)
    : AirSession.start(task.network, lineUp, task.conditions);
  if (!session) return null;
  if (!scenario) fillContent(session, content, task.way);
  const surfaceM = session.surfaceM(task.way.stations[0]?.id ?? "");
  return {
    session,
    task,
    picture: airPicture(session.model, task.way, surfaceM),
    ...reachOf(session.model, task),
    keyUntil: new Map(),
    played: new Set(),
    scenario,
    couldBe: scenario ? scenariosOf(right) : [],
  };
}

/** How it stands now. */
export const markOf = ({ session, cells }: Trained): Omit<Mark, "label"> => ({
  atS: session.atS,
  airM3: airIn(session.model, cells).airM3,
  panM3: session.panM3,
  dryS: session.allDryS,
});

const QUIET_MS = 500;
/** The longest stretch of the model's time that one frame takes. */
const MOST_FRAME_S = 0.25;

export function useTrainer(
  job: Job,
  lineUp: LineUp | null,
  { content, endId }: Pick<Start, "content" | "endId">,
  isOn: boolean,
) {
  // A turn begins anew from the same start; with a seed something is wrong with it.
  const [turn, setTurn] = useState<{ nth: number; seed: number | null }>({ nth: 0, seed: null });
  const trained = useMemo(
    () => (lineUp ? startTrained(job, lineUp, { content, endId, seed: turn.seed }) : null),
    [job, lineUp, content, endId, turn],
  );
  const [speed, setSpeed] = useState<0 | 1 | 4>(1);
  const [tick, setTick] = useState(0);
  const [held, setHeld] = useState<Held>({ of: null, moments: [], refused: null });
  // What was done on another start is not of this one.
  const { moments, refused } = held.of === trained ? held : NOTHING_HELD;
  const draw = useCallback(() => setTick((now) => now + 1), []);

  useEffect(() => {
    if (!isOn || !trained || speed === 0) return;
    const { session } = trained;
    const isQuiet = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
    let last = performance.now();
    let drawn = last;
    let frame = 0;
    const step = (now: number) => {
      const seconds = Math.min(MOST_FRAME_S, ((now - last) / 1000) * speed);
      last = now;
      if (session.isMoving) {
        const found = session.act({ do: "wait", seconds });
        if (found) setHeld((now) => ({ ...now, of: trained, refused: found }));
        for (const [id, until] of trained.keyUntil) {
          if (session.atS < until) continue;
          trained.keyUntil.delete(id);
          session.act({ do: "pump", id, on: false });
        }
        if (!isQuiet || now - drawn > QUIET_MS) {
          drawn = now;
          draw();
        }
      }
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [isOn, trained, speed, draw]);

  const act = useCallback(
    (label: string, actions: readonly AirAction[]) => {
      if (!trained) return;
      const { session } = trained;
      const saved = session.save();
      const mark = markOf(trained);
      let found: AirRefusal | null = null;
      for (const action of actions) {
        found = session.act(action);
        if (found) break;
      }
      const moment = { label, ...mark, saved };
      setHeld((now) => ({
        of: trained,
        refused: found,
        moments: [...(now.of === trained ? now.moments : []), moment],
      }));
      draw();
    },
    [trained, draw],
  );
  const press = useCallback(
    (id: Id, label: string) => {
      if (!trained) return;
      act(label, [{ do: "pump", id, on: true }]);
      trained.keyUntil.set(id, trained.session.atS + KEY_CYCLE_S);
    },
    [trained, act],
  );
  /** Back to before a moment; all that came after is gone. */
  const backTo = useCallback(
    (index: number) => {
      const moment = moments[index];
      if (!trained || !moment) return;
      trained.keyUntil.clear();
      trained.session.load(moment.saved);
      setHeld({ of: trained, refused: null, moments: moments.slice(0, index) });
      draw();
    },
    [trained, moments, draw],
  );
  /** Takes the model through steps that were done, those it has not been taken through yet. */
  const playTo = useCallback(
    (steps: readonly ProcedureStep[]) => {
      if (!trained) return;
      let found: AirRefusal | null = null;
      for (const step of steps) {
        if (trained.played.has(step)) continue;
        trained.played.add(step);
        for (const action of step.actions) found ??= trained.session.act(action);
      }
      if (found) setHeld((now) => ({ ...now, of: trained, refused: found }));
      draw();
    },
    [trained, draw],
  );
  const air = trained ? airIn(trained.session.model, trained.cells) : null;
  return {
    trained,
    air,
    tick,
    speed,
    setSpeed,
    moments,
    refused,
    act,
    press,
    backTo,
    playTo,
    /** Hides a fault in it: another with every seed. */
    hide: (seed: number) => setTurn(({ nth }) => ({ nth: nth + 1, seed })),
    again: () => setTurn(({ nth }) => ({ nth: nth + 1, seed: null })),
  };
}
export type Trainer = ReturnType<typeof useTrainer>;
