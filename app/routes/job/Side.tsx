/** Beside the drawing: what is chosen, and the findings. On a narrow screen a sheet that the counts open. */
import { X } from "lucide-react";
import { useState } from "react";
import styled, { css } from "styled-components";
import { type Finding, findingKey } from "~/core/findings/index";
import { findingText, holdsInText } from "~/messages/findings";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { TextField } from "~/ui/fields";
import { GradeGlyph } from "~/ui/glyphs";
import { Inspector } from "./Inspector";

const Panel = styled.aside<{ $open: boolean }>`
  grid-area: side; border-left: 1.5px solid var(--hairline); background: var(--panel); display: flex; flex-direction: column; min-width: 0; min-height: 0; contain: layout paint style;
  @media (max-width: 1000px) {
    position: fixed; right: 0; top: 48px; bottom: 0; width: min(360px, 100vw); z-index: 20; box-shadow: -8px 0 24px #0003;
    ${({ $open }) => !$open && css`display: none;`}
  }
  @media print { display: none; }
`;
/** What is chosen and the findings scroll apart, so that the findings stay in sight. */
const Chosen = styled.div`
  flex: 0 1 auto; max-height: 64%; overflow: auto; padding: 12px 16px 4px;
`;
const Standing = styled.div`
  flex: 1 1 0; min-height: 150px; overflow: auto; padding: 0 16px 12px; border-top: 1.5px solid var(--hairline);
`;
const Close = styled.div`
  display: none; justify-content: flex-end;
  @media (max-width: 1000px) { display: flex; }
`;
const Head = styled.div`
  display: flex; align-items: baseline; justify-content: space-between; margin: 10px 0 4px;
`;
const List = styled.ul`
  list-style: none; margin: 0; padding: 0;
`;
/** While something is chosen each finding is its title alone, until it is opened. */
const Row = styled.li<{ $chosen: boolean; $aside: boolean }>`
  border-bottom: 1px solid var(--hairline); padding: 8px 0; opacity: ${({ $aside }) => ($aside ? 0.75 : 1)};
  > button { display: grid; grid-template-columns: 20px 1fr; gap: 8px; width: 100%; border: 0; background: none; text-align: left; padding: 2px 0; cursor: pointer; min-height: max(32px, var(--finger)); }
  b { font-weight: 650; font-stretch: 86%; }
  .detail { grid-column: 2; font-size: 13px; color: var(--soft); font-stretch: 86%; }
  dl { margin: 6px 0 6px 28px; font-size: 13px; display: grid; gap: 4px; font-stretch: 88%; }
  dt { color: var(--soft); font-size: 12px; } dd { margin: 0; }
`;

export function Side({ isSheetOpen, onClose }: { isSheetOpen: boolean; onClose: () => void }) {
  const { findings, isJudging } = useJob();
  const standing = findings.filter(({ setAside }) => !setAside).length;
  return (
    <Panel $open={isSheetOpen} aria-label="Chosen part and findings">
      <Close>
        <Button $quiet aria-label="Close" onPress={onClose}>
          <X size={18} />
        </Button>
      </Close>
      <Chosen id="chosen" tabIndex={0} role="group" aria-label="What is chosen">
        <Inspector />
      </Chosen>
      <Standing tabIndex={0} role="group" aria-label="Findings">
        <Head>
          <h2>Findings</h2>
          <span>{standing === 0 && isJudging ? "" : standing === 0 ? "none" : standing}</span>
        </Head>
        {findings.length === 0 && isJudging && <p>Looking…</p>}
        {findings.length === 0 && !isJudging && <p>Nothing stands against this plan as it is set.</p>}
        <List>
          {findings.map((finding) => (
            <FindingRow key={findingKey(finding)} finding={finding} />
          ))}
        </List>
      </Standing>
    </Panel>
  );
}

function FindingRow({ finding }: { finding: Finding }) {
  const open = useJob();
  const { job, plan, focusFinding } = open;
  const [asking, setAsking] = useState(false);
  const text = findingText(finding, job.units, (id) => nameOf(job, id));
  const isChosen = focusFinding !== null && findingKey(focusFinding) === findingKey(finding);
  const lineUps = finding.lineUpIds
    .map((id) => plan.lineUps.find((one) => one.id === id)?.name)
    .filter((one) => one !== undefined);
  const holdsIn = holdsInText(text.title, lineUps, plan.lineUps.length);
  const isBrief = open.selectedId !== null && focusFinding === null;
  const choose = () => {
    open.setFocusFinding(isChosen ? null : finding);
    if (isChosen) return;
    const [id] = finding.ids;
    const [lineUpId] = finding.lineUpIds;
    if (id) open.select(id);
    if (lineUpId && !finding.lineUpIds.includes(open.lineUp?.id ?? "")) open.chooseLineUp(lineUpId);
  };
  return (
    <Row $chosen={isChosen} $aside={finding.setAside !== undefined}>
      <button type="button" onClick={choose} aria-expanded={isChosen}>
        <GradeGlyph grade={finding.grade} />
        <span>
          <span className="sr">{finding.grade}: </span>
          <b style={{ color: finding.grade === "stop" ? "var(--danger)" : undefined }}>{text.title}</b>
          {holdsIn && ` ${holdsIn}`}
        </span>
        <span className="detail" hidden={isBrief && !isChosen}>
          {finding.setAside ? `Set aside: ${finding.setAside.reason}` : text.detail}
        </span>
      </button>
      {isChosen && (
        <>
          <dl>
            <div>
              <dt>Why it matters</dt>
              <dd>{text.why}</dd>
            </div>
            <div>
              <dt>What to do</dt>
              <dd>{text.mend}</dd>
            </div>
            <div>
              <dt>Basis</dt>
              <dd>{text.basis}</dd>
            </div>
            {lineUps.length > 0 && (
              <div>
                <dt>Holds in</dt>
                <dd>{lineUps.join(", ")}</dd>
              </div>
            )}
          </dl>
          <Actions>
            {finding.setAside ? (
              <Button
                onPress={() =>
                  finding.setAside && void open.enter({ kind: "strike", entryId: finding.setAside.id })
                }
              >
                Take up again
              </Button>
            ) : (
              <Button onPress={() => setAsking(true)}>Set aside…</Button>
            )}
          </Actions>
        </>
      )}
      <SetAsideDialog finding={finding} isOpen={asking} onOpenChange={setAsking} title={text.title} />
    </Row>
  );
}

function SetAsideDialog({
  finding,
  isOpen,
  onOpenChange,
  title,
}: {
  finding: Finding;
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
}) {
  const { enter } = useJob();
  const [reason, setReason] = useState("");
  const keep = () => {
    const { rule, ids, figure, about } = finding;
    const which = about === undefined ? {} : { about };
    void enter({ kind: "setAside", rule, ids, ...which, lineUpId: null, reason, figure });
    onOpenChange(false);
  };
  return (
    <Dialog title="Set this finding aside" isOpen={isOpen} onOpenChange={onOpenChange}>
      <p>
        {title}. The reason is kept with its figure, printed at hand-over, and the finding comes back if it
        gets worse.
      </p>
      <TextField label="Reason" value={reason} onCommit={setReason} autoFocus />
      <Actions>
        <Button onPress={() => onOpenChange(false)}>Cancel</Button>
        <Button $main isDisabled={reason === ""} onPress={keep}>
          Set aside
        </Button>
      </Actions>
    </Dialog>
  );
}
