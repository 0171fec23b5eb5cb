/*
 * Decides: what of the shop's own stock is used before anything is bought.
 * Seen in three seconds: lengths of hose to scale, adapters and things with their counts, what is like the one in the hand.
 */
import { Download, Undo2 } from "lucide-react";
import { useRef, useState } from "react";
import styled from "styled-components";
import { type BoxItem, type Counted as CountedItem, likeInHand, putIn, takeOut } from "~/core/box/box";
import { adapterWith, shapeOf } from "~/core/ends/adapters";
import { type End, endKey } from "~/core/ends/ends";
import { newId } from "~/core/kinds/ids";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { counted } from "~/messages/counted";
import { adapterText, endText } from "~/messages/ends";
import { partKindName } from "~/messages/kinds";
import type { useBox } from "~/state/box";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, TextField } from "~/ui/fields";
import { Sheet } from "~/ui/place";
import { InHandFields, useInHand } from "./InHand";

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; align-items: flex-end; padding: 0 16px 8px;
  > p { flex: 1; margin: 0; min-width: 200px; align-self: center; }
`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 8px 12px; align-items: end; margin-bottom: 8px;
`;
const Lines = styled.ul`
  list-style: none; margin: 0; padding: 0;
  li { display: flex; gap: 8px; align-items: center; border-bottom: 1px solid var(--hairline); min-height: 36px; }
  li > b { min-width: 44px; text-align: right; }
  li > span { flex: 1; }
  @media (pointer: coarse) { li { min-height: 48px; } }
`;

export function Box({ box }: { box: ReturnType<typeof useBox> }) {
  const { items, unread, canUndo, isOpen, change, undo, save, open } = box;
  const picker = useRef<HTMLInputElement>(null);
  const hand = useInHand();
  const { outsideM, pitchM } = hand;
  const isSought = outsideM !== undefined;
  const found = isSought ? likeInHand(items, outsideM, pitchM) : items;
  const put = (item: BoxItem) => void change((now) => putIn(now, item));
  const take = (id: string) => void change((now) => takeOut(now, id));
  return (
    <>
      <Row>
        <p>
          {isOpen ? `${counted(items.length, "line")} in the box, for all jobs.` : "The box is not read."}
          {unread > 0 && ` ${counted(unread, "line")} of a newer version: left as they are.`}
        </p>
        <Button isDisabled={!canUndo} onPress={() => void undo()}>
          <Undo2 size={16} /> Undo in the box
        </Button>
        <Button isDisabled={!isOpen} onPress={save}>
          <Download size={16} /> Save the box
        </Button>
        <Button onPress={() => picker.current?.click()}>Open a box</Button>
        <input
          ref={picker}
          type="file"
          hidden
          aria-label="A box file"
          accept=".json,application/json"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void open(file);
            event.target.value = "";
          }}
        />
      </Row>
      <Sheet>
        <h3>By what is in the hand</h3>
        <Fields>
          <InHandFields hand={hand} />
          {isSought && <Button onPress={hand.clear}>Show all</Button>}
        </Fields>
        {isSought && (
          <p>It may be {hand.guesses.slice(0, 3).map(endText).join(", or ") || "nothing that is known"}.</p>
        )}
      </Sheet>
      <Sheet>
        <h3>Adapters</h3>
        <AddAdapter
          onAdd={(shape) => put({ kind: "adapter", id: newId(), shape, count: 1 })}
          guesses={hand.guesses}
        />
        <Lines>
          {found.map((item) =>
            item.kind === "adapter" ? (
              <Counted key={item.id} item={item} name={adapterText(item.shape)} put={put} take={take} />
            ) : null,
          )}
        </Lines>
      </Sheet>
      {!isSought && (
        <>
          <HoseStock items={items} put={put} take={take} />
          <Saws items={items} put={put} take={take} />
          <KeptParts items={items} take={take} />
          <Things items={items} put={put} take={take} />
        </>
      )}
    </>
  );
}

interface StockProps {
  items: readonly BoxItem[];
  put: (item: BoxItem) => void;
  take: (id: string) => void;
}

/** A line that is counted: one more, or one out. */
function Counted({ item, name, put, take }: Omit<StockProps, "items"> & { item: CountedItem; name: string }) {
  return (
    <li>
      <b>{item.count}</b>
      <span>{name}</span>
      <Button $quiet aria-label={`One more: ${name}`} onPress={() => put({ ...item, id: newId(), count: 1 })}>
        one more
      </Button>
      <Button $quiet aria-label={`Take one: ${name}`} onPress={() => take(item.id)}>
        take one
      </Button>
    </li>
  );
}

