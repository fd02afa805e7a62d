import { Button } from "@mantine/core";
import type { TeardownStepRow } from "@pale-cap/contract";
import { type ClosingLine, closingList } from "@pale-cap/core";
import { teardownLabels } from "@pale-cap/wording";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { photoThumbnail } from "../../job/photoApi";
import { useSubmit } from "../../outbox/useSubmit";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./rework.module.css";

/** The way back to a closed case: the opening in reverse, what goes in counted against what came out. */
export function ClosingList() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, { problem }] = useSubmit();
  const lines = closingList(detail.teardownSteps, detail.teardownReturns);
  if (lines.length === 0) return null;
  const out = lines.reduce((sum, line) => sum + line.step.count, 0);
  const missing = lines.reduce((sum, line) => sum + line.missingCount, 0);

  function count(stepId: string, countIn: number) {
    const body = { id: newId(), stepId, countIn, at: pageClock.moment(), personId };
    void submit({ kind: "return", jobId: detail.job.id, body });
  }

  return (
    <Part
      title="Closing the case"
      aside={
        <span className={text.soft} role="status">
          {missing === 0 ? `all ${out} back in` : `${out - missing} of ${out} back in`}
        </span>
      }
    >
      <table className={`${text.table} ${text.ruled} ${classes.closing}`}>
        <TableHead names={["", "What", "Where", "Photo", "Out", "In", ""]} />
        <tbody>
          {lines.map((line) => (
            <ClosingRow key={line.step.id} line={line} onCount={(countIn) => count(line.step.id, countIn)} />
          ))}
        </tbody>
      </table>
      <ProblemNote problem={problem} />
    </Part>
  );
}

function ClosingRow(props: {
  readonly line: ClosingLine<TeardownStepRow>;
  readonly onCount: (countIn: number) => void;
}) {
  const { step, countIn, missingCount, isBegun } = props.line;
  const name = `Step ${step.number}, ${teardownLabels[step.kind]}`;
  const isEarth = step.kind === "earth_screws";
  return (
    <tr data-missing={missingCount > 0 || undefined} data-earth={isEarth || undefined}>
      <td className={text.figure}>{step.number}</td>
      <td>
        {teardownLabels[step.kind]} {step.size}
        {isEarth && missingCount > 0 && <div className={classes.conflict}>protective earth: must be back</div>}
      </td>
      <td>{step.place}</td>
      <td>{step.photoId && <img src={photoThumbnail(step.photoId)} alt={`${name}, as it was`} />}</td>
      <td className={text.figure}>{step.count}</td>
      <td>
        <QuantityInput
          label={`${name}, back in`}
          isLabelHidden
          isCompact
          size="xs"
          unit=""
          limits={[0, 200]}
          value={isBegun ? countIn : null}
          placeholder="0"
          onCommit={(value) => props.onCount(Math.round(value ?? 0))}
        />
        {isBegun && countIn > step.count && <div className={classes.conflict}>more in than came out</div>}
      </td>
      <td>
        <Button
          size="compact-sm"
          variant={missingCount === 0 ? "filled" : "default"}
          aria-label={`${name}: all back`}
          aria-pressed={missingCount === 0}
          onClick={() => props.onCount(missingCount === 0 ? 0 : step.count)}
        >
          {missingCount === 0 ? "all back" : "All back"}
        </Button>
      </td>
    </tr>
  );
}
