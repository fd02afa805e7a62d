import { meterBandwidthHertz, peakToPeakOfSineRms, type RailRipple, standingReadings } from "@pale-cap/core";
import { useJob } from "../../job/JobContext";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import type { PredictedRipple } from "../../workers/useRipplePrediction";
import classes from "./ripple.module.css";

/** Up to which load the rail stays within its limit, by the sweep over loads. */
export function LimitNote({ limit, sweep }: { readonly limit: number; readonly sweep: PredictedRipple["sweep"] }) {
  const upTo = (state: "measured" | "replaced") => sweep.filter((one) => one[state] <= limit).at(-1)?.loadAmps ?? null;
  if (sweep.length === 0) return null;
  const [read, replaced] = [upTo("measured"), upTo("replaced")];
  const words = (amps: number | null) =>
    amps === null ? (
      "at no load of this sweep"
    ) : amps === sweep.at(-1)?.loadAmps ? (
      "at every load up to full"
    ) : (
      <>
        up to <Quantity value={amps} unit="A" digits={2} />
      </>
    );
  return (
    <p className={classes.limitNote}>
      Within the limit {words(read)} as read, {words(replaced)} after replacement.
    </p>
  );
}

/** What the switching edges put on top, told apart: a scope shows it as needles. */
export function EdgeNote({ measured }: { readonly measured: RailRipple }) {
  const volts = measured.quiet.at(-1)?.spikeVolts ?? 0;
  if (volts < tellingShare * measured.loadPeakToPeakVolts) return null;
  return (
    <p className={text.softLine}>
      At the edges about <Quantity value={volts} unit="V" digits={1} /> more for as long as they last, by the inductance
      of the cans; layout and probe add to it. A scope limited to 20 MHz shows less.
    </p>
  );
}

/** Needles smaller than this share of the ripple are not worth a line. */
const tellingShare = 0.1;

/** A multimeter's AC reading is a floor: it sees the mains part and little of the switching. */
export function MeterNote({ netId }: { readonly netId: string }) {
  const { detail } = useJob();
  const last = standingReadings(detail.readings)
    .filter((one) => one.targetId === netId && one.quantity === "ac_voltage" && one.value !== null)
    .at(-1);
  if (last?.value == null) return null;
  return (
    <p className={text.softLine}>
      A multimeter read <Quantity value={last.value} unit="V" /> AC: about{" "}
      <Quantity value={peakToPeakOfSineRms * last.value} unit="V" /> peak to peak of what lies below its bandwidth,
      mostly <Quantity value={meterBandwidthHertz} unit="Hz" />. The switching ripple hardly reaches it: a floor, no
      measure.
    </p>
  );
}
