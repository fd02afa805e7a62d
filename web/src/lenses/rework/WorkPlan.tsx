import { Button } from "@mantine/core";
import type { WorkStep } from "@pale-cap/core";
import { cautions, orderReasonWords } from "@pale-cap/wording";
import { Link } from "react-router";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { useTarget } from "../../job/useTarget";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./rework.module.css";
import type { ReworkRow } from "./reworkRows";

/** The order in which hands reach the places, before iron is hot; a person moves what stands wrong. */
export function WorkPlan(props: { readonly steps: readonly WorkStep[]; readonly rows: readonly ReworkRow[] }) {
  const { steps, rows } = props;
  const { detail, charge } = useJob();
  const [target, select] = useTarget();
  const [act, { problem }] = useLogAct();
  if (steps.length < 2) return null;
  const rowOf = (id: string) => rows.find((one) => one.position.id === id);
  const before = (positionId: string, otherId: string) =>
    void act({ kind: "work_before", subjectId: positionId, note: otherId });
  const names = steps.flatMap((one) => rowOf(one.positionId)?.position.designator ?? []);
  return (
    <details className={classes.plan}>
      <summary>
        Order of work: {names.join(", ")} <Link to={`/jobs/${detail.job.id}/rework-list`}>to print</Link>
      </summary>
      <Part title="In this order">
        <ol>
          {steps.map((step, n) => {
            const row = rowOf(step.positionId);
            const previous = steps[n - 1];
            const after = steps[n + 2];
            return (
              <li key={step.positionId} data-selected={target?.id === step.positionId || undefined}>
                <button
                  type="button"
                  className={classes.place}
                  onClick={() => select({ kind: "part", id: step.positionId })}
                >
                  {row?.position.designator}
                </button>{" "}
                <span className={text.soft}>
                  {[
                    row?.net?.name,
                    row?.replacement?.name ?? (row?.steps.includes("fitted") ? "nothing chosen" : "stays empty"),
                    ...step.reasons.map((one) => orderReasonWords[one]),
                    ...(step.isOneAtATime ? ["no photo or drawing shows it: alone"] : []),
                  ]
                    .filter(Boolean)
                    .join(", ")}
                </span>
                <span className={classes.moves}>
                  <Button
                    size="compact-xs"
                    aria-label={`${row?.position.designator} earlier`}
                    disabled={!previous}
                    onClick={() => previous && before(step.positionId, previous.positionId)}
                  >
                    ↑
                  </Button>
                  <Button
                    size="compact-xs"
                    aria-label={`${row?.position.designator} later`}
                    disabled={n === steps.length - 1}
                    onClick={() => {
                      const next = steps[n + 1];
                      if (after) before(step.positionId, after.positionId);
                      else if (next) before(next.positionId, step.positionId);
                    }}
                  >
                    ↓
                  </Button>
                </span>
                {step.asksCharge && charge.name !== "verified" && (
                  <div className={classes.conflict}>{cautions.chargeUnknown}</div>
                )}
              </li>
            );
          })}
        </ol>
        <ProblemNote problem={problem} />
      </Part>
    </details>
  );
}
