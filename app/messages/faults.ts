/** Faults of files and inputs as sentences. */
import type { DipCsvFault } from "~/core/export/dipCsv";
import { metricUnits, type UnitChoice } from "~/core/units/format";
import type { QuantityFault } from "~/core/units/parse";
import { tradeIn } from "~/core/units/trade";

export interface Fault {
  code: string;
  values?: Record<string, string | number>;
}

/** What is wrong, in words; the place is shown beside it. */
export function dipFaultText(fault: DipCsvFault): string {
  const say = (text: string) => `line ${fault.line}: ${text}`;
  switch (fault.code) {
    case "noDepthColumn":
      return say("there is no column named depth");
    case "noRows":
      return say("there are no readings");
    case "tooManyRows":
      return say("too many readings for one file");
    case "badDate":
      return say("the date was not understood");
    case "notMoreThanNothing":
      return say("must not be less than zero");
    case "badQuantity":
      return say(quantityFaultText(fault.fault));
  }
}

/** A file's faults stand in metric: no job tells its units yet. */
export function faultText({ code, values = {} }: Fault, units: UnitChoice = metricUnits): string {
  const say = tradeIn(units);
  switch (code) {
    case "notJson":
      return `is not JSON (${values.reason})`;
    case "notAJobFile":
      return "is not a job file of this application";
    case "notABox":
      return "is not a file of the shop's box";
    case "noSuchShape":
      return "is no adapter that is made";
    case "badVersion":
      return "has no version that can be read";
    case "newerVersion":
      return `is of version ${values.version}; this application reads up to ${values.known}. Nothing was changed`;
    case "notMigrated":
      return `is of version ${values.version ?? "1"} and could not be brought up to this one`;
    case "notAZip":
      return "is not a ZIP file that can be read";
    case "zipEntries":
      return `holds more than ${values.most} files: more than any shop's jobs. Nothing was unpacked`;
    case "zipEntryLarge":
      return `would unpack to more than ${values.mostMiB} MB, the most for one file in it. Nothing was unpacked`;
    case "zipLarge":
      return `would unpack to more than ${values.mostMiB} MB. Nothing was unpacked`;
    case "zipRatio":
      return `would unpack to more than ${values.ratio} times its size, as no job does. Nothing was unpacked`;
    case "tooDeep":
      return `has records inside records, more than ${values.most} deep: no job file does`;
    case "controlCharacter":
      return "has a line break or another character that cannot be printed";
    case "notAllFile":
      return "is not a file of everything; open a single job from the list of jobs";
    case "badHash":
      return "is not the hash of a plan";
    case "hashDiffers":
      return "is not the plan that its hash stands for";
    case "missingSnapshot":
      return "cites a plan that is not in the file";
    case "otherPlan":
      return `cites a plan other than ${values.id}`;
    case "missingEntry":
      return `strikes ${values.id}, which is not in the log`;
    case "strikesRound":
      return "is struck by what it strikes";
    case "missingPlan":
      return `is based on the plan ${values.id}, which is not there`;
    case "basedRound":
      return "is based on itself";
    case "portTwice":
      return `joins the way ${values.id} twice`;
    case "brokenRow":
      return `${values.name} can no longer be read here: it is set aside, and the job list offers it as a file`;
    case "newerRow":
      return `${values.name} was written by a newer version of this application: nothing is changed`;
    case "olderRow":
      return `${values.name} was written by an older version: open it again from the job list`;
    case "changedSince":
      return "Another tab has since changed the same: it cannot be redone";
    case "unknownKey":
      return "is not a field of this format";
    case "missing":
      return "is missing";
    case "wrongType":
      return values.wanted === "number" ? "must be a finite number" : `must be ${values.wanted}`;
    case "tooSmall":
      return Number(values.least) === 0 ? "must be greater than zero" : `must be at least ${values.least}`;
    case "tooLarge":
      return `must be at most ${values.most}`;
    case "badId":
      return "is not an id (1 to 14 letters, digits, - or _)";
    case "badFormat":
    case "notAllowed":
      return "is not one of the values allowed here";
    case "flowsNotRising":
      return "must go from lower to higher flow";
    case "risesNotFalling":
      return "must fall as flow grows";
    case "loadsNotRising":
      return "must go from lower to higher load";
    case "burnsMoreThanFed":
      return "burns more than it is fed";
    case "sameTemperature":
      return "needs two different temperatures";
    case "duplicateId":
      return `the id ${values.id} stands twice`;
    case "noCurrentPlan":
      return "names a plan that is not in the job";
    case "crossingSection":
      return "crosses itself";
    case "emptySection":
      return "encloses nothing";
    case "sectionsOutOfOrder":
      return "must lie further along than the section before it";
    case "cornersDiffer":
      return `has ${values.corners} corners; the first section has ${values.wanted}`;
    case "sensesDiffer":
      return "runs round the other way than the section before it";
    case "unitSlip":
      return `is ${say.run(Number(values.sizeM))} across, more than ${say.run(Number(values.mostM))}: was a size typed in another unit?`;
    case "wallTooThick":
      return "is too thick for these outside sizes: no inside is left";
    case "outsideTank":
      return "lies outside the tank";
    case "lowOverHigh":
      return "has its low end over its high one";
    case "sameReading":
      return "reads the same empty and full";
    case "overCapacity":
      return "is more than the tank holds";
    case "notColder":
      return "must not be warmer than the warm one";
    case "onePlace":
      return "needs readings at two places or more";
    case "waterFloats":
      return "is not heavier than the fuel: nothing settles";
    case "countsOutOfScale":
      return "is beyond the scale of the standard";
    case "countsNotFalling":
      return "must not grow from the smaller to the larger size";
    case "overfull":
      return `holds more than the tank (${say.volume(Number(values.aboardM3))} of ${say.volume(Number(values.capacityM3))})`;
    case "missingPort":
      return `the port ${values.port} is not there`;
    case "notAtTank":
      return "an in-tank pump hangs at a tank's outlet: let it into the hose that leaves the tank";
    case "portTaken":
      return values.by === undefined
        ? "that port has a hose on it"
        : `the port ${values.port} is taken by ${values.by}`;
    case "samePort":
      return "a hose needs two different ports";
    case "tooShort":
      return `is ${say.length(Number(values.lengthM))} long, but its ports are ${say.length(Number(values.distanceM))} apart`;
    case "noLength":
      return "has no length; two ports screwed together are a joint";
    case "missingValve":
      return `the valve ${values.id} is not there`;
    case "missingPosition":
      return `the valve ${values.id} has no such position`;
    case "missingWay":
      return `the way ${values.port} is not on this valve`;
    case "nozzleTooWide":
      return "must be narrower than its throat";
    case "missingLineUp":
      return `the line-up ${values.id} is not there`;
    case "otherKind":
      return "is of another kind: its figures do not fit";
    case "lastPlan":
      return "a job keeps one plan at least";
    case "missingPart":
    case "noSuch":
      return `${values.id ?? "what it names"} is not there`;
    case "unknownEnd":
      return `is no end that is known: ${values.family} ${values.size}, form ${values.form}`;
    case "oneLessThanLegs":
      return "must be one less than the legs";
    case "onePerPart":
      return "must be one a part, in the parts' order";
    case "viscosityOutOfRange":
      return "is outside the range of the viscosity law";
    case "boils":
      return "is at or below the vapour pressure: the fuel boils";
    default:
      return code;
  }
}

/** What was not understood in a typed quantity. */
export function quantityFaultText(fault: QuantityFault): string {
  switch (fault.code) {
    case "empty":
      return "Nothing was typed.";
    case "notANumber":
      return `'${fault.text}' is not a number.`;
    case "ambiguousComma":
      return `'${fault.text}': write 1500 or 1.5, the comma can mean either.`;
    case "divideByZero":
      return `'${fault.text}' divides by nothing.`;
    case "unknownUnit":
      return `'${fault.text}' is not a unit known here.`;
    case "wrongDimension":
      return `'${fault.text}' is a unit of ${fault.dimension}; a ${fault.wanted} is wanted.`;
    case "mixedUnits":
      return `'${fault.text}' mixes units that do not add up.`;
    case "tooLarge":
      return `'${fault.text}' is too large.`;
  }
}
