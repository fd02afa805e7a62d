import { Button } from "@mantine/core";
import { formatMarkedCapacitance, formatQuantity, reworkOrder } from "@pale-cap/core";
import { deviceName, directionWord, orderReasonWords, partKindLabels } from "@pale-cap/wording";
import { Link, useParams } from "react-router";
import { useJob } from "../../job/JobContext";
import { JobPage } from "../../job/JobPage";
import text from "../../ui/text.module.css";
import { PlaceMap } from "./PlaceMap";
import classes from "./paper.module.css";
import type { ReworkRow } from "./reworkRows";
import { useReworkRows } from "./useReworkRows";

/** The order of work and the map of value against place, for paper, before the first part leaves. */
export function ReworkListPage() {
  const { jobId = "" } = useParams();
  return (
    <JobPage name="list">
      <div className={classes.desk}>
        <nav className={classes.tools}>
          <Button component={Link} to={`/jobs/${jobId}/rework`}>
            Back to Rework
          </Button>
          <Button variant="filled" onClick={() => window.print()}>
            Print
          </Button>
        </nav>
        <Sheet />
      </div>
    </JobPage>
  );
}

const markingOf = (
  part: { readonly capacitanceFarads: number | null; readonly ratedVolts: number | null } | undefined,
) =>
  part?.capacitanceFarads == null
    ? null
    : `${formatMarkedCapacitance(part.capacitanceFarads)}${part.ratedVolts === null ? "" : ` ${formatQuantity(part.ratedVolts, "V").text}`}`;

const outOf = ({ position, found }: ReworkRow) =>
  position.kind === "electrolytic" ? (markingOf(found) ?? "not read") : partKindLabels[position.kind];

function Sheet() {
  const { detail, facts } = useJob();
  const rows = useReworkRows().flatMap((one) => one.rows);
  const hasPhoto = detail.photos.some((photo) => !photo.isRemoved && photo.kind.startsWith("board_"));
  const steps = reworkOrder(
    facts,
    rows.map((one) => one.position.id),
    hasPhoto,
  );
  const rowOf = (id: string) => rows.find((one) => one.position.id === id);
  return (
    <article className={classes.sheet} data-paper>
      <h1>
        {String(detail.job.number).padStart(4, "0")} {deviceName(detail.job)}: order of work
      </h1>
      {steps.length === 0 && <p>Nothing is judged bad or chosen yet: there is nothing to list.</p>}
      {steps.length > 0 && (
        <table className={text.table}>
          <thead>
            <tr>
              <th scope="col">No</th>
              <th scope="col">Place</th>
              <th scope="col">Out</th>
              <th scope="col">In</th>
              <th scope="col">Minus points</th>
              <th scope="col">Mind</th>
              <th scope="col">Out ☐</th>
              <th scope="col">In ☐</th>
            </tr>
          </thead>
          <tbody>
            {steps.map((step, n) => {
              const row = rowOf(step.positionId);
              if (!row) return null;
              const degrees = row.position.boardNegativeDegrees ?? row.found?.stripeDegrees ?? null;
              return (
                <tr key={step.positionId}>
                  <td>{n + 1}</td>
                  <td className={classes.place}>{row.position.designator}</td>
                  <td>{outOf(row)}</td>
                  <td>
                    {row.replacement
                      ? [row.replacement.name, markingOf(row.replacement)].filter(Boolean).join(" ")
                      : row.steps.includes("fitted")
                        ? "nothing chosen"
                        : "stays empty"}
                  </td>
                  <td>
                    {row.position.kind !== "electrolytic"
                      ? ""
                      : degrees === null
                        ? "not noted"
                        : directionWord(degrees)}
                  </td>
                  <td>
                    {[
                      ...step.reasons.map((one) => orderReasonWords[one]),
                      ...(step.isOneAtATime ? ["no photo or drawing shows it: alone"] : []),
                    ].join("; ")}
                  </td>
                  <td>☐</td>
                  <td>☐</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {detail.boards.map((board) => (
        <PlaceMap
          key={board.id}
          board={board}
          others={detail.positions.filter(
            (one) =>
              one.boardId === board.id &&
              one.xMetres !== null &&
              one.yMetres !== null &&
              !rows.some((row) => row.position.id === one.id),
          )}
          places={rows
            .filter((one) => one.position.boardId === board.id)
            .map((one) => ({
              position: one.position,
              diameterMetres: one.found?.diameterMetres ?? null,
              lines: outOf(one).split(/(?<=F) /),
              negativeDegrees: one.position.boardNegativeDegrees ?? one.found?.stripeDegrees ?? null,
            }))}
        />
      ))}
      <p>
        Charge is measured again before the mains side is touched. A can the wrong way round vents within seconds: each
        is checked by the board's mark and by its own stripe.
      </p>
    </article>
  );
}
