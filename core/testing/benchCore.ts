import { unknownConverter } from "../src/board/converterDescription";
import { median } from "../src/numerics/median";
import { filterHarmonics } from "../src/ripple/filterHarmonics";
import type { FilterCapacitor } from "../src/ripple/filterNetwork";
import { mainsBulk } from "../src/ripple/mainsBulk";
import { sweepLoads } from "../src/ripple/ripplePrediction";
import { flybackDiscontinuousCurrent } from "../src/ripple/sourceCurrent";
import { steadyRipple } from "../src/ripple/steadyRipple";
import { analyseCapture } from "../src/waveform/analyseCapture";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading } from "./sampleJob";

/** Milliseconds of the ripple engine's acts, as medians, and operations a second. */
declare const performance: { now(): number };
declare const console: { log(line: string): void };

const choke = { inductanceHenrys: 3.3e-6, resistanceOhms: 0.02 };
const source = flybackDiscontinuousCurrent({ switchingHertz: 65e3, peakAmps: 15, fallRatio: 0.35, riseSeconds: 1e-7 });
const capacitors = (count: number): FilterCapacitor[] =>
  Array.from({ length: count }, (_, n) => ({ capacitanceFarads: (470 + 100 * n) * 1e-6, esrOhms: 0.03 + 0.005 * n }));

function medianMilliseconds(rounds: number, act: () => unknown): number {
  act();
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    act();
    return performance.now() - start;
  });
  return median(times);
}

function tell(name: string, milliseconds: number): void {
  const each = milliseconds < 10 ? milliseconds.toFixed(2) : milliseconds.toFixed(0);
  console.log(`${name.padEnd(58)} ${each.padStart(8)} ms ${(1000 / milliseconds).toFixed(0).padStart(8)} /s`);
}

for (const count of [1, 2, 3, 5, 8]) {
  const network = { before: capacitors(count), choke: null, after: [] };
  tell(
    `steady state, ${count} capacitors`,
    medianMilliseconds(60, () => steadyRipple(source, network)),
  );
}
const five = { before: capacitors(3), choke, after: capacitors(2) };
tell(
  "steady state, five capacitors and a pi filter",
  medianMilliseconds(60, () => steadyRipple(source, five)),
);
for (const harmonics of [10, 40, 160]) {
  tell(
    `currents of that filter, ${harmonics} harmonics`,
    medianMilliseconds(60, () => filterHarmonics(source, five, harmonics)),
  );
}

const network = { arrangement: "parallel" as const, behindNetId: "net-12", chokeHenrys: 3.3e-6, chokeOhms: 0.02 };
const names = ["C1", "C2", "C3", "C4", "C5"];
const facts = sampleJob({
  nets: [sampleNet(), sampleNet({ id: "net-post", network })],
  positions: names.map((one, n) => samplePosition(one, n < 3 ? {} : { netId: "net-post" })),
  fittedParts: names.map((one) => samplePart(one)),
  readings: [sampleReading("C1", { value: 0.4 })],
});
const question = {
  board: { ...facts, chosen: new Map() },
  netId: "net-12",
  converter: unknownConverter("flyback_discontinuous"),
  railVolts: 12,
  loadAmps: 3,
  temperatureCelsius: 45,
};
const loads = Array.from({ length: 200 }, (_, n) => 0.05 * (n + 1));
tell(
  "sweep of 200 loads in three states",
  medianMilliseconds(9, () => sweepLoads(question, loads)),
);
const bulk = { mainsVoltsRms: 230, mainsHertz: 50, sourceOhms: 1.5, capacitanceFarads: 120e-6, esrOhms: 0.5 };
tell(
  "mains bulk",
  medianMilliseconds(41, () => mainsBulk({ ...bulk, topology: "bridge", loadWatts: 60, dropoutVolts: 180 })),
);
const samples = Float32Array.from({ length: 1_000_000 }, (_, n) => 0.1 * (0.5 - ((n * 4e-7 * 65e3) % 1)));
tell(
  "analysis of a capture of a million samples",
  medianMilliseconds(3, () => analyseCapture(samples, 4e-7, 50)),
);
