import { checksFor, type DeviceKind, firstSuspects, symptomLabels } from "@pale-cap/core";
import { firstCheckWords, stageLabels } from "@pale-cap/wording";
import { memo } from "react";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";

/** Where to look first for these symptoms, why, and the first three checks: cold and cheap ones first. */
export const FirstSuspects = memo(function FirstSuspects(props: {
  readonly symptoms: readonly string[];
  readonly kind: DeviceKind;
}) {
  const suspects = firstSuspects(props.symptoms, props.kind);
  if (suspects.length === 0) return null;
  const most = suspects[0]?.score ?? 1;
  return (
    <Part title="Where to look first" aside={<span className={text.dim}>an order of looking, no verdict</span>}>
      <ol className={classes.suspects}>
        {suspects.slice(0, 4).map(({ stage, score, because }) => (
          <li key={stage}>
            <span className={classes.bar} style={{ width: `${(100 * score) / most}%` }} />
            <b>{stageLabels[stage]}</b>{" "}
            <span className={text.dim}>
              {because.map((one) => `${symptomLabels[one.symptom]}: ${one.reason}`).join("; ")}
            </span>
          </li>
        ))}
      </ol>
      <ol className={classes.checks}>
        {checksFor(suspects).map((check) => (
          <li key={check.code}>
            {firstCheckWords(check.code)} <span className={text.dim}>about {check.minutes} min</span>
          </li>
        ))}
      </ol>
    </Part>
  );
});
