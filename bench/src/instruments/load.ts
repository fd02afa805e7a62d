import { instrumentFunctions } from "@pale-cap/contract";
import { ampsHeldAt } from "../virtualSupply/operation";
import type { Bench } from "./bench";
import { CommandError } from "./commandError";
import {
  type Instrument,
  OwnLimits,
  positiveParameter,
  printNumber,
  switchParameter,
  toDigits,
  wordHandler,
} from "./instrument";

/**
 * Electronic load on one net: constant current, constant power, or a current that swings; and reading back.
 *
 * @param channel which of the bench's loads it is
 */
export function load(bench: Bench, channel = 1): Instrument {
  type Function = (typeof instrumentFunctions.load)[number];
  let func: Function = "VOLT";
  let net: string | null = null;
  let mode: "CURR" | "POW" | "VOLT" | "SWIN" = "CURR";
  let [amps, watts, held] = [1, 10, 5];
  let swing = { toAmps: 1, hertz: 100 };
  let isOn = false;
  bench.onSupplyChanged(() => {
    net = null;
    isOn = false;
  });

  function apply(): void {
    const { [channel]: _, ...loads } = bench.supply.state.loads;
    const drawn = net && {
      ...{ net, amps: mode === "CURR" || mode === "SWIN" ? amps : null, watts: mode === "POW" ? watts : null },
      volts: mode === "VOLT" ? held : null,
      swing: mode === "SWIN" ? swing : null,
    };
    bench.supply.set({ loads: isOn && drawn ? { ...loads, [channel]: drawn } : loads }, bench.now());
  }
  const limits = new OwnLimits(
    bench,
    "LIM:CURR",
    () => (isOn ? exact("CURR") : null),
    () => {
      isOn = false;
      apply();
    },
  );
  function exact(what: Function): number {
    if (!net) return 0;
    const volts = bench.supply.net(net, bench.now()).meanVolts;
    const mean = mode === "SWIN" ? (amps + swing.toAmps) / 2 : mode === "VOLT" ? heldAmps() : amps;
    const drawn = isOn && volts > 0.5 ? (mode === "POW" ? watts / volts : mean) : 0;
    return { VOLT: volts, CURR: drawn, POW: volts * drawn }[what];
  }
  function heldAmps(): number {
    const found = bench.supply.scenario.nets.find((one) => one.name === net);
    return found && bench.supply.state.isMainsOn ? ampsHeldAt(found, held) : 0;
  }
  function read(what: Function): number | null {
    if (!net) return null;
    return toDigits(bench.noisy(exact(what), 0.001, 0.001), 5);
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
    heard: limits.heard,
    handlers: {
      ...limits.handlers,
      CONN: ({ isQuery, parameters: [text = ""] }) => {
        if (isQuery) return net ?? "NONE";
        const found = bench.supply.scenario.nets.find((one) => one.name.toLowerCase() === text.toLowerCase());
        if (!found && text.toUpperCase() !== "NONE") throw new CommandError(-224, `No such net: ${text}`);
        net = found?.name ?? null;
        apply();
        return null;
      },
      MODE: wordHandler(
        ["CURR", "POW", "VOLT", "SWIN"] as const,
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
      VOLT: level(
        (value) => {
          held = value;
        },
        () => held,
      ),
      POW: level(
        (value) => {
          watts = value;
        },
        () => watts,
      ),
      SWIN: (command) => {
        if (command.isQuery) return `${swing.toAmps},${swing.hertz}`;
        const [toAmps, hertz] = command.parameters.map(Number);
        const isMeant = toAmps !== undefined && toAmps >= 0 && toAmps <= 400 && hertz !== undefined && hertz > 0;
        if (!isMeant || hertz > 10e3) throw new CommandError(-222, "Data out of range");
        swing = { toAmps, hertz };
        apply();
        return null;
      },
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
      "MEAS:VOLT": () => printNumber(read("VOLT")),
      "MEAS:CURR": () => printNumber(read("CURR")),
    },
  };
}
