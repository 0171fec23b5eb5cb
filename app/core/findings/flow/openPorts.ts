/**
 * Practice 18, of whatever stands in the plan: a port of a tank or a part that no hose is on. The plan counts it as shut;
 * what stands at it then says what comes of it where nobody plugs it. Common practice.
 */
import { openPorts as portsLeftOpen } from "../../plan/openPorts";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Less than this at a port, some 25 mm of fuel, is the height of its own thread. Common practice, no source. */
const NOTHING_PA = 200;

/** An opening in a wall is no tube. */
const TUBE_M = 0.05;

export const openPorts = rule({
  id: "openPorts",
  practice: [18],
  place: "layout",
  judge: ({ job, plan, network, verdicts }) => {
    return portsLeftOpen(job, plan).flatMap(({ owner, ports, isTank }) => {
      const found = ports
        .map((port) => {
          const { id, name } = port;
          const node = network.nodeOf.get(`${owner.id}.${id}`) ?? -1;
          const stands = verdicts
            .map(({ result }) => (result.outcome === "solved" ? result.gaugePa[node] : undefined))
            .filter((pa) => pa !== undefined && Math.abs(pa) > NOTHING_PA) as number[];
          return {
            name,
            // A tube down into the fuel.
            isPickup: "mouth" in port && port.role === "outlet" && port.outside.zM - port.mouth.zM > TUBE_M,
            pressurePa: Math.max(0, ...stands),
            // What stands in a tube over the fuel of its tank falls back.
            vacuumPa: isTank ? 0 : Math.max(0, ...stands.map((pa) => -pa)),
          };
        })
        // A spare fitting in the top of a tank is what it looks like; a tube into its fuel wants its cap.
        .filter(({ pressurePa, isPickup }) => !isTank || pressurePa > 0 || isPickup);
      const [first] = found;
      if (!first) return [];
      const most = (of: "pressurePa" | "vacuumPa") => Math.max(...found.map((one) => one[of]));
      const values = {
        port: first.name,
        count: found.length,
        /** The most that presses out at one of them, and that draws in: gauge, and under the air; 0 where nothing does. */
        pressurePa: most("pressurePa"),
        vacuumPa: most("vacuumPa"),
      };
      return [onPart({ grade: "watch", part: owner, values })];
    });
  },
});
