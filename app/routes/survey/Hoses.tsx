/*
 * Decides: which hoses stay and which come off.
 * Seen in three seconds: keep, watch or replace by hose, with the reason.
 */
import { judgeHose, permeationKgDay } from "~/core/hose/survey";
import { lyingRuns } from "~/core/plan/lying";
import { runGeometry } from "~/core/plan/route";
import type { HoseSurvey, Run } from "~/core/plan/types";
import { formatNumber } from "~/core/units/format";
import { hoseReasonText } from "~/messages/findings/hoses";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, TextField } from "~/ui/fields";
import { Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { Fields, Small, useUnits } from "./tankContext";

const places: { id: HoseSurvey["place"]; name: string }[] = [
  { id: "engineRoom", name: "engine room" },
  { id: "outside", name: "outside" },
];
const feels: { id: HoseSurvey["feel"]; name: string }[] = [
  { id: "sound", name: "sound" },
  { id: "stiff", name: "stiff" },
  { id: "soft", name: "soft, swollen" },
  { id: "oily", name: "oily" },
  { id: "cracked", name: "cracked" },
];
const verdictNames = { keep: "Keep", watch: "Watch", replace: "Replace" } as const;

export function Hoses() {
  const { job, plan, selectedId, select } = useJob();
  const { bore } = useUnits();
  const now = new Date();
  const lying = lyingRuns(job, plan);
  const lengths = lying.map(({ run, from, to }) => ({ run, lengthM: runGeometry(run, from, to).lengthM }));
  const judged = lying.map(({ run, line }) => ({
    line,
    run,
    found: run.survey ? judgeHose(run.survey, run.boreM, job.fuel, now) : null,
  }));
  const order = ["replace", "watch", null, "keep"];
  judged.sort((a, b) => order.indexOf(a.found?.verdict ?? null) - order.indexOf(b.found?.verdict ?? null));
  const chosen = judged.find(({ run }) => run.id === selectedId);
  const count = (verdict: keyof typeof verdictNames) =>
    judged.filter(({ found }) => found?.verdict === verdict).length;
  const unread = judged.filter(({ found }) => !found).length;
  return (
    <>
      <Sheet>
        <h3>
          {count("keep")} keep, {count("watch")} watch, {count("replace")} replace; {unread} not read yet
        </h3>
        <p>
          At most {formatNumber(permeationKgDay(lengths) * 1000)} g of fuel a day passes through all hose
          walls: an upper bound, the most that the printed classes allow; 300 g/m² where none is printed.
        </p>
        {chosen && <HoseForm key={chosen.run.id} run={chosen.run} isTankLine={chosen.line !== undefined} />}
        <Table>
          <thead>
            <tr>
              <th>Hose</th>
              <th className="n">Bore</th>
              <th className="wide">Printed on it</th>
              <th>Read as</th>
              <th>Verdict</th>
              <th className="wide">Because</th>
            </tr>
          </thead>
          <tbody>
            {judged.map(({ run, found }) => (
              <tr key={run.id} style={run.id === selectedId ? { background: "var(--ground)" } : undefined}>
                <td>
                  <Button
                    $quiet
                    style={{ textAlign: "left" }}
                    aria-pressed={run.id === selectedId}
                    onPress={() => select(run.id)}
                  >
                    {nameOf(job, run.id)}
                  </Button>
                </td>
                <td className="n">{bore(run.boreM)}</td>
                <td className="wide">{run.survey?.printed}</td>
                <td>
                  {found &&
                    [
                      found.marking.standard,
                      found.marking.fire &&
                        `${found.marking.fire}${found.marking.permeationGM2Day === 300 ? 2 : 1}${found.marking.permeationGM2Day === 15 ? "-15" : ""}`,
                      found.marking.made && `${found.marking.made.year}`,
                    ]
                      .filter(Boolean)
                      .join(", ")}
                </td>
                <td style={{ fontWeight: 650 }}>{found ? verdictNames[found.verdict] : "not read"}</td>
                <td className="wide">
                  {found?.reasons
                    .map(({ code }) => hoseReasonText(code, found.years, run.survey?.feel))
                    .join("; ")}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        {lying.length === 0 && <p>No hose in this plan yet: join ports in Lay out, then read them here.</p>}
      </Sheet>
    </>
  );
}

function HoseForm({ run, isTankLine }: { run: Run; isTankLine: boolean }) {
  const { job, dispatch } = useJob();
  const survey: HoseSurvey = run.survey ?? {
    printed: run.product.marking,
    place: "engineRoom",
    feel: "sound",
  };
  const set = (change: Partial<HoseSurvey>) =>
    void dispatch({
      name: isTankLine ? "editTankLine" : "editRun",
      id: run.id,
      change: { survey: { ...survey, ...change } },
    });
  return (
    <section aria-label="Hose at hand" style={{ margin: "0 0 10px" }}>
      <h3>{nameOf(job, run.id)}</h3>
      <Fields style={{ gridTemplateColumns: "minmax(200px, 2fr) 1fr 1fr auto" }}>
        <TextField
          label="Printed on it, as it stands"
          value={run.survey?.printed ?? ""}
          onCommit={(printed) => set({ printed })}
        />
        <Select
          label="Where it runs"
          value={survey.place}
          options={places}
          onChange={(place) => set({ place })}
        />
        <Select label="To the hand" value={survey.feel} options={feels} onChange={(feel) => set({ feel })} />
        <Button onPress={() => set({ printed: "" })}>Nothing legible</Button>
      </Fields>
      <Small>
        Wipe it first; turn it until the print shows. Bend it by hand near its ends: cracks and stiffness show
        there.
      </Small>
    </section>
  );
}
