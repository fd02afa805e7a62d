import { Button, Loader } from "@mantine/core";
import type { RunRow } from "@pale-cap/contract";
import { type RunSample, stepFinding } from "@pale-cap/core";
import {
  cautions,
  deviceName,
  type FileTable,
  logTime,
  runEventWords,
  runKindLabels,
  runTable,
  stopWords,
} from "@pale-cap/wording";
import Papa from "papaparse";
import { Link, useParams } from "react-router";
import { useJob } from "../../../job/JobContext";
import { JobPage } from "../../../job/JobPage";
import { Caution } from "../../../ui/Caution";
import { download } from "../../../ui/download";
import { asProblem, ProblemNote } from "../../../ui/ProblemNote";
import { Quantity } from "../../../ui/Quantity";
import { TableHead } from "../../../ui/TableHead";
import text from "../../../ui/text.module.css";
import { RunCharts } from "./RunCharts";
import { RunStatus } from "./RunStatus";
import classes from "./runs.module.css";
import { spotName, useRunNames } from "./useRunNames";
import { useRunSamples, useRuns } from "./useRuns";

/** One run over its time: live while it goes on, for the record afterwards. */
export function RunPage() {
  const { runId = "" } = useParams();
  return (
    <JobPage name="run">
      <Run runId={runId} />
    </JobPage>
  );
}

function Run({ runId }: { readonly runId: string }) {
  const { detail } = useJob();
  const { runs, isLoaded, error } = useRuns(detail.job.id);
  const run = runs.find((one) => one.id === runId) ?? null;
  const samples = useRunSamples(detail.job.id, run);
  const { nameOf, subjectOf } = useRunNames();
  if (!run) {
    return (
      <main className={`${text.page} ${classes.page}`}>
        <ProblemNote problem={asProblem(error)} />
        {isLoaded ? <p>There is no such run on this job.</p> : <Loader aria-label="Loading the run" />}
        <Link to={`/jobs/${detail.job.id}/prove`}>Back to Prove</Link>
      </main>
    );
  }
  const number = String(detail.job.number).padStart(4, "0");
  return (
    <main className={`${text.page} ${classes.page}`}>
      <nav className={classes.tools}>
        <Button component={Link} to={`/jobs/${detail.job.id}/prove`}>
          Back to Prove
        </Button>
        <Button
          disabled={samples.length === 0}
          onClick={() => download(`run-${number}.csv`, csvOf(runTable(run, samples, nameOf)), "text/csv;charset=utf-8")}
        >
          Give out as a file
        </Button>
      </nav>
      <h1>
        {number} {deviceName(detail.job)}: {runKindLabels[run.plan.kind].toLowerCase()} of {logTime(run.begunAt)}
      </h1>
      <Caution>{cautions.underLoad}</Caution>
      <RunStatus run={run} samples={samples} />
      {samples.length > 0 ? (
        <RunCharts run={run} samples={samples} />
      ) : (
        <p className={text.soft}>Nothing was read yet.</p>
      )}
      <RunSteps run={run} samples={samples} />
      <section>
        <h2>What happened</h2>
        <ol className={classes.events}>
          {run.events.map((one, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: what happened is only ever added to
            <li key={n}>
              <span className={text.figure}>{clock(one.seconds)}</span> {runEventWords[one.kind]}
              {one.step !== null && one.kind.startsWith("step") && `, step ${one.step + 1}`}
              {one.stop && `: ${stopWords(one.stop, subjectOf(one.stop))}`}
            </li>
          ))}
        </ol>
      </section>
    </main>
  );
}

/** What each step came to: rails at their loads, ripple, what was drawn and what of it came out. */
function RunSteps({ run, samples }: { readonly run: RunRow; readonly samples: readonly RunSample[] }) {
  const { nameOf } = useRunNames();
  const { plan } = run;
  const found = plan.steps.flatMap((_, step) => {
    const finding = stepFinding(plan, step, samples);
    return finding ? [{ step, finding }] : [];
  });
  if (found.length === 0) return null;
  const heads = [
    ...["Step", ...plan.rails.map((rail) => nameOf(rail.netId) ?? "rail")],
    ...(plan.ripple ? [`Ripple ${nameOf(plan.ripple.netId)}`] : []),
    ...["Drawn", "Comes out"],
    ...plan.spots.map((spot) => spotName(spot, nameOf)),
  ];
  return (
    <section>
      <h2>Steps</h2>
      <table className={`${text.table} ${text.ruled}`} aria-label="Steps of the run">
        <TableHead names={heads} />
        <tbody>
          {found.map(({ step, finding }) => (
            <tr key={step}>
              <th scope="row">{step + 1}</th>
              {finding.rails.map((rail) => (
                <td key={rail.netId}>
                  <Quantity value={rail.volts} unit="V" digits={4} keepsZeros /> at{" "}
                  <Quantity value={Math.max(rail.amps, 0)} unit="A" digits={3} />
                </td>
              ))}
              {plan.ripple && (
                <td>
                  <Quantity value={finding.rippleVolts} unit="V" digits={3} />
                </td>
              )}
              <td>
                <Quantity value={finding.inputWatts} unit="W" digits={3} />
              </td>
              <td>{finding.efficiencyRatio === null ? "" : `${Math.round(100 * finding.efficiencyRatio)} %`}</td>
              {finding.celsius.map((celsius, n) => (
                <td key={plan.spots[n]?.thermometerId}>
                  <Quantity value={celsius} unit="°C" digits={3} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Minutes and seconds since it began. */
function clock(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

const csvOf = ({ fields, rows }: FileTable): string =>
  Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { escapeFormulae: true });
