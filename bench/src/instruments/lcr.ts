import { instrumentFunctions } from "@pale-cap/contract";
import { drivingPointImpedance } from "@pale-cap/core";
import type { Bench } from "./bench";
import { CommandError } from "./commandError";
import {
  type Handler,
  type Instrument,
  Probes,
  positiveParameter,
  printNumber,
  toDigits,
  wordHandler,
} from "./instrument";

/** Resistance of the leads until they are zeroed. */
const leadOhms = 0.025;
/** Above this the input protects itself: the reading is refused. */
const mostVolts = 3;
/** A voltage-loss test waits this long. */
const lossSeconds = 0.01;
/** Even a sound part gives some charge to its dielectric. */
const absorptionRatio = 0.008;

/** ESR and LCR meter, 100 Hz to 100 kHz. */
export function lcr(bench: Bench): Instrument {
  const probes = new Probes(bench);
  type Function = (typeof instrumentFunctions.lcr)[number];
  let func: Function = "ESR";
  let frequencyHertz = 100e3;
  let zeroOhms = 0;

  function read(what: Function): number | null {
    const { points } = probes;
    if (!points) return null;
    const { supply } = bench;
    const volts = supply.voltsBetween(points.nodes, bench.now());
    bench.hands?.beforeReading("lcr", true, points, volts);
    if (Math.abs(volts) > mostVolts) {
      throw new CommandError(-240, "Volts on the probes: drain first");
    }
    const branches = supply.coldNetwork(points, frequencyHertz);
    const z = drivingPointImpedance(branches, points.nodes, frequencyHertz);
    const seriesOhms = z.re + leadOhms - zeroOhms;
    const omega = 2 * Math.PI * frequencyHertz;
    const farads = z.im < 0 ? -1 / (omega * z.im) : null;
    switch (what) {
      case "ESR":
        return Math.max(toDigits(bench.noisy(seriesOhms, 0.012, 0.0015), 4), 0);
      case "CAP":
        return farads === null || farads > 0.5 ? null : toDigits(bench.noisy(farads, 0.008, 0), 4);
      case "DISS":
        return z.im < 0 ? toDigits(bench.noisy(seriesOhms / -z.im, 0.015, 1e-3), 3) : null;
      case "VLOS": {
        if (farads === null) return null;
        const direct = drivingPointImpedance(branches, points.nodes, 1e-6);
        const lost = 1 - Math.exp(-lossSeconds / (Math.max(direct.re, 1e-3) * farads));
        return Math.min(Math.max(toDigits(bench.noisy(lost + absorptionRatio, 0.05, 0.002), 3), 0), 1);
      }
    }
  }

  const measure =
    (what: Function): Handler =>
    () =>
      printNumber(read(what));
  return {
    kind: "lcr",
    identity: "Pale Cap,LCR meter (simulated),1,1",
    handlers: {
      ...probes.handlers,
      FUNC: wordHandler(
        instrumentFunctions.lcr,
        () => func,
        (word) => {
          func = word;
        },
      ),
      FREQ: (command) => {
        if (command.isQuery) return printNumber(frequencyHertz);
        const wanted = positiveParameter(command);
        if (wanted < 100 || wanted > 100e3) throw new CommandError(-222, "100 Hz to 100 kHz");
        frequencyHertz = wanted;
        return null;
      },
      "CORR:SHOR": () => {
        zeroOhms = leadOhms;
        return null;
      },
      "CORR:OPEN": () => {
        zeroOhms = 0;
        return null;
      },
      READ: () => printNumber(read(func)),
      "MEAS:ESR": measure("ESR"),
      "MEAS:CAP": measure("CAP"),
      "MEAS:DISS": measure("DISS"),
      "MEAS:VLOS": measure("VLOS"),
    },
  };
}
