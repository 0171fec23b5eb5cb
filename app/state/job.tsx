/** The open job: what is stored, what is chosen, what is explored, and the one way to change it. */
import { useLiveQuery } from "dexie-react-hooks";
import {
  createContext,
  type Dispatch,
  type ReactNode,
  type SetStateAction,
  useCallback,
  useContext,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import type { Command } from "~/core/edit/commands";
import { findingsOf } from "~/core/findings/findings";
import type { Finding } from "~/core/findings/types";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { judgeLineUp, type LineUpVerdict } from "~/core/hydraulics/worst";
import { buildNetwork, type Network } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Conditions, Id, Job, LineUp, Plan } from "~/core/plan/types";
import { faultText } from "~/messages/faults";
import { noteText } from "~/messages/notes";
import { answerInTime, storageFault } from "~/store/faults";
import { type CommitResult, commit, type LoadedJob, loadJob, redo, undo } from "~/store/jobs";
import { useAwaitShown } from "./awaitShown";
import { saveJobFile } from "./files";

export interface Moved {
  what: "vacuum" | "feed" | "worst";
  beforePa: number;
  afterPa: number;
  lineUpName: string;
}

export interface OpenJob {
  job: Job;
  plan: Plan;
  network: Network;
  solver: LineUpSolver;
  revision: number;
  canUndo: boolean;
  canRedo: boolean;
  exportedAt: string | null;
  lineUp: LineUp | null;
  chooseLineUp: (id: Id) => void;
  selectedId: Id | null;
  select: (id: Id | null) => void;
  /** The chosen line-up at the stored conditions. */
  stored: LineUpVerdict | null;
  findings: Finding[];
  focusFinding: Finding | null;
  setFocusFinding: (finding: Finding | null) => void;
  moved: Moved[];
  dispatch: (command: Command, gesture?: string) => Promise<CommitResult>;
  undo: () => Promise<void>;
  redo: () => Promise<void>;
  say: (text: string, lasts?: boolean) => void;
}

/** What the sliders explore: apart from the job, so that only what shows it is drawn anew as the hand moves. */
export interface Explored {
  /** Conditions explored; null where the stored ones hold. */
  overlay: Conditions | null;
  explore: Dispatch<SetStateAction<Conditions | null>>;
  conditions: Conditions;
  /** The chosen line-up at the explored conditions. */
  verdict: LineUpVerdict | null;
}

const Context = createContext<OpenJob | null>(null);
const ExploredContext = createContext<Explored | null>(null);
const SettledContext = createContext<Explored | null>(null);

/** The same, a moment later while the hand moves: for what stands beside the Keel and need not be drawn before it. */
export function useSettled(): Explored {
  const settled = useContext(SettledContext);
  if (!settled) throw new Error("no job is open here");
  return settled;
}

export function useExplored(): Explored {
  const explored = useContext(ExploredContext);
  if (!explored) throw new Error("no job is open here");
  return explored;
}

export function useJob(): OpenJob {
  const open = useContext(Context);
  if (!open) throw new Error("no job is open here");
  return open;
}

type Say = (said: { text: string; lasts?: boolean; action?: { label: string; run: () => void } }) => void;

const figuresOfVerdict = (verdict: LineUpVerdict | null) => {
  if (!verdict || verdict.result.outcome !== "solved" || !verdict.way) return null;
  const engine = verdict.way.stations.find(({ kind }) => kind === "engine");
  return {
    vacuum: verdict.suction?.vacuumPa ?? null,
    feed: engine?.beforePa ?? null,
    worst: verdict.way.suctionLosses[0]?.lossPa ?? null,
  };
};

const LEAST_MOVE_PA = 50;

/** Which figures of the line-up the last change moved. */
function useMoved(revision: number, verdict: LineUpVerdict | null): Moved[] {
  const last = useRef<{
    revision: number;
    lineUpId: Id | null;
    figures: ReturnType<typeof figuresOfVerdict>;
  }>({ revision, lineUpId: null, figures: null });
  const [moved, setMoved] = useState<Moved[]>([]);
  useEffect(() => {
    const figures = figuresOfVerdict(verdict);
    const before = last.current;
    const lineUpId = verdict?.lineUp.id ?? null;
    if (revision !== before.revision && lineUpId === before.lineUpId && figures && before.figures) {
      const lineUpName = verdict?.lineUp.name ?? "";
      setMoved(
        (["vacuum", "feed", "worst"] as const).flatMap((what) => {
          const [beforePa, afterPa] = [before.figures?.[what], figures[what]];
          if (beforePa == null || afterPa == null || Math.abs(beforePa - afterPa) < LEAST_MOVE_PA) return [];
          return [{ what, beforePa, afterPa, lineUpName }];
        }),
      );
    } else if (lineUpId !== before.lineUpId) setMoved([]);
    last.current = { revision, lineUpId, figures };
  }, [revision, verdict]);
  return moved;
}

