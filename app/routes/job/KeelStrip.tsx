import { ChevronsDownUp, ChevronsUpDown } from "lucide-react";
import { memo, useCallback, useMemo, useState } from "react";
import { useLocation, useSearchParams } from "react-router";
import styled from "styled-components";
import { entriesOf } from "~/core/book/entries";
import { lastLooks } from "~/core/book/looks";
import { stubsOf } from "~/core/hydraulics/route";
import { portKey } from "~/core/plan/ports";
import { outlineOf } from "~/core/vehicle/outline";
import { Keel } from "~/keel/Keel";
import { KeelUpright } from "~/keel/KeelUpright";
import type { KeelMark } from "~/keel/marks";
import { nameOf } from "~/messages/notes";
import { outcomeText } from "~/messages/outcomes";
import { keelHeightsSchema, noted } from "~/schemas/noted";
import { type OpenJob, useExplored, useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { keep, kept } from "~/ui/kept";
import { useNarrow } from "~/ui/useNarrow";

const Strip = styled.section`
  grid-area: keel; border-top: 2px solid var(--ink); background: var(--panel); position: relative; min-width: 0; contain: layout paint style;
  @media (pointer: coarse) and (min-width: 601px) { padding-left: calc(var(--finger) + 4px); min-height: calc(var(--finger) + 4px); }
  @media print { display: none; }
`;
const Fold = styled.div`
  position: absolute; bottom: 2px; left: 2px; z-index: 4; display: flex;
  button { min-height: 26px; min-width: 26px; padding: 2px 4px; border-color: transparent; }
  /* For a finger they have a margin of their own, beside the Keel and over nothing of it. */
  @media (pointer: coarse) { flex-direction: column; button { min-height: var(--finger); min-width: var(--finger); } }
  @media (max-width: 600px) { display: none; }
`;
const Empty = styled.p`
  margin: 0; padding: 18px 16px; color: var(--soft);
`;
const Low = styled.p`
  margin: 0; padding: 8px 16px 8px 44px; @media (pointer: coarse) { padding-left: 8px; } white-space: nowrap; overflow: hidden; text-overflow: ellipsis;
`;

type Height = "folded" | "low" | "tall";
/** Where the way is proved it is read closely; where it is bled it stands in the place itself, at its heights. */
const firstHeights: Readonly<Record<string, Height>> = {
  survey: "folded",
  prove: "tall",
  parts: "folded",
  bleed: "folded",
  "care forms": "folded",
};
const px: Record<Exclude<Height, "folded">, number> = { low: 176, tall: 268 };

const forms: ReadonlySet<string> = new Set(["fuel", "service", "handover"]);

/** Where no way is read it is folded, until somebody opens it there: that is kept. */
const HEIGHTS = "keel";
const keptHeights = (): Readonly<Record<string, Height>> => noted(keelHeightsSchema, kept(HEIGHTS)) ?? {};

/** What the place that is open puts on the Keel. */
function marksFor(place: string, { plan, book, stored: verdict, lineUp }: OpenJob): KeelMark[] {
  if (!verdict?.way) return [];
  if (place === "install") {
    const looks = lastLooks(book, plan.id);
    return [...plan.runs.flatMap(({ from, to }) => [from, to]), ...plan.joints.map(({ from }) => from)].map(
      (joint) => ({
        id: joint.part,
        sign: looks.get(portKey(joint))?.result === "dry" ? "done" : "open",
      }),
    );
  }
  if (place === "care") {
    return entriesOf(book, "vacuum")
      .filter(({ lineUpId }) => lineUpId === lineUp?.id)
      .slice(-1)
      .map(({ gaugeId, vacuumPa }) => ({ id: gaugeId, sign: "reading", gaugePa: -vacuumPa }));
  }
  return [];
}

/** Folds the Keel away, or makes it tall. Not drawn anew as a slider moves. */
const Folds = memo(function Folds({
  shown,
  onHeight,
}: {
  shown: Height;
  onHeight: (height: Height) => void;
}) {
  const step = shown === "low" ? "tall" : "low";
  return (
    <Fold>
      {shown !== "folded" && (
        <Button aria-label="Fold the Keel" onPress={() => onHeight("folded")}>
          <ChevronsDownUp size={16} />
        </Button>
      )}
      <Button
        aria-label={step === "tall" ? "Make the Keel tall" : "Make the Keel low"}
        onPress={() => onHeight(step)}
      >
        <ChevronsUpDown size={16} />
      </Button>
    </Fold>
  );
});

export function KeelStrip() {
  const open = useJob();
  const { stored, plan, job, lineUp } = open;
  const { verdict, overlay, suspects } = useExplored();
  const page = useLocation().pathname.split("/")[3] ?? "";
  const [asked] = useSearchParams();
  // In Care a way is read beside readings and suspects, not beside forms.
  const place = page === "care" && forms.has(asked.get("part") ?? "") ? "care forms" : page;
  const [heights, setHeights] = useState<Readonly<Record<string, Height>>>(keptHeights);
  const narrow = useNarrow();
  // What may be wrong is told by its line: there the Keel has room.
  const shown = heights[place] ?? (suspects.length > 0 ? "tall" : firstHeights[place]) ?? "low";
  const setHeight = useCallback(
    (height: Height) =>
      setHeights((all) => {
        const next = { ...all, [place]: height };
        keep(HEIGHTS, JSON.stringify(next));
        return next;
      }),
    [place],
  );
  const marks = useMemo(() => marksFor(page, open), [page, open]);
  const stubs = useMemo(() => (verdict?.way ? stubsOf(plan, verdict.way) : []), [plan, verdict]);
  const groundM = useMemo(() => outlineOf(job, plan).groundZM, [job, plan]);
  if (page === "print") return null;
  const drawn = verdict?.way && verdict.result.outcome === "solved";
  return (
    <Strip aria-label="The Keel" id="keel" data-state={verdict?.result.outcome ?? "none"}>
      {!narrow && drawn && <Folds shown={shown} onHeight={setHeight} />}
      {!lineUp && (
        <Empty>The Keel is drawn for a line-up: make one in Lay out, with a tank and an engine joined.</Empty>
      )}
      {lineUp && !drawn && verdict && (
        <Empty>
          {lineUp.name}: {outcomeText(verdict, job.units)}. Nothing flows, so there is nothing to draw.
        </Empty>
      )}
      {drawn && verdict && shown === "folded" && (
        <Low>
          <b>{lineUp?.name}</b> {outcomeText(verdict, job.units)}
        </Low>
      )}
      {drawn && verdict && shown !== "folded" && narrow && (
        <KeelUpright
          verdict={verdict}
          units={job.units}
          selectedId={open.selectedId}
          onSelect={open.select}
        />
      )}
      {drawn && verdict && shown !== "folded" && !narrow && (
        <Keel
          verdict={verdict}
          before={overlay ? stored : null}
          limits={plan.limits}
          units={job.units}
          height={px[shown]}
          selectedId={open.selectedId}
          onSelect={open.select}
          nameOf={(id) => nameOf(job, id)}
          marks={marks}
          stubs={stubs}
          suspects={suspects}
          groundM={groundM}
        />
      )}
    </Strip>
  );
}
