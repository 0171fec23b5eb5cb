/** A few sizes of the vehicle that its outline is drawn by; those that nobody typed are assumed round the parts. */
import { Dialog, DialogTrigger, Popover } from "react-aria-components";
import styled from "styled-components";
import type { Outline } from "~/core/plan/types";
import { assumedOf, type OutlineSize, type Sized, sizesOfForm } from "~/core/vehicle/outline";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";

const Floating = styled(Popover)`
  background: var(--panel); border: 1px solid var(--ink); border-radius: 3px; box-shadow: 0 6px 24px #0004; padding: 14px; width: min(420px, calc(100vw - 24px)); max-height: 80vh; overflow: auto;
  section { outline: none; display: grid; grid-template-columns: 1fr 1fr; gap: 10px 14px; align-items: start; }
  section > :first-child { grid-column: 1 / -1; }
  p { grid-column: 1 / -1; margin: 0; font-size: 13px; color: var(--soft); }
`;

const forms: readonly { id: Sized["form"]; name: string }[] = [
  { id: "hull", name: "boat's hull" },
  { id: "truck", name: "truck: cab, frame, bed" },
  { id: "van", name: "van" },
  { id: "none", name: "none: the ground alone" },
];

const labels: Readonly<Record<OutlineSize, (form: Sized["form"]) => string>> = {
  lengthM: () => "Length",
  widthM: (form) => (form === "hull" ? "Beam" : "Width"),
  heightM: (form) => (form === "hull" ? "Depth, foot to rail at the bow" : "Height over the ground"),
  draughtM: () => "Draught",
  wheelbaseM: () => "Wheelbase",
  frontXM: (form) => `${form === "hull" ? "Stem" : "Front"}, ahead of datum`,
  groundZM: (form) => `${form === "hull" ? "Foot of the hull" : "Ground"}, over datum`,
};

const isPlace = (size: OutlineSize) => size === "frontXM" || size === "groundZM";

export function Sizes({ size }: { size: Sized }) {
  const { job, dispatch } = useJob();
  const assumed = assumedOf(job, size.form);
  const set = (change: Partial<Outline>) =>
    void dispatch({ name: "editJob", change: { outline: { ...job.outline, ...change } } });
  return (
    <DialogTrigger>
      <Button aria-label={assumed.length > 0 ? `Sizes…, ${assumed.length} assumed` : "Sizes…"}>Sizes…</Button>
      <Floating>
        <Dialog aria-label="Sizes of the vehicle">
          <Select label="Drawn as" value={size.form} options={forms} onChange={(form) => set({ form })} />
          {sizesOfForm[size.form].map((key) => (
            <QuantityField
              key={key}
              label={labels[key](size.form)}
              dimension="length"
              unit={isPlace(key) ? job.units.length : job.units.length === "in" ? "ft" : "m"}
              value={size[key]}
              basis={assumed.includes(key) ? "assumed" : "measured"}
              check={(si) =>
                isPlace(key)
                  ? Math.abs(si) <= 60
                    ? null
                    : "Within 60 m of datum."
                  : si >= 0.1 && si <= 60
                    ? null
                    : "0.1 to 60 m."
              }
              onCommit={(si) => set({ [key]: si })}
            />
          ))}
          <p>
            For the drawing, and the ground for heights that are told over it: nothing else is worked out from
            these.
          </p>
        </Dialog>
      </Floating>
    </DialogTrigger>
  );
}
