import { Button } from "@mantine/core";
import type { FamilyGrid, FamilyGridUnit } from "@pale-cap/contract";
import type { FamilyCell, ReworkStep } from "@pale-cap/core";
import { cautions, verdictLabels } from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppDispatch, useAppSelector } from "../../app/store/hooks";
import { targetSelected } from "../../job/workplaceSlice";
import { useSubmit } from "../../outbox/useSubmit";
import { Caution } from "../../ui/Caution";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./family.module.css";

/** One place on every unit: read it on all, take it out and fit it on all. Each unit's charge is asked for by itself. */
export function PlaceSteps(props: { readonly grid: FamilyGrid; readonly index: number; readonly onLeave: () => void }) {
  const { grid, index } = props;
  const place = grid.places[index];
  if (!place) return null;
  return (
    <section className={classes.steps} aria-label={`${place.designator} on all of them`}>
      <div className={classes.stepsHead}>
        <h2>{place.designator} on all of them</h2>
        <Button size="compact-sm" onClick={props.onLeave}>
          Close
        </Button>
      </div>
      <Caution>{cautions.chargeUnknown}</Caution>
      <table className={`${text.table} ${text.ruled}`} aria-label={`${place.designator}, unit by unit`}>
        <thead>
          <tr>
            <th>Unit</th>
            <th>Charge</th>
            <th>Stands</th>
            {place.kind === "electrolytic" && <th>ESR off the board or lifted</th>}
            <th>Work</th>
          </tr>
        </thead>
        <tbody>
          {grid.units.map((unit, n) => {
            const cell = place.cells[n];
            if (!cell || unit.handedOverAt) return null;
            return (
              <UnitStep
                key={unit.id}
                unit={unit}
                cell={cell}
                designator={place.designator}
                isCapacitor={place.kind === "electrolytic"}
                goesIn={grid.goesIn[index]?.[n] ?? null}
              />
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function UnitStep(props: {
  readonly unit: FamilyGridUnit;
  readonly cell: FamilyCell;
  readonly designator: string;
  readonly isCapacitor: boolean;
  readonly goesIn: string | null;
}) {
  const { unit, cell, goesIn } = props;
  const [submit, { problem, isLoading }] = useSubmit();
  const settings = useAppSelector((state) => state.workplace.probe);
  const personId = useAppSelector((state) => state.workplace.personId);
  /** As it was typed here last: it stands there until another one is read. */
  const [logged, setLogged] = useState<number | null>(null);
  const isDrained = unit.chargeName === "verified";
  const read = (value: number | null) => {
    if (value === null || value === logged || cell.partId === null) return;
    setLogged(value);
    const body = {
      ...({ id: newId(), targetKind: "part", targetId: cell.positionId, fittedPartId: cell.partId } as const),
      ...({ quantity: "esr", value, coarseCode: null, terminals: null, uncertainty: null } as const),
      circuitState: cell.isRemoved && !cell.isFitted ? ("out" as const) : ("lead_lifted" as const),
      ...{ frequencyHertz: settings.esrFrequencyHertz, temperatureCelsius: settings.temperatureCelsius },
      ...{ isPowered: false, loadAmps: null, rawText: null, instrument: null, isWithdrawn: false, supersedesId: null },
      rig: {
        ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false, measuredAt: null },
        areLeadsZeroed: settings.leadOhms === 0,
      },
      ...{ measuredAt: pageClock.moment(), personId },
    };
    void submit({ kind: "reading", jobId: unit.id, body });
  };
  const tick = (step: ReworkStep) =>
    void submit({
      kind: "ticks",
      jobId: unit.id,
      body: {
        ...{ id: newId(), step, isDone: true, at: pageClock.moment(), personId },
        items: [
          {
            ...{ id: newId(), positionId: cell.positionId, stripeDegrees: null },
            fittedPartId: step === "fitted" ? newId() : null,
          },
        ],
      },
    });
  return (
    <tr>
      <td>
        <JobLink unit={unit} cell={cell} />
      </td>
      <td data-charged={!isDrained || undefined} className={classes.charge}>
        {unit.charge}
        {!isDrained && (
          <div>
            <Link to={`/jobs/${unit.id}/make-safe`}>Make it safe</Link>
          </div>
        )}
      </td>
      <td>{verdictLabels[cell.verdict ?? "not_measured"]}</td>
      {props.isCapacitor && (
        <td>
          <QuantityInput
            label={`ESR of ${props.designator} of ${unit.number}`}
            isLabelHidden
            unit="Ω"
            value={logged}
            onCommit={read}
          />
        </td>
      )}
      <td>
        <div className={classes.work}>
          <Button
            size="compact-sm"
            disabled={!isDrained || cell.isRemoved || isLoading}
            onClick={() => tick("removed")}
          >
            Out
          </Button>
          <Button
            size="compact-sm"
            disabled={!isDrained || !cell.isRemoved || cell.isFitted || goesIn === null || isLoading}
            onClick={() => tick("fitted")}
          >
            In
          </Button>
          <span className={classes.note}>{workNote(cell, goesIn, isDrained)}</span>
        </div>
        <ProblemNote problem={problem} />
      </td>
    </tr>
  );
}

function workNote({ isFitted, isRemoved }: FamilyCell, goesIn: string | null, isDrained: boolean): string {
  if (isFitted) return "new in: its polarity is read in Rework";
  if (!isDrained) return "not before its charge was measured low";
  if (isRemoved && goesIn === null) return "nothing chosen for it yet";
  return goesIn ?? "";
}

function JobLink({ unit, cell }: { readonly unit: FamilyGridUnit; readonly cell: FamilyCell }) {
  const dispatch = useAppDispatch();
  return (
    <Link
      to={`/jobs/${unit.id}/rework`}
      onClick={() => dispatch(targetSelected({ jobId: unit.id, target: { kind: "part", id: cell.positionId } }))}
    >
      {String(unit.number).padStart(4, "0")} {unit.serial}
    </Link>
  );
}
