import { type CaptureAnalysis, filterStates, type RailRipple, type RipplePrediction } from "@pale-cap/core";
import { filterStateLabels } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./ripple.module.css";

/** The charts as numbers: ripple of each state, and every capacitor with what it carries. */
export function RippleTable({
  prediction,
  analysis,
}: {
  readonly prediction: RipplePrediction;
  readonly analysis: CaptureAnalysis | null;
}) {
  const { detail } = useJob();
  const nameOf = (id: string) => detail.positions.find((one) => one.id === id)?.designator ?? "?";
  const at = (ripple: RailRipple, node: number) => ripple.ripple.nodeVolts[node];
  const hasChoke = prediction.states.measured.filter.network.choke !== null;
  return (
    <div className={classes.tables}>
      <table className={`${text.table} ${classes.table}`} aria-label="Ripple of each state">
        <TableHead
          names={[
            "Switching ripple",
            ...(hasChoke ? ["before the choke"] : []),
            "at the load",
            "at the edges, beyond it",
            "RMS",
          ]}
        />
        <tbody>
          {filterStates.map((state) => {
            const ripple = prediction.states[state];
            return (
              <tr key={state}>
                <th scope="row">{filterStateLabels[state]}</th>
                {hasChoke && (
                  <td>
                    <Quantity value={ripple.quiet[0]?.peakToPeak ?? null} unit="V" />
                  </td>
                )}
                <td>
                  <Quantity value={ripple.loadPeakToPeakVolts} unit="V" />
                </td>
                <td>
                  <Quantity value={ripple.quiet.at(-1)?.spikeVolts ?? null} unit="V" digits={2} />
                </td>
                <td>
                  <Quantity value={at(ripple, hasChoke ? 1 : 0)?.rms ?? null} unit="V" />
                </td>
              </tr>
            );
          })}
          {analysis && (
            <tr>
              <th scope="row">captured</th>
              {hasChoke && <td />}
              <td>
                <Quantity value={analysis.switching?.peakToPeak ?? null} unit="V" />
              </td>
              <td />
              <td>
                <Quantity value={analysis.switching?.rms ?? null} unit="V" />
              </td>
            </tr>
          )}
        </tbody>
      </table>
      <table className={`${text.table} ${classes.table}`} aria-label="Current of each capacitor">
        <TableHead names={["Part", "ESR", "C", "current RMS", "as at 100 kHz", "rated", "from"]} />
        <tbody>
          {prediction.states.measured.filter.parts.map((part, n) => {
            const share = prediction.states.measured.shares[n];
            return (
              <tr key={part.positionId}>
                <th scope="row">{nameOf(part.positionId)}</th>
                <td>
                  <Quantity value={part.capacitor.esrOhms} unit="Ω" />
                </td>
                <td>
                  <Quantity value={part.capacitor.capacitanceFarads} unit="F" isMarking />
                </td>
                <td>
                  <Quantity value={share?.ampsRms ?? null} unit="A" />
                </td>
                <td>
                  <Quantity value={share?.equivalentAmpsRms ?? null} unit="A" />
                </td>
                <td>
                  <Quantity value={part.ratedAmpsRms} unit="A" />
                </td>
                <td>{part.source === "read" ? "its readings" : "its marking: not read out of circuit"}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
