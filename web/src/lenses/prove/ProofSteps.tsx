import { Button } from "@mantine/core";
import { hotRails, type ProofStep, proofPlan } from "@pale-cap/core";
import {
  cautions,
  listWords,
  proofLimitWords,
  proofReasonWords,
  proofStateLabels,
  proofStepLabels,
} from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { WordLine } from "../../ui/WordLine";
import classes from "./prove.module.css";

/** What shows the repair, step by step: derived, each with its reason; what is left out says why. */
export function ProofSteps() {
  const { detail, facts, rules } = useJob();
  const steps = proofPlan(facts, rules);
  if (steps.length === 0) return null;
  const done = steps.filter((one) => one.state === "done");
  const waiting = steps.filter((one) => one.state === "open").map((one) => proofStepLabels[one.code]);
  const isTrouble = steps.some((one) => one.state === "failed" || one.state === "blocked");
  const names = hotRails(facts).flatMap((id) => detail.nets.find((one) => one.id === id)?.name ?? []);
  return (
    <Part title="What shows it" aside={<Link to={`/jobs/${detail.job.id}/proof`}>charts and table</Link>}>
      {steps.some((one) => one.code === "over_voltage" && one.state !== "done") && (
        <Caution>{cautions.overVoltage}</Caution>
      )}
      {names.length > 0 && (
        <p role="alert" className={text.wrong}>
          {listWords(names)} read above what a host bears: it stays unplugged until that is mended and read again.
        </p>
      )}
      <details className={classes.stepList} open={isTrouble}>
        <summary>
          {done.length} of {steps.length} shown{waiting.length > 0 && `; open: ${waiting.join(", ")}`}
        </summary>
        <ol className={classes.steps}>
          {steps.map((step) => (
            <Step key={step.code} step={step} />
          ))}
        </ol>
      </details>
    </Part>
  );
}

function Step({ step }: { readonly step: ProofStep }) {
  const { detail } = useJob();
  const [act, { problem }] = useLogAct();
  const [isTelling, setTelling] = useState(false);
  const [reason, setReason, dropReason] = useDraft(`${detail.job.id} not done ${step.code}`, "");
  const leave = async (note: string) => {
    if (!(await act({ kind: "step_not_done", word: step.code, note }))) return;
    setTelling(false);
    dropReason(reason);
  };
  const name = proofStepLabels[step.code];
  return (
    <li data-state={step.state}>
      <span className={classes.stepName}>{name}</span>
      <span className={classes.stepState}>
        {proofStateLabels[step.state]}
        {step.count && `, ${step.count.done} of ${step.count.wanted}`}
      </span>
      <span className={`${text.soft} ${classes.stepWhy}`}>
        {step.note !== null
          ? `because ${step.note}`
          : `for ${proofReasonWords[step.reason]}. Held against ${proofLimitWords[step.code]}.`}
      </span>
      <span className={classes.stepActs}>
        {step.state === "not_done" ? (
          <Button
            size="compact-xs"
            onClick={() => void act({ kind: "step_not_done", word: "taken_back", note: step.code })}
          >
            Take it back
          </Button>
        ) : (
          step.state === "open" &&
          !isTelling && (
            <Button size="compact-xs" aria-label={`${name}: not done because`} onClick={() => setTelling(true)}>
              Not done …
            </Button>
          )
        )}
      </span>
      {isTelling && (
        <span className={classes.stepReason}>
          <WordLine
            label={`Why ${name} is not done`}
            placeholder="because …"
            maxLength={300}
            value={reason}
            onChange={setReason}
            button="Leave it out"
            onTake={(note) => void leave(note)}
          />
        </span>
      )}
      <ProblemNote problem={problem} />
    </li>
  );
}