function offerFile(held: Job, say: Say, text: string): void {
  say({ text, lasts: true, action: { label: "Save the file", run: () => void saveJobFile(held.id, held) } });
}

interface Props {
  loaded: LoadedJob;
  say: Say;
  children: ReactNode;
}

export function JobProvider({ loaded, say, children }: Props) {
  const id = loaded.job.id;
  const live = useLiveQuery(() => loadJob(id), [id], loaded) ?? loaded;
  const { job, revision } = live;
  const plan = currentPlan(job);
  const network = useMemo(() => buildNetwork(job), [job]);
  const solver = useMemo(() => new LineUpSolver(network), [network]);
  const findings = useMemo(() => findingsOf(job, network), [job, network]);
  const [lineUpId, setLineUpId] = useState<Id | null>(null);
  const [selectedId, select] = useState<Id | null>(null);
  const [focusFinding, setFocusFinding] = useState<Finding | null>(null);
  const lineUp = plan.lineUps.find((one) => one.id === lineUpId) ?? plan.lineUps[0] ?? null;
  // The Keel leads to the consumer that is chosen, else to the one with the least margin.
  const consumerId = job.consumers.find(({ id: one }) => one === selectedId)?.id;
  const stored = useMemo(
    () => (lineUp ? judgeLineUp(solver, lineUp, plan.conditions, consumerId) : null),
    [solver, lineUp, plan.conditions, consumerId],
  );
  const moved = useMoved(revision, stored);
  const held = useRef(job);
  useEffect(() => {
    held.current = job;
  }, [job]);

  const shown = useAwaitShown(revision);
  const dispatch = useCallback(
    async (command: Command, gesture?: string): Promise<CommitResult> => {
      try {
        const result = await answerInTime(commit(id, command, gesture));
        if (!result.ok)
          say({
            text: result.faults
              .map((fault) => `${fault.path ? `${fault.path}: ` : ""}${faultText(fault)}`)
              .join("; "),
          });
        else {
          for (const note of result.notes) say({ text: noteText(note, result.job) });
          await shown(result.revision);
        }
        return result;
      } catch (error) {
        offerFile(held.current, say, storageFault(error));
        return { ok: false, faults: [{ path: "", code: "storage" }] };
      }
    },
    [id, say, shown],
  );
  const step = useCallback(
    async (way: typeof undo) => {
      try {
        await answerInTime(way(id));
      } catch (error) {
        offerFile(held.current, say, storageFault(error));
      }
    },
    [id, say],
  );

  const { canUndo, canRedo } = { canUndo: live.cursor > 0, canRedo: live.lastSeq > live.cursor };
  const { exportedAt } = live;
  const value = useMemo<OpenJob>(
    () => ({
      job,
      plan,
      network,
      solver,
      revision,
      canUndo,
      canRedo,
      exportedAt,
      lineUp,
      chooseLineUp: setLineUpId,
      selectedId,
      select,
      stored,
      findings,
      focusFinding,
      setFocusFinding,
      moved,
      dispatch,
      undo: () => step(undo),
      redo: () => step(redo),
      say: (text, lasts) => say({ text, lasts }),
    }),
    [
      job,
      plan,
      network,
      solver,
      revision,
      canUndo,
      canRedo,
      exportedAt,
      lineUp,
      selectedId,
      stored,
      findings,
      focusFinding,
      moved,
      dispatch,
      step,
      say,
    ],
  );
  return (
    <Context.Provider value={value}>
      <ExploredProvider>{children}</ExploredProvider>
    </Context.Provider>
  );
}

function ExploredProvider({ children }: { children: ReactNode }) {
  const { plan, solver, lineUp, stored, job, selectedId } = useJob();
  const consumerId = job.consumers.find(({ id }) => id === selectedId)?.id;
  const [overlay, explore] = useState<Conditions | null>(null);
  const verdict = useMemo(
    () => (overlay && lineUp ? judgeLineUp(solver, lineUp, overlay, consumerId) : stored),
    [solver, lineUp, overlay, stored, consumerId],
  );
  const value = useMemo(
    () => ({ overlay, explore, conditions: overlay ?? plan.conditions, verdict }),
    [overlay, plan.conditions, verdict],
  );
  const settled = useDeferredValue(value);
  return (
    <ExploredContext.Provider value={value}>
      <SettledContext.Provider value={settled}>{children}</SettledContext.Provider>
    </ExploredContext.Provider>
  );
}
