import { formatQuantity, standingReadings } from "@pale-cap/core";
import { useJob } from "../../job/JobContext";
import { Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { logTime } from "../../ui/times";
import { circuitLabels, quantityFacts } from "../../wording/boardWords";
import classes from "./measure.module.css";

/** Everything that was read at one probe point, newest first; what was taken back stays, struck through. */
export function ReadingList({ title, targetId }: { readonly title: string; readonly targetId: string }) {
  const { detail } = useJob();
  const standing = new Set(standingReadings(detail.readings).map((reading) => reading.id));
  const own = detail.readings
    .filter((reading) => reading.targetId === targetId && !reading.isWithdrawn)
    .sort((a, b) => Date.parse(b.measuredAt) - Date.parse(a.measuredAt));
  return (
    <Part title={title}>
      {own.length === 0 && <p className={classes.soft}>None yet. Type the number; Enter logs it.</p>}
      <ul className={classes.readings}>
        {own.map((reading) => {
          const { label, unit } = quantityFacts[reading.quantity];
          const isStanding = standing.has(reading.id);
          const conditions = [
            reading.circuitState && circuitLabels[reading.circuitState],
            reading.frequencyHertz && formatQuantity(reading.frequencyHertz, "Hz").text,
            reading.isPowered && (reading.loadAmps ? `at ${formatQuantity(reading.loadAmps, "A").text}` : "no load"),
            reading.rig.isSeriesLamp && "series lamp",
            reading.rig.isIsolationTransformer && "isolation transformer",
            !isStanding && "taken back",
          ];
          return (
            <li key={reading.id} data-superseded={!isStanding || undefined}>
              <span className={classes.kind}>{label}</span>
              <Quantity value={reading.value} unit={unit} keepsZeros />
              <span className={classes.soft}>{conditions.filter(Boolean).join(", ")}</span>
              <time className={classes.soft}>{logTime(reading.measuredAt)}</time>
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
