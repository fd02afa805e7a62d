import { type HouseRule, type HouseRuleKey, houseRules } from "@pale-cap/contract";
import { momentText, turnedWords } from "@pale-cap/wording";
import { useHouseRuleChangesQuery } from "../../job/houseRulesApi";
import { useJob } from "../../job/JobContext";
import classes from "./judge.module.css";

/** What the last change of a house rule turned on this job. */
export function RuleNote() {
  const { detail } = useJob();
  const { data: changes = [] } = useHouseRuleChangesQuery();
  const last = [...changes].reverse().find((one) => one.effects.some((effect) => effect.jobId === detail.job.id));
  const effect = last?.effects.find((one) => one.jobId === detail.job.id);
  if (!last || !effect) return null;
  const rule = houseRules[last.key as HouseRuleKey] as HouseRule<unknown> | undefined;
  return (
    <p className={classes.ruleNote}>
      Judged anew since {momentText(last.changedAt)}, house rule “{rule?.title ?? last.key}”:{" "}
      {effect.turned.map(turnedWords).join("; ")}.
    </p>
  );
}
