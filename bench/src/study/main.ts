import { judgeStudy, type StudyResult } from "./judgeStudy";
import { type PolicyName, policies } from "./policies";

/** Seeds on which constants may be tuned, and others on which the result is told. */
const reportedSeed = 700_000;
const tuningSeed = 1;

const [boards = "300", set = "report"] = process.argv.slice(2);
const boardCount = Number(boards);
if (!Number.isInteger(boardCount) || boardCount < 1) throw new Error(`“${boards}” is no number of boards.`);
const firstSeed = set === "tune" ? tuningSeed : reportedSeed;

const percent = (ratio: number, digits = 1) => `${(100 * ratio).toFixed(digits)} %`;
console.log(`${boardCount} boards from seed ${firstSeed}`);
for (const policy of Object.keys(policies) as PolicyName[]) print(policy, judgeStudy(policy, firstSeed, boardCount));

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
  for (const bin of result.reliability) {
    console.log(
      `    said ${percent(bin.from, 0)} to ${percent(bin.to, 0)}: ${String(bin.count).padStart(5)} parts, mean ${percent(bin.meanPredicted)}, failed ${percent(bin.shareFailed)}`,
    );
  }
}
