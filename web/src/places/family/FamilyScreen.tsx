import { Button } from "@mantine/core";
import type { FamilyGrid, FamilyGridUnit } from "@pale-cap/contract";
import type { FamilyCell, FamilyPlace } from "@pale-cap/core";
import { behindWords, cellWords, listWords, verdictLabels } from "@pale-cap/wording";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { newId } from "../../api/newId";
import { useAppDispatch } from "../../app/store/hooks";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useFamilyGridQuery, useFollowStudyMutation } from "../../job/familyApi";
import { targetSelected } from "../../job/workplaceSlice";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./family.module.css";
import { PlaceSteps } from "./PlaceSteps";

export const numberText = (number: number) => String(number).padStart(4, "0");

/** Identical units side by side: units down, places across; what differs from the first, or reads apart from its brothers, is loud. */
export function FamilyScreen() {
  const { jobId = "" } = useParams();
  const { data, error } = useFamilyGridQuery(jobId, { refetchOnMountOrArgChange: true });
  const [chosen, setChosen] = useState<string | null>(null);
  if (!data) return <ProblemNote problem={asProblem(error)} />;
  const index = data.places.findIndex((one) => keyOf(one) === chosen);
  return (
    <div className={`${text.page} ${classes.page}`}>
      <header className={classes.head}>
        <h1>{data.name ?? "One unit"}</h1>
        <p className={text.softLine}>
          {data.units.length} unit{data.units.length === 1 ? "" : "s"}. The first is the study: the others are held
          against it. {data.units.length === 1 && "More of the same are made in Intake, Same kind."}
        </p>
      </header>
      <Grid grid={data} chosen={chosen} onChoose={setChosen} />
      {index >= 0 && <PlaceSteps grid={data} index={index} onLeave={() => setChosen(null)} />}
      <div className={classes.below}>
        <Apart grid={data} />
        <Behind grid={data} />
        <Needs grid={data} />
      </div>
    </div>
  );
}

const keyOf = (place: FamilyPlace) => place.designator;

