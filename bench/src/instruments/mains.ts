import { instrumentFunctions } from "@pale-cap/contract";
import { printPartEntry } from "@pale-cap/core";
import type { Bench } from "./bench";
import { CommandError } from "./commandError";
import {
  type Instrument,
  OwnLimits,
  positiveParameter,
  printNumber,
  switchParameter,
  toResolution,
  wordHandler,
} from "./instrument";
import { markings } from "./markings";

/** So many benches, and practice jobs, at once. */
const mostSets = 200;

/** Mains source with series lamp, isolation transformer and wattmeter, the drain lead, and the choice of the supply. */
export function mains(bench: Bench): Instrument {
  type Function = (typeof instrumentFunctions.mains)[number];
  let func: Function = "POW";
  const read = (what: Function) => {
    bench.supply.set({}, bench.now());
    const { inputWatts, inputAmps } = bench.supply.operation();
    const value = what === "POW" ? inputWatts : inputAmps;
    return toResolution(
      Math.max(bench.noisy(value, 0.005, what === "POW" ? 0.003 : 0.0002), 0),
      what === "POW" ? 0.01 : 0.001,
    );
  };
  const limits = new OwnLimits(
    bench,
    "LIM:POW",
    () => bench.supply.operation().inputWatts,
    () => bench.supply.set({ isMainsOn: false }, bench.now()),
  );
  return {
    kind: "mains",
    identity: "Pale Cap,Mains source (simulated),1,1",
    heard: limits.heard,
    handlers: {
      ...limits.handlers,
      OUTP: (command) => {
        if (command.isQuery) return bench.supply.state.isMainsOn ? "ON" : "OFF";
        bench.supply.set({ isMainsOn: switchParameter(command) }, bench.now());
        return null;
      },
      LAMP: (command) => {
        if (command.isQuery) return String(bench.supply.state.lampWatts ?? "OFF");
        const isOff = command.parameters[0]?.toUpperCase() === "OFF";
        bench.supply.set({ lampWatts: isOff ? null : positiveParameter(command) }, bench.now());
        return null;
      },
      ISOL: (command) => {
        if (command.isQuery) return bench.supply.state.isIsolated ? "ON" : "OFF";
        bench.supply.set({ isIsolated: switchParameter(command) }, bench.now());
        return null;
      },
      DRAI: ({ isQuery, parameters: [text = "", ohms = ""] }) => {
        const { drain } = bench.supply.state;
        if (isQuery) return drain ? `${drain.net},${drain.ohms}` : "OFF";
        if (text.toUpperCase() === "OFF") {
          bench.supply.set({ drain: null }, bench.now());
          return null;
        }
        const net = bench.supply.scenario.nets.find((one) => one.name.toLowerCase() === text.toLowerCase());
        if (!net) throw new CommandError(-224, `No such net: ${text}`);
        if (!(Number(ohms) > 0)) throw new CommandError(-222, "Data out of range");
        bench.supply.set({ drain: { net: net.name, ohms: Number(ohms) } }, bench.now());
        return null;
      },
      FUNC: wordHandler(
        instrumentFunctions.mains,
        () => func,
        (word) => {
          func = word;
        },
      ),
      READ: () => printNumber(read(func)),
      "MEAS:POW": () => printNumber(read("POW")),
      "SYST:SETS": (command) => {
        const count = positiveParameter(command);
        if (!Number.isInteger(count) || count > mostSets) throw new CommandError(-222, "Data out of range");
        bench.openSets?.(count);
        return command.isQuery ? String(count) : null;
      },
      "SYST:SCEN": ({ isQuery, parameters: [name = ""] }) => {
        if (isQuery) return bench.supply.scenario.name;
        if (!bench.choose(name)) throw new CommandError(-224, `No such supply: ${name}`);
        return null;
      },
      "SYST:SCEN:LIST": () => JSON.stringify(bench.scenarios.map(({ name, title }) => ({ name, title }))),
      "SYST:SCEN:CARD": () => {
        const { name, title, complaint } = bench.supply.scenario;
        return JSON.stringify({ name, title, complaint, lines: markings(bench.supply.scenario).map(printPartEntry) });
      },
    },
  };
}
