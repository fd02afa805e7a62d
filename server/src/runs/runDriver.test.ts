import type { RunPlan } from "@pale-cap/core";
import { pino } from "pino";
import { expect, it } from "vitest";
import type { ProofRunRow } from "../database/models/proofRuns";
import { RunDriver, usualDriverTimes } from "./runDriver";
import type { RunRig } from "./runRig";

it("a database that hangs keeps no run from being watched, nor the mains on", async () => {
  const rail = { netId: "a", loadId: "load", lowVolts: 11, highVolts: 13, mostAmps: 3, heldVolts: null };
  const plan: RunPlan = {
    ...{ kind: "load_run", steps: [{ loads: [{ netId: "a", amps: 1 }], dwellSeconds: 600 }], sampleSeconds: 0.01 },
    ...{ rails: [rail], mainsId: "mains", mostInputWatts: null, ripple: null, spots: [], mostKelvinPerMinute: 10 },
  };
  let reads = 0;
  const acts: string[] = [];
  const rig = {
    read: async () => ({
      rails: [{ netId: "a", volts: ++reads > 4 ? 14 : 12, amps: 1, isOn: true }],
      ...{ isMainsOn: true, inputWatts: 20, rippleVolts: null, celsius: [] },
    }),
    setLoad: async (_id: string, amps: number) => void acts.push(`load ${amps}`),
    switchMains: async (isOn: boolean) => acts.push(`mains ${isOn ? "on" : "off"}`) > 0,
    ...{ isLoadOff: async () => true, volts: async () => 0.1, letGo: async () => undefined },
  } as unknown as RunRig;
  const never = () => new Promise<never>(() => undefined);
  const driver = new RunDriver({
    run: { plan } as ProofRunRow,
    ...{ rig, store: { store: never }, leastOf: () => 0, askedSince: never, now: () => new Date() },
    logger: pino({ level: "silent" }),
    times: { ...usualDriverTimes, retryMilliseconds: 5 },
  });
  driver.begin(true);
  await expect.poll(() => acts.slice(-2), { timeout: 4000 }).toEqual(["mains off", "load 0"]);
  expect(driver.state.stop?.code).toBe("over_voltage");
});
