import { formatMarkedCapacitance, formatQuantity, type Unit } from "@pale-cap/core";
import classes from "./ui.module.css";

/** A value with its unit set smaller, never wrapped apart. A capacitance printed as on a sleeve when `isMarking`. */
export function Quantity(props: {
  readonly value: number | null;
  readonly unit: Unit;
  readonly digits?: number;
  readonly isMarking?: boolean;
  readonly keepsZeros?: boolean;
}) {
  const { value, unit, digits = 3 } = props;
  if (value === null) return <span className={classes.quantity}>–</span>;
  if (value === Number.POSITIVE_INFINITY) return <span className={classes.quantity}>open</span>;
  const [number, shown] = props.isMarking
    ? formatMarkedCapacitance(value).split("\u00a0")
    : ((printed) => [printed.number, printed.unit])(
        formatQuantity(value, unit, { significantDigits: digits, keepsZeros: props.keepsZeros ?? false }),
      );
  return (
    <span className={classes.quantity}>
      {number}
      {shown && <span className={classes.unit}>{`\u202f${shown}`}</span>}
    </span>
  );
}
