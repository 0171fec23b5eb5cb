/** The last change of a job, as the list tells it: what was done, and to what. */
import type { Command } from "~/core/edit/command";
import type { Id } from "~/core/kinds/record";
import { partKindName } from "./kinds";

const done: Readonly<Record<Command["name"], string>> = {
  rename: "named",
  editJob: "the job's own figures",
  addTank: "tank added:",
  editTank: "tank measured:",
  removeTank: "a tank removed",
  addEngine: "added:",
  editEngine: "figures of",
  removeEngine: "a consumer removed",
  addPart: "added:",
  insertPart: "let in:",
  replacePart: "replaced by",
  editPart: "figures of",
  changeElement: "clean element in",
  takeFigures: "the shop's figures for",
  removePart: "a part removed",
  turnPart: "turned:",
  connect: "hose laid to",
  join: "screwed to",
  editRun: "figures of a hose",
  disconnect: "a hose taken off",
  setValve: "set:",
  setBranch: "set:",
  setPump: "switched:",
  setConsumer: "switched:",
  addLineUp: "line-up added:",
  duplicateLineUp: "line-up added:",
  editLineUp: "line-up changed:",
  removeLineUp: "a line-up removed",
  setConditions: "conditions",
  editPlan: "the plan's own figures",
  forkPlan: "alternative begun:",
  addPlan: "alternative added:",
  choosePlan: "alternative chosen:",
  removePlan: "an alternative removed",
  setEnd: "an end of",
  chooseChain: "adapters chosen",
  addTankLine: "a tank's line added",
  editTankLine: "a tank's line moved",
  removeTankLine: "a tank's line removed",
  addBoard: "board added:",
  editBoard: "board changed:",
  removeBoard: "a board removed",
  hang: "parts hung",
  pin: "held in its place:",
  setHandle: "handle of",
  takeDown: "taken off its board:",
  put: "moved on the drawing:",
  tidy: "the drawing laid out anew",
  several: "added:",
  replaceJob: "taken from a file",
};

/** @param name of what is still there, by its id; its id itself where it is not */
export function changeText(command: Command, name: (id: Id) => string): string {
  const words = done[command.name];
  if (!/(:|to|of|by|for|in|named)$/.test(words)) return words;
  const known = (id: Id | undefined): string | null =>
    id !== undefined && name(id) !== id ? name(id) : null;
  const what = (() => {
    switch (command.name) {
      case "rename":
        return command.jobName;
      case "addPart":
      case "insertPart":
        return known(command.id) ?? partKindName(command.kind);
      case "replacePart":
        return known(command.newId) ?? partKindName(command.kind);
      case "connect":
      case "join":
        return known(command.to.part);
      case "setValve":
      case "setBranch":
        return known(command.valveId);
      case "setPump":
        return known(command.pumpId);
      case "setConsumer":
        return known(command.consumerId);
      case "addLineUp":
      case "duplicateLineUp":
        return command.lineUpName;
      case "forkPlan":
        return command.planName;
      case "addPlan":
        return command.plan.name;
      case "addBoard":
        return command.board.name;
      case "several": {
        const lineUp = command.commands.find((one) => one.name === "addLineUp");
        if (lineUp) return lineUp.lineUpName;
        // The last that was made is what it came to.
        const made = [...command.commands].reverse().find((one) => "kind" in one && "id" in one);
        return made && "id" in made ? known(made.id) : null;
      }
      default:
        return "id" in command ? known(command.id) : null;
    }
  })();
  return what ? `${words} ${what}` : words.replace(/( \w+|:)$/, "");
}
