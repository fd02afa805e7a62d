import { TextInput } from "@mantine/core";
import { type PlanReasons, type ReasonKey, reasonKeys } from "@pale-cap/contract";
import type { RequirementOverrides } from "@pale-cap/core";
import { overrideLabels } from "@pale-cap/wording";
import { useState } from "react";
import classes from "./choose.module.css";

/** Each limit that was set by hand, and a part that breaks one, with why: kept with the choice. */
export function Reasons(props: {
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
          label={overrideLabels[key]}
          stored={reasons[key] ?? ""}
          onReason={(one) => onReason(key, one)}
        />
      ))}
    </div>
  );
}

function Reason(props: {
  readonly label: string;
  readonly stored: string;
  readonly onReason: (reason: string | null) => void;
}) {
  const [typed, setTyped] = useState(props.stored);
  const keep = () => {
    if (typed.trim() !== props.stored) props.onReason(typed.trim() || null);
  };
  return (
    <TextInput
      size="xs"
      label={props.label}
      placeholder="because"
      maxLength={200}
      value={typed}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === "Enter" && keep()}
    />
  );
}
