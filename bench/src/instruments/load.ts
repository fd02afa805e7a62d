import { instrumentFunctions } from "@pale-cap/contract";
import type { Bench } from "./bench";
import {
  CommandError,
  type Instrument,
  positiveParameter,
  printNumber,
  switchParameter,
  toDigits,
  wordHandler,
} from "./instrument";

/** Electronic load on one net: constant current or constant power, and reading back. */
export function load(bench: Bench): Instrument {
  type Function = (typeof instrumentFunctions.load)[number];
  let func: Function = "VOLT";
  let net: string | null = null;
  let mode: "CURR" | "POW" = "CURR";
  let [amps, watts] = [1, 10];
  let isOn = false;
  bench.onSupplyChanged(() => {
    net = null;
    isOn = false;
  });

  function apply(): void {
    const drawn =
      isOn && net ? { net, amps: mode === "CURR" ? amps : null, watts: mode === "POW" ? watts : null } : null;
    bench.supply.set({ load: drawn }, bench.now());
  }
  function read(what: Function): number | null {
    if (!net) return null;
    const volts = bench.supply.net(net, bench.now()).meanVolts;
    const drawn = isOn && volts > 0.5 ? (mode === "CURR" ? amps : watts / volts) : 0;
    const value = { VOLT: volts, CURR: drawn, POW: volts * drawn }[what];
    return toDigits(bench.noisy(value, 0.001, 0.001), 5);
  }
  const level =
    (assign: (value: number) => void, current: () => number) => (command: Parameters<typeof positiveParameter>[0]) => {
      if (command.isQuery) return printNumber(current());
      const value = positiveParameter(command);
      if (value > 400) throw new CommandError(-222, "Data out of range");
      assign(value);
      apply();
      return null;
    };
  return {
    kind: "load",
    identity: "Pale Cap,Electronic load (simulated),1,1",
    handlers: {
      CONN: ({ isQuery, parameters: [text = ""] }) => {
        if (isQuery) return net ?? "NONE";
        const found = bench.supply.scenario.nets.find((one) => one.name.toLowerCase() === text.toLowerCase());
        if (!found && text.toUpperCase() !== "NONE") throw new CommandError(-224, `No such net: ${text}`);
        net = found?.name ?? null;
        apply();
        return null;
      },
      MODE: wordHandler(
        ["CURR", "POW"] as const,
        () => mode,
        (word) => {
          mode = word;
          apply();
        },
      ),
      CURR: level(
        (value) => {
          amps = value;
        },
        () => amps,
      ),
      POW: level(
        (value) => {
          watts = value;
        },
        () => watts,
      ),
      INP: (command) => {
        if (command.isQuery) return isOn ? "ON" : "OFF";
        isOn = switchParameter(command);
        apply();
        return null;
      },
      FUNC: wordHandler(
        instrumentFunctions.load,
        () => func,
        (word) => {
          func = word;
        },
      ),
      READ: () => printNumber(read(func)),
    },
  };
}
