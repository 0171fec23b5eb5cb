/** What a caliper and a thread gauge give: outside diameter and ten threads, of which one is the pitch. */
import { useState } from "react";
import { guessEnds } from "~/core/ends/byHand";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";

/** What was measured of an end, and what it may be, the nearest first. */
export function useInHand() {
  const [outsideM, setOutside] = useState<number>();
  const [tenM, setTen] = useState<number>();
  const pitchM = tenM === undefined ? null : tenM / 10;
  return {
    outsideM,
    pitchM,
    tenM,
    setOutside,
    setTen,
    guesses: outsideM === undefined ? [] : guessEnds(outsideM, pitchM).map(({ end }) => end),
    clear: () => {
      setOutside(undefined);
      setTen(undefined);
    },
  };
}

export function InHandFields({ hand }: { hand: ReturnType<typeof useInHand> }) {
  const { units } = useJob().job;
  const field = (label: string, value: number | undefined, commit: (m: number) => void) => (
    <QuantityField
      label={label}
      dimension="length"
      unit={units.bore}
      value={value}
      check={positive}
      onCommit={commit}
    />
  );
  return (
    <>
      {field("Outside, by caliper", hand.outsideM, hand.setOutside)}
      {field("Ten threads measure", hand.tenM, hand.setTen)}
    </>
  );
}
