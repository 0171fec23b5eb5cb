import { expose } from "comlink";
import { sweepAll } from "~/core/hydraulics/worst";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { KeelWorker } from "./messages";

const worker: KeelWorker = {
  sweep(job, sweep, onProgress) {
    try {
      return { ok: true, cases: sweepAll(buildNetwork(job), currentPlan(job).conditions, sweep, onProgress) };
    } catch (error) {
      return { ok: false, reason: String(error) };
    }
  },
  die() {
    self.close();
  },
};

expose(worker);
