import { Button } from "@mantine/core";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";
import { fieldName } from "./intakeOf";
import { areWords, type IntakeConflict } from "./mergeIntake";

/** Fields that somebody else stored while they were typed here: both texts, and what is to stand. Nothing is lost by choosing late. */
export function IntakeConflicts(props: {
  readonly conflicts: readonly IntakeConflict[];
  readonly onSettle: (conflict: IntakeConflict, how: "mine" | "theirs" | "both") => void;
}) {
  if (props.conflicts.length === 0) return null;
  return (
    <section role="alert" aria-label="Changed by two people" className={classes.conflicts}>
      <b>Somebody else changed this while you typed. Both stand here; say what is to stay, then save.</b>
      {props.conflicts.map((conflict) => (
        <div key={conflict.field} className={classes.conflict}>
          <span className={text.softLine}>{fieldName(conflict.field)}</span>
          <blockquote>
            <span className={text.soft}>stored</span> {shown(conflict.theirs)}
          </blockquote>
          <blockquote>
            <span className={text.soft}>typed here</span> {shown(conflict.mine)}
          </blockquote>
          <span className={classes.choice}>
            <Button size="compact-sm" onClick={() => props.onSettle(conflict, "mine")}>
              Mine
            </Button>
            <Button size="compact-sm" onClick={() => props.onSettle(conflict, "theirs")}>
              Theirs
            </Button>
            {areWords(conflict) && (
              <Button size="compact-sm" onClick={() => props.onSettle(conflict, "both")}>
                Both
              </Button>
            )}
          </span>
        </div>
      ))}
    </section>
  );
}

function shown(value: unknown): string {
  if (value === null || value === "" || value === undefined) return "nothing";
  if (Array.isArray(value)) return value.join(", ").replaceAll("_", " ") || "nothing";
  if (typeof value !== "object") return String(value);
  const told = Object.entries(value).filter(([, one]) => one !== null && one !== "");
  return told.map(([name, one]) => `${fieldName(name)} ${shown(one)}`).join("; ") || "nothing";
}
