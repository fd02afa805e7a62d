import { SegmentedControl } from "@mantine/core";
import type { QuantityKind } from "@pale-cap/core";
import { quantityFacts } from "@pale-cap/wording";
import type { BarQuantities } from "./barQuantities";
import classes from "./probe.module.css";

/** What is read: the usual quantities one click away, the others behind a list. */
export function QuantityChoice(props: {
  readonly fitting: BarQuantities;
  readonly value: QuantityKind;
  readonly onChange: (quantity: QuantityKind) => void;
}) {
  const { fitting, value, onChange } = props;
  const isMore = fitting.more.includes(value);
  return (
    <div className={classes.quantities}>
      <SegmentedControl
        aria-label="Quantity"
        data={fitting.main.map((one) => ({ value: one, label: quantityFacts[one].short ?? quantityFacts[one].label }))}
        value={isMore ? "" : value}
        onChange={(next) => next && onChange(next as QuantityKind)}
      />
      <select
        className={classes.frequency}
        data-current={isMore || undefined}
        aria-label="More quantities"
        value={isMore ? value : ""}
        onChange={(event) => event.currentTarget.value && onChange(event.currentTarget.value as QuantityKind)}
      >
        <option value="">more</option>
        {fitting.more.map((one) => (
          <option key={one} value={one}>
            {quantityFacts[one].label}
          </option>
        ))}
      </select>
    </div>
  );
}
