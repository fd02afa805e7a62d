import { type CascadeCheck, type Explanation, overVoltageCheck } from "@pale-cap/core";
import { cautions, faultName, faultTest, findingWords } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./judge.module.css";

const shownExplanations = 3;

/** Which faults together explain everything, what they leave over, and what is to be checked because of them. */
export function FaultsCard() {
  const { explanation: answer } = useJob();
  const best = answer?.ranking.explanations[0];
  if (!answer || !best) {
    return (
      <Part title="What explains it">
        <p className={text.soft}>
          Symptoms from Intake and readings from Measure are weighed here as soon as there are any.
        </p>
      </Part>
    );
  }
  return (
    <>
      <Part title="What explains it" aside={<span className={text.soft}>sets of faults, likeliest first</span>}>
        <ol className={classes.explanations}>
          {answer.ranking.explanations.slice(0, shownExplanations).map((one) => (
            <ExplanationLine key={one.faults.join()} explanation={one} />
          ))}
        </ol>
      </Part>
      <Checks checks={answer.checks} />
    </>
  );
}

function ExplanationLine({ explanation }: { readonly explanation: Explanation }) {
  const { faults, first, unexplained, contradicted, probability } = explanation;
  return (
    <li>
      <span className={classes.share}>{probability < 0.01 ? "under 1 %" : `${Math.round(probability * 100)} %`}</span>
      <div>
        {faults.map((code) => (
          <div key={code}>
            {faultName(code)}
            {faults.length > 1 && first.includes(code) && <span className={text.soft}> began it</span>}
          </div>
        ))}
        {unexplained.length > 0 && (
          <div className={text.soft}>leaves over: {unexplained.map(findingWords).join(", ")}</div>
        )}
        {contradicted.length > 0 && (
          <div className={classes.against}>speaks against it: no {contradicted.map(findingWords).join(", no ")}</div>
        )}
      </div>
    </li>
  );
}

const stateWords: Readonly<Record<CascadeCheck["state"], string>> = {
  open: "not checked",
  cleared: "in order",
  found: "found",
};

/** What a found fault usually takes along: each with how to look for it, and whether that was done. */
function Checks({ checks }: { readonly checks: readonly CascadeCheck[] }) {
  if (checks.length === 0) return null;
  return (
    <Part title="Check as well">
      {checks.some((one) => one.code === overVoltageCheck && one.state === "open") && (
        <Caution>{cautions.overVoltage}</Caution>
      )}
      <ul className={classes.checks}>
        {checks.map((check) => (
          <li key={check.code} data-state={check.state}>
            <div>
              <b>{faultName(check.code)}</b> <span className={text.soft}>because {faultName(check.because)}</span>
            </div>
            <div className={text.soft}>{faultTest(check.code)}</div>
            <span className={classes.state}>{stateWords[check.state]}</span>
          </li>
        ))}
      </ul>
    </Part>
  );
}
