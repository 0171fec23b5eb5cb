import styled from "styled-components";
import { faultText } from "~/messages/faults";
import type { FileFault } from "~/schemas/file";

const Faults = styled.ul`
  margin: 0; padding-left: 18px; max-height: 40vh; overflow: auto;
  code { font-weight: 650; font-family: inherit; }
`;

/** What is wrong with a file that was not taken in, each with its place. */
export function FileFaults({ faults }: { faults: readonly FileFault[] }) {
  return (
    <div role="alert">
      <p>This file is not taken in, and nothing that is stored has changed:</p>
      <Faults>
        {faults.map((fault, i) => (
          <li key={i}>
            {fault.path && <code>{fault.path}</code>} {faultText(fault)}
          </li>
        ))}
      </Faults>
    </div>
  );
}
