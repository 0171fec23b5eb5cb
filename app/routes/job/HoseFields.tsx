/** What is told of every hose and tube, whatever it is for: how it is held, labelled and banded. */
import type { Change } from "~/core/edit/merge";
import type { Run } from "~/core/plan/types";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { bandColours } from "~/messages/fit";
import { useJob } from "~/state/job";
import { Select, TextField } from "~/ui/fields";

type Told = Pick<Run, "supportEveryM" | "mark" | "colour">;

export function HoseFields({ hose, edit }: { hose: Told; edit(change: Change<Told>): void }) {
  const { units } = useJob().job;
  return (
    <>
      <QuantityField
        label="Clipped every"
        dimension="length"
        unit={units.length}
        value={hose.supportEveryM}
        check={positive}
        onCommit={(supportEveryM) => edit({ supportEveryM })}
      />
      <TextField label="Label on the hose" value={hose.mark ?? ""} onCommit={(mark) => edit({ mark })} />
      <Select
        label="Colour of its band"
        value={hose.colour ?? "none"}
        options={bandColours}
        onChange={(colour) => edit({ colour: colour === "none" ? undefined : colour })}
      />
    </>
  );
}
