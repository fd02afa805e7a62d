import { Button } from "@mantine/core";
import { recordCode } from "@pale-cap/contract";
import type { PartJudgement } from "@pale-cap/core";
import { ledgerLine, weightWords } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { useLeaveOut } from "../../job/useLeaveOut";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import classes from "./judge.module.css";

/** Everything that speaks for and against one part, each line with its reason. */
export function Ledger(props: {
  readonly judgement: PartJudgement;
  readonly designator: string;
  readonly neighbours: readonly string[];
}) {
  const { detail } = useJob();
  const lift = detail.positions.find((one) => one.id === props.judgement.leadToLiftId)?.designator;
  return (
    <Part title="What speaks for and against it">
      <ul className={classes.ledger}>
        {props.judgement.ledger.map((entry) => {
          const line = ledgerLine(entry, props.designator, props.neighbours, lift ?? props.designator);
          return (
            <li key={entry.kind + entry.code}>
              <div className={classes.lineHead}>
                <strong>{line.title}</strong>
                {entry.weight !== null && <Weight weight={entry.weight} />}
              </div>
              <div>{line.text}</div>
              <LeaveOut entry={entry} />
              {(line.why || entry.weight !== null) && (
                <details className={classes.why}>
                  <summary>why</summary>
                  {line.why}
                  {entry.weight !== null && (
                    <>
                      {" "}
                      {weightWords(entry.weight)}: {entry.weight >= 0 ? "+" : "−"}
                      {Math.abs(entry.weight).toFixed(1)} in the log-odds of “failed”.
                    </>
                  )}
                </details>
              )}
            </li>
          );
        })}
      </ul>
    </Part>
  );
}

/** What closed jobs say of a part can be left out by itself, for this and every later job. */
function LeaveOut({ entry: { kind, code, source } }: { readonly entry: PartJudgement["ledger"][number] }) {
  const { record } = useJob().detail;
  const { leave, problem } = useLeaveOut();
  if (kind !== "record" || code === "record_neutral" || !record) return null;
  const level = code.replace("record_", "");
  const subject = source.split(":").slice(3).join(":");
  const scope = level === "place" ? (record.scopes.model ?? "") : "";
  return (
    <>
      <Button size="compact-sm" onClick={() => leave(recordCode(level, scope, subject), true)}>
        Leave this out
      </Button>
      <ProblemNote problem={problem} />
    </>
  );
}

/** Weight as a bar to the right (against the part) or to the left (for it). */
function Weight({ weight }: { readonly weight: number }) {
  const length = Math.min(Math.abs(weight) / 6, 1) * 34;
  return (
    <svg viewBox="-36 0 72 12" width="72" height="12" role="img" aria-label={weightWords(weight)}>
      <path d="M0 0V12" stroke="var(--ink-soft)" />
      <rect
        x={weight > 0 ? 0 : -length}
        y="3"
        width={length}
        height="6"
        fill={weight > 0 ? "var(--failed)" : "var(--sound)"}
      />
    </svg>
  );
}
