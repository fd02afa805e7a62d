import { bankOf, currentPart, expectedEsrOfPart, sectionFacts, standingReadings } from "@pale-cap/core";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useJob } from "../../job/JobContext";
import { capacitorsInOrder } from "../../job/parts";
import { useSelectedPosition, useTarget } from "../../job/useTarget";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { logTime } from "../../ui/times";
import { circuitLabels, netWords, quantityFacts } from "../../wording/boardWords";
import { cautions } from "../../wording/cautions";
import { esrSourceWords } from "../../wording/ledgerWords";
import classes from "./measure.module.css";

/** The selected part: what a new one reads, what was read so far, what is still to be probed. */
export function MeasurePane() {
  const { detail, judgements, charge } = useJob();
  const [, select] = useTarget();
  const position = useSelectedPosition();
  if (!position) {
    return (
      <Pane title="Measure">
        <p className={classes.soft}>
          {detail.positions.length === 0
            ? "Enter the capacitors in Inspect first: without value and voltage there is nothing to compare with."
            : "Choose a part on the board."}
        </p>
      </Pane>
    );
  }
  const net = detail.nets.find((one) => one.id === position.netId);
  const part = currentPart(detail.fittedParts, position.id);
  const esr = part ? expectedEsrOfPart(part, 100e3, 20) : null;
  const bank = bankOf(position, detail.positions, detail.fittedParts).filter((one) => one.id !== position.id);
  const superseded = new Set(detail.readings.map((reading) => reading.supersedesId));
  const own = detail.readings
    .filter((reading) => reading.targetId === position.id && !reading.isWithdrawn)
    .sort((a, b) => Date.parse(b.measuredAt) - Date.parse(a.measuredAt));
  const standing = new Set(standingReadings(detail.readings).map((reading) => reading.id));
  const isMainsSide = net && sectionFacts[net.section].isMainsSide;
  const next = capacitorsInOrder(detail).filter(
    (one) =>
      one.current && one.position.id !== position.id && judgements.get(one.position.id)?.verdict === "not_measured",
  );
  return (
    <Pane
      title={<span className={classes.designator}>{position.designator}</span>}
      note={
        <>
          {netWords(net)}
          <br />
          <Quantity value={part?.capacitanceFarads ?? null} unit="F" isMarking />{" "}
          <Quantity value={part?.ratedVolts ?? null} unit="V" />{" "}
          <Quantity value={part?.temperatureClassCelsius ?? null} unit="°C" />
          {part?.diameterMetres != null && part.heightMetres != null && (
            <>
              , {part.diameterMetres * 1e3} × {part.heightMetres * 1e3} mm
            </>
          )}
        </>
      }
    >
      {isMainsSide && charge.name !== "verified" && <Caution>{cautions.chargeUnknown}</Caution>}
      <div className={classes.hint}>
        {esr ? (
          <>
            Alone and new it reads <Quantity value={esr.lowOhms} unit="Ω" /> to{" "}
            <Quantity value={esr.highOhms} unit="Ω" /> at 100 kHz
            <span className={classes.soft}> ({esrSourceWords(esr.source)})</span>.
          </>
        ) : (
          "Value or voltage is not entered: nothing to compare with."
        )}
        {bank.length > 0 && (
          <>
            {" "}
            In circuit you read it together with {bank.map((one) => one.designator).join(", ")}: a good neighbour hides
            a bad part.
          </>
        )}
      </div>
      <Part title="Readings of this part">
        {own.length === 0 && <p className={classes.soft}>None yet. Type the number; Enter logs it.</p>}
        <ul className={classes.readings}>
          {own.map((reading) => (
            <li key={reading.id} data-superseded={!standing.has(reading.id) || undefined}>
              <span className={classes.kind}>{quantityFacts[reading.quantity].label}</span>
              <Quantity value={reading.value} unit={quantityFacts[reading.quantity].unit} keepsZeros />
              <span className={classes.soft}>
                {reading.circuitState ? circuitLabels[reading.circuitState] : ""}
                {superseded.has(reading.id) && ", taken back"}
              </span>
              <time className={classes.soft}>{logTime(reading.measuredAt)}</time>
            </li>
          ))}
        </ul>
      </Part>
      {next.length > 0 && (
        <Part title="Not measured yet">
          <ul className={classes.next}>
            {next.slice(0, 8).map((one) => (
              <li key={one.position.id}>
                <button type="button" onClick={() => select({ kind: "part", id: one.position.id })}>
                  <VerdictGlyph verdict="not_measured" size={13} /> <b>{one.position.designator}</b>{" "}
                  <span className={classes.soft}>{one.net?.name}</span>
                </button>
              </li>
            ))}
          </ul>
        </Part>
      )}
    </Pane>
  );
}
