import { AArrowUp, Download, HelpCircle, Moon, MoreVertical, Redo2, Undo2 } from "lucide-react";
import { Dialog, DialogTrigger, Popover } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { metricUnits, usUnits } from "~/core/units/format";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { GradeGlyph } from "~/ui/glyphs";
import { Mark } from "~/ui/mark";
import { currentTheme, isTypeLarge, setTheme, setTypeLarge } from "~/ui/theme";
import { useNarrow } from "~/ui/useNarrow";
import { useShortcuts } from "./shortcuts";

const Bar = styled.header`
  grid-area: head; display: flex; align-items: center; gap: 14px; padding: 0 12px; border-bottom: 1.5px solid var(--hairline); background: var(--panel); min-width: 0;
  @media (max-width: 600px) { padding: 0 4px; gap: 4px; height: 48px; }
  @media print { display: none; }
`;
const Name = styled.div`
  display: flex; align-items: baseline; gap: 8px; min-width: 0; font-stretch: 82%;
  h1 { font-size: 18px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
  @media (max-width: 600px) { flex: 1; h1 { font-size: 16px; } }
  span { color: var(--soft); overflow: hidden; text-overflow: ellipsis; white-space: nowrap; max-width: 170px; font-size: 13px; }
  @media (max-width: 1000px) { span { display: none; } }
`;
const LineUpBox = styled.div`
  width: 250px; min-width: 120px; flex: 0 1 250px;
  @media (max-width: 600px) { width: 118px; min-width: 0; flex: 0 0 118px; [data-type="large"] & { width: 92px; flex-basis: 92px; } }
`;
const Moves = styled.p`
  margin: 0; font-size: 13px; font-stretch: 80%; line-height: 1.25; max-height: 2.5em; overflow: hidden; min-width: 0; flex: 1;
  span { white-space: nowrap; }
  b { font-weight: 650; }
  @media (max-width: 600px) { position: absolute; width: 1px; height: 1px; clip-path: inset(50%); }
`;
const Counts = styled.button`
  display: flex; align-items: center; gap: 12px; border: 0; background: none; cursor: pointer; min-height: max(40px, var(--finger)); padding: 0 6px; margin-left: auto; font-stretch: 84%;
  span { display: flex; align-items: center; gap: 5px; font-weight: 600; }
  @media (max-width: 600px) { min-height: 44px; min-width: 44px; padding: 0; justify-content: center; }
`;
const Home = styled(Link)`
  display: grid; place-items: center; width: 44px; height: 44px; flex: none;
`;
const Tools = styled.div`
  display: flex; gap: 0;
  button { padding: 4px 7px; }
`;

const More = styled(Popover)`
  background: var(--panel); border: 1px solid var(--ink); border-radius: 4px; box-shadow: 0 6px 20px #0005;
`;
const MoreList = styled(Dialog)`
  display: grid; outline: none; padding: 4px;
  button { justify-content: start; min-height: 44px; }
`;

const movedNames = {
  vacuum: { name: "vacuum", as: "vacuum" },
  feed: { name: "feed pressure", as: "gauge" },
  worst: { name: "worst part", as: "vacuum" },
} as const;

export function Header({ onFindings, sheetOpen }: { onFindings: () => void; sheetOpen: boolean }) {
  const open = useJob();
  const { job, plan, lineUp, findings, moved } = open;
  const say = useTrade();
  const { openHelp, openSave } = useShortcuts();
  const standing = findings.filter(({ setAside }) => !setAside);
  const count = (grade: string) => standing.filter((finding) => finding.grade === grade).length;
  const isMetric = job.units.length !== "in";
  const narrow = useNarrow();
  const grades = ["stop", "mend", "watch"] as const;
  // On a phone the worst alone stands in the head; the sheet behind it has all.
  const shown = narrow ? [grades.find((grade) => count(grade) > 0) ?? "watch"] : grades;
  // Behind one button what is chosen shuts the list.
  const closes = narrow ? ({ slot: "close" } as const) : {};
  const more = (
    <>
      <Button
        $quiet
        {...closes}
        aria-label="Redo"
        isDisabled={!open.canRedo}
        onPress={() => void open.redo()}
      >
        <Redo2 size={18} /> {narrow && "Redo"}
      </Button>
      <Button
        $quiet
        {...closes}
        aria-label={`Units: ${isMetric ? "metric" : "inch"}; change over`}
        onPress={() =>
          void open.dispatch({
            name: "editJob",
            change: { units: isMetric ? { ...usUnits } : { ...metricUnits } },
          })
        }
      >
        {narrow ? (isMetric ? "To inches" : "To metric") : job.units.pressure}
      </Button>
      <Button $quiet {...closes} aria-label="Save the job as a file" onPress={openSave}>
        <Download size={18} /> {narrow && "Save as a file"}
      </Button>
      <Button
        $quiet
        {...closes}
        aria-label="Day or night"
        onPress={() => setTheme(currentTheme() === "day" ? "night" : "day")}
      >
        <Moon size={18} /> {narrow && "Day or night"}
      </Button>
      {narrow && (
        <Button $quiet {...closes} onPress={() => setTypeLarge(!isTypeLarge())}>
          <AArrowUp size={18} /> Large type
        </Button>
      )}
      <Button $quiet {...closes} aria-label="Keys and what can be done" onPress={openHelp}>
        <HelpCircle size={18} /> {narrow && "What can be done"}
      </Button>
    </>
  );
  return (
    <Bar>
      <Home to="/" aria-label="All jobs">
        <Mark />
      </Home>
      <Name>
        <h1>{job.name}</h1>
        <span title={job.note}>{job.note}</span>
      </Name>
      <LineUpBox>
        <Select
          label="Line-up"
          hideLabel
          value={lineUp?.id ?? null}
          options={plan.lineUps}
          onChange={open.chooseLineUp}
          placeholder="no line-up"
        />
      </LineUpBox>
      <Moves role="status" aria-label="Figures that moved">
        {moved.map(({ what, beforePa, afterPa }) => (
          <span key={what}>
            {movedNames[what].name} {say[movedNames[what].as](beforePa)} to{" "}
            <b>{say[movedNames[what].as](afterPa)}</b>{" "}
          </span>
        ))}
      </Moves>
      <Counts
        type="button"
        onClick={onFindings}
        aria-expanded={sheetOpen}
        aria-label={`Findings: ${count("stop")} Stop, ${count("mend")} Mend, ${count("watch")} Watch`}
      >
        {shown.map((grade) => (
          <span key={grade}>
            <GradeGlyph grade={grade} size={18} /> {count(grade)}
          </span>
        ))}
      </Counts>
      <Tools>
        <Button $quiet aria-label="Undo" isDisabled={!open.canUndo} onPress={() => void open.undo()}>
          <Undo2 size={18} />
        </Button>
        {narrow ? (
          <DialogTrigger>
            <Button $quiet aria-label="More">
              <MoreVertical size={18} />
            </Button>
            <More placement="bottom end">
              <MoreList aria-label="More">{more}</MoreList>
            </More>
          </DialogTrigger>
        ) : (
          more
        )}
      </Tools>
    </Bar>
  );
}