function Grid(props: {
  readonly grid: FamilyGrid;
  readonly chosen: string | null;
  readonly onChoose: (place: string | null) => void;
}) {
  const { units, places, goesIn } = props.grid;
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keys
    <div className={classes.scroll} tabIndex={0}>
      <table className={classes.grid} aria-label="Units and places">
        <thead>
          <tr>
            <th scope="col">Unit</th>
            {places.map((place) => (
              <th key={keyOf(place)} scope="col" data-chosen={keyOf(place) === props.chosen || undefined}>
                <button
                  type="button"
                  className={classes.placeButton}
                  aria-pressed={keyOf(place) === props.chosen}
                  title={`${place.designator} on all of them`}
                  onClick={() => props.onChoose(keyOf(place) === props.chosen ? null : keyOf(place))}
                >
                  {place.designator}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {units.map((unit, n) => (
            <tr key={unit.id} data-study={n === 0 || undefined}>
              <th scope="row">
                <Link to={`/jobs/${unit.id}`}>{numberText(unit.number)}</Link>
                <div className={classes.note}>{unitNote(unit, n)}</div>
              </th>
              {places.map((place, m) => (
                <td key={keyOf(place)}>
                  <Cell unit={unit} place={place} cell={place.cells[n] ?? null} goesIn={goesIn[m]?.[n] ?? null} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function unitNote({ serial, isKnownGood, handedOverAt }: FamilyGridUnit, n: number): string {
  return [serial, n === 0 && "the study", isKnownGood && "known good", handedOverAt && "handed over"]
    .filter(Boolean)
    .join(", ");
}

/** Verdict, reading and what goes in; Enter or a click leads to the place on its own job. */
function Cell(props: {
  readonly unit: FamilyGridUnit;
  readonly place: FamilyPlace;
  readonly cell: FamilyCell | null;
  readonly goesIn: string | null;
}) {
  const { unit, place, cell, goesIn } = props;
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  if (!cell) return <span className={classes.none}>no such place</span>;
  const isLoud = cell.isApart || cell.differs;
  return (
    <button
      type="button"
      className={classes.cell}
      data-loud={isLoud || undefined}
      data-apart={cell.isApart || undefined}
      aria-label={`${place.designator} of ${numberText(unit.number)}: ${cellWords(cell, goesIn)}`}
      onClick={() => {
        dispatch(targetSelected({ jobId: unit.id, target: { kind: "part", id: cell.positionId } }));
        navigate(`/jobs/${unit.id}/measure`);
      }}
    >
      <span className={classes.cellHead}>
        <VerdictGlyph verdict={cell.verdict ?? "not_measured"} />
        {isLoud && <span>{verdictLabels[cell.verdict ?? "not_measured"]}</span>}
      </span>
      {cell.reading && (
        <span className={text.figure}>
          {cell.reading.value === null ? "open" : <Quantity value={cell.reading.value} unit={unitOf(cell)} />}
        </span>
      )}
      {(cell.isFitted || goesIn) && <span className={classes.note}>{cell.isFitted ? "new in" : `→ ${goesIn}`}</span>}
    </button>
  );
}

const units = { esr: "Ω", resistance: "Ω", capacitance: "F", diode_drop: "V", dc_voltage: "V" } as const;
const unitOf = ({ reading }: FamilyCell) => units[(reading?.quantity ?? "esr") as keyof typeof units] ?? "";

/** Readings that lie apart from their brothers: evidence of something, and of what is for a person to say. */
function Apart({ grid }: { readonly grid: FamilyGrid }) {
  const found = grid.places.flatMap((place) =>
    place.cells.flatMap((cell, n) => (cell?.isApart ? [{ place, cell, unit: grid.units[n] as FamilyGridUnit }] : [])),
  );
  return (
    <section className={classes.part} aria-label="Reads apart">
      <h2>Reads apart from its brothers</h2>
      {found.length === 0 ? (
        <p className={text.softLine}>
          Nothing. That needs three units read at the same place in the same way; brothers of one age wear alike.
        </p>
      ) : (
        <ul className={classes.lines}>
          {found.map(({ place, cell, unit }) => (
            <li key={`${place.designator} ${unit.id}`}>
              {place.designator} of {numberText(unit.number)} reads {Number((cell.brothersRatio ?? 1).toPrecision(2))}{" "}
              times the middle of the family. Something is other there: its own fault, another part, or its brothers'.
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** What the study has and the others have not; it goes over only when a person says so. */
function Behind({ grid }: { readonly grid: FamilyGrid }) {
  const [follow, { error, isLoading }] = useFollowStudyMutation();
  const study = grid.units[0];
  const behind = grid.units.filter(
    ({ behind: one, handedOverAt }) =>
      one && !handedOverAt && (one.complaint || one.rails.length + one.places.length + one.choices.length > 0),
  );
  if (!study || grid.units.length < 2) return null;
  return (
    <section className={classes.part} aria-label="As on the study">
      <h2>What the study has and others have not</h2>
      {behind.length === 0 ? (
        <p className={text.softLine}>Complaint, board and choices are the same on all open units.</p>
      ) : (
        <>
          <ul className={classes.lines}>
            {behind.map((unit) => (
              <li key={unit.id}>
                {numberText(unit.number)}: {behindWords(unit.behind)}
              </li>
            ))}
          </ul>
          <Button
            loading={isLoading}
            onClick={() =>
              void follow({ jobId: study.id, body: { id: newId(), unitIds: behind.map((unit) => unit.id) } })
            }
          >
            Bring {listWords(behind.map((unit) => numberText(unit.number)))} up to it
          </Button>
          <p className={text.softLine}>Readings, charge, polarity and proof of each unit stay its own.</p>
          <ProblemNote problem={asProblem(error)} />
        </>
      )}
    </section>
  );
}

function Needs({ grid: { needs } }: { readonly grid: FamilyGrid }) {
  if (needs.length === 0) return null;
  return (
    <section className={classes.part} aria-label="Parts for all">
      <h2>Parts for all of them</h2>
      <table className={`${text.table} ${text.ruled}`} aria-label="Parts for all">
        <TableHead names={["Part", "For", "Needed", "Free", "On the way"]} />
        <tbody>
          {needs.map((need) => (
            <tr key={need.cataloguePartId} data-short={need.freeCount < need.neededCount || undefined}>
              <td>{need.label}</td>
              <td className={text.figure}>{need.places.join(" ")}</td>
              <td className={text.figure}>{need.neededCount}</td>
              <td className={text.figure}>{need.freeCount}</td>
              <td className={text.figure}>{need.orderedCount || ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={text.softLine}>
        <Link to="/parts/orders">To the orders</Link>
      </p>
    </section>
  );
}
