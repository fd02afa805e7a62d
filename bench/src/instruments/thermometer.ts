import type { Bench } from "./bench";
import { type Instrument, Probes, printNumber, toDigits } from "./instrument";

/** Spot thermometer: the surface it is pointed at, within half a kelvin. */
export function thermometer(bench: Bench): Instrument {
  const probes = new Probes(bench);
  function read(): number | null {
    const { points } = probes;
    if (!points) return null;
    bench.supply.net(points.nodes[0], bench.now());
    return toDigits(bench.noisy(bench.supply.temperatureOf(points.part), 0, 0.4), 3);
  }
  return {
    kind: "thermometer",
    identity: "Pale Cap,Spot thermometer (simulated),1,1",
    handlers: {
      ...probes.handlers,
      FUNC: ({ isQuery }) => (isQuery ? "TEMP" : null),
      READ: () => printNumber(read()),
      "MEAS:TEMP": () => printNumber(read()),
    },
  };
}
