/** Single keys for what is done all day, listed under `?`, with a switch to turn them off; and a palette on Ctrl+K. */
import {
  createContext,
  lazy,
  type ReactNode,
  Suspense,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { places } from "~/core/findings/rule";
import { presetFuel } from "~/core/fuel/fuel";
import { gradeIds, grades } from "~/core/fuel/grades";
import { partsOf } from "~/core/plan/ports";
import { placeNames } from "~/messages/outcomes";
import { useJob } from "~/state/job";
import { Dialog } from "~/ui/dialog";
import { Switch } from "~/ui/fields";
import { Find } from "~/ui/find";
import { areKeysOff, isAside, isTyping, turnKeys } from "~/ui/keys";
import { currentTheme, isTypeLarge, setTheme, setTypeLarge } from "~/ui/theme";
import { focusDrawn } from "./focusDrawn";

const SaveFile = lazy(() => import("../jobs/SaveFile"));

export interface Action {
  id: string;
  name: string;
  key?: string;
  run: () => void;
}

interface Shortcuts {
  openPalette: () => void;
  openHelp: () => void;
  openSave: () => void;
  /** Actions of the place that is open, beside those of every place. */
  setLocal: (actions: Action[]) => void;
}

const Context = createContext<Shortcuts>({
  openPalette: () => undefined,
  openHelp: () => undefined,
  openSave: () => undefined,
  setLocal: () => undefined,
});
export const useShortcuts = () => useContext(Context);

const Rows = styled.dl`
  display: grid; grid-template-columns: 72px 1fr; gap: 4px 12px; margin: 0;
  dt { font-weight: 650; } dd { margin: 0; }
`;
/** From the drawing to the figures of what is chosen, and back. */
function acrossToFigures(chosenId: string | null): void {
  const figures = document.querySelector<HTMLElement>("#chosen");
  if (figures && !figures.contains(document.activeElement)) figures.focus();
  else if (chosenId !== null) focusDrawn(chosenId);
}

/** To the name of what is chosen, all of it marked: what is typed takes its place, and Enter goes back to the drawing. */
function toItsName(chosenId: string | null): void {
  const name = document.querySelector<HTMLInputElement>('#chosen input[name="name"]');
  if (!name || chosenId === null) return;
  name.focus();
  name.select();
  const onKey = ({ key }: KeyboardEvent) => {
    if (key === "Enter") setTimeout(() => focusDrawn(chosenId));
  };
  name.addEventListener("keydown", onKey);
  name.addEventListener("blur", () => name.removeEventListener("keydown", onKey), { once: true });
}

export function ShortcutsProvider({ children }: { children: ReactNode }) {
  const open = useJob();
  const navigate = useNavigate();
  const [palette, setPalette] = useState(false);
  const [help, setHelp] = useState(false);
  const [saving, setSaving] = useState(false);
  const [off, setOff] = useState(areKeysOff);
  const [local, setLocal] = useState<Action[]>([]);

  const { plan, lineUp, job } = open;
  const nextLineUp = () => {
    const at = plan.lineUps.findIndex(({ id }) => id === lineUp?.id);
    const next = plan.lineUps[(at + 1) % Math.max(1, plan.lineUps.length)];
    if (next) open.chooseLineUp(next.id);
  };
  const actions: Action[] = [
    ...places.map((place, i) => ({
      id: place,
      name: `Go to ${placeNames[place]}`,
      key: String(i + 1),
      run: () => void navigate(`/job/${job.id}/${place}`),
    })),
    { id: "lineUp", name: "Next line-up", key: "l", run: nextLineUp },
    { id: "undo", name: "Undo", key: "u", run: () => void open.undo() },
    { id: "redo", name: "Redo", key: "r", run: () => void open.redo() },
    {
      id: "theme",
      name: "Day or night",
      key: "n",
      run: () => setTheme(currentTheme() === "day" ? "night" : "day"),
    },
    { id: "type", name: "Large type, or back", run: () => setTypeLarge(!isTypeLarge()) },
    { id: "export", name: "Save the job as a file", key: "s", run: () => setSaving(true) },
    {
      id: "figures",
      name: "From the drawing to the figures, and back",
      key: "f",
      run: () => acrossToFigures(open.selectedId),
    },
    { id: "name", name: "Call what is chosen otherwise", key: "F2", run: () => toItsName(open.selectedId) },
    { id: "unselect", name: "Choose nothing", key: "Escape", run: () => open.select(null) },
    ...gradeIds.map((grade) => ({
      id: `fuel-${grade}`,
      name: `Fuel: ${grades[grade].standard}`,
      run: () => void open.dispatch({ name: "editJob", change: { fuel: presetFuel(grade) } }),
    })),
    ...plan.lineUps.map((one) => ({
      id: `lineUp-${one.id}`,
      name: `Line-up: ${one.name}`,
      run: () => open.chooseLineUp(one.id),
    })),
    ...local,
  ];
  // By its own name, so that what is typed whole stands first.
  const things = [...job.tanks, ...partsOf(job, plan)].map(({ id, name }) => ({
    id: `choose-${id}`,
    name,
    words: "choose",
    note: "choose",
    run: () => {
      open.select(id);
      focusDrawn(id);
    },
  }));
  const latest = useRef(actions);
  const chosen = useRef(open.selectedId);
  useEffect(() => {
    latest.current = actions;
    chosen.current = open.selectedId;
  });

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const mod = event.ctrlKey || event.metaKey;
      if (mod && event.key.toLowerCase() === "k") {
        event.preventDefault();
        setPalette(true);
        return;
      }
      if (event.key === "F6") {
        event.preventDefault();
        acrossToFigures(chosen.current);
        return;
      }
      if (isTyping(event.target)) {
        // Out of a field it goes back to what the field is of.
        if (event.key === "Escape" && !isAside() && chosen.current !== null) focusDrawn(chosen.current);
        return;
      }
      if (mod && event.key.toLowerCase() === "z") {
        event.preventDefault();
        latest.current.find(({ id }) => id === (event.shiftKey ? "redo" : "undo"))?.run();
        return;
      }
      if (mod || event.altKey || off) return;
      if (isAside()) return;
      if (event.key === "?") {
        setHelp(true);
        return;
      }
      const action = latest.current.find(({ key }) => key !== undefined && key === event.key);
      if (!action) return;
      event.preventDefault();
      action.run();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [off]);

  const value = useMemo(
    () => ({
      openPalette: () => setPalette(true),
      openHelp: () => setHelp(true),
      openSave: () => setSaving(true),
      setLocal,
    }),
    [],
  );
  const turn = (on: boolean) => {
    setOff(!on);
    turnKeys(on);
  };
  return (
    <Context.Provider value={value}>
      {children}
      {saving && (
        <Suspense>
          <SaveFile id={job.id} name={job.name} onClose={() => setSaving(false)} />
        </Suspense>
      )}
      <Dialog title="Do" isOpen={palette} onOpenChange={setPalette}>
        <Find
          label="What to do"
          placeholder="What to do, or a part by its name"
          of="Actions"
          items={[...actions, ...things]}
          onChoose={(id) => {
            setPalette(false);
            [...actions, ...things].find((action) => action.id === id)?.run();
          }}
        />
      </Dialog>
      <Dialog title="Keys" isOpen={help} onOpenChange={setHelp}>
        <Switch isOn={!off} onChange={turn}>
          Single keys work
        </Switch>
        <Rows>
          <dt>Ctrl K</dt>
          <dd>Everything that can be done, by name</dd>
          <dt>Ctrl Z</dt>
          <dd>Undo; with Shift redo</dd>
          <dt>Alt arrows</dt>
          <dd>Move the part that has focus on the drawing</dd>
          <dt>Arrows</dt>
          <dd>On the drawing: right and left along the hoses, up and down over branches</dd>
          <dt>F6</dt>
          <dd>From the drawing to the figures of what is chosen and back, from a field as well</dd>
          {actions
            .filter(({ key }) => key)
            .map(({ id, name, key }) => [<dt key={`${id}k`}>{key}</dt>, <dd key={id}>{name}</dd>])}
        </Rows>
      </Dialog>
    </Context.Provider>
  );
}

/** Adds a place's own actions while it is open. */
export function useLocalActions(actions: Action[]): void {
  const { setLocal } = useShortcuts();
  const key = actions.map(({ id, name }) => id + name).join("|");
  const latest = useRef(actions);
  useEffect(() => {
    latest.current = actions;
  });
  useEffect(() => {
    setLocal(
      latest.current.map((action) => ({
        ...action,
        run: () => latest.current.find(({ id }) => id === action.id)?.run(),
      })),
    );
    return () => setLocal([]);
  }, [key, setLocal]);
}
