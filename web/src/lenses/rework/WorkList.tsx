import { Checkbox } from "@mantine/core";
import { type WorkCheck, workChecks } from "@pale-cap/core";
import { cautions, workLabels } from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./rework.module.css";

/** What the work asks for, each only where it applies: one key for all its places, or for one. */
export function WorkList() {
  const { detail, facts } = useJob();
  const checks = useMemo(() => workChecks(facts), [facts]);
  const [act, { problem }] = useLogAct();
  if (checks.length === 0) return null;
  const nameOf = (id: string) => detail.positions.find((one) => one.id === id)?.designator ?? "?";
  const log = async (check: WorkCheck, ids: readonly string[], isDone: boolean, value: number | null = null) => {
    for (const subjectId of ids) {
      if (isDone) await act({ kind: "work_done", subjectId, word: check.kind, value });
      else await act({ kind: "work_done", subjectId, word: "taken_back", note: check.kind });
    }
  };
  return (
    <Part title="Before it closes">
      {checks.some((one) => one.kind === "sink_insulation") && <Caution>{cautions.chargedByTest}</Caution>}
      <ul className={classes.checks}>
        {checks.map((check) => {
          const open = check.positionIds.filter((id) => !check.doneIds.includes(id));
          const isReading = check.kind === "sink_insulation";
          return (
            <li key={check.kind}>
              {isReading ? (
                <span className={classes.checkName}>{workLabels[check.kind]}</span>
              ) : (
                <Checkbox
                  label={workLabels[check.kind]}
                  checked={open.length === 0}
                  indeterminate={open.length > 0 && check.doneIds.length > 0}
                  onChange={() => void log(check, open.length > 0 ? open : check.doneIds, open.length > 0)}
                />
              )}
              <span className={classes.checkPlaces}>
                {check.positionIds.map((id) =>
                  isReading ? (
                    <QuantityInput
                      key={id}
                      label={`${nameOf(id)}, insulation to the sink`}
                      isCompact
                      size="xs"
                      unit="Ω"
                      limits={[0, 1e12]}
                      value={
                        facts.acts
                          .filter((one) => one.kind === "work_done" && one.word === check.kind && one.subjectId === id)
                          .at(-1)?.value ?? null
                      }
                      onCommit={(value) => value !== null && void log(check, [id], true, value)}
                    />
                  ) : (
                    <button
                      key={id}
                      type="button"
                      className={classes.checkPlace}
                      aria-pressed={check.doneIds.includes(id)}
                      onClick={() => void log(check, [id], !check.doneIds.includes(id))}
                    >
                      {nameOf(id)}
                    </button>
                  ),
                )}
              </span>
              {check.lowIds.length > 0 && (
                <span className={classes.conflict}>below 100 MΩ: {check.lowIds.map(nameOf).join(", ")}</span>
              )}
            </li>
          );
        })}
      </ul>
      <p className={text.soft}>Only what applies here is asked. Places light up as they are done.</p>
      <ProblemNote problem={problem} />
    </Part>
  );
}
