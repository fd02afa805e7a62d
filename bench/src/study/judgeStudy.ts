import { type PolicyName, policies } from "./policies";
import { randomBoard } from "./randomBoard";
import { StudyBench } from "./studyBench";

export interface ReliabilityBin {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  readonly meanPredicted: number;
  readonly shareFailed: number;
}

export interface StudyResult {
  readonly boardCount: number;
  readonly partCount: number;
  readonly failedCount: number;
  /** Failed parts that were condemned. */
  readonly sensitivityRatio: number;
  /** Sound parts that were condemned. */
  readonly soundCondemnedRatio: number;
  readonly specificityRatio: number;
  /** Failed parts left in, per hundred boards. */
  readonly leftInPerHundredBoards: number;
  readonly readingsPerBoard: number;
  readonly liftsPerBoard: number;
  /** Parts for which a chance was given at all. */
  readonly ratedRatio: number;
  readonly brierScore: number | null;
  readonly calibrationError: number | null;
  readonly reliability: readonly ReliabilityBin[];
}

const binCount = 10;

/**
 * Monte Carlo study of one way of working: boards by chance, measured through the simulated instruments, judged by the
 * application, held against the truth. The same seeds give the same numbers.
 */
export function judgeStudy(policy: PolicyName, firstSeed: number, boardCount: number): StudyResult {
  let [parts, failed, found, sound, soundCondemned, notFailed, wrong, readings, lifts, rated] = new Array(10).fill(
    0,
  ) as number[];
  const predictions: { readonly p: number; readonly isFailed: boolean }[] = [];
  for (let n = 0; n < boardCount; n++) {
    const { scenario, truths } = randomBoard(firstSeed + n);
    const bench = new StudyBench(scenario);
    const outcome = policies[policy](bench);
    readings = (readings ?? 0) + bench.readingCount;
    lifts = (lifts ?? 0) + bench.lifted.size;
    for (const [at, truth] of truths) {
      const isCondemned = outcome.condemned.has(at);
      parts = (parts ?? 0) + 1;
      if (truth === "failed") {
        failed = (failed ?? 0) + 1;
        found = (found ?? 0) + Number(isCondemned);
      } else {
        notFailed = (notFailed ?? 0) + 1;
        wrong = (wrong ?? 0) + Number(isCondemned);
      }
      if (truth === "sound") {
        sound = (sound ?? 0) + 1;
        soundCondemned = (soundCondemned ?? 0) + Number(isCondemned);
      }
      const p = outcome.probabilities.get(at);
      if (p === undefined) continue;
      rated = (rated ?? 0) + 1;
      predictions.push({ p, isFailed: truth === "failed" });
    }
  }
  const ratio = (a: number | undefined, b: number | undefined) => (b ? (a ?? 0) / b : 0);
  const reliability = reliabilityOf(predictions);
  return {
    boardCount,
    partCount: parts ?? 0,
    failedCount: failed ?? 0,
    sensitivityRatio: ratio(found, failed),
    soundCondemnedRatio: ratio(soundCondemned, sound),
    specificityRatio: 1 - ratio(wrong, notFailed),
    leftInPerHundredBoards: (100 * ((failed ?? 0) - (found ?? 0))) / boardCount,
    readingsPerBoard: ratio(readings, boardCount),
    liftsPerBoard: ratio(lifts, boardCount),
    ratedRatio: ratio(rated, parts),
    brierScore: predictions.length > 0 ? mean(predictions.map(({ p, isFailed }) => (p - Number(isFailed)) ** 2)) : null,
    calibrationError:
      predictions.length > 0
        ? reliability.reduce(
            (sum, bin) => sum + (bin.count / predictions.length) * Math.abs(bin.meanPredicted - bin.shareFailed),
            0,
          )
        : null,
    reliability,
  };
}

export function reliabilityOf(
  predictions: readonly { readonly p: number; readonly isFailed: boolean }[],
): readonly ReliabilityBin[] {
  return Array.from({ length: binCount }, (_, n) => {
    const [from, to] = [n / binCount, (n + 1) / binCount];
    const own = predictions.filter(({ p }) => p >= from && (p < to || (n === binCount - 1 && p <= 1)));
    return {
      from,
      to,
      count: own.length,
      meanPredicted: own.length > 0 ? mean(own.map(({ p }) => p)) : 0,
      shareFailed: own.length > 0 ? mean(own.map(({ isFailed }) => Number(isFailed))) : 0,
    };
  }).filter((bin) => bin.count > 0);
}

const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
