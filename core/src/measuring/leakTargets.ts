import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import { needsReplacement } from "../judgement/needsReplacement";
import type { PartJudgement } from "../judgement/verdict";
import { entropyBits } from "../numerics/entropyBits";
import { isInCircuit, type QuantityKind } from "../readings/reading";
import { liftedShare, liftingMinutes, type Proposal, probingMinutes } from "./proposal";

const { leakPrior, suspiciousOhms } = tradeConstants.measuring;

/**
 * Leaks: one look with the ohmmeter for every bank, whatever its parts read otherwise; where it reads low, the voltage
 * loss of each part that stays in, one lead lifted.
 */
export function leakTargets(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  goesAnyway: ReadonlySet<string>,
): readonly { readonly positionId: string; readonly proposal: Proposal }[] {
  const read = (quantity: QuantityKind, lifted: boolean, ids: readonly string[]) =>
    facts.readings.filter(
      (one) =>
        one.quantity === quantity && !one.isWithdrawn && isInCircuit(one) !== lifted && ids.includes(one.targetId),
    );
  const seen = new Set<string>();
  return [...judgements.values()].flatMap(({ bankPositionIds: bank }) => {
    const staying = bank.filter((id) => {
      const judgement = judgements.get(id);
      return judgement && !needsReplacement(judgement) && !goesAnyway.has(id);
    });
    const first = bank[0];
    if (first === undefined || seen.has(first) || staying.length === 0) return [];
    seen.add(first);
    const ohms = read("resistance", false, bank);
    if (ohms.length === 0) {
      const gainBits = entropyBits(Math.min(leakPrior * staying.length, 0.5)) * liftedShare;
      const proposal: Proposal = {
        quantity: "resistance",
        circuitState: "in_circuit",
        minutes: probingMinutes,
        gainBits,
      };
      return [{ positionId: staying[0] as string, proposal }];
    }
    if (Math.min(...ohms.map((one) => one.value ?? Infinity)) >= suspiciousOhms) return [];
    return staying
      .filter((id) => read("voltage_loss", true, [id]).length === 0)
      .map((positionId) => ({
        positionId,
        proposal: {
          quantity: "voltage_loss" as const,
          circuitState: "lead_lifted" as const,
          minutes: read("esr", true, [positionId]).length > 0 ? probingMinutes : liftingMinutes,
          gainBits: entropyBits(0.5 / staying.length) * liftedShare,
        },
      }));
  });
}
