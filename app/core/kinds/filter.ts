import { choice, type FieldsOf, toggle } from "./fields";
import { type FilterBody, filterFields, filterHousing } from "./filtering";
import { inOut, inToOut, type Kind, type Port, port } from "./kind";
import type { PartBase } from "./record";

interface SparePorts {
  count: number;
  plugged: boolean;
}

/** A separator or a finer filter behind it. */
export interface Filter extends PartBase, FilterBody {
  kind: "filter";
  medium: "separator" | "secondary";
  /** Ports of its head that nothing is screwed to, and how they are shut. */
  sparePorts?: SparePorts;
  /** Its head has two of each port: two consumers, two tanks, or hoses that leave by either side. */
  isTwin?: boolean;
}

/** What is not used of the second pair is plugged. */
const twinPorts: readonly Port[] = [
  ...inOut,
  { ...port("in2", "second in", "in"), sameAs: "in" },
  { ...port("out2", "second out", "out"), sameAs: "out" },
];

const spareFields: FieldsOf<SparePorts> = {
  count: {
    form: "quantity",
    dimension: "ratio",
    unit: "ratio",
    basis: "measured",
    bounds: { least: 0, most: 8, isWhole: true },
    blank: 2,
  },
  plugged: toggle({ blank: false }),
};

export const filter: Kind<Filter> = {
  title: "Separator",
  families: ["filtering"],
  hasArrow: true,
  fields: {
    medium: choice(["separator", "secondary"], { blank: "separator", tells: true, fold: "quiet" }),
    ...filterFields,
    isTwin: toggle({ isOptional: true, tells: true }),
    sparePorts: { form: "group", fields: spareFields, fold: "spare", isOptional: true },
  },
  ports: ({ isTwin }) => (isTwin ? twinPorts : inOut),
  through: inToOut,
  links: (part) => [{ kind: "filter", id: part.id, from: "in", to: "out", part }],
  volumeM3: ({ volumeM3 }) => volumeM3,
  filling: "bowl",
  body: filterHousing,
  end: "pipeThread",
};
