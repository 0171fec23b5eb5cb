/*
 * Decides: what to buy, where, and what of it holds the work up.
 * Seen in three seconds: by supplier what is still short, what is awaited and the steps that wait for it.
 */

import { Download } from "lucide-react";
import { useMemo, useState } from "react";
import styled from "styled-components";
import type { PlanJoint } from "~/core/joints/joints";
import { progressOf, startsFrom, waitingFor } from "~/core/order/progress";
import {
  type BuyLine,
  boughtHose,
  buyGroups,
  buyLines,
  costOf,
  elementCost1000h,
  fullFeedM3S,
  shortOf,
  staysOf,
} from "~/core/parts/buying";
import { fromSi } from "~/core/units/factors";
import { formatNumber } from "~/core/units/format";
import { runUnit } from "~/core/units/trade";
import { notNegative } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { SchoolNote } from "~/fields/SchoolNote";
import { buyGroupTexts, buyText, lineTitle, spareText } from "~/messages/buying";
import { counted } from "~/messages/counted";
import { nameOf } from "~/messages/notes";
import type { useBox } from "~/state/box";
import { fileName, saveBytes, saveText } from "~/state/files";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Switch } from "~/ui/fields";
import { Sheet } from "~/ui/place";
import { Deliveries, useAwaited } from "./Deliveries";
import { HoseToBuy } from "./HoseToBuy";

const Row = styled.div`
  display: flex; flex-wrap: wrap; align-items: center; gap: 6px 14px; padding: 0 16px 8px;
  p { margin: 0; flex: 1; min-width: 200px; color: var(--soft); }
  b { color: var(--ink); }
`;
const List = styled.ul`
  list-style: none; margin: 0; padding: 0;
  > li { display: grid; grid-template-columns: 92px minmax(0, 1fr) auto auto; gap: 4px 12px; align-items: center; border-bottom: 1px solid var(--hairline); padding: 3px 0; min-height: 40px; }
  .n { text-align: right; font-weight: 650; } .short { color: var(--ink); } .has { color: var(--soft); font-weight: 400; }
  small { display: block; color: var(--soft); font-size: 13px; }
  @media (max-width: 760px) { > li { grid-template-columns: 80px minmax(0, 1fr); } > li > :nth-child(n + 3) { grid-column: 2; } }
`;

const Priced = styled.div`
  display: grid; grid-template-columns: 100px 80px; gap: 8px; align-items: center;
`;

interface ListedLine extends BuyLine {
  inBox: number;
  toBuy: number;
}

