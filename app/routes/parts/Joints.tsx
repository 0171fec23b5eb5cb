/** The joints of the plan, one by one: what meets, whether it seals, what goes between and what must go on it. */
import { type ReactNode, useState } from "react";
import styled from "styled-components";
import { type Chain, otherChains } from "~/core/ends/chain";
import { type End, joining, lookAlikes } from "~/core/ends/ends";
import {
  type JointLookFor,
  type JointSide,
  type JointState,
  looksOf,
  type PlanJoint,
} from "~/core/joints/joints";
import { LookField } from "~/fields/LookField";
import { counted } from "~/messages/counted";
import {
  adapterEnds,
  adapterText,
  dressTexts,
  endText,
  familyName,
  feelTexts,
  jointLookTexts,
  jointStateTexts,
  whyTexts,
} from "~/messages/ends";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Caution, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { EndFields } from "./EndFields";
import { JointDrawing, type Piece } from "./JointDrawing";

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(190px, 250px) minmax(0, 1fr); gap: 12px; padding: 0 16px;
  @media (max-width: 800px) { grid-template-columns: minmax(0, 1fr); }
`;
const List = styled.ol`
  list-style: none; margin: 0; padding: 0; max-height: 62vh; overflow: auto; border: 1px solid var(--hairline); background: var(--raised);
  @media (max-width: 800px) { max-height: 30vh; }
  button {
    display: grid; grid-template-columns: 26px 1fr 20px; gap: 6px; width: 100%; align-items: center; text-align: left; border: 0; background: none; padding: 4px 8px; min-height: max(32px, var(--finger)); cursor: pointer; font: inherit; color: inherit; border-bottom: 1px solid var(--hairline);
    @media (pointer: coarse) { min-height: 44px; }
    &[aria-pressed="true"] { background: color-mix(in srgb, var(--act) 10%, transparent); font-weight: 650; }
    &:focus-visible { outline: 2px solid var(--act); outline-offset: -2px; }
    > :first-child { color: var(--soft); text-align: right; }
  }
`;
const Counts = styled.p`
  display: flex; flex-wrap: wrap; gap: 4px 14px; margin: 0 16px 8px; align-items: center;
  span { display: inline-flex; gap: 5px; align-items: center; }
`;
const Numbered = styled.ol`
  margin: 6px 0 0; padding: 0; list-style: none; display: grid; gap: 6px;
  li { display: grid; grid-template-columns: 24px 1fr; gap: 8px; }
  i { font-style: normal; width: 22px; height: 22px; border: 1.4px solid var(--ink); border-radius: 50%; display: grid; place-items: center; font-size: 12px; font-weight: 650; }
  small { display: block; color: var(--soft); font-size: 13px; }
`;
const Two = styled.div`
  display: grid; grid-template-columns: repeat(auto-fit, minmax(260px, 1fr)); gap: 12px;
  h4 { margin: 8px 0 4px; small { font-weight: 400; color: var(--soft); } }
