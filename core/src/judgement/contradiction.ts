import { tradeConstants } from "../constants/tradeConstants";
import { groupReadings } from "../readings/groupReadings";
import { isInCircuit, type Reading } from "../readings/reading";

const { belowBankRatio, aloneFactor } = tradeConstants.judgement.contradiction;

/**
 * Whether a part's own ESR and what its bank read cannot both be: a bank never reads above any of its parts, and a part that is
 * alone on its net reads in circuit about what it reads lifted. One of the two is a slip.
 *
 * @param bankReadings readings of the bank and its parts
 */
export function isEsrContradicted(fittedPartId: string, bankCount: number, bankReadings: readonly Reading[]): boolean {
  const own = groupReadings(
    bankReadings.filter((one) => one.fittedPartId === fittedPartId && !isInCircuit(one)),
    "esr",
  );
  const together = groupReadings(bankReadings.filter(isInCircuit), "esr");
  return own.some(
    (lifted) =>
      // Read again and the same, it is no slip any more.
      lifted.count === 1 &&
      together.some(
        (bank) =>
          bank.frequencyHertz === lifted.frequencyHertz &&
          bank.value > 0 &&
          (lifted.value < belowBankRatio * bank.value || (bankCount === 1 && lifted.value > aloneFactor * bank.value)),
      ),
  );
}
