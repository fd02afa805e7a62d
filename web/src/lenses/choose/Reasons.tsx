import { type PlanReasons, type ReasonKey, reasonKeys } from "@pale-cap/contract";
import type { RequirementOverrides } from "@pale-cap/core";
import { overrideLabels } from "@pale-cap/wording";
import { CommittedText } from "../../ui/CommittedText";
import classes from "./choose.module.css";

/** Each limit that was set by hand, and a part that breaks one, with why: kept with the choice. */
export function Reasons(props: {
  /** What the drafts are of, unique in the shop. */
  readonly name: string;
  readonly overrides: RequirementOverrides;
  readonly reasons: PlanReasons;
  readonly onReason: (key: ReasonKey, reason: string | null) => void;
}) {
  const { overrides, reasons, onReason } = props;
  const set = reasonKeys.filter((key) => (key === "part" ? reasons.part : overrides[key]) != null);
  if (set.length === 0) return null;
  return (
    <div className={classes.reasons}>
      {set.map((key) => (
        <Reason
          key={key}
          name={`${props.name} ${key}`}
          label={overrideLabels[key]}
          stored={reasons[key] ?? ""}
          onReason={(one) => onReason(key, one)}
        />
      ))}
    </div>
  );
}

function Reason(props: {
  readonly name: string;
  readonly label: string;
  readonly stored: string;
  readonly onReason: (reason: string | null) => void;
}) {
  return (
    <CommittedText
      size="xs"
      label={props.label}
      placeholder="because"
      maxLength={200}
      name={props.name}
      value={props.stored}
      onCommit={(reason) => props.onReason(reason.trim() || null)}
    />
  );
}
