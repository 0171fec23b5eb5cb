/** What `keel diagnose` prints. */
import type { CareReading, Diagnoser } from "~/core/care/diagnose";
import { visitsOf } from "~/core/care/visits";
import { KILOPASCAL_PA } from "~/core/units/factors";
import { visitText } from "~/messages/diagnosis";
import { nameOf } from "~/messages/notes";

const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

export function diagnosisReport(diagnoser: Diagnoser, readings: readonly CareReading[], most: number) {
  const { job, plan } = diagnoser.network;
  const name = (id: string) => plan.lineUps.find((one) => one.id === id)?.name ?? nameOf(job, id);
  const portName = (port: string) => {
    const place = diagnoser.network.ports.get(port);
    return place ? `${place.ownerName}, ${place.name}` : port;
  };
  const { outcome, ranked, fit, badIndex } = diagnoser.diagnose(readings);
  const done = new Set(
    readings.flatMap((one) =>
      one.kind === "gauge"
        ? [`read:${one.state}`, `gauge:${one.port}`]
        : one.kind === "look"
          ? [`look:${one.look}`, `bubbles:${one.port}`]
          : [],
    ),
  );
  const visits = visitsOf(diagnoser).filter(({ id }) => !done.has(id));
  return {
    lineUp: diagnoser.lineUp.id,
    outcome,
    ranked: ranked.map(({ group, share, ids, kind, size, wouldReadPa }) => ({
      group,
      share,
      ids,
      names: ids.map(name),
      kind,
      size,
      wouldReadKpa: wouldReadPa.map((pa) => finite(pa / KILOPASCAL_PA)),
    })),
    next: diagnoser
      .next(readings, visits)
      .slice(0, most)
      .map(({ id, bits, minutes, ifThen, ...visit }) => ({
        id,
        words: visitText({ id, minutes, ...visit }, portName),
        bits,
        minutes,
        ifThen,
      })),
    fit,
    badReading: badIndex,
  };
}
