import { instrumentFunctions, type ScenarioDevice } from "@pale-cap/contract";
import { voltsUnderTestCurrent } from "@pale-cap/core";
import type { Bench } from "./bench";
import { CommandError } from "./commandError";
import { type Handler, type Instrument, Probes, printNumber, toDigits, toResolution, wordHandler } from "./instrument";

const ohmsTestAmps = 1e-4;
const diodeTestAmps = 1e-3;
const openVolts = 2.6;
const mostOhms = 40e6;
/** The leakage test: a known voltage through a known resistor. */
const leakageVolts = 20;
const leakageSeriesOhms = 10e3;
/** An optocoupler wants about this through its diode; the diode range has a fifth of it. */
const couplerAmps = 5e-3;

/** Multimeter: slow, and an average of whatever comes and goes faster than it looks. */
export function multimeter(bench: Bench): Instrument {
  const probes = new Probes(bench);
  type Function = (typeof instrumentFunctions.multimeter)[number];
  let func: Function = "DCV";

  function read(what: Function): number | null {
    const { points } = probes;
    const { supply } = bench;
    if (!points) return what === "DCV" || what === "ACV" ? 0 : null;
    const volts = supply.voltsBetween(points.nodes, bench.now());
    bench.hands?.beforeReading("multimeter", what !== "DCV" && what !== "ACV", points, volts);
    if (what === "DCV") return toResolution(bench.noisy(volts, 0.002, 0.0004), 1e-3);
    if (what === "ACV") return toResolution(Math.abs(bench.noisy(rippleVoltsRms(points.nodes[0]), 0.02, 0.0005)), 1e-3);
    if (Math.abs(volts) > 0.3) throw new CommandError(-240, "Volts on the probes: drain first");
    if (what === "COUP") return couplerOhms(points.text);
    const branches = supply.coldNetwork(points, 0);
    if (what === "DIOD") {
      const across = voltsUnderTestCurrent(branches, points.nodes, diodeTestAmps);
      return across > openVolts ? null : toDigits(bench.noisy(across, 0.003, 0.0005), 4);
    }
    const ohms = Math.abs(voltsUnderTestCurrent(branches, points.nodes, ohmsTestAmps)) / ohmsTestAmps;
    if (what === "LEAK")
      return toDigits(Math.abs(bench.noisy(leakageVolts / (leakageSeriesOhms + ohms), 0.01, 2e-8)), 3);
    // While the meter charges what hangs on the net, its reading climbs.
    const seconds = Math.max(bench.now() - probes.connectedAtSeconds, 0.05);
    const charged = 1 - Math.exp(-seconds / (ohms * supply.chargedFarads(points)));
    const shown = bench.noisy(ohms * charged, 0.004, 0.02);
    return shown > mostOhms ? null : toDigits(Math.max(shown, 0), 4);
  }

  /** What its bandwidth leaves of the ripple: mains whole, the converter's a twentieth. */
  function rippleVoltsRms(node: string): number {
    const { mainsPeakToPeak, switchingPeakToPeak, pulses } = bench.supply.net(node, bench.now());
    const pulsing = pulses
      ? (pulses.highVolts - pulses.lowVolts) * Math.sqrt(pulses.onRatio * (1 - pulses.onRatio))
      : 0;
    return Math.hypot(mainsPeakToPeak / (2 * Math.SQRT2), switchingPeakToPeak / (20 * 3.5), pulsing * 0.6);
  }

  /** The transistor side while the diode range's current runs through the lamp side. */
  function couplerOhms(text: string): number | null {
    const device = bench.supply.scenario.devices.find(
      (one: ScenarioDevice) => one.at.toLowerCase() === text.toLowerCase(),
    );
    if (device?.kind !== "optocoupler") throw new CommandError(-224, "Probe the optocoupler by its designator");
    if (device.condition !== "good") return null;
    return toDigits(bench.noisy(900 * (couplerAmps / diodeTestAmps) ** 3, 0.02, 0), 3);
  }

  const measure =
    (what: Function): Handler =>
    () =>
      printNumber(read(what));
  return {
    kind: "multimeter",
    identity: "Pale Cap,Multimeter (simulated),1,1",
    handlers: {
      ...probes.handlers,
      FUNC: wordHandler(
        instrumentFunctions.multimeter,
        () => func,
        (word) => {
          func = word;
        },
      ),
      READ: () => printNumber(read(func)),
      ...Object.fromEntries(instrumentFunctions.multimeter.map((word) => [`MEAS:${word}`, measure(word)])),
    },
  };
}
