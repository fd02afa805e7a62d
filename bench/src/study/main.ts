import { parseArgs } from "node:util";
import { judgeStudy, type ReliabilityBin, type StudyResult } from "./judgeStudy";
import { type PolicyName, policies } from "./policies";
import { rates, undisturbed } from "./unkind/rates";
import { type Tally, type UnkindResult, unkindStudy } from "./unkind/unkindStudy";

/** Seeds on which constants may be tuned, and others on which the result is told. */
const reportedSeed = 700_000;
const tuningSeed = 1;

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { unkind: { type: "boolean", default: false }, undisturbed: { type: "boolean", default: false } },
});
const [boards = "300", set = "report"] = positionals;
const boardCount = Number(boards);
if (!Number.isInteger(boardCount) || boardCount < 1) throw new Error(`“${boards}” is no number of boards.`);
const firstSeed = set === "tune" ? tuningSeed : reportedSeed;

const percent = (ratio: number, digits = 1) => `${(100 * ratio).toFixed(digits)} %`;
console.log(`${boardCount} boards from seed ${firstSeed}${values.unkind ? ", unkind" : ""}`);
for (const policy of Object.keys(policies) as PolicyName[]) {
  if (!values.unkind && !values.undisturbed) print(policy, judgeStudy(policy, firstSeed, boardCount));
  else printUnkind(policy, unkindStudy(policy, firstSeed, boardCount, values.undisturbed ? undisturbed : rates));
}

function printUnkind(policy: PolicyName, result: UnkindResult): void {
  const share = ({ count, of }: Tally) => `${percent(of === 0 ? 0 : count / of)} (${count} of ${of})`;
  console.log(`\n${policy}: failed ones found ${share(result.found)}`);
  console.log(`  leaks above 100 ohms apart ${share(result.foundWithoutLeaks)}`);
  console.log(
    `  sound ones condemned ${share(result.soundCondemned)}, ${result.readingsPerBoard.toFixed(1)} readings a board`,
  );
  console.log(`  found: ${listed(result.foundByMode)}`);
  console.log(`  condemned: ${listed(result.condemnedByDisturbance)}`);
  if (result.calibrationError === null || result.brierScore === null) return;
  console.log(`  Brier ${result.brierScore.toFixed(4)}, calibration error ${result.calibrationError.toFixed(4)}`);
  printBins(result.reliability);

  function listed(tallies: ReadonlyMap<string, Tally>): string {
    return [...tallies]
      .sort(([, a], [, b]) => b.of - a.of)
      .map(([name, { count, of }]) => `${name} ${count}/${of}`)
      .join(", ");
  }
}

function printBins(bins: readonly ReliabilityBin[]): void {
  for (const bin of bins) {
    console.log(
      `    said ${percent(bin.from, 0)} to ${percent(bin.to, 0)}: ${String(bin.count).padStart(5)} parts, mean ${percent(bin.meanPredicted)}, failed ${percent(bin.shareFailed)}`,
    );
  }
}

function print(policy: PolicyName, result: StudyResult): void {
  console.log(`\n${policy}: ${result.partCount} parts, ${result.failedCount} failed`);
  console.log(
    `  failed ones found ${percent(result.sensitivityRatio, 2)}, left in ${result.leftInPerHundredBoards.toFixed(1)} per 100 boards`,
  );
  console.log(
    `  sound ones condemned ${percent(result.soundCondemnedRatio, 2)}, specificity ${percent(result.specificityRatio, 2)}`,
  );
  console.log(
    `  ${result.readingsPerBoard.toFixed(1)} readings and ${result.liftsPerBoard.toFixed(1)} lifted leads a board`,
  );
  if (result.brierScore === null || result.calibrationError === null) return;
  console.log(
    `  a chance for ${percent(result.ratedRatio)} of the parts, Brier ${result.brierScore.toFixed(4)}, calibration error ${result.calibrationError.toFixed(4)}`,
  );
  printBins(result.reliability);
}
