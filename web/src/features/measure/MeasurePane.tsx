import { bankOf, currentPart, expectedEsrOfPart, partForSchool, sectionFacts } from "@pale-cap/core";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useJob } from "../../job/JobContext";
import { capacitorsInOrder } from "../../job/parts";
import { useSelectedPosition, useTarget } from "../../job/useTarget";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { listWords, netWords } from "../../wording/boardWords";
import { cautions } from "../../wording/cautions";
import { esrSourceWords } from "../../wording/ledgerWords";
import classes from "./measure.module.css";
import { RailList, RailPane } from "./RailPane";
import { ReadingList } from "./ReadingList";

/** The selected part: what a new one reads, what was read so far, what is still to be probed. */
export function MeasurePane() {
  const { detail, judgements, charge, rules } = useJob();
  const [target, select] = useTarget();
  const position = useSelectedPosition();
  const rail = target?.kind === "rail" ? detail.nets.find((net) => net.id === target.id) : undefined;
  if (rail) return <RailPane net={rail} />;
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
  const esr = part ? expectedEsrOfPart(partForSchool(part, rules.judgement.esrSourceSchool), 100e3, 20) : null;
  const bank = bankOf(position, detail.positions, detail.fittedParts).filter((one) => one.id !== position.id);
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
            In circuit you read it together with {listWords(bank.map((one) => one.designator))}: a good neighbour hides
            a bad part.
          </>
        )}
      </div>
      <ReadingList title="Readings of this part" targetId={position.id} />
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
      <RailList />
    </Pane>
  );
}
