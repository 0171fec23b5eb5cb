/*
 * Decides: which fuel it is, where it is used, and by which limits and schools it is judged.
 * Seen in three seconds: density and viscosity at the coldest and hottest, and what the fuel warns of.
 */

import { lazy, Suspense, useState } from "react";
import { blended, type FuelCaution, fuelCautions } from "~/core/fuel/blend";
import { fuelAt, presetFuel } from "~/core/fuel/fuel";
import { type GradeId, gradeIds, grades } from "~/core/fuel/grades";
import { envelopeOf } from "~/core/plan/envelope";
import { type AntiSiphonSchool, type SchoolMatter, schoolChoices, schoolOf } from "~/core/plan/types";
import { formatNumber } from "~/core/units/format";
import { gaugeUnit, vacuumUnit } from "~/core/units/trade";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { Term } from "~/fields/Term";
import { schoolTexts } from "~/messages/schools";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, TextField } from "~/ui/fields";
import { Caution, Sheet } from "~/ui/place";
import { Fields } from "./tankContext";

const ViscosityChart = lazy(() => import("./ViscosityChart"));

export function FuelAndSite() {
  return (
    <>
      <SiteAndFuel />
      <LimitsAndSchools />
      <DividedPractice />
    </>
  );
}

const cautions: Record<FuelCaution, string> = {
  petrol:
    "Petrol: its vapour burns at any temperature and lies low. No spark, no electric pump with the engine off, no drilling of a tank that held it without a licensed cleaner; ignition-protected parts, openings only on top of the tank, low-permeation hose. Licensed work where the law says so.",
  lowFlash:
    "This fuel's flash point lies under road diesel's: on a hot day its vapour can burn. Ventilate, and keep sparks away.",
  biodieselSolvent:
    "Biodiesel loosens what old tanks hold and swells old seals: filters stand by after the first fills; no zinc or copper in long contact with it.",
  cloudNearColdest:
    "The coldest of the site is close to the cloud point: wax will stand in the filter first.",
  belowCloud:
    "The coldest of the site is below the cloud point: wax forms and stops the filter. Winter fuel, or heat.",
};

const shutOffSchools: { id: AntiSiphonSchool; name: string }[] = [
  { id: "abycH33", name: "ABYC H-33" },
  { id: "iso10088", name: "ISO 10088" },
];

/** What findings are judged by where no maker says otherwise: common practice, and the user's to change. */
function LimitsAndSchools() {
  const { job, plan, dispatch } = useJob();
  const { units } = job;
  const { limits } = plan;
  const set = (change: Partial<typeof limits>) =>
    void dispatch({ name: "editPlan", change: { limits: { ...limits, ...change } } });
  const suction = (label: string, field: "suctionCleanPa" | "suctionChangePa" | "suctionNeverPa") => (
    <QuantityField
      label={label}
      dimension="pressure"
      unit={vacuumUnit(units)}
      value={limits[field]}
      check={positive}
      onCommit={(pa) => set({ [field]: pa })}
    />
  );
  return (
    <Sheet>
      <h3>
        Limits and <Term of="school">schools</Term>
      </h3>
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        Common practice, no source; a maker's limit on the pump or engine goes before these.
      </p>
      <Fields>
        {suction("Suction with clean filters", "suctionCleanPa")}
        {suction("Suction at which to change", "suctionChangePa")}
        {suction("Suction never to pass", "suctionNeverPa")}
        <QuantityField
          label="Free air that is seen"
          dimension="ratio"
          unit="%"
          value={limits.freeAirFraction}
          check={(si) => (si > 0 && si <= 1 ? null : "More than 0, at most 100 %.")}
          onCommit={(freeAirFraction) => set({ freeAirFraction })}
        />
        {job.kind === "boat" && (
          <Select
            label="Shut-off at the tank by"
            value={job.schools.shutOff}
            options={shutOffSchools}
            onChange={(shutOff) =>
              void dispatch({ name: "editJob", change: { schools: { ...job.schools, shutOff } } })
            }
          />
        )}
      </Fields>
    </Sheet>
  );
}

const matters = Object.keys(schoolChoices) as SchoolMatter[];

/** Where practice is divided: the default with its reason, and the others. */
function DividedPractice() {
  const { job, dispatch } = useJob();
  const { schools } = job;
  return (
    <Sheet>
      <h3>Where practice is divided</h3>
      <Fields>
        {matters.map((matter) => {
          const { name, reason, touches, choices } = schoolTexts[matter];
          const chosen = schoolOf(schools, matter);
          return (
            <div key={matter}>
              <Select
                label={name}
                value={chosen}
                options={schoolChoices[matter].map((id) => ({ id: id as string, name: choices[id] ?? id }))}
                onChange={(id) =>
                  void dispatch({ name: "editJob", change: { schools: { ...schools, [matter]: id } } })
                }
              />
              <p style={{ margin: "2px 0 6px", fontSize: 12, color: "var(--soft)" }}>
                {chosen === schoolChoices[matter][0]
                  ? reason
                  : `The default differs: ${choices[schoolChoices[matter][0]]}.`}{" "}
                Touches: {touches}
              </p>
            </div>
          );
        })}
      </Fields>
    </Sheet>
  );
}

