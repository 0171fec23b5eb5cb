import { Way } from "../../solver/newton";
import type { LinkKind, LinkOf } from "./link";

/** A regulator that holds the pressure after it; its droop lies behind the place it holds. */
export const throttle: LinkKind<LinkOf<"throttle">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "check",
  setter:
    ({ part: { droopPa, ratedFlowM3S } }, index) =>
    (laws) => {
      laws.way[index] = Way.oneWay;
      laws.linear[index] = droopPa / ratedFlowM3S;
    },
  adjusted: ({ part: { setPa }, to }, _, { hold }) => hold(to, setPa, 0),
  export: ({ id, part: { setPa, droopPa, ratedFlowM3S }, to: end }, { from, to }, file) => {
    const middle = file.middle(end);
    file.reducing(from, middle, setPa);
    return file.sampled(middle, to, `${id}~c`, (q) => (droopPa / ratedFlowM3S) * q);
  },
};
