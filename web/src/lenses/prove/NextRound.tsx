import { Button } from "@mantine/core";
import { isRunSinceLastAct } from "@pale-cap/core";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";

/** The unit ran after the work and is still faulty: one key opens the next round, one takes it back while nothing was done in it. */
export function NextRound() {
  const { facts, whole, round } = useJob();
  const [act, { problem, isLoading }] = useLogAct();
  const isWorked = facts.ticks.some((tick) => tick.step === "fitted" && tick.isDone);
  const isRun = isRunSinceLastAct(whole.facts);
  const canTakeBack = round > 1 && facts.ticks.length === 0;
  if (!isWorked && !canTakeBack) return null;
  return (
    <Part title={round > 1 ? `Round ${round}` : "Still faulty?"}>
      {isWorked && isRun && (
        <>
          <Button loading={isLoading} onClick={() => void act({ kind: "still_faulty", word: "still_faulty" })}>
            Still faulty: round {round + 1}
          </Button>
          <p className={text.soft}>
            What was fitted counts as new from then on, what is read from then on is evidence again, and the verdicts of
            round {round} stay as they were.
          </p>
        </>
      )}
      {isWorked && !isRun && (
        <p className={text.soft}>Read an output under power first: then this round can be told over.</p>
      )}
      {canTakeBack && (
        <>
          <p className={text.soft}>
            It was still faulty after round {round - 1}. What stands on the board counts as found; judge and choose
            anew.
          </p>
          <Button
            size="compact-sm"
            loading={isLoading}
            onClick={() => void act({ kind: "still_faulty", word: "taken_back" })}
          >
            Take that back
          </Button>
        </>
      )}
      <ProblemNote problem={problem} />
    </Part>
  );
}
