import { TextInput } from "@mantine/core";
import { type PlanReasons, type ReasonKey, reasonKeys } from "@pale-cap/contract";
import type { RequirementOverrides } from "@pale-cap/core";
import { overrideLabels } from "@pale-cap/wording";
import { useDraft } from "../../ui/useDraft";
import classes from "./choose.module.css";

/** Each limit that was set by hand, and a part that breaks one, with why: kept with the choice. */
export function Reasons(props: {
  /** What the drafts are of, unique in the shop. */
  readonly name: string;
  readonly overrides: RequirementOverrides;
  readonly reasons: PlanReasons;
  readonly onReason: (key: ReasonKey, reason: string | null, onStored: () => void) => void;
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
          onReason={(one, onStored) => onReason(key, one, onStored)}
        />
      ))}
    </div>
  );
}

function Reason(props: {
  readonly name: string;
  readonly label: string;
  readonly stored: string;
  readonly onReason: (reason: string | null, onStored: () => void) => void;
}) {
  const [typed, setTyped, dropTyped] = useDraft(props.name, props.stored);
  const keep = () => {
    if (typed.trim() === props.stored) return;
    props.onReason(typed.trim() || null, () => dropTyped(typed));
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
