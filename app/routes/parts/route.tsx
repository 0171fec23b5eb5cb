/*
 * Decides: what to buy, joint by joint.
 * Seen in three seconds: which joints do not seal or are not known, and what goes between.
 */
import { useMemo } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { adaptersIn } from "~/core/box/box";
import { planJoints } from "~/core/joints/joints";
import { useBox } from "~/state/box";
import { useJob } from "~/state/job";
import { Tabs } from "~/ui/tabs";
import { Box } from "./Box";
import { Joints } from "./Joints";
import { ToBuy } from "./ToBuy";

export const meta = () => [{ title: "Parts · Iron Keel" }];

const Body = styled.div`
  h2 { font-size: 20px; padding: 8px 0 7px 16px; }
`;
const parts = ["joints", "buy", "box"] as const;
type Part = (typeof parts)[number];

export default function Parts() {
  const { job, plan, say } = useJob();
  const box = useBox(say);
  const inBox = useMemo(() => adaptersIn(box.items), [box.items]);
  const [asked, ask] = useSearchParams();
  const part = parts.find((one) => one === asked.get("part")) ?? "joints";
  const joints = useMemo(() => planJoints(job, plan, inBox), [job, plan, inBox]);
  return (
    <Body>
      <Tabs<Part>
        label="Parts of buying"
        head={<h2>Parts</h2>}
        chosen={part}
        onChoose={(next) => ask({ part: next }, { replace: true, preventScrollReset: true })}
        tabs={[
          { id: "joints", name: `Joints, ${joints.length}`, body: () => <Joints joints={joints} /> },
          { id: "buy", name: "To buy", body: () => <ToBuy joints={joints} box={box} /> },
          { id: "box", name: "The box", body: () => <Box box={box} /> },
        ]}
      />
    </Body>
  );
}
