import { explainJob, judgeBoard, roundView } from "@pale-cap/core";
import { summaryOf } from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { type ReportRow, reportRows } from "./reportRows";

/** What one round found and did, as it stands for good once the next began. */
export interface ReportRound {
  readonly number: number;
  readonly rows: readonly ReportRow[];
  /** What the model says of it; null where nothing speaks to it. */
  readonly summary: string | null;
}

/** Every round of the job, the current one as it is judged now. */
export function useRounds(): readonly ReportRound[] {
  const { whole, round, rules, judgements, explanation } = useJob();
  const earlier = useMemo(
    () =>
      Array.from({ length: round - 1 }, (_, n): ReportRound => {
        const facts = roundView(whole.facts, n + 1);
        const verdicts = judgeBoard(facts, rules.judgement);
        const rows = reportRows(roundView(whole.detail, n + 1), facts, verdicts);
        return { number: n + 1, rows, summary: summaryOf(explainJob(facts, verdicts, rules)) };
      }),
    [whole, round, rules],
  );
  return useMemo(() => {
    const rows = reportRows(roundView(whole.detail), roundView(whole.facts), judgements);
    return [...earlier, { number: round, rows, summary: summaryOf(explanation) }];
  }, [whole, round, earlier, judgements, explanation]);
}
