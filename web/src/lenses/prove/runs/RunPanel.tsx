import { runState } from "@pale-cap/core";
import { logTime, runKindLabels, runStateLabels } from "@pale-cap/wording";
import { Link } from "react-router";
import { useJob } from "../../../job/JobContext";
import { Part } from "../../../ui/Pane";
import { asProblem, ProblemNote } from "../../../ui/ProblemNote";
import classes from "../prove.module.css";
import { RunSetUp } from "./RunSetUp";
import { RunStatus } from "./RunStatus";
import { useRunSamples, useRuns } from "./useRuns";

/** Runs by the instruments: the one that goes on, another one, and those that were. */
export function RunPanel() {
  const { detail, power } = useJob();
  const jobId = detail.job.id;
  const { runs, live, error, isLoaded } = useRuns(jobId);
  const shown = live ?? runs[0] ?? null;
  const samples = useRunSamples(jobId, live);
  if (!isLoaded) return <ProblemNote problem={asProblem(error)} />;
  const pageOf = (runId: string) => `/jobs/${jobId}/runs/${runId}`;
  return (
    <Part title="Run by the instruments" aside={shown && <Link to={pageOf(shown.id)}>drawn over time</Link>}>
      {shown && <RunStatus run={shown} samples={samples} />}
      {live === null && !power.isShut && detail.job.handedOverAt === null && (
        <details className={classes.others}>
          <summary>{shown === null ? "A run over what was promised" : "Another run"}</summary>
          <RunSetUp />
        </details>
      )}
      {runs.length > 1 && (
        <details className={classes.others}>
          <summary>Earlier runs ({runs.length - 1})</summary>
          <ul className={classes.points}>
            {runs.slice(1).map((one) => (
              <li key={one.id}>
                <Link to={pageOf(one.id)}>
                  {runKindLabels[one.plan.kind]}, {logTime(one.begunAt)}
                </Link>
                : {runStateLabels[runState(one.events).name]}
              </li>
            ))}
          </ul>
        </details>
      )}
      <ProblemNote problem={asProblem(error)} />
    </Part>
  );
}