function SiteAndFuel() {
  const { job, dispatch } = useJob();
  const { units, site, fuel } = job;
  const { temperature } = useTrade();
  const [chart, setChart] = useState(false);
  const setSite = (change: Partial<typeof site>, field: string, entered: string) =>
    void dispatch({
      name: "editJob",
      change: {
        site: { ...site, ...change, given: { ...site.given, [field]: { entered, basis: "measured" } } },
      },
    });
  const setFuel = (change: Partial<typeof fuel>) =>
    void dispatch({ name: "editJob", change: { fuel: { ...fuel, ...change } } });
  const basis = (field: string) => site.given?.[field]?.basis ?? "assumed";
  const [first, second] = fuel.viscosityPoints;
  const envelope = envelopeOf(job);
  const warnings = fuelCautions(fuel, site.ambientLowC);
  const cold = fuelAt(fuel, site.ambientLowC);
  const hot = fuelAt(fuel, site.ambientHighC);
  return (
    <>
      {warnings.map((code) => (
        <Caution key={code}>{cautions[code]}</Caution>
      ))}
      <Sheet>
        <h3>Site and fuel</h3>
        {cold && hot && (
          <p>
            {formatNumber(cold.kinematicM2S * 1e6)} mm²/s and {formatNumber(cold.densityKgM3, 4)} kg/m³ at the
            coldest, {formatNumber(hot.kinematicM2S * 1e6)} mm²/s and {formatNumber(hot.densityKgM3, 4)} kg/m³
            at the hottest.
          </p>
        )}
        <Fields>
          <TextField
            label="Job"
            value={job.name}
            onCommit={(jobName) => void dispatch({ name: "rename", jobName })}
          />
          <QuantityField
            label="Altitude"
            dimension="length"
            unit="m"
            value={site.altitudeM}
            basis={basis("altitudeM")}
            onCommit={(altitudeM, entered) => setSite({ altitudeM }, "altitudeM", entered)}
          />
          <QuantityField
            label="Coldest"
            dimension="temperature"
            unit={units.temperature}
            value={site.ambientLowC}
            basis={basis("ambientLowC")}
            check={(si) => (si < site.ambientHighC ? null : "Must be below the hottest.")}
            onCommit={(ambientLowC, entered) => setSite({ ambientLowC }, "ambientLowC", entered)}
          />
          <QuantityField
            label="Hottest"
            dimension="temperature"
            unit={units.temperature}
            value={site.ambientHighC}
            basis={basis("ambientHighC")}
            check={(si) => (si > site.ambientLowC ? null : "Must be above the coldest.")}
            onCommit={(ambientHighC, entered) => setSite({ ambientHighC }, "ambientHighC", entered)}
          />
          <QuantityField
            label="Most pitch"
            dimension="angle"
            unit="deg"
            value={envelope.pitchDeg}
            basis={site.envelope ? "measured" : "assumed"}
            check={(si) => (si >= 0 && si <= 45 ? null : "0 to 45 degrees.")}
            onCommit={(pitchDeg, entered) =>
              setSite({ envelope: { ...envelope, pitchDeg } }, "envelope", entered)
            }
          />
          <QuantityField
            label="Most roll"
            dimension="angle"
            unit="deg"
            value={envelope.rollDeg}
            basis={site.envelope ? "measured" : "assumed"}
            check={(si) => (si >= 0 && si <= 45 ? null : "0 to 45 degrees.")}
            onCommit={(rollDeg, entered) =>
              setSite({ envelope: { ...envelope, rollDeg } }, "envelope", entered)
            }
          />
          <Select
            label="Fuel"
            value={fuel.grade}
            options={gradeIds.map((id) => ({ id, name: grades[id].standard }))}
            onChange={(grade: GradeId) =>
              void dispatch({ name: "editJob", change: { fuel: presetFuel(grade) } })
            }
          />
          <QuantityField
            label="Density at 15 °C"
            dimension="density"
            unit="kg/m3"
            value={fuel.density15KgM3}
            onCommit={(density15KgM3) => setFuel({ density15KgM3 })}
          />
          <QuantityField
            label={`Viscosity at ${temperature(first.tempC)}`}
            dimension="viscosity"
            unit="mm2/s"
            value={first.mm2S}
            onCommit={(mm2S) => setFuel({ viscosityPoints: [{ ...first, mm2S }, second] })}
          />
          <QuantityField
            label={`Viscosity at ${temperature(second.tempC)}`}
            dimension="viscosity"
            unit="mm2/s"
            value={second.mm2S}
            onCommit={(mm2S) => setFuel({ viscosityPoints: [first, { ...second, mm2S }] })}
          />
          <QuantityField
            label="Cloud point"
            dimension="temperature"
            unit={units.temperature}
            value={fuel.cloudPointC}
            onCommit={(cloudPointC) => setFuel({ cloudPointC })}
          />
          {grades[fuel.grade].reidPa !== null && (
            <QuantityField
              label="Vapour pressure (Reid), by season"
              dimension="pressure"
              unit={gaugeUnit(units, 1)}
              value={fuel.reidPa ?? grades[fuel.grade].reidPa ?? undefined}
              basis={fuel.reidPa === undefined ? "assumed" : "maker"}
              check={(si) => (si >= 1e4 && si <= 2e5 ? null : "10 to 200 kPa (1.5 to 29 psi).")}
              onCommit={(reidPa) => setFuel({ reidPa })}
            />
          )}
          {grades[fuel.grade].reidPa === null && fuel.grade !== "fame" && (
            <QuantityField
              label="Biodiesel mixed in"
              dimension="ratio"
              unit="%"
              value={fuel.biodieselShare ?? 0}
              check={(si) => (si >= 0 && si <= 1 ? null : "0 to 100 %.")}
              onCommit={(biodieselShare) => setFuel({ biodieselShare })}
            />
          )}
        </Fields>
        <Button onPress={() => setChart(!chart)} aria-expanded={chart}>
          Density and viscosity over temperature
        </Button>
        {chart && (
          <Suspense fallback={<p>Drawing…</p>}>
            <ViscosityChart fuel={blended(fuel)} site={site} />
          </Suspense>
        )}
      </Sheet>
    </>
  );
}
