import type { Limit, Requirement, RequirementOverrides, Unit } from "@pale-cap/core";
import { limitSourceLabels } from "@pale-cap/wording";
import { Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./choose.module.css";

/** Every limit of a place with where it comes from; any of them can be set by hand. */
export function RequirementTable(props: {
  readonly requirement: Requirement;
  readonly onOverride: (more: Partial<RequirementOverrides>) => void;
}) {
  const { requirement: need, onOverride } = props;
  const editable = (
    label: string,
    name: keyof RequirementOverrides,
    limit: Limit | null,
    unit: Unit,
    range: readonly [number, number],
    prefix?: "u" | "m",
  ) => (
    <div>
      <QuantityInput
        label={label}
        size="xs"
        digits={3}
        unit={unit}
        limits={range}
        value={limit?.value ?? null}
        placeholder="no limit"
        {...(prefix && { defaultPrefix: prefix })}
        onCommit={(value) => onOverride({ [name]: value })}
      />
      <div className={classes.source}>
        {limit ? limitSourceLabels[limit.source] : "not known"}
        {limit?.band && limit.band[0] !== limit.band[1] && (
          <>
            , <Quantity value={limit.band[0]} unit={unit} digits={2} /> to{" "}
            <Quantity value={limit.band[1]} unit={unit} digits={2} />
          </>
        )}
      </div>
    </div>
  );
  return (
    <Part
      title="What the place needs"
      aside={<span className={text.soft}>{need.isLowEsrOnly ? "switching output: low-ESR parts only" : ""}</span>}
    >
      <div className={classes.needs}>
        {editable("C at least", "capacitanceMinFarads", need.capacitanceMinFarads, "F", [1e-9, 1], "u")}
        {editable("C at most", "capacitanceMaxFarads", need.capacitanceMaxFarads, "F", [1e-9, 1], "u")}
        {editable("Rated at least", "leastRatedVolts", need.leastRatedVolts, "V", [
          Math.max(1, need.railNeedVolts ?? 1),
          1000,
        ])}
        <div>
          <div className={classes.label}>Class at least</div>
          <div className={classes.value}>
            <Quantity value={need.leastTemperatureClassCelsius.value} unit="°C" />
          </div>
          <div className={classes.source}>{limitSourceLabels[need.leastTemperatureClassCelsius.source]}</div>
        </div>
        {editable("⌀ at most", "diameterMaxMetres", need.diameterMaxMetres, "mm", [0.002, 0.2])}
        {editable("Height at most", "heightMaxMetres", need.heightMaxMetres, "mm", [0.002, 0.2])}
        {editable("Pitch", "pitchMetres", need.pitchMetres, "mm", [0.0005, 0.05])}
        {editable("ESR at least", "esrMinOhms", need.esrMinOhms, "Ω", [1e-4, 1000], "m")}
        {editable("ESR at most", "esrMaxOhms", need.esrMaxOhms, "Ω", [1e-4, 1000], "m")}
        {editable("Ripple current", "rippleAmpsRms", need.rippleAmpsRms, "A", [0, 100])}
        {editable("Air around it", "ambientCelsius", need.ambientCelsius, "°C", [-40, 150])}
      </div>
    </Part>
  );
}
