import { SegmentedControl } from "@mantine/core";
import { outcomeOf, outcomes } from "@pale-cap/core";
import { outcomeLabels } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { useIsEntryClosed } from "../../ui/closedEntry";
import { ProblemNote } from "../../ui/ProblemNote";
import classes from "./handOver.module.css";

/** How the job ends: only a repair is asked for its proof, and only a repair carries a warranty. */
export function OutcomeChoice() {
  const { facts } = useJob();
  const [act, { problem }] = useLogAct();
  const isClosed = useIsEntryClosed();
  return (
    <>
      <SegmentedControl
        aria-label="How the job ends"
        className={classes.outcome}
        disabled={isClosed}
        data={outcomes.map((value) => ({ value, label: outcomeLabels[value] }))}
        value={outcomeOf(facts.acts)}
        onChange={(word) => void act({ kind: "outcome", word })}
      />
      <ProblemNote problem={problem} />
    </>
  );
}
