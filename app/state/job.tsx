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
import { currentAsker } from "~/asking/asker";
import type { Book, EntryDraft } from "~/core/book/entries";
import type { Command } from "~/core/edit/command";
import { madeFrom } from "~/core/edit/commands";
import type { Finding } from "~/core/findings/index";
import type { Leg } from "~/core/hydraulics/route";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { judgeLineUp, type LineUpVerdict } from "~/core/hydraulics/worst";
import type { Id } from "~/core/kinds/record";
import { buildNetwork, type Network } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Conditions, Job, LineUp, Plan } from "~/core/plan/types";
import { type Trade, tradeIn } from "~/core/units/trade";
import { counted } from "~/messages/counted";
import { faultText } from "~/messages/faults";
import { noteText } from "~/messages/notes";
import { placeText } from "~/messages/places";
import { storageFault } from "~/messages/storage";
import type { FileFault } from "~/schemas/file";
import type { Picture } from "~/schemas/migrations";
import { type EnterResult, enter, type ReadBook, readBook } from "~/store/book";
import { answerInTime } from "~/store/faults";
import { type CommitResult, commit, redo, type Tab, type TravelResult, undo } from "~/store/history";
import { type JobState, type LoadedJob, readJob } from "~/store/jobs";
import { quarantine } from "~/store/records";
import { useAwaitShown } from "./awaitShown";
import { saveHeld } from "./files";
import { useFindings } from "./findings";
import { PAGE } from "./page";
import { useBleedOutcome } from "./work";

export interface Moved {
  what: "vacuum" | "feed" | "worst";
  beforePa: number;
  afterPa: number;
  lineUpName: string;
}

export interface OpenJob {
  job: Job;
  /** What stands in the book. */
  book: Book;
  /** False for the moment that only the last page of a long book has been read. */
  isBookWhole: boolean;
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
  findings: readonly Finding[];
  /** Findings of the plan as it was a moment ago: those of the last change are being looked for. */
  isJudging: boolean;
  focusFinding: Finding | null;
  setFocusFinding: (finding: Finding | null) => void;
  moved: Moved[];
  dispatch: (command: Command, gesture?: string) => Promise<CommitResult>;
  /** Enters in the book, all or nothing. */
  enter: (drafts: EntryDraft | readonly EntryDraft[], pictures?: Map<Id, Picture>) => Promise<EnterResult>;
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
  /** Shows the job as a hand holds it, before it is let go: the Keel follows. Null shows it as it is stored. */
  hold: (held: Job | null) => void;
  /** Lines of what may be wrong, laid over the Keel. */
  suspects: readonly DrawnSuspect[];
  suspect: Dispatch<SetStateAction<readonly DrawnSuspect[]>>;
}

/** What may be wrong, as its line would run. */
export interface DrawnSuspect {
  name: string;
  legs: readonly Leg[];
  is: "healthy" | "likeliest" | "possible";
}
const NO_SUSPECTS: readonly DrawnSuspect[] = [];

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
  const figures = useMemo(() => figuresOfVerdict(verdict), [verdict]);
  const lineUpId = verdict?.lineUp.id ?? null;
  const [last, setLast] = useState({ revision, lineUpId, figures, moved: NOTHING_MOVED });
  if (last.revision === revision && last.lineUpId === lineUpId && last.figures === figures) return last.moved;
  let { moved } = last;
  if (lineUpId !== last.lineUpId) moved = NOTHING_MOVED;
  else if (revision !== last.revision && figures && last.figures) {
    const before = last.figures;
    const lineUpName = verdict?.lineUp.name ?? "";
    moved = (["vacuum", "feed", "worst"] as const).flatMap((what) => {
      const [beforePa, afterPa] = [before[what], figures[what]];
      if (beforePa == null || afterPa == null || Math.abs(beforePa - afterPa) < LEAST_MOVE_PA) return [];
      return [{ what, beforePa, afterPa, lineUpName }];
    });
    if (moved.length === 0) moved = NOTHING_MOVED;
  }
  // As it is drawn, not after: an effect would have all that stands in the job drawn twice.
  setLast({ revision, lineUpId, figures, moved });
  return moved;
}
const NOTHING_MOVED: Moved[] = [];

function offerFile(held: Job, say: Say, text: string): void {
  const save = async () => {
    if (!(await saveHeld(held)))
      say({ text: "The store cannot be read: this file holds the job without its log.", lasts: true });
  };
  say({ text, lasts: true, action: { label: "Save the file", run: () => void save() } });
}

interface Props {
  loaded: LoadedJob;
  book: ReadBook;
  say: Say;
  /** Shown in place of the job when it can no longer be read. */
  closed: (state: Exclude<JobState, LoadedJob>, held: Job) => ReactNode;
  children: ReactNode;
}

/** Follows a job as it stands in the store. What no longer parses is set aside here, outside of the query. */
export function JobProvider({ loaded, book, say, closed, children }: Props) {
  const { id } = loaded.job;
  // What was done before this page opened the job is its own to undo.
  const [tab] = useState<Tab>(() => ({ id: PAGE, since: loaded.turn }));
  const shown = useRef<JobState>(loaded);
  const live = useLiveQuery(() => readJob(id, tab).catch(() => shown.current), [id, tab], loaded as JobState);
  useEffect(() => {
    shown.current = live;
    if (live.status === "broken") void quarantine(id, live.faults).catch(() => undefined);
  }, [id, live]);
  const entries = useLiveQuery(() => readBook(id).catch(() => book), [id], book);
  // What was shown last: where the store lost it under the page, it is all there is.
  const [held, setHeld] = useState(loaded.job);
  if (live.status === "open" && live.job !== held) setHeld(live.job);
  if (live.status !== "open") return closed(live, held);
  return (
    <OpenJobProvider live={live} entries={entries} tab={tab} say={say}>
      {children}
    </OpenJobProvider>
  );
}

