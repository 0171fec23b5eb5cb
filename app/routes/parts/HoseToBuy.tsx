/** Hose by bore and marking to scale, and the cut list from the box first. */
import { afterCut, cutsFromBox, type HoseCuts } from "~/core/box/box";
import type { HoseLine } from "~/core/parts/partsList";
import { counted } from "~/messages/counted";
import type { useBox } from "~/state/box";
import { useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Sheet } from "~/ui/place";
import { Table } from "~/ui/table";

export function HoseToBuy({ hoses, box }: { hoses: readonly HoseLine[]; box: ReturnType<typeof useBox> }) {
  const { bore, run } = useTrade();
  const longest = Math.max(0.1, ...hoses.map(({ totalM }) => totalM));
  return (
    <>
      <Sheet>
        <h3>Hose by bore and marking</h3>
        <Table>
          <thead>
            <tr>
              <th>Marking</th>
              <th className="n">Bore</th>
              <th>To scale</th>
              <th className="n">Runs</th>
              <th className="n">Net</th>
              <th className="n">Allowance</th>
              <th className="n">To buy</th>
            </tr>
          </thead>
          <tbody>
            {hoses.map((line) => (
              <tr key={line.marking + line.boreM}>
                <td>{line.marking}</td>
                <td className="n">{bore(line.boreM)}</td>
                <td>
                  <svg width="240" height="18" role="img" aria-label={run(line.totalM)}>
                    <line
                      x1={0}
                      x2={(240 * line.netM) / longest}
                      y1={9}
                      y2={9}
                      stroke="var(--ink)"
                      strokeWidth={3 + line.boreM * 600}
                    />
                    <line
                      x1={(240 * line.netM) / longest}
                      x2={(240 * line.totalM) / longest}
                      y1={9}
                      y2={9}
                      stroke="var(--idle)"
                      strokeWidth={3 + line.boreM * 600}
                      strokeDasharray="3 3"
                    />
                  </svg>
                </td>
                <td className="n">{line.runs}</td>
                <td className="n">{run(line.netM)}</td>
                <td className="n">{run(line.allowanceM)}</td>
                <td className="n" style={{ fontWeight: 650 }}>
                  {run(line.totalM)}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        {hoses.length === 0 && <p>No hose yet.</p>}
      </Sheet>
      <CutList hoses={hoses} box={box} />
    </>
  );
}

/** Each hose cut from what the box has, offcuts first; what it has not is bought. */
function CutList({ hoses, box }: { hoses: readonly HoseLine[]; box: ReturnType<typeof useBox> }) {
  const trade = useTrade();
  const cuts = hoses.map((line) => ({
    line,
    cuts: cutsFromBox(box.items, { marking: line.marking, boreM: line.boreM, lengthsM: line.cutsM }),
  }));
  if (hoses.length === 0) return null;
  return (
    <Sheet>
      <h3>Cut list, from the box first</h3>
      {cuts.map(({ line, cuts }) => (
        <div key={line.marking + line.boreM} style={{ marginBottom: 10 }}>
          <p style={{ margin: "0 0 4px", fontWeight: 600 }}>
            {line.marking}, {trade.bore(line.boreM)}: {counted(line.cutsM.length, "piece")}
            {cuts.toBuyM > 0 ? `, ${trade.run(cuts.toBuyM)} to buy` : ", all from the box"}
            {!cuts.list.proved && `; proved to ${trade.run(cuts.list.gapM)} of coil`}
          </p>
          <Stocks cuts={cuts} />
          {cuts.list.touched > 0 && (
            <Button onPress={() => void box.change((items) => afterCut(items, cuts))}>
              Cut: take these from the box
            </Button>
          )}
        </div>
      ))}
    </Sheet>
  );
}

/** A stock as a bar, each piece with its length, what is left open at its end. */
function Stocks({ cuts: { offcuts, coils, list } }: { cuts: HoseCuts }) {
  const trade = useTrade();
  const all = [
    ...list.offcuts.map((pieces, i) => ({ stock: offcuts[i], pieces })),
    ...list.coil.map((pieces, i) => ({ stock: coils[i], pieces })),
  ].filter(({ stock, pieces }) => stock && pieces.length > 0);
  const width = 560;
  const shown = ({ stock, pieces }: (typeof all)[number]) =>
    stock?.form === "coil" ? pieces.reduce((sum, one) => sum + one, 0) * 1.1 : (stock?.lengthM ?? 0);
  const longest = Math.max(0.1, ...all.map(shown));
  return all.map(({ stock, pieces }) => {
    const lengthM = stock?.lengthM ?? 1;
    const shownM = shown({ stock, pieces });
    const at = (m: number) => (m / longest) * width;
    return (
      <svg
        key={stock?.id}
        viewBox={`0 0 ${width + 4} 30`}
        style={{ width: "100%", maxWidth: width, display: "block" }}
        role="img"
        aria-label={`${stock?.form} of ${trade.run(lengthM)}: ${pieces.map((one) => trade.run(one)).join(", ")}`}
      >
        <rect
          x={1}
          y={4}
          width={at(shownM)}
          height={20}
          fill="none"
          stroke="var(--idle)"
          strokeDasharray="4 3"
        />
        {pieces.map((piece, i) => {
          const before = pieces.slice(0, i).reduce((sum, one) => sum + one, 0);
          return (
            <g key={`${piece}${i}`}>
              <rect
                x={1 + at(before)}
                y={4}
                width={at(piece)}
                height={20}
                fill="var(--atRest)"
                stroke="var(--ink)"
              />
              <text
                x={1 + at(before) + at(piece) / 2}
                y={18}
                textAnchor="middle"
                fontSize={12}
                fill="var(--ink)"
              >
                {trade.run(piece)}
              </text>
            </g>
          );
        })}
      </svg>
    );
  });
}
