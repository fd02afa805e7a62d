import { Button, SegmentedControl } from "@mantine/core";
import type { FittedPartRow, Position } from "@pale-cap/contract";
import {
  bankOf,
  expectedEsrOfPart,
  isInHand,
  meterRange,
  partForSchool,
  partInHand,
  probePoints,
  sectionFacts,
} from "@pale-cap/core";
import { cautions, circuitLabels, esrSourceWords, listWords, netWords, quantityFacts } from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { probedPart } from "../../job/looseParts";
import { type Proposals, useProposals } from "../../job/useProposals";
import { useSelectedPosition, useTarget } from "../../job/useTarget";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { DevicePane } from "./DevicePane";
import classes from "./measure.module.css";
import { OtherPoints } from "./OtherPoints";
import { RailPane } from "./RailPane";
import { ReadingList } from "./ReadingList";
import { UnitPane } from "./UnitPane";

/** The selected part: what a new one reads, what was read so far, what is still to be probed. */
export function MeasurePane() {
  const { detail, charge, rules } = useJob();
  const [target] = useTarget();
  const proposals = useProposals();
  const position = useSelectedPosition();
  const rail = target?.kind === "rail" ? detail.nets.find((net) => net.id === target.id) : undefined;
  const { nets, positions, fittedParts } = detail;
  const points = useMemo(() => probePoints({ nets, positions, fittedParts }), [nets, positions, fittedParts]);
  if (rail) return <RailPane net={rail} points={points} />;
  if (target?.kind === "unit") return <UnitPane points={points} />;
  if (position && position.kind !== "electrolytic") return <DevicePane position={position} points={points} />;
  if (!position) {
    return (
      <Pane title="Measure">
        <p className={text.soft}>
          {detail.positions.length === 0
            ? "Enter the capacitors in Inspect first: without value and voltage there is nothing to compare with."
            : "Choose a part on the board."}
        </p>
      </Pane>
    );
  }
  const net = detail.nets.find((one) => one.id === position.netId);
  const { part, where } = probedPart(detail, target);
  const others = detail.fittedParts.filter(
    (one) =>
      one.positionId === position.id &&
      one.id !== part?.id &&
      detail.readings.some((reading) => reading.fittedPartId === one.id),
  );
  const esr = part ? expectedEsrOfPart(partForSchool(part, rules.judgement.esrSourceSchool), 100e3, 20) : null;
  const bank =
    where === "in_place"
      ? bankOf(position, detail.positions, detail.fittedParts).filter((one) => one.id !== position.id)
      : [];
  const isMainsSide = net && sectionFacts[net.section].isMainsSide;
  return (
    <Pane
      title={
        <>
          <span className={classes.designator}>{position.designator}</span>
          {where === "in_hand" && ", the new part before it goes in"}
          {where === "beside" && ", the old part off the board"}
        </>
      }
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
      second={
        <>
          <LeadsFirst proposals={proposals} />
          {proposals.isOwnStep && (
            <Part title="Read next">
              <p className={text.soft}>
                On a practice supply that is yours to say. A hint has its price: under Hands, Teacher.
              </p>
            </Part>
          )}
          {proposals.list.length > 0 && (
            <Part title="Read next" aside={<span className={text.soft}>Enter on an empty bar goes to the first</span>}>
              <ul className={classes.next}>
                {proposals.list.slice(0, 7).map((one) => (
                  <li key={`${one.positionId} ${one.terminals} ${one.quantity}`}>
                    <button type="button" onClick={() => proposals.take(one)}>
                      <b>{detail.positions.find((place) => place.id === one.positionId)?.designator}</b>{" "}
                      {one.terminals && `${one.terminals.replace(",", " to ")}, `}
                      {quantityFacts[one.quantity].label}, {circuitLabels[one.circuitState]}{" "}
                      <span className={text.soft}>
                        {one.isChargeOpen
                          ? "charge not verified"
                          : one.minutes < 1
                            ? "seconds"
                            : `about ${one.minutes} min`}
                      </span>
                    </button>
                  </li>
                ))}
              </ul>
            </Part>
          )}
          <OtherPoints points={points} />
        </>
      }
    >
      {isMainsSide && where !== "in_hand" && charge.name !== "verified" && <Caution>{cautions.chargeUnknown}</Caution>}
      <WhichPart position={position} />
      <div className={classes.hint}>
        {esr ? (
          <>
            Alone and new it reads <Quantity value={esr.lowOhms} unit="Ω" /> to{" "}
            <Quantity value={esr.highOhms} unit="Ω" /> at 100 kHz
            <span className={text.soft}> ({esrSourceWords(esr.source)})</span>. Range{" "}
            <Quantity value={meterRange(esr.highOhms)} unit="Ω" />, leads zeroed.
          </>
        ) : part ? (
          "Value or voltage is not entered: nothing to compare with."
        ) : (
          "Nothing stands here, and nothing lies ready."
        )}
        {bank.length > 0 && (
          <>
            {" "}
            In circuit you read it together with {listWords(bank.map((one) => one.designator))}: a good neighbour hides
            a bad part.
          </>
        )}
        {detail.baseline
          .filter((one) => one.designator === position.designator)
          .map((one) => (
            <div key={`${one.isInCircuit} ${one.frequencyHertz}`}>
              {one.isKnownGood ? "A known-good board" : "Sound parts of this board type"} (
              {one.unitCount === 1 ? "one unit" : `${one.unitCount} units`}) read{" "}
              <Quantity value={one.typical} unit="Ω" /> {one.isInCircuit ? "in circuit" : "out of circuit"} at{" "}
              <Quantity value={one.frequencyHertz} unit="Hz" />.
            </div>
          ))}
      </div>
      <ReadingList title="Readings of this part" targetId={position.id} fittedPartId={part?.id ?? null} />
      {others.map((one) => (
        <ReadingList
          key={one.id}
          title={`Readings of ${partWords(one)}`}
          targetId={position.id}
          fittedPartId={one.id}
        />
      ))}
    </Pane>
  );
}