export function ToBuy({ joints, box }: { joints: readonly PlanJoint[]; box: ReturnType<typeof useBox> }) {
  const { job, plan, book, dispatch, say } = useJob();
  const { units, prices = {} } = job;
  const { run } = useTrade();
  const [isPriced, setPriced] = useState(Object.keys(prices).length > 0);
  const order = useMemo(() => progressOf(job, startsFrom(job, plan), plan, book), [job, plan, book]);
  const stays = useMemo(() => staysOf(job, plan), [job, plan]);
  const hoses = useMemo(() => boughtHose(job, plan, stays), [job, plan, stays]);
  const lines = useMemo((): ListedLine[] => {
    const cuts = new Map(hoses.map((line) => [line.ids.join(), line.cutsM]));
    return buyLines(job, plan, joints, box.items).map((line) => ({
      ...line,
      ...shortOf(line, box.items, buyText(line.what, job.units), cuts.get(line.for.join())),
    }));
  }, [job, plan, joints, box.items, hoses]);
  const waits = useAwaited();
  const waiting = waitingFor(order, [...waits.awaited]);
  const { first, unpriced } = costOf(lines, prices);
  const feedM3S = fullFeedM3S(job);
  const yearly = feedM3S > 0 ? elementCost1000h(lines, plan, prices, feedM3S) : 0;
  const kept = stays.parts.size + stays.runs.size;
  const short = lines.filter(({ toBuy }) => toBuy > 0).length;
  const setPrice = (key: string, price: number) =>
    void dispatch({ name: "editJob", change: { prices: { ...prices, [key]: price } }, shown: { prices } });
  const hoseUnit = runUnit(units);
  const amount = ({ lengthM, what }: BuyLine, of: number) =>
    lengthM === null || (what.kind !== "hose" && what.kind !== "wire") ? formatNumber(of, 4) : run(of);
  const rows = () =>
    lines
      .filter(({ toBuy }) => toBuy > 0)
      .map((line) => ({
        from: buyGroupTexts[line.group],
        item: buyText(line.what, units),
        quantity:
          line.lengthM === null
            ? line.toBuy
            : Number(formatNumber(fromSi("length", line.toBuy, hoseUnit), 4)),
        unit: line.lengthM === null ? "piece" : hoseUnit,
        pieces: line.count,
        spare: line.spare,
        for: line.for.map((id) => nameOf(job, id)).join("; "),
        price: prices[line.key] ?? "",
      }));
  const saveCsv = async () => {
    const { toCsv } = await import("~/core/export/csv");
    saveText(`${fileName(job.name)}-order.csv`, toCsv(rows()), "text/csv");
  };
  const savePdf = async (size: "A4" | "Letter") => {
    try {
      const [{ tablePdf }, { pdfFonts }] = await Promise.all([
        import("~/state/paper"),
        import("~/state/pdfFonts.client"),
      ]);
      const { bytes, missing } = await tablePdf(
        {
          title: `${job.name}: order`,
          note: `Plan ${plan.name}. Tick what came: count, every end started by hand, seals there.`,
          head: ["Came", "How many", "What", "From", "For"],
          rows: rows().map((one) => [
            "[  ]",
            `${one.quantity} ${one.unit === "piece" ? "" : one.unit}`,
            one.item,
            one.from,
            one.for,
          ]),
          at: [48, 84, 140, 330, 430],
        },
        await pdfFonts(),
        size,
      );
      saveBytes(`${fileName(job.name)}-order-${size}.pdf`, bytes, "application/pdf");
      if (missing.length > 0)
        say(`The order's letters lack ${missing.join(" ")}: a box stands in their place.`, true);
    } catch (error) {
      say(`The order was not made: ${String(error)}`, true);
    }
  };
  return (
    <div>
      <Row>
        <p>
          <b>
            {counted(short, "line")} to buy of {lines.length}.
          </b>{" "}
          {first > 0 &&
            `First cost ${formatNumber(first, 4)}${unpriced > 0 ? `, ${counted(unpriced, "line")} without a price` : ""}. `}
          {kept > 0 &&
            `${counted(stays.parts.size, "part")} and ${counted(stays.runs.size, "hose")} stay as they are. `}
          {yearly > 0 && `Elements cost ${formatNumber(yearly, 3)} in 1,000 h.`}
        </p>
        {waits.awaited.size > 0 && (
          <p style={{ flexBasis: "100%", fontWeight: 600, color: "var(--ink)" }}>
            {waits.awaited.size} awaited: {counted(waiting.held, "step")} of {order.steps.length} wait for it,{" "}
            {waiting.free} can be done now.
          </p>
        )}
        <Switch isOn={isPriced} onChange={setPriced}>
          Prices
        </Switch>
        <Button onPress={() => void saveCsv()}>
          <Download size={16} /> Order, CSV
        </Button>
        {(["A4", "Letter"] as const).map((size) => (
          <Button key={size} onPress={() => void savePdf(size)}>
            <Download size={16} /> Order, PDF {size}
          </Button>
        ))}
      </Row>
      <SchoolNote matters={["joints", "support"]} />
      <Deliveries waits={waits} lines={lines} />
      {buyGroups.map((group) => {
        const mine = lines.filter((line) => line.group === group);
        if (mine.length === 0) return null;
        return (
          <Sheet key={group}>
            <h3>
              {buyGroupTexts[group]}, {mine.filter(({ toBuy }) => toBuy > 0).length} of {mine.length} to buy
            </h3>
            <List aria-label={buyGroupTexts[group]}>
              {mine.map((line) => (
                <li key={line.key}>
                  <span className={`n ${line.toBuy > 0 ? "short" : "has"}`}>
                    {line.toBuy > 0 ? amount(line, line.toBuy) : "in the box"}
                  </span>
                  <span>
                    {lineTitle(line, units)}
                    <small>
                      {[
                        line.lengthM !== null && `in ${counted(line.count, "piece")}`,
                        spareText(line),
                        line.inBox > 0 && `${amount(line, line.inBox)} in the box`,
                        line.what.kind !== "tank" &&
                          line.what.kind !== "consumer" &&
                          line.for
                            .map((id) => nameOf(job, id))
                            .slice(0, 4)
                            .join(", ") + (line.for.length > 4 ? ` and ${line.for.length - 4} more` : ""),
                      ]
                        .filter(Boolean)
                        .join("; ")}
                    </small>
                  </span>
                  {isPriced && (
                    <Priced>
                      <QuantityField
                        label={line.lengthM === null ? "Price each" : `Price a ${hoseUnit}`}
                        dimension="ratio"
                        unit=""
                        value={prices[line.key]}
                        check={notNegative}
                        onCommit={(price) => setPrice(line.key, price)}
                      />
                      <span className="n has">
                        {prices[line.key] !== undefined && line.toBuy > 0
                          ? formatNumber((prices[line.key] ?? 0) * line.toBuy, 4)
                          : ""}
                      </span>
                    </Priced>
                  )}
                  {line.what.kind === "part" || line.what.kind === "hose" ? (
                    <Switch
                      isOn={line.for.every((id) => waits.awaited.has(id))}
                      onChange={(isOn) => waits.set(line.for, isOn)}
                    >
                      {line.for.every((id) => waits.awaited.has(id)) ? "not here yet" : "here"}
                    </Switch>
                  ) : (
                    <span />
                  )}
                </li>
              ))}
            </List>
          </Sheet>
        );
      })}
      <HoseToBuy hoses={hoses} box={box} />
    </div>
  );
}
