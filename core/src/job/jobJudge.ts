import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { roundView } from "../facts/rounds";
import { explainJob, type JobExplanation } from "../faults/explainJob";
import { type JudgedBoard, rejudgeBoard } from "../judgement/judgeBoard";
import { type DeviceJudgement, judgeDevices } from "../judgement/judgeDevice";
import type { PartJudgement } from "../judgement/verdict";
import type { Reading } from "../readings/reading";
import { type RailRippleFinding, rippleFindings } from "../waveform/rippleFindings";

/** Everything that is judged on a job. */
export interface JobJudgement {
  readonly judgements: ReadonlyMap<string, PartJudgement>;
  readonly devices: ReadonlyMap<string, DeviceJudgement>;
  readonly explanation: JobExplanation | null;
  /** Captured ripple, attributed and held against what the read parts bring about. */
  readonly ripple: readonly RailRippleFinding[];
}

/** What changed on a job since it was last told: whole facts where they changed, readings one by one. */
export interface JobChange {
  readonly facts: Partial<Omit<JobFacts, "readings">>;
  readonly rules: JobRules | null;
  readonly addedReadings: readonly Reading[];
  readonly removedReadingIds: readonly string[];
}

/** Judges one job over its life, each time from what it knew before: the round that it is in. */
export class JobJudge {
  private judged: JudgedBoard | null = null;

  /** @param facts as they stand, with all readings */
  constructor(
    private facts: JobFacts,
    private rules: JobRules,
  ) {}

  /** Lays a change over what is known; what did not change keeps its identity, so that only touched banks are judged. */
  take(change: JobChange): void {
    const { facts, rules, addedReadings, removedReadingIds } = change;
    let { readings } = this.facts;
    if (addedReadings.length > 0 || removedReadingIds.length > 0) {
      const removed = new Set(removedReadingIds);
      readings = [...readings.filter((one) => !removed.has(one.id)), ...addedReadings];
    }
    this.facts = { ...this.facts, ...facts, readings };
    this.rules = rules ?? this.rules;
  }

  judge(): JobJudgement {
    const { rules } = this;
    const facts = roundView(this.facts);
    const judgements = rejudgeBoard(this.judged, facts, rules.judgement);
    this.judged = { board: facts, rules: rules.judgement, judgements };
    return {
      judgements,
      devices: judgeDevices(facts),
      explanation: explainJob(facts, judgements, rules),
      ripple: rippleFindings(facts),
    };
  }
}
