/** What is due and when, the next first; and as a file for the calendar. */
import { CalendarDays } from "lucide-react";
import { useMemo, useState } from "react";
import { namedIn, takeOut } from "~/core/box/box";
import { type Due, doneDraft, dueOf } from "~/core/care/due";
import type { GaugeTrend } from "~/core/care/gaugeTrend";
import { isFiltering } from "~/core/kinds/families";
import { newId } from "~/core/kinds/ids";
import type { ServiceInterval } from "~/core/plan/types";
import { notNegative } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { buyText } from "~/messages/buying";
import { calendarDays, dueDetail, dueText, dueWhen } from "~/messages/care";
import { nameOf } from "~/messages/notes";
import { useBox } from "~/state/box";
import { fileName, saveText } from "~/state/files";
import { type OpenJob, useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Select, TextField } from "~/ui/fields";
import { ActionsHead, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";

async function saveCalendar({ job, book }: OpenJob, due: readonly Due[]): Promise<void> {
  const { calendarText } = await import("~/schemas/calendar");
  const last = book.reduce((most, { at }) => Math.max(most, Date.parse(at)), 0);
  const days = calendarDays(job, due, (id) => nameOf(job, id));
  saveText(`${fileName(job.name)}.ics`, calendarText(job.name, days, new Date(last)), "text/calendar");
}

/** A new item of the shop's own comes round so often until it says otherwise. */
const OWN_MONTHS = 12;

const basisNames: { id: ServiceInterval["basis"]; name: string }[] = [
  { id: "maker", name: "its maker" },
  { id: "own", name: "this shop" },
  { id: "common", name: "common practice" },
];

/** How often a thing is due, and by whose word; nought for both leaves it out. */
function HowOften({
  of,
  onClose,
  onPut,
}: {
  of: Due;
  onClose: () => void;
  onPut: (id: string, interval: ServiceInterval) => void;
}) {
  const { job } = useJob();
  const [months, setMonths] = useState(of.every.months ?? 0);
  const [hours, setHours] = useState(of.every.hours ?? 0);
  const [basis, setBasis] = useState<ServiceInterval["basis"]>(
    of.every.basis === "common" ? "maker" : of.every.basis,
  );
  return (
    <Dialog title={dueText(of, (id) => nameOf(job, id))} isOpen onOpenChange={(open) => !open && onClose()}>
      <QuantityField
        label="Every so many months"
        dimension="ratio"
        unit=""
        value={months}
        check={notNegative}
        onCommit={setMonths}
      />
      <QuantityField
        label="Or every so many engine hours"
        dimension="ratio"
        unit=""
        value={hours}
        check={notNegative}
        onCommit={setHours}
      />
      <Select label="By" value={basis} options={basisNames} onChange={setBasis} />
      <p>Nought for both: it is not asked for.</p>
      <Actions>
        <Button onPress={onClose}>Leave it</Button>
        <Button
          $main
          onPress={() => {
            onPut(of.id, { months, hours, basis, ...(of.name === undefined ? {} : { name: of.name }) });
            onClose();
          }}
        >
          Keep it
        </Button>
      </Actions>
    </Dialog>
  );
}

export function DueList({
  trends,
  isOwner = false,
}: {
  trends: readonly GaugeTrend[];
  /** Looks and logs: the intervals are not changed. */
  isOwner?: boolean;
}) {
  const open = useJob();
  const { job, plan, book, select, dispatch, enter, say } = open;
  const box = useBox(say);
  const due = useMemo(() => dueOf({ job, plan }, book, trends), [job, plan, book, trends]);
  const isDated = due.some(({ on }) => on !== null);
  const [edited, setEdited] = useState<Due | null>(null);
  const [own, setOwn] = useState("");
  const put = (id: string, interval: ServiceInterval) =>
    void dispatch({ name: "editJob", change: { service: { ...job.service, [id]: interval } } });
  /** The element that went in came out of the shop's box, where it holds one by that name. */
  const fromBox = async (partId: string) => {
    const part = plan.parts.find(({ id }) => id === partId);
    if (!part || !isFiltering(part)) return;
    const name = buyText({ kind: "element", micron: part.micron, of: part.kind }, job.units);
    const item = namedIn(box.items, name);
    if (!item) return;
    await box.change((items) => takeOut(items, item.id));
    say(`One taken out of the box: ${item.name}, ${item.count - 1} left.`);
  };
  const done = async (one: Due) => {
    const draft = doneDraft(
      { plan },
      book,
      one,
      dueText(one, (id) => nameOf(job, id)),
    );
    const result = await enter(draft);
    if (result.ok && draft.kind === "elementChanged" && !isOwner)
      await dispatch({
        name: "changeElement",
        id: draft.partId,
        fittedOn: new Date().toISOString().slice(0, 10),
      });
    if (result.ok && draft.kind === "elementChanged") await fromBox(draft.partId);
  };
  return (
    <Sheet aria-label="What is due">
      <h3>What is due</h3>
      {due.length === 0 ? (
        <p>Nothing in the plan falls due: no filter, and no tank that is drawn from.</p>
      ) : (
        <Table>
          <thead>
            <tr>
              <th>When</th>
              <th>What</th>
              <th className="wide">Why</th>
              <ActionsHead />
            </tr>
          </thead>
          <tbody>
            {due.map((one) => (
              <tr key={one.id}>
                <td style={{ fontWeight: 650 }}>{dueWhen(one)}</td>
                <td>
                  <Button $quiet style={{ padding: 0, textAlign: "left" }} onPress={() => select(one.ofId)}>
                    {dueText(one, (id) => nameOf(job, id))}
                  </Button>
                </td>
                <td className="wide">{dueDetail(one)}</td>
                <td>
                  {one.kind !== "elementTrend" && (
                    <>
                      <Button
                        $quiet
                        aria-label={`Done: ${dueText(one, (id) => nameOf(job, id))}`}
                        onPress={() => void done(one)}
                      >
                        Done
                      </Button>
                      {!isOwner && (
                        <Button
                          $quiet
                          aria-label={`How often: ${dueText(one, (id) => nameOf(job, id))}`}
                          onPress={() => setEdited(one)}
                        >
                          How often…
                        </Button>
                      )}
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {!isOwner && (
        <div
          style={{
            display: "flex",
            flexWrap: "wrap",
            gap: "8px 14px",
            alignItems: "flex-end",
            margin: "8px 0",
          }}
        >
          <TextField label="Something of your own to look after" value={own} onCommit={setOwn} />
          <Button
            isDisabled={own.trim() === ""}
            onPress={() => {
              put(`own:${newId()}`, { months: OWN_MONTHS, basis: "own", name: own.trim() });
              setOwn("");
            }}
          >
            Add it
          </Button>
        </div>
      )}
      {edited && <HowOften of={edited} onClose={() => setEdited(null)} onPut={put} />}
      <Button isDisabled={!isDated} onPress={() => void saveCalendar(open, due)}>
        <CalendarDays size={16} aria-hidden /> Calendar file
      </Button>
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        Taken into a calendar once more it updates what is there: nothing stands twice.
      </p>
    </Sheet>
  );
}
