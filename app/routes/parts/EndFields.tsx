/** What a port or a hose ends in: entered by its names, or found by what is in the hand. */
import { type End, endKey } from "~/core/ends/ends";
import { type Family, type FamilyId, families, familyIds, type Material } from "~/core/ends/families";
import type { JointSide } from "~/core/joints/joints";
import { positive } from "~/fields/checks";
import { Buttons, Group } from "~/fields/layout";
import { QuantityField } from "~/fields/QuantityField";
import { endText, familyName, formName, materialTexts } from "~/messages/ends";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { InHandFields, useInHand } from "./InHand";

const NOT_KNOWN = "unknown";
const familyOptions = [
  { id: NOT_KNOWN, name: "not known" },
  ...familyIds.map((id) => ({ id: id as string, name: familyName(id) })),
];

/** What was measured of one size is nothing of another. */
const sized = ({ boreM: _, ...end }: End, size: string): End => ({ ...end, size });
const made = ({ material: _, ...end }: End, material: Material | undefined): End =>
  material ? { ...end, material } : end;

export function EndFields({ side, title }: { side: JointSide; title: string }) {
  const { job, dispatch } = useJob();
  const { id, port, end, isAssumed } = side;
  const { units } = job;
  const set = (next: End | null) => void dispatch({ name: "setEnd", id, port, end: next });
  const family = end ? (families[end.family] as Family) : null;
  const chooseFamily = (next: string) => {
    if (next === NOT_KNOWN) return set(null);
    const { sizes, male, female } = families[next as FamilyId] as Family;
    const size =
      sizes.find(([one]) => one === end?.size)?.[0] ?? sizes[Math.floor(sizes.length / 2)]?.[0] ?? "";
    const form = [...female, ...male].find((one) => one === end?.form) ?? [...female, ...male][0] ?? "";
    set({ family: next as FamilyId, size, form });
  };
  return (
    <div role="group" aria-label={title}>
      <h4>
        {title}
        {isAssumed && end && <small> as cut, from the run's bore</small>}
      </h4>
      <Group className="two">
        <Select
          label="Kind of end"
          value={end?.family ?? NOT_KNOWN}
          options={familyOptions}
          onChange={chooseFamily}
        />
        {end && family && (
          <>
            <Select
              label="Size"
              value={end.size}
              options={family.sizes.map(([size]) => ({ id: size, name: size }))}
              onChange={(size) => set(sized(end, size))}
            />
            {family.male.length + family.female.length > 1 && (
              <Select
                label="Form"
                value={end.form}
                options={[...family.male, ...family.female].map((form) => ({
                  id: form,
                  name: formName({ family: end.family, form }),
                }))}
                onChange={(form) => set({ ...end, form })}
              />
            )}
            {family.materials.length > 0 && (
              <Select
                label="Made of"
                value={end.material ?? NOT_KNOWN}
                options={[
                  { id: NOT_KNOWN, name: "not known" },
                  ...family.materials.map((id) => ({ id, name: materialTexts[id] })),
                ]}
                onChange={(material) =>
                  set(
                    made(
                      end,
                      family.materials.find((one) => one === material),
                    ),
                  )
                }
              />
            )}
            <QuantityField
              label="Bore through it, measured"
              dimension="length"
              unit={units.bore}
              value={end.boreM}
              check={positive}
              onCommit={(boreM) => set({ ...end, boreM })}
            />
          </>
        )}
      </Group>
      <InTheHand onFound={set} />
    </div>
  );
}

/** Outside diameter and ten threads, as a caliper and a thread gauge give them. */
function InTheHand({ onFound }: { onFound: (end: End) => void }) {
  const hand = useInHand();
  const guesses = hand.guesses.slice(0, 4);
  return (
    <details>
      <summary>By what is in the hand</summary>
      <Group className="two">
        <InHandFields hand={hand} />
      </Group>
      {hand.outsideM !== undefined && guesses.length === 0 && <p>No family has a size like it.</p>}
      <Buttons>
        {guesses.map((end) => (
          <Button key={endKey(end)} onPress={() => onFound(end)}>
            {endText(end)}
          </Button>
        ))}
      </Buttons>
    </details>
  );
}
