/** A template at true size, as PDF tiles, SVG or DXF; what makes them is loaded when one is asked for. */
import { Download } from "lucide-react";
import styled from "styled-components";
import type { Template } from "~/core/boards/template";
import { fileName, saveBytes, saveText } from "~/state/files";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 4px 10px; align-items: center;
  @media print { display: none; }
`;
const forms = ["A4", "Letter", "SVG", "DXF"] as const;

export function TemplateButtons({ template }: { template: () => Template }) {
  const { job, say } = useJob();
  const save = async (form: (typeof forms)[number]) => {
    try {
      const { templateDxf, templatePdf, templateSvg } = await import("./template");
      const made = template();
      const name = fileName(`${job.name} ${made.name}`);
      if (form === "SVG") return saveText(`${name}.svg`, templateSvg(made), "image/svg+xml");
      if (form === "DXF") return saveText(`${name}.dxf`, templateDxf(made), "image/vnd.dxf");
      const { pdfFonts } = await import("~/state/pdfFonts.client");
      const { bytes, missing } = await templatePdf(made, form, await pdfFonts());
      saveBytes(`${name}-${form}.pdf`, bytes, "application/pdf");
      if (missing.length > 0)
        say(`The template's letters lack ${missing.join(" ")}: a box stands in their place.`, true);
    } catch (error) {
      say(`The template was not made: ${String(error)}`, true);
    }
  };
  return (
    <Row>
      <span>Template at true size:</span>
      {forms.map((form) => (
        <Button key={form} $quiet onPress={() => void save(form)}>
          <Download size={15} /> {form === "A4" || form === "Letter" ? `PDF, ${form}` : form}
        </Button>
      ))}
    </Row>
  );
}
