import { tradeConstants } from "../constants/tradeConstants";
import { deviceProfiles } from "../facts/deviceProfiles";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { faultFacts } from "../facts/rounds";
import type { PartJudgement } from "../judgement/verdict";
import { type CascadeCheck, cascadeChecks, testOf } from "./cascadeChecks";
import { priorsForDevice } from "./devicePriors";
import { type FaultEvidence, type FaultRanking, rankExplanations } from "./explanations";
import { faultEvidence, jobEvidence } from "./faultEvidence";
import { type FaultKnowledge, faultKnowledge, knowledgeOfBoard } from "./faultKnowledge";
import { findingGains } from "./findingGains";
import type { Finding } from "./findings";
import { type RecordedChange, recordedKnowledge } from "./recordedKnowledge";

const { confirmFromRatio, confirmBits, cascadeBits } = tradeConstants.faults;

/** What the fault model makes of a job's whole record. */
export interface JobExplanation {
  readonly ranking: FaultRanking;
  readonly checks: readonly CascadeCheck[];
  /** What each test that was not done would tell, in bits. */
  readonly gains: ReadonlyMap<Finding, number>;
  /** What the shop's closed jobs have moved in the knowledge that it is told by. */
  readonly recorded: readonly RecordedChange[];
}

/**
 * A fault that is as good as sure has no information left, and is shown to nobody before its own test was done; what it may have
 * taken along likewise. Worth as a bench puts it first, in bits; rough.
 */
function confirming(
  knowledge: FaultKnowledge,
  evidence: FaultEvidence,
  ranking: FaultRanking,
  checks: readonly CascadeCheck[],
): ReadonlyMap<Finding, number> {
  const worth = new Map<Finding, number>();
  const add = (finding: Finding | null, bits: number) => {
    if (finding && !evidence.has(finding)) worth.set(finding, Math.max(worth.get(finding) ?? 0, bits));
  };
  for (const fault of knowledge) {
    const chance = ranking.probabilities.get(fault.code) ?? 0;
    if (chance >= confirmFromRatio) add(testOf(fault), confirmBits * chance);
  }
  for (const check of checks) if (check.state === "open") add(check.finding, cascadeBits);
  return worth;
}

/**
 * The fault model on a round of a job: null while nothing speaks to it. Until somebody says how it is built, as its kind
 * mostly is. What was wrong is told by what was known before the first new part went in; whether everything that the fault may
 * have taken along was tested, by all of it.
 *
 * @param facts of the round, as `roundView` gives them
 */
export function explainJob(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  rules: JobRules,
): JobExplanation | null {
  const frozen = faultFacts(facts);
  const { evidence, soft } = jobEvidence(frozen, judgements, rules);
  if (![...evidence].some(([, isSeen]) => isSeen) && soft.size === 0 && evidence.size === 0) return null;
  const { kind, topology, ageYears } = facts.device;
  const general = faultKnowledge(topology ?? deviceProfiles[kind].topologies[0] ?? null, kind);
  const moved = priorsForDevice(general, kind, ageYears, facts.symptoms);
  const { knowledge: recorded, changes } = recordedKnowledge(moved, facts.record);
  const knowledge = knowledgeOfBoard(recorded, facts);
  const ranking = rankExplanations(knowledge, evidence, soft);
  const checks = cascadeChecks(
    knowledge,
    frozen === facts ? evidence : faultEvidence(facts, judgements, rules),
    ranking,
  );
  const gains = new Map(findingGains(knowledge, evidence, ranking));
  for (const [finding, bits] of confirming(knowledge, evidence, ranking, checks)) {
    gains.set(finding, Math.max(gains.get(finding) ?? 0, bits));
  }
  return { ranking, checks, gains, recorded: changes };
}
