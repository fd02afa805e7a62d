import { entropyBits } from "../numerics/entropyBits";
import type { FaultEvidence, FaultRanking } from "./explanations";
import type { FaultKnowledge } from "./faultKnowledge";
import { type Finding, findingLeakRatio, testFindings } from "./findings";

/**
 * Expected information of each test that was not done about which explanation holds, in bits.
 *
 *     I = H(sum_k P_k q_k) - sum_k P_k H(q_k),   q_k = 1 - (1 - leak) product over faults of set k (1 - shows)
 *
 * Over the ranked explanations that are kept, their chances taken as all there is.
 */
export function findingGains(
  knowledge: FaultKnowledge,
  evidence: FaultEvidence,
  ranking: FaultRanking,
): ReadonlyMap<Finding, number> {
  const byCode = new Map(knowledge.map((fault) => [fault.code, fault]));
  const total = ranking.explanations.reduce((sum, one) => sum + one.probability, 0);
  const gains = new Map<Finding, number>();
  if (!(total > 0)) return gains;
  for (const finding of Object.keys(testFindings)) {
    if (evidence.has(finding)) continue;
    let [mean, within] = [0, 0];
    for (const { faults, probability } of ranking.explanations) {
      const share = probability / total;
      const missed = faults.reduce(
        (miss, code) => miss * (1 - (byCode.get(code)?.shows[finding] ?? 0)),
        1 - findingLeakRatio(finding),
      );
      mean += share * (1 - missed);
      within += share * entropyBits(1 - missed);
    }
    const gain = entropyBits(mean) - within;
    if (gain > 1e-6) gains.set(finding, gain);
  }
  return gains;
}
