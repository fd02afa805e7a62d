import { JobJudge } from "../src/job/jobJudge";
import { percentile } from "../src/numerics/percentile";
import { seededRandom } from "../src/numerics/seededRandom";
import type { Reading } from "../src/readings/reading";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "./sampleJob";

/**
 * Milliseconds from one more reading to all verdicts and the ranked explanations, on a board of sixty parts with a
 * thousand readings: what the judgement worker does for each.
 */
const [partCount, netCount, readingCount, rounds] = [60, 12, 1000, 200];

declare const performance: { now(): number };
declare const console: { log(line: string): void };

const random = seededRandom(1);
const nets = Array.from({ length: netCount }, (_, n) =>
  sampleNet({ id: `net-${n}`, name: `${n + 3} V`, section: (["bulk", "vcc", "standby", "output"] as const)[n % 4] }),
);
const positions = Array.from({ length: partCount }, (_, n) =>
  samplePosition(`C${n}`, { netId: `net-${n % netCount}` }),
);
const fittedParts = positions.map((one) => samplePart(one.designator));

function reading(): Reading {
  const at = `C${Math.floor(random() * partCount)}`;
  const circuitState = random() < 0.5 ? "in_circuit" : "lead_lifted";
  return random() < 0.7
    ? sampleReading(at, { value: 0.02 * Math.exp(3 * random()), circuitState })
    : sampleReading(at, {
        quantity: "capacitance",
        value: 1e-3 * (0.5 + 0.6 * random()),
        circuitState,
        frequencyHertz: 120,
      });
}

const facts = sampleJob({
  symptoms: ["collapses_under_load", "ripple_switching", "cold_start_fails"],
  nets,
  positions,
  fittedParts,
  readings: Array.from({ length: readingCount }, reading),
});
const judge = new JobJudge(facts, sampleRules);
const opening = timed(() => judge.judge());
const times = Array.from({ length: rounds }, () => {
  judge.take({ facts: {}, rules: null, addedReadings: [reading()], removedReadingIds: [] });
  return timed(() => judge.judge());
});
const quantile = (share: number) => percentile(times, share).toFixed(1);
console.log(`${partCount} parts, ${readingCount} readings: first judged in ${opening.toFixed(0)} ms`);
console.log(
  `after one more reading: median ${quantile(0.5)} ms, 95th percentile ${quantile(0.95)} ms, most ${quantile(1)} ms`,
);

function timed(act: () => unknown): number {
  const start = performance.now();
  act();
  return performance.now() - start;
}