`;

/** A joint's state: told by shape first. */
function StateMark({ state }: { state: JointState }) {
  const label = jointStateTexts[state];
  switch (state) {
    case "seals":
      return (
        <svg width={16} height={16} viewBox="0 0 16 16" role="img" aria-label={label}>
          <path d="M2 8l4 5L14 3" fill="none" stroke="var(--ink)" strokeWidth={2.4} />
        </svg>
      );
    case "adapters":
      return (
        <svg width={16} height={16} viewBox="0 0 16 16" role="img" aria-label={label}>
          <rect x={2} y={2} width={12} height={12} fill="none" stroke="var(--ink)" strokeWidth={2} />
          <path d="M5 8h6M8 5v6" stroke="var(--ink)" strokeWidth={2} />
        </svg>
      );
    case "screws":
    case "none":
      return (
        <svg width={16} height={16} viewBox="0 0 16 16" role="img" aria-label={label}>
          <path d="M2 2l12 12M14 2L2 14" stroke="var(--danger)" strokeWidth={2.8} />
        </svg>
      );
    case "unknown":
      return (
        <svg width={16} height={16} viewBox="0 0 16 16" role="img" aria-label={label}>
          <circle
            cx={8}
            cy={8}
            r={6.5}
            fill="none"
            stroke="var(--soft)"
            strokeWidth={1.6}
            strokeDasharray="3 2"
          />
          <text x={8} y={12} fontSize={11} textAnchor="middle" fill="var(--ink)">
            ?
          </text>
        </svg>
      );
  }
}

const states: readonly JointState[] = ["none", "screws", "adapters", "unknown", "seals"];

export function Joints({ joints }: { joints: readonly PlanJoint[] }) {
  const { select } = useJob();
  const [chosenKey, choose] = useState<string | null>(null);
  const index = Math.max(
    0,
    joints.findIndex(({ key }) => key === chosenKey),
  );
  const chosen = joints[index];
  const ends = joints.flatMap(({ a, b }) => [a, b]);
  const unknown = ends.filter(({ end }) => end === null).length;
  if (!chosen) return <p style={{ padding: "0 16px" }}>No joint yet: connect parts in Lay out.</p>;
  return (
    <>
      <Counts>
        {states
          .filter((state) => joints.some((joint) => joint.state === state))
          .map((state) => (
            <span key={state}>
              <StateMark state={state} />
              <b>{joints.filter((joint) => joint.state === state).length}</b> {jointStateTexts[state]}
            </span>
          ))}
        <span style={{ color: "var(--soft)" }}>
          {unknown} of {ends.length} ends not known
        </span>
      </Counts>
      <Columns>
        <List aria-label="Joints">
          {joints.map((joint, i) => (
            <li key={joint.key}>
              <button
                type="button"
                aria-pressed={i === index}
                onClick={() => {
                  choose(joint.key);
                  select(joint.a.id);
                }}
              >
                <span>{i + 1}</span>
                <span>{joint.a.name}</span>
                <StateMark state={joint.state} />
              </button>
            </li>
          ))}
        </List>
        <Chosen key={chosen.key} joint={chosen} />
      </Columns>
    </>
  );
}

const isMet = (a: End, b: End) => joining(a, b).fit === "seals";

const isOfRun = ({ name }: JointSide) => name === "hose" || name === "tube";
const sideText = (side: JointSide, end: End) =>
  isOfRun(side)
    ? end.family === "hose"
      ? endText(end)
      : `end of the ${side.name}: ${endText(end)}`
    : `${side.name}: ${endText(end)}`;

/** Pieces on the axis from the plan's port to the hose or the other port. */
function piecesOf({ a, b, chain, state }: PlanJoint): { pieces: Piece[]; texts: string[] } | null {
  if (!a.end || !b.end) return null;
  const between = state === "adapters" || state === "screws" ? (chain?.parts ?? []) : [];
  const pieces: Piece[] = [{ left: null, right: a.end, number: 1 }];
  const texts = [`${a.name}: ${endText(a.end)}`];
  let open: End = a.end;
  between.forEach((id, i) => {
    const [first, second] = adapterEnds(id);
    if (!first || !second) return;
    // The end that meets what stands open comes first.
    const isTurned = !isMet(open, first) && isMet(open, second);
    const [left, right] = isTurned ? [second, first] : [first, second];
    pieces.push({ left, right, number: i + 2 });
    texts.push(adapterText(id));
    open = right;
  });
  pieces.push({ left: b.end, right: null, number: pieces.length + 1 });
  texts.push(sideText(b, b.end));
  return { pieces, texts };
}

function Chosen({ joint }: { joint: PlanJoint }) {
  const { a, b, state, joined, chain } = joint;
  const drawn = piecesOf(joint);
  const dress = state === "seals" && joined?.dress ? [joined.dress] : (chain?.dress ?? []);
  const washers = state === "seals" ? (joined?.washers ?? 0) : (chain?.washers ?? 0);
  const leaks = state === "seals" ? 1 : (chain?.leakPoints ?? 0);
  return (
    <div style={{ minWidth: 0 }}>
      <Sheet style={{ margin: "0 0 10px" }}>
        <h3 style={{ color: state === "screws" || state === "none" ? "var(--danger)" : undefined }}>
          {a.name}: {jointStateTexts[state]}
        </h3>
        {drawn ? (
          <>
            {(state === "screws" || state === "adapters") && (
              <p style={{ margin: "2px 0" }}>What goes between, in its order:</p>
            )}
            <JointDrawing
              pieces={drawn.pieces}
              bad={state === "none"}
              label={`${drawn.texts.join(", then ")}: ${jointStateTexts[state]}`}
            />
            <Numbered>
              {drawn.texts.map((text, i) => (
                <li key={text + String(i)}>
                  <i>{i + 1}</i>
                  <span>
                    <b>{text}</b>
                    {i > 0 && dress[i - 1] && (
                      <small>Before it is made: {dressTexts[dress[i - 1] ?? "none"]}.</small>
                    )}
                  </span>
                </li>
              ))}
            </Numbered>
            <p style={{ color: "var(--soft)", fontSize: 13 }}>
              {state !== "none" && `${counted(leaks, "leak point")}, ${counted(washers, "washer")}. `}
              Drawn to scale from memory of the standards; measure yours.
            </p>
            {joined && joined.fit !== "seals" && joined.why && (
              <>
                <p>
                  <b>{joined.fit === "screwsOnly" ? "Screwed together as they are: " : "As they are: "}</b>
                  {whyTexts[joined.why]}
                  {joined.feel && `; ${feelTexts[joined.feel]}`}.
                </p>
                {joined.fit === "screwsOnly" && a.end && b.end && (
                  <JointDrawing
                    pieces={[
                      { left: null, right: a.end, number: 1 },
                      { left: b.end, right: null, number: drawn.pieces.length },
                    ]}
                    bad
                    label={`${endText(a.end)} and ${endText(b.end)}: screws together, does not seal`}
                  />
                )}
              </>
            )}
          </>
        ) : (
          <p>
            {a.end || b.end ? "One end is" : "Both ends are"} not known. Enter what is stamped on it or stands
            in the maker's sheet, or measure it: outside diameter and ten threads.
          </p>
        )}
        <Looks joint={joint} />
        <Chains key={`${joint.key} ${chain?.parts.join()}`} joint={joint} />
        <Two>
          <EndFields side={a} title={a.name} />
          <EndFields side={b} title={isOfRun(b) ? `The ${b.name} on it` : b.name} />
        </Two>
      </Sheet>
      {a.end && <Alike end={a.end} name={a.name} />}
      <Caution style={{ margin: "0 0 12px" }}>
        Relieve the pressure and have the pan under it before a joint is undone. High-pressure lines of the
        injection system are left to a licensed workshop.
      </Caution>
    </div>
  );
}

/** What is looked at as the joint is made: not yet, right, or wrong. */
function Looks({ joint }: { joint: PlanJoint }) {
  const { plan, dispatch } = useJob();
  const looks = looksOf(joint);
  if (looks.length === 0) return null;
  const seen = plan.jointLooks?.[joint.key] ?? {};
  const set = (look: JointLookFor, value: boolean | undefined) =>
    void dispatch({
      name: "editPlan",
      change: { jointLooks: { ...plan.jointLooks, [joint.key]: { ...seen, [look]: value } } },
      shown: { jointLooks: plan.jointLooks },
    });
  return (
    <Two>
      {looks.map((look) => (
        <LookField
          key={look}
          label={jointLookTexts[look]}
          value={seen[look]}
          onChange={(value) => set(look, value)}
        />
      ))}
    </Two>
  );
}

/** Other chains for the joint, worked out when they are asked for; what is chosen is narrowed in the plan too. */
function Chains({ joint: { key, a, b, chain, isChosen, state } }: { joint: PlanJoint }) {
  const { dispatch } = useJob();
  const { bore } = useTrade();
  const [others, setOthers] = useState<Chain[] | null>(null);
  if ((state !== "adapters" && state !== "screws") || !chain || !a.end || !b.end) return null;
  const [from, to] = [a.end, b.end];
  const choose = (chosen: Chain | null) =>
    void dispatch({
      name: "chooseChain",
      key,
      chain: chosen && {
        parts: chosen.parts,
        leakPoints: chosen.leakPoints,
        ...(chosen.boreM !== null && { boreM: chosen.boreM }),
      },
    });
  const row = (one: Chain, action: ReactNode) => (
    <tr key={one.parts.join()}>
      <td>{one.parts.map(adapterText).join(", then ")}</td>
      <td className="n">{one.leakPoints}</td>
      <td className="n">{one.boreM === null ? "–" : bore(one.boreM)}</td>
      <td>{action}</td>
    </tr>
  );
  return (
    <>
      <Table>
        <thead>
          <tr>
            <th>Chain</th>
            <th className="n">Can leak at</th>
            <th className="n">Narrowest</th>
            <th>Choice</th>
          </tr>
        </thead>
        <tbody>
          {row(
            chain,
            isChosen ? (
              <Button $quiet onPress={() => choose(null)}>
                Chosen: take the choice back
              </Button>
            ) : (
              <Button onPress={() => choose(chain)}>Use it: the plan is solved with it</Button>
            ),
          )}
          {others?.map((one) => row(one, <Button onPress={() => choose(one)}>Use this one</Button>))}
        </tbody>
      </Table>
      {others === null ? (
        <Button $quiet onPress={() => setOthers(otherChains(from, to, chain))}>
          Other chains
        </Button>
      ) : (
        others.length === 0 && <p>No other chain without one of these parts.</p>
      )}
    </>
  );
}

/** What goes on by hand and does not seal: how to tell it before it is bought. */
function Alike({ end, name }: { end: End; name: string }) {
  const all = lookAlikes(end);
  const seen = new Map(all.map((one) => [`${one.end.family} ${one.end.size}`, one]));
  if (seen.size === 0) return null;
  return (
    <Sheet style={{ margin: "0 0 10px" }}>
      <h3>Taken for it: screws on {name} and does not seal</h3>
      <Table>
        <thead>
          <tr>
            <th>Look-alike</th>
            <th>Feels</th>
            <th>Why not</th>
          </tr>
        </thead>
        <tbody>
          {[...seen.values()].slice(0, 8).map(({ end: other, joining: made }) => (
            <tr key={`${other.family} ${other.size}`}>
              <td>
                <b>{endText(other)}</b> <small>{familyName(other.family)}</small>
              </td>
              <td>{made.feel && feelTexts[made.feel]}</td>
              <td>{made.why && whyTexts[made.why]}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Sheet>
  );
}
