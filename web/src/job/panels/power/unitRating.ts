import type { JobDetail } from "@pale-cap/contract";

export interface UnitRating {
  readonly watts: number;
  readonly source: "label_input" | "label_rails" | "promised_rails";
}

/** What a unit draws at most, from the best that is known: its label's input, its label's rails, its promised rails. */
export function unitRating({ job, nets }: JobDetail): UnitRating | null {
  const { labelPlate } = job.intakeDetails;
  const inputVolts = labelPlate.inputVoltsLow ?? labelPlate.inputVoltsHigh;
  if (inputVolts !== null && labelPlate.inputAmps !== null) {
    return { watts: inputVolts * labelPlate.inputAmps, source: "label_input" };
  }
  const labelled = labelPlate.rails.reduce((sum, rail) => sum + Math.abs(rail.volts ?? 0) * (rail.amps ?? 0), 0);
  if (labelled > 0) return { watts: labelled, source: "label_rails" };
  const promised = nets.reduce((sum, net) => sum + Math.abs(net.nominalVolts ?? 0) * (net.fullLoadAmps ?? 0), 0);
  return promised > 0 ? { watts: promised, source: "promised_rails" } : null;
}
