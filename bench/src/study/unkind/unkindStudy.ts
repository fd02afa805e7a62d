import { type ReliabilityBin, reliabilityOf } from "../judgeStudy";
import { type PolicyName, policies } from "../policies";
import type { Rates } from "./rates";
import { UnkindBench } from "./unkindBench";
import { unkindBoard } from "./unkindBoard";

/** So many of so many. */
export interface Tally {
  readonly count: number;
  readonly of: number;
}

export interface UnkindResult {
  readonly found: Tally;
  /** Leaks above 100 ohms left out: no ESR shows them. */
  readonly foundWithoutLeaks: Tally;
  readonly soundCondemned: Tally;
  readonly readingsPerBoard: number;
  readonly calibrationError: number | null;
  readonly brierScore: number | null;
  readonly reliability: readonly ReliabilityBin[];
  /** Found, by how it failed; sound ones condemned, by what was wrong with the record. */
  readonly foundByMode: ReadonlyMap<string, Tally>;
  readonly condemnedByDisturbance: ReadonlyMap<string, Tally>;
}

/** One way of working on unkind boards, held against the truth. The same seeds give the same numbers. */
export function unkindStudy(policy: PolicyName, firstSeed: number, boardCount: number, rates: Rates): UnkindResult {
  const modes = new Map<string, Tally>();
  const disturbed = new Map<string, Tally>();
  const predictions: { readonly p: number; readonly isFailed: boolean }[] = [];
  let [found, foundWithoutLeaks, soundCondemned] = [none, none, none];
  let readings = 0;
  for (let n = 0; n < boardCount; n++) {
    const board = unkindBoard(firstSeed + n, rates);
    const bench = new UnkindBench(board, rates);
    const outcome = policies[policy](bench);
    readings += bench.readingCount;
    for (const part of board.parts) {
      if (part.truth === "grey") continue;
      const isCondemned = outcome.condemned.has(part.at);
      const p = outcome.probabilities.get(part.at);
      if (p !== undefined) predictions.push({ p, isFailed: part.truth === "failed" });
      if (part.truth === "failed") {
        found = counted(found, isCondemned);
        if (part.mode !== "leak" || part.foil.leakOhms <= 100)
          foundWithoutLeaks = counted(foundWithoutLeaks, isCondemned);
        const mode = part.mode ?? "ageing";
        modes.set(mode, counted(modes.get(mode) ?? none, isCondemned));
      } else {
        soundCondemned = counted(soundCondemned, isCondemned);
        const all = [...part.disturbances, ...bench.disturbances];
        for (const name of all.length > 0 ? all : ["nothing"]) {
          disturbed.set(name, counted(disturbed.get(name) ?? none, isCondemned));
        }
      }
    }
  }
  const reliability = reliabilityOf(predictions);
  const share = (bin: ReliabilityBin) => bin.count / predictions.length;
  const isRated = predictions.length > 0;
  return {
    ...{ found, foundWithoutLeaks, soundCondemned, readingsPerBoard: readings / boardCount, reliability },
    calibrationError: isRated
      ? reliability.reduce((sum, bin) => sum + share(bin) * Math.abs(bin.meanPredicted - bin.shareFailed), 0)
      : null,
    brierScore: isRated
      ? predictions.reduce((sum, { p, isFailed }) => sum + (p - Number(isFailed)) ** 2, 0) / predictions.length
      : null,
    foundByMode: modes,
    condemnedByDisturbance: disturbed,
  };
}

const none: Tally = { count: 0, of: 0 };
const counted = ({ count, of }: Tally, isOne: boolean): Tally => ({ count: count + Number(isOne), of: of + 1 });
