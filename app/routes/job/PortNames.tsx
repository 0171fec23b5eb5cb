/** What the ports of a tank or part are called, and how they are called otherwise. */
import type { Id } from "~/core/kinds/record";
import { Group } from "~/fields/layout";
import { TextField } from "~/ui/fields";
import { Fold } from "~/ui/fold";

export function PortNames({
  ports,
  onName,
}: {
  ports: readonly { id: Id; name: string }[];
  onName: (id: Id, said: string) => void;
}) {
  return (
    <Fold id="portNames" title="What its ports are called">
      <Group className="two">
        {ports.map(({ id, name }) => (
          <TextField
            key={id}
            label={`Port: ${name}`}
            value={name}
            check={(said) =>
              ports.some((port) => port.id !== id && port.name === said)
                ? "Another port of it is called so."
                : null
            }
            onCommit={(said) => onName(id, said)}
          />
        ))}
      </Group>
    </Fold>
  );
}
