import { deviceProfiles } from "../facts/deviceProfiles";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { faultFacts } from "../facts/rounds";
import type { PartJudgement } from "../judgement/verdict";
import { type CascadeCheck, cascadeChecks } from "./cascadeChecks";
import { priorsForDevice } from "./devicePriors";
import { type FaultRanking, rankExplanations } from "./explanations";
import { faultEvidence } from "./faultEvidence";
import { faultKnowledge } from "./faultKnowledge";
import { findingGains } from "./findingGains";
import type { Finding } from "./findings";

/** What the fault model makes of a job's whole record. */
export interface JobExplanation {
  readonly ranking: FaultRanking;
  readonly checks: readonly CascadeCheck[];
  /** What each test that was not done would tell, in bits. */
  readonly gains: ReadonlyMap<Finding, number>;
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
  const evidence = faultEvidence(frozen, judgements, rules);
  if (evidence.size === 0) return null;
  const { kind, topology, ageYears } = facts.device;
  const general = faultKnowledge(topology ?? deviceProfiles[kind].topologies[0] ?? null);
  const knowledge = priorsForDevice(general, kind, ageYears);
  const ranking = rankExplanations(knowledge, evidence);
  return {
    ranking,
    checks: cascadeChecks(knowledge, frozen === facts ? evidence : faultEvidence(facts, judgements, rules), ranking),
    gains: findingGains(knowledge, evidence, ranking),
  };
}
