import type { ReadingRow } from "@pale-cap/contract";
import { combineRepeats, formatQuantity, inOrder, standingReadings } from "@pale-cap/core";
import { circuitLabels, coarseLabels, logTime, quantityFacts } from "@pale-cap/wording";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useSendReading } from "../../probe/useSendReading";
import { withdrawalOf } from "../../probe/withdrawalOf";
import { Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import classes from "./measure.module.css";

/** Everything that was read at one probe point, newest first, repeats with their spread; what was taken back stays, struck through. */
export function ReadingList(props: {
  readonly title: string;
  readonly targetId: string;
  /** Only of this part: the old and the new one at a place are never read together. */
  readonly fittedPartId?: string | null;
}) {
  const { title, targetId, fittedPartId } = props;
  const { detail } = useJob();
  const send = useSendReading(detail.job.id);
  const personId = useAppSelector((state) => state.workplace.personId);
  const isOwn = (reading: ReadingRow) =>
    reading.targetId === targetId && (fittedPartId === undefined || reading.fittedPartId === fittedPartId);
  const standing = standingReadings(detail.readings).filter(isOwn);
  const standingIds = new Set(standing.map((reading) => reading.id));
  // In the order of storing, the newest first: a clock that runs ahead changes nothing.
  const own = [...inOrder(detail.readings.filter((reading) => isOwn(reading) && !reading.isWithdrawn))].reverse();
  return (
    <Part title={title}>
      {own.length === 0 && <p className={text.soft}>None yet. Type the number; Enter logs it.</p>}
      <Spreads readings={standing} />
      <ul className={classes.readings}>
        {own.map((reading) => {
          const { label, unit } = quantityFacts[reading.quantity];
          const isStanding = standingIds.has(reading.id);
          return (
            <li key={reading.id} data-superseded={!isStanding || undefined}>
              <span className={classes.kind}>{label}</span>
              {reading.coarseCode ? (
                <span>{coarseLabels[reading.coarseCode]}</span>
              ) : (
                <Quantity value={reading.value} unit={unit} keepsZeros />
              )}
              <span className={text.soft}>
                {[...conditionsOf(reading), !isStanding && "taken back"].filter(Boolean).join(", ")}
              </span>
              <time className={text.soft}>{logTime(reading.measuredAt)}</time>
              {isStanding && (
                <button
                  type="button"
                  className={classes.takeBack}
                  aria-label={`Take back ${label} of ${logTime(reading.measuredAt)}`}
                  onClick={() => send(withdrawalOf(reading, personId))}
                >
                  ×
                </button>
              )}
            </li>
          );
        })}
      </ul>
    </Part>
  );
}

/** How it was taken, in the words that change what it means. */
function conditionsOf(reading: ReadingRow): readonly (string | false | null | undefined | 0)[] {
  const { rig } = reading;
  const leakage =
    rig.testVolts != null && rig.seriesOhms != null && reading.value
      ? `${formatQuantity(Math.max(rig.testVolts / reading.value - rig.seriesOhms, 0), "Ω").text} leakage at ${rig.testVolts} V`
      : null;
  return [
    reading.terminals?.includes(",") ? reading.terminals.replace(",", " to ") : null,
    reading.circuitState && circuitLabels[reading.circuitState],
    reading.frequencyHertz && formatQuantity(reading.frequencyHertz, "Hz").text,
    reading.temperatureCelsius !== null && `${reading.temperatureCelsius} °C`,
    reading.isPowered && (reading.loadAmps ? `at ${formatQuantity(reading.loadAmps, "A").text}` : "no load"),
    rig.isSeriesLamp && "series lamp",
    rig.isIsolationTransformer && "isolation transformer",
    !rig.areLeadsZeroed && "leads not zeroed",
    leakage,
    reading.instrument && `by ${reading.instrument}`,
    reading.isSimulated && "simulated",
    (reading.quantity === "observation" || reading.quantity === "tester_band") &&
      reading.rawText?.replace(/^\s*\d+\s*/, ""),
  ];
}

/** Repeats of one thing under one condition: how many, how far apart, and their middle. */
function Spreads({ readings }: { readonly readings: readonly ReadingRow[] }) {
  const groups = new Map<string, ReadingRow[]>();
  for (const reading of readings) {
    if (reading.value === null) continue;
    const { quantity, circuitState, frequencyHertz, terminals, loadAmps } = reading;
    const key = [quantity, circuitState, frequencyHertz, terminals, loadAmps].join("|");
    groups.set(key, [...(groups.get(key) ?? []), reading]);
  }
  const repeated = [...groups].filter(([, group]) => group.length > 1);
  if (repeated.length === 0) return null;
  return (
    <ul className={classes.spreads} aria-label="Repeats">
      {repeated.map(([key, group]) => {
        const [first] = group as [ReadingRow];
        const { label, unit } = quantityFacts[first.quantity];
        const values = group.map((one) => one.value as number);
        const text = (value: number) => formatQuantity(value, unit, { significantDigits: 3 }).text;
        return (
          <li key={key}>
            {label} {first.circuitState ? circuitLabels[first.circuitState] : ""}: {group.length} readings,{" "}
            {text(Math.min(...values))} to {text(Math.max(...values))}, middle {text(combineRepeats(values).value)}
          </li>
        );
      })}
    </ul>
  );
}
