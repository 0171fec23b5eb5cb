/*
 * Decides: which wire, fuse and relay each pump and heater gets.
 * Seen in three seconds: the drop against what is allowed, and what the wire bears against its fuse.
 */
import { supplyVolts, wiringList } from "~/core/circuits/circuit";
import { formatNumber, percentText } from "~/core/units/format";
import { QuantityField } from "~/fields/QuantityField";
import { useJob, useTrade } from "~/state/job";
import { Table } from "~/ui/table";

export default function Circuits() {
  const { job, plan, dispatch, select } = useJob();
  const { site } = job;
  const say = useTrade();
  const lines = wiringList(job, plan);
  const volts = supplyVolts(job);
  const setSupply = (change: { volts?: number; regulatorPeakW?: number }) =>
    void dispatch({
      name: "editJob",
      change: { site: { ...site, supply: { volts, ...site.supply, ...change } } },
    });
  const bad = (isBad: boolean) => ({
    color: isBad ? "var(--danger)" : undefined,
    fontWeight: isBad ? 650 : undefined,
  });
  return (
    <div>
      <div
        style={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(150px, 190px))", gap: 12 }}
      >
        <QuantityField
          label="Supply"
          dimension="voltage"
          unit="V"
          value={volts}
          basis={site.supply ? "measured" : "assumed"}
          check={(si) => (si > 0 && si <= 100 ? null : "More than 0, at most 100 V.")}
          onCommit={(v) => setSupply({ volts: v })}
        />
        <QuantityField
          label="Regulator gives at peak"
          dimension="power"
          unit="W"
          value={site.supply?.regulatorPeakW}
          check={(si) => (si > 0 ? null : "More than nothing.")}
          onCommit={(regulatorPeakW) => setSupply({ regulatorPeakW })}
        />
      </div>
      {lines.length === 0 ? (
        <p>No circuit is written down yet: choose a pump or heater, and write its circuit down.</p>
      ) : (
        <Table>
          <thead>
            <tr>
              <th>Part</th>
              <th className="n">Runs, peak</th>
              <th className="n">Wire</th>
              <th className="n">bears</th>
              <th className="n">Fuse</th>
              <th className="n">Drop</th>
              <th className="n">allowed</th>
              <th className="n">Least wire</th>
              <th>Switched</th>
            </tr>
          </thead>
          <tbody>
            {lines.map(({ partId, name, circuit, ...one }) => {
              const overTrigger =
                circuit.triggerA !== undefined && !circuit.hasRelay && circuit.runA > circuit.triggerA;
              return (
                <tr key={partId}>
                  <td>
                    <button type="button" className="plain" onClick={() => select(partId)}>
                      {name}
                    </button>
                  </td>
                  <td className="n">
                    {formatNumber(circuit.runA)}, {formatNumber(circuit.peakA)} A
                  </td>
                  <td className="n">
                    {say.wire(circuit.wireAreaM2)}, {say.run(circuit.wireLengthM)}
                  </td>
                  <td className="n" style={bad(circuit.fuseA > one.wireBearsA)}>
                    {formatNumber(one.wireBearsA)} A
                  </td>
                  <td className="n" style={bad(circuit.fuseA < circuit.peakA)}>
                    {formatNumber(circuit.fuseA)} A
                  </td>
                  <td className="n" style={bad(one.dropShare > one.allowedShare)}>
                    {formatNumber(one.dropV, 2)} V, {percentText(one.dropShare)}
                  </td>
                  <td className="n">{percentText(one.allowedShare)}</td>
                  <td className="n">{one.leastAreaM2 === null ? "none" : say.leastWire(one.leastAreaM2)}</td>
                  <td style={bad(overTrigger)}>
                    {circuit.hasRelay ? "over a relay" : overTrigger ? "needs a relay" : "straight"}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
      <p style={{ fontSize: 12, color: "var(--soft)" }}>
        Copper at {say.temperature(40)} there and back (IEC 60028); what wire bears after ISO 10133, from
        memory. Battery negative off before any of it is touched. Mains and shore power are a licensed
        electrician's.
      </p>
    </div>
  );
}