function HoseStock({ items, put, take }: StockProps) {
  const { job, plan } = useJob();
  const trade = useTrade();
  const [marking, setMarking] = useState(plan.runs[0]?.product.marking ?? "ISO 7840 A1");
  const [boreM, setBore] = useState<number | undefined>(plan.runs[0]?.boreM);
  const [form, setForm] = useState<"offcut" | "coil">("offcut");
  const hoses = items.filter((one) => one.kind === "hose").sort((a, b) => b.lengthM - a.lengthM);
  const longest = Math.max(1, ...hoses.map(({ lengthM }) => lengthM));
  return (
    <Sheet>
      <h3>Hose</h3>
      <Fields>
        <TextField label="Marking" value={marking} onCommit={setMarking} />
        <QuantityField
          label="Bore"
          dimension="length"
          unit={job.units.bore}
          value={boreM}
          check={positive}
          onCommit={setBore}
        />
        <Select
          label="It is"
          value={form}
          options={[
            { id: "offcut", name: "an offcut" },
            { id: "coil", name: "a coil" },
          ]}
          onChange={setForm}
        />
        <QuantityField
          // Emptied once it is in, so that leaving the field does not put it in again.
          key={hoses.length}
          label="Length, to put it in"
          dimension="length"
          unit={job.units.length}
          value={undefined}
          check={positive}
          onCommit={(lengthM) => {
            if (boreM !== undefined) put({ kind: "hose", id: newId(), marking, boreM, lengthM, form });
          }}
        />
      </Fields>
      <Lines>
        {hoses.map((one) => (
          <li key={one.id}>
            <b>{trade.run(one.lengthM)}</b>
            <span>
              {one.marking}, {trade.bore(one.boreM)}, {one.form}
              <svg width="100%" height="8" role="img" aria-label="to scale">
                <line
                  x1="0"
                  x2={`${(100 * one.lengthM) / longest}%`}
                  y1="4"
                  y2="4"
                  stroke="var(--ink)"
                  strokeWidth={4}
                />
              </svg>
            </span>
            <Button
              $quiet
              aria-label={`Take ${trade.run(one.lengthM)} of ${one.marking} out`}
              onPress={() => take(one.id)}
            >
              take out
            </Button>
          </li>
        ))}
      </Lines>
      {hoses.length === 0 && <p>No hose in the box: every length is bought.</p>}
    </Sheet>
  );
}

/** Hole saws that the shop owns: a hole is cut with one of them where it fits. */
function Saws({ items, put, take }: StockProps) {
  const { job } = useJob();
  const { length } = useTrade();
  const saws = items.flatMap((item) => (item.kind === "saw" ? [item] : []));
  return (
    <Sheet>
      <h3>Hole saws</h3>
      <Fields>
        <QuantityField
          key={saws.length}
          label="Diameter, to put one in"
          dimension="length"
          unit={job.units.bore}
          value={undefined}
          check={positive}
          onCommit={(diameterM) => put({ kind: "saw", id: newId(), diameterM })}
        />
      </Fields>
      <Lines>
        {[...saws]
          .sort((a, b) => a.diameterM - b.diameterM)
          .map(({ id, diameterM }) => (
            <li key={id}>
              <b>{length(diameterM)}</b>
              <span>hole saw</span>
              <Button $quiet onPress={() => take(id)}>
                take out
              </Button>
            </li>
          ))}
      </Lines>
    </Sheet>
  );
}

/** Parts with their figures as the shop knows them; they are put in from a plan, and taken into another one there. */
function KeptParts({ items, take }: Omit<StockProps, "put">) {
  const kept = items.flatMap((item) => (item.kind === "part" ? [item] : []));
  return (
    <Sheet>
      <h3>Parts the shop knows</h3>
      {kept.length === 0 && (
        <p>None yet. Choose a part in Lay out and keep it: its figures are typed once.</p>
      )}
      <Lines>
        {kept.map(({ id, name, part, on }) => (
          <li key={id}>
            <b>{partKindName(part.kind)}</b>
            <span>
              {name}, kept {on}
            </span>
            <Button $quiet onPress={() => take(id)}>
              take out
            </Button>
          </li>
        ))}
      </Lines>
    </Sheet>
  );
}

function Things({ items, put, take }: StockProps) {
  return (
    <Sheet>
      <h3>Elements, seals, clamps and the rest</h3>
      <Fields>
        <TextField
          key={items.length}
          label="Name, to put one in"
          value=""
          onCommit={(name) => put({ kind: "thing", id: newId(), name, count: 1 })}
        />
      </Fields>
      <Lines>
        {items.map((item) =>
          item.kind === "thing" ? (
            <Counted key={item.id} item={item} name={item.name} put={put} take={take} />
          ) : null,
        )}
      </Lines>
    </Sheet>
  );
}

/** An adapter by its two ends: what is in the hand is offered first, then the ends of this plan. */
function AddAdapter({ onAdd, guesses }: { onAdd: (shape: string) => void; guesses: readonly End[] }) {
  const { plan } = useJob();
  const [first, setFirst] = useState<End | null>(null);
  const [second, setSecond] = useState<End | null>(null);
  const known = [...guesses, ...Object.values(plan.ends ?? {}).flatMap((ends) => Object.values(ends))];
  const unique = [...new Map(known.map((end) => [endKey(end), end])).values()];
  if (unique.length === 0)
    return <p>Measure an end above, or enter ends under Joints: then it can be put in here.</p>;
  const options = unique.map((end) => ({ id: endKey(end), name: endText(end) }));
  const pick = (key: string) => unique.find((end) => endKey(end) === key) ?? null;
  const shape = first && second ? adapterWith(first, second) : null;
  return (
    <Fields>
      <Select
        label="One end"
        value={first && endKey(first)}
        options={options}
        placeholder="choose"
        onChange={(key) => setFirst(pick(key))}
      />
      <Select
        label="Other end"
        value={second && endKey(second)}
        options={options}
        placeholder="choose"
        onChange={(key) => setSecond(pick(key))}
      />
      <Button isDisabled={!shape || !shapeOf(shape.id)} onPress={() => shape && onAdd(shape.id)}>
        Put it in
      </Button>
      {first && second && !shape && <p>No such adapter is made.</p>}
    </Fields>
  );
}
