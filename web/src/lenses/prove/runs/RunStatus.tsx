import { Button } from "@mantine/core";
import type { RunRow, RunWord } from "@pale-cap/contract";
import { type RunSample, runSeconds, runState, secondsLeft } from "@pale-cap/core";
import { leftWords, runKindLabels, runStateLabels, stopWords, unconfirmedWords } from "@pale-cap/wording";
import { useAppSelector } from "../../../app/store/hooks";
import { useJob } from "../../../job/JobContext";
import { asProblem, ProblemNote } from "../../../ui/ProblemNote";
import { Quantity } from "../../../ui/Quantity";
import text from "../../../ui/text.module.css";
import { useTellRunMutation } from "./runApi";
import classes from "./runs.module.css";
import { spotName, useRunNames } from "./useRunNames";

/** How a run stands, readable from where the probes are: what goes on, how long still, what is read now, and the way out. */
export function RunStatus({ run, samples }: { readonly run: RunRow; readonly samples: readonly RunSample[] }) {
  const { detail } = useJob();
  const { nameOf, subjectOf } = useRunNames();
  const [tell, { error, isLoading }] = useTellRunMutation();
  const personId = useAppSelector((state) => state.workplace.personId);
  const say = (word: RunWord) => void tell({ jobId: detail.job.id, runId: run.id, word, personId });
  const state = runState(run.events);
  const last = samples.at(-1);
  const { plan } = run;
  const isGoing = state.name === "running" || state.name === "paused";
  const left = secondsLeft(plan, state.step, last?.step === state.step ? last.stepSeconds : 0);
  const byHand = unconfirmedWords(state, plan.mainsId !== null);
  return (
    <section
      className={classes.status}
      data-state={state.name}
      aria-label={`${runKindLabels[plan.kind]}, ${runStateLabels[state.name]}`}
    >
      <p className={classes.headline} role="status">
        <b>
          {runKindLabels[plan.kind]} {runStateLabels[state.name]}
        </b>
        {isGoing && (
          <span>
            {plan.steps.length > 1 && `step ${state.step + 1} of ${plan.steps.length}, `}
            {leftWords(left)}
          </span>
        )}
        {state.name === "done" && <span>{leftWords(runSeconds(plan)).replace(" left", "")} under load</span>}
      </p>
      {state.stop && (
        <p className={classes.stop} role="alert">
          {stopWords(state.stop, subjectOf(state.stop))}
        </p>
      )}
      {byHand && (
        <p className={classes.stop} role="alert">
          {byHand}
        </p>
      )}
      {isGoing && run.isAttendedOnly && (
        <p className={text.softLine}>Stay beside it: an instrument of it has no limits or no time-out of its own.</p>
      )}
      {isGoing && last && (
        <dl className={classes.readouts}>
          {last.rails.map((rail) => (
            <div key={rail.netId}>
              <dt>{nameOf(rail.netId)}</dt>
              <dd>
                <Quantity value={rail.volts} unit="V" digits={4} keepsZeros />
              </dd>
              <dd className={text.soft}>
                <Quantity value={Math.max(rail.amps, 0)} unit="A" digits={3} />
              </dd>
            </div>
          ))}
          {last.inputWatts !== null && (
            <div>
              <dt>drawn</dt>
              <dd>
                <Quantity value={last.inputWatts} unit="W" digits={3} />
              </dd>
            </div>
          )}
          {plan.spots.map((spot, n) => (
            <div key={spot.thermometerId}>
              <dt>{spotName(spot, nameOf)}</dt>
              <dd>
                <Quantity value={last.celsius[n] ?? null} unit="°C" digits={3} />
              </dd>
              <dd className={text.soft}>to {spot.mostCelsius} °C</dd>
            </div>
          ))}
          {plan.ripple && (
            <div>
              <dt>ripple {nameOf(plan.ripple.netId)}</dt>
              <dd>
                <Quantity value={last.rippleVolts} unit="V" digits={3} />
              </dd>
            </div>
          )}
        </dl>
      )}
      {isGoing && (
        <div className={classes.acts}>
          <Button size="md" className={classes.stopButton} loading={isLoading} onClick={() => say("cancel")}>
            Stop: {plan.mainsId === null ? "loads off" : "mains off"}
          </Button>
          {state.name === "running" ? (
            <Button size="md" onClick={() => say("pause")}>
              Pause
            </Button>
          ) : (
            <Button size="md" onClick={() => say("continue")}>
              Continue
            </Button>
          )}
        </div>
      )}
      <ProblemNote problem={asProblem(error)} />
    </section>
  );
}
