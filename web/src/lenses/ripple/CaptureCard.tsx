import { Button } from "@mantine/core";
import type { CaptureRow, Net } from "@pale-cap/contract";
import { formatQuantity, type RippleAttribution, type RipplePrediction } from "@pale-cap/core";
import { causeWords, cautions, logTime } from "@pale-cap/wording";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import {
  noAct,
  useActOnInstrumentMutation,
  useCaptureWaveformMutation,
  useInstrumentsQuery,
} from "../../probe/instruments/instrumentApi";
import { readerOf } from "../../probe/instruments/useLive";
import { usePageBench } from "../../probe/instruments/usePageBench";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { captureWorker } from "../../workers/captures";
import { CaptureImport } from "./CaptureImport";
import { useRemoveCaptureMutation } from "./captureApi";
import { plainRig } from "./plainRig";
import classes from "./ripple.module.css";
import { useStoreCapture } from "./useStoreCapture";

const volts = (value: number) => formatQuantity(value, "V", { significantDigits: 2 }).text;
const hertz = (value: number) => formatQuantity(value, "Hz", { significantDigits: 3 }).text;

/** Seconds a division: some switching periods, and some cycles of the mains. */
const sweeps = [
  ["Switching", 5e-6],
  ["Mains", 10e-3],
] as const;

/** What was captured on the rail, where it comes from, and how much of it the read capacitors explain. */
export function CaptureCard(props: {
  readonly net: Net;
  readonly captures: readonly CaptureRow[];
  readonly shown: CaptureRow | undefined;
  readonly onShow: (id: string) => void;
  readonly attribution: RippleAttribution | null;
  readonly prediction: RipplePrediction | null;
}) {
  const { net, captures, shown, onShow, attribution, prediction } = props;
  const { detail } = useJob();
  const [remove, removed] = useRemoveCaptureMutation();
  return (
    <Part title="Captured">
      <Caution>{cautions.underLoad}</Caution>
      <div className={classes.acts}>
        <CaptureImport net={net} onStored={onShow} />
        <FromScope net={net} onStored={onShow} />
      </div>
      {captures.length > 0 && (
        <div className={classes.tabs}>
          {captures.map((one) => (
            <Button
              key={one.id}
              size="compact-sm"
              variant={one.id === shown?.id ? "filled" : "default"}
              onClick={() => onShow(one.id)}
            >
              {one.name.slice(0, 24)}, {logTime(one.measuredAt)}
              {one.isSimulated && ", simulated"}
            </Button>
          ))}
        </div>
      )}
      {shown && attribution && <Attribution capture={shown} attribution={attribution} prediction={prediction} />}
      {shown && (
        <Button
          size="compact-sm"
          mt="xs"
          onClick={() =>
            void remove({
              jobId: detail.job.id,
              captureId: shown.id,
              body: { writeId: newId(), version: shown.version },
            })
          }
        >
          Take this capture off
        </Button>
      )}
      <ProblemNote problem={asProblem(removed.error)} />
    </Part>
  );
}

function Attribution(props: {
  readonly capture: CaptureRow;
  readonly attribution: RippleAttribution;
  readonly prediction: RipplePrediction | null;
}) {
  const { capture, attribution, prediction } = props;
  const { detail } = useJob();
  const { analysis, rig } = capture;
  const best = prediction?.bestSingle;
  const bestName = best && detail.positions.find((one) => one.id === best.positionId)?.designator;
  const falsified = [
    rig.hasLongGroundLead && "a long ground lead picks up spikes",
    rig.isIsolationTransformer && "behind a transformer the mains part is not the same",
  ].filter((one) => typeof one === "string");
  return (
    <>
      <p>
        {volts(analysis.quietPeakToPeakVolts)} peak to peak without spikes, {volts(analysis.peakToPeakVolts)} with them
        {analysis.limitedPeakToPeakVolts !== null &&
          `, ${volts(analysis.limitedPeakToPeakVolts)} behind a 20 MHz limit`}
        ; {volts(analysis.rmsVolts)} RMS.
      </p>
      {falsified.length > 0 && <p className={text.softLine}>Mind: {falsified.join("; ")}.</p>}
      <ul className={classes.causes}>
        {attribution.causes.map(({ cause, frequencyHertz, volts: part, shareRatio }) => (
          <li key={cause}>
            <b>{volts(part)}</b>
            <div>
              {causeWords[cause][0]}
              {frequencyHertz !== null && `, ${hertz(frequencyHertz)}`}, {Math.round(shareRatio * 100)} %
            </div>
            <span className={text.softLine}>points to {causeWords[cause][1]}</span>
          </li>
        ))}
      </ul>
      {attribution.explainedRatio !== null && (
        <p className={classes.story}>
          Predicted from the capacitors as read {volts(attribution.predictedVolts ?? 0)}
          {prediction && prediction.highVolts > prediction.lowVolts && (
            <>
              {" "}
              ({volts(prediction.lowVolts)} to {volts(prediction.highVolts)})
            </>
          )}
          , captured {volts(attribution.switchingVolts ?? 0)} at the switching frequency:{" "}
          {(attribution.unexplainedVolts ?? 0) === 0
            ? "they explain it."
            : `they explain ${Math.round(attribution.explainedRatio * 100)} %.`}
          {(attribution.unexplainedVolts ?? 0) > 0 &&
            ` ${volts(attribution.unexplainedVolts ?? 0)} is left over beyond what was assumed: an open point.`}
          {best && bestName && ` Renewing ${bestName} alone would lower it most, to ${volts(best.peakToPeakVolts)}.`}
        </p>
      )}
    </>
  );
}

/** One sweep of the scope, stored: fast for the switching, slow for the mains. */
function FromScope({ net, onStored }: { readonly net: Net; readonly onStored: (id: string) => void }) {
  const { houseRules, detail } = useJob();
  const { data } = useInstrumentsQuery();
  const [act] = useActOnInstrumentMutation();
  const [capture, captured] = useCaptureWaveformMutation();
  const [store, added] = useStoreCapture(net);
  const ready = data?.states.filter((one) => one.status === "ready") ?? [];
  const { bench } = usePageBench();
  const scope = readerOf(ready, "oscilloscope", detail.job.takesSimulated, bench?.id ?? null);
  if (!scope) return null;
  const sweep = async (name: string, secondsPerDivision: number) => {
    const settings = { ...noAct, points: net.name, settings: { secondsPerDivision: String(secondsPerDivision) } };
    await act({ id: scope.id, act: settings });
    const answer = await capture(scope.id);
    if (!("data" in answer) || !answer.data) return;
    const { volts: samples, intervalSeconds } = answer.data;
    const read = await captureWorker().analyse(samples, intervalSeconds, houseRules["mains.hertz"]);
    const said = {
      name: `${name} sweep`,
      loadAmps: net.fullLoadAmps,
      rig: plainRig,
      instrument: scope.name,
      isSimulated: scope.isSimulated,
    };
    const id = await store(read, said);
    if (id !== null) onStored(id);
  };
  return (
    <>
      {sweeps.map(([name, secondsPerDivision]) => (
        <Button
          key={name}
          loading={captured.isLoading || added.isLoading}
          onClick={() => void sweep(name, secondsPerDivision)}
        >
          {name} sweep
        </Button>
      ))}
      <ProblemNote problem={asProblem(captured.error ?? added.error)} />
    </>
  );
}