interface OpenProps {
  live: LoadedJob;
  entries: ReadBook;
  tab: Tab;
  say: Say;
  children: ReactNode;
}

/** Each fault with its place in words; what stands at one place is told once. */
const faultsText = (faults: readonly FileFault[], job: Job) =>
  [
    ...new Set(
      faults.map((fault) => {
        const place = placeText(fault.path, job);
        return `${place ? `${place}: ` : ""}${faultText(fault, job.units)}`;
      }),
    ),
  ].join("; ");

function OpenJobProvider({ live, entries, tab, say, children }: OpenProps) {
  const { standing: book, isWhole: isBookWhole } = entries;
  const { job, revision } = live;
  const { id } = job;
  const plan = currentPlan(job);
  // A name or a unit changes nothing that flows: the network stays, and what hangs on it is not worked out again.
  const { tanks, consumers, fuel, site } = job;
  const network = useMemo(
    () => buildNetwork(job),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [tanks, consumers, fuel, site, plan],
  );
  const solver = useMemo(() => new LineUpSolver(network), [network]);
  const [lineUpId, setLineUpId] = useState<Id | null>(null);
  const [selectedId, select] = useState<Id | null>(null);
  const [focusFinding, setFocusFinding] = useState<Finding | null>(null);
  const lineUp = plan.lineUps.find((one) => one.id === lineUpId) ?? plan.lineUps[0] ?? null;
  const { findings, isJudging } = useFindings(job, isBookWhole ? book : null, useBleedOutcome(job, lineUp));
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
      const asker = currentAsker();
      try {
        const result = await answerInTime(commit(id, madeFrom(job, command), gesture, tab));
        if (!result.ok) {
          const text = faultsText(result.faults, job);
          if (!asker?.(text)) say({ text });
        }
        if (result.ok) {
          for (const note of result.notes) say({ text: noteText(note, result.job) });
          await shown(result.revision);
        }
        return result;
      } catch (error) {
        offerFile(held.current, say, storageFault(error));
        return { ok: false, faults: [{ path: "", code: "storage" }] };
      }
    },
    [id, job, say, shown, tab],
  );
  const enterInBook = useCallback<OpenJob["enter"]>(
    async (drafts, pictures) => {
      try {
        const list = Array.isArray(drafts) ? (drafts as readonly EntryDraft[]) : [drafts as EntryDraft];
        const result = await answerInTime(enter(id, list, pictures));
        if (!result.ok) say({ text: faultsText(result.faults, held.current) });
        return result;
      } catch (error) {
        offerFile(held.current, say, storageFault(error));
        return { ok: false, faults: [{ path: "", code: "storage" }] };
      }
    },
    [id, say],
  );
  const step = useCallback(
    async (way: () => Promise<TravelResult>) => {
      try {
        const result = await answerInTime(way());
        if (result.outcome === "refused") say({ text: faultsText(result.faults, held.current) });
        if (result.outcome === "asks")
          say({
            text: `Another tab has since changed the same (${counted(result.others, "change")}): undo takes that back too.`,
            lasts: true,
            action: { label: "Undo both", run: () => void undo(id, tab, true) },
          });
      } catch (error) {
        offerFile(held.current, say, storageFault(error));
      }
    },
    [id, say, tab],
  );

  const { canUndo, canRedo, exportedAt } = live;
  const value = useMemo<OpenJob>(
    () => ({
      job,
      book,
      isBookWhole,
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
      isJudging,
      focusFinding,
      setFocusFinding,
      moved,
      dispatch,
      enter: enterInBook,
      undo: () => step(() => undo(id, tab)),
      redo: () => step(() => redo(id, tab)),
      say: (text, lasts) => say({ text, ...(lasts && { lasts }) }),
    }),
    [
      job,
      book,
      isBookWhole,
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
      isJudging,
      focusFinding,
      moved,
      dispatch,
      enterInBook,
      step,
      say,
      id,
      tab,
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
  const [held, hold] = useState<Job | null>(null);
  const [suspects, suspect] = useState(NO_SUSPECTS);
  const verdict = useMemo(() => {
    if (!lineUp || (!overlay && !held)) return stored;
    const own = held ? new LineUpSolver(buildNetwork(held)) : solver;
    return judgeLineUp(own, lineUp, overlay ?? plan.conditions, consumerId);
  }, [solver, lineUp, overlay, held, plan.conditions, stored, consumerId]);
  const value = useMemo(
    () => ({
      overlay,
      explore,
      conditions: overlay ?? plan.conditions,
      verdict,
      hold,
      suspects,
      suspect,
    }),
    [overlay, plan.conditions, verdict, suspects],
  );
  const settled = useDeferredValue(value);
  return (
    <ExploredContext.Provider value={value}>
      <SettledContext.Provider value={settled}>{children}</SettledContext.Provider>
    </ExploredContext.Provider>
  );
}

/** Writes figures as the job's trade does. */
export function useTrade(): Trade {
  const { units } = useJob().job;
  return useMemo(() => tradeIn(units), [units]);
}