/** Before anything else: what the leads of the meter add, where all readings seem to carry it. */
function LeadsFirst({ proposals }: { readonly proposals: Proposals }) {
  const { judgements } = useJob();
  const { areTipsFirst, takeTips } = proposals;
  const [first] = judgements.values();
  if (!areTipsFirst || !first) return null;
  return (
    <Part title="The leads first">
      <p className={classes.hint}>
        All readings of this board may carry about <Quantity value={first.leads.ohms} unit="Ω" /> of leads. Hold the
        tips together and read: it is taken off everything.
      </p>
      <Button variant="light" size="compact-sm" onClick={takeTips}>
        Read the tips together
      </Button>
    </Part>
  );
}

/** A part of the same place that is not the one between the probes. */
function partWords(part: FittedPartRow): string {
  if (isInHand(part)) return "the new part before it goes in";
  if (part.origin === "replacement") return part.removedAt ? "a new part that was put aside" : "the new part";
  return part.removedAt ? "the part that came out" : "the part that was found";
}

/** Old and new lie side by side while a part is exchanged: one key says which of them the probes are on. */
function WhichPart({ position }: { readonly position: Position }) {
  const { detail } = useJob();
  const [target, select] = useTarget();
  const fresh = partInHand(detail.fittedParts, position.id);
  if (!fresh) return null;
  const { where } = probedPart(detail, { kind: "part", id: position.id });
  const isNewPart = target?.isNewPart === true;
  return (
    <SegmentedControl
      size="xs"
      mb={8}
      aria-label="Which part is between the probes"
      value={isNewPart ? "new" : "place"}
      data={[
        { value: "place", label: where === "beside" ? "Old part" : "In its place" },
        { value: "new", label: "New part" },
      ]}
      onChange={(value) => select({ kind: "part", id: position.id, ...(value === "new" && { isNewPart: true }) })}
    />
  );
}
