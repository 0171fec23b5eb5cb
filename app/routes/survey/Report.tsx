/*
 * Decides: whether the survey can be handed over.
 * Seen in three seconds: what it holds, and what is still missing in it.
 */
import { FileDown } from "lucide-react";
import { useState } from "react";
import { entriesOf } from "~/core/book/entries";
import { assumedFigures } from "~/core/plan/assumed";
import { fileName, saveBytes } from "~/state/files";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Sheet } from "~/ui/place";
import { Facts } from "./tankContext";

export function Report() {
  const { job, book, plan, findings, say } = useJob();
  const [isMaking, setMaking] = useState(false);
  const sampled = new Set(entriesOf(book, "sample").map(({ tankId }) => tankId));
  const save = async () => {
    setMaking(true);
    try {
      const [{ surveyReport }, { pdfFonts }] = await Promise.all([
        import("./report"),
        import("~/state/pdfFonts.client"),
      ]);
      const { bytes, missing } = await surveyReport(job, book, new Date(), await pdfFonts());
      saveBytes(`${fileName(job.name)}-survey.pdf`, bytes, "application/pdf");
      if (missing.length > 0)
        say(`The report's letters lack ${missing.join(" ")}: a box stands in their place.`, true);
    } catch (error) {
      say(`The report was not made: ${String(error)}`);
    } finally {
      setMaking(false);
    }
  };
  return (
    <Sheet>
      <h3>Survey report</h3>
      <Facts style={{ maxWidth: 460 }}>
        <dt>Tanks with drawings and dip tables</dt>
        <dd>{job.tanks.length}</dd>
        <dt>Figures still assumed</dt>
        <dd>{assumedFigures(job, plan).length}</dd>
        <dt>Hoses read</dt>
        <dd>
          {plan.runs.filter(({ survey }) => survey).length} of {plan.runs.length}
        </dd>
        <dt>Tanks sampled</dt>
        <dd>
          {sampled.size} of {job.tanks.length}
        </dd>
        <dt>Findings</dt>
        <dd>{findings.length}</dd>
      </Facts>
      <Button $main isDisabled={isMaking} onPress={() => void save()}>
        <FileDown size={16} /> {isMaking ? "Writing…" : "Survey report, PDF"}
      </Button>
    </Sheet>
  );
}
