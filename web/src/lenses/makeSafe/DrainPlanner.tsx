import { Button } from "@mantine/core";
import type { DrainWay } from "@pale-cap/contract";
import { type DrainKitItem, dischargeResistor, drainPlan, judgementConstants } from "@pale-cap/core";
import { drainRefusalWords, durationText } from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./makeSafe.module.css";

interface DrainPlannerProps {
  readonly capacitanceFarads: number;
  readonly startVolts: number;
  readonly bleederOhms: number | null;
  readonly chosenName: string | null;
  readonly onChoose: (item: DrainKitItem) => void;
}

/** To this a drain is followed whatever the shop's limit. */
const targetVolts = judgementConstants.F.V_target;

/** Which of the kit a house rule admits. */
const kitOf: Readonly<Record<DrainWay, readonly DrainKitItem["kind"][]>> = {
  resistor_or_lamp: ["resistor", "lamp"],
  resistor: ["resistor"],
  lamp: ["lamp"],
  wait: [],
};

/** Every part of the shop's kit against this store, and one proposal from standard values; what would suffer is refused. */
export function DrainPlanner({ capacitanceFarads, startVolts, bleederOhms, chosenName, onChoose }: DrainPlannerProps) {
  const { rules, houseRules } = useJob();
  const workingVolts = rules.charge.workingVolts;
  const longestSeconds = houseRules["charge.longestDrainSeconds"];
  const kit = houseRules["charge.kit"];
  // Waiting is a way only where something is known to drain the store meanwhile.
  const rule = houseRules["charge.drainWay"];
  const way = rule === "wait" && bleederOhms === null ? "resistor_or_lamp" : rule;
  const plans = useMemo(() => {
    const store = { capacitanceFarads, startVolts, bleederOhms };
    const kinds = kitOf[way];
    const proposed = kinds.includes("resistor")
      ? proposal(capacitanceFarads, startVolts, workingVolts, longestSeconds)
      : null;
    const plan = (item: DrainKitItem) => drainPlan(store, item, { workingVolts, longestSeconds });
    const own = kit.filter((item) => kinds.includes(item.kind)).map(plan);
    // What lies in the drawer and stands it comes before what would have to be bought.
    return proposed && own.every((one) => one.refusals.length > 0) ? [...own, plan(proposed)] : own;
  }, [capacitanceFarads, startVolts, bleederOhms, workingVolts, longestSeconds, kit, way]);
  // The shop's own limit, and 10 V where that is another one.
  const limits = [...new Set([workingVolts, targetVolts])];
  if (way === "wait") {
    return (
      <p className={`${text.softLine} ${classes.note}`}>
        House rule: wait for the bleeder, then measure. Nothing else is proposed.
      </p>
    );
  }
  return (
    <table className={`${text.table} ${text.ruled} ${classes.plans}`}>
      <TableHead
        names={["Drain with", "Peak, each", "Energy, each", "To 60 V", ...limits.map((volts) => `To ${volts} V`), ""]}
      />
      <tbody>
        {plans.map((plan) => {
          const isRefused = plan.refusals.length > 0;
          const isChosen = plan.item.name === chosenName;
          return (
            <tr key={plan.item.name} data-chosen={isChosen || undefined} data-refused={isRefused || undefined}>
              <td>
                {plan.item.name}
                {isRefused && <div className={classes.refusal}>{plan.refusals.map(drainRefusalWords).join("; ")}</div>}
              </td>
              <td>
                <Quantity value={plan.peakPowerEachWatts} unit="W" digits={2} />
              </td>
              <td>
                <Quantity value={plan.energyEachJoules} unit="J" digits={2} />
              </td>
              <td>{durationText(plan.secondsToTouchLimit)}</td>
              {limits.map((volts) => (
                <td key={volts}>
                  {durationText(volts === workingVolts ? plan.secondsToWorkingLimit : plan.secondsToTarget)}
                </td>
              ))}
              <td>
                <Button
                  size="compact-sm"
                  disabled={isRefused}
                  aria-pressed={isChosen}
                  variant={isChosen ? "filled" : "default"}
                  onClick={() => onChoose(plan.item)}
                >
                  {isChosen ? "taken" : "Take"}
                </Button>
              </td>
            </tr>
          );
        })}
        <ToolAcross startVolts={startVolts} />
      </tbody>
    </table>
  );
}

/** Resistance of a bulk's ESR, a tool and two arcs together; rough, and lower in a bad case. */
const shortOhms = 0.2;

/** What everybody has seen done, and why not to. */
function ToolAcross({ startVolts }: { readonly startVolts: number }) {
  return (
    <tr data-refused>
      <td colSpan={7}>
        a tool across the pins
        <div className={classes.refusal}>
          advised against: some <Quantity value={startVolts / shortOhms} unit="A" digits={1} /> at once arc, pit the
          pins, weld the tool and can burst the part
        </div>
      </td>
    </tr>
  );
}

/** The fewest and smallest standard resistors that do it in time and within their ratings. */
function proposal(
  capacitanceFarads: number,
  startVolts: number,
  targetVolts: number,
  longestSeconds: number,
): DrainKitItem | null {
  if (!(startVolts > targetVolts)) return null;
  const chain = dischargeResistor({ capacitanceFarads, startVolts, targetVolts, longestSeconds });
  if (!chain) return null;
  const [watts = 0] = /[\d.]+/.exec(chain.bodyName)?.map(Number) ?? [];
  const each = chain.eachOhms >= 1000 ? `${chain.eachOhms / 1000}\u00a0kΩ` : `${chain.eachOhms}\u00a0Ω`;
  const body = `${each} ${watts}\u00a0W${chain.bodyName.includes("wirewound") ? " wire-wound" : ""}`;
  return {
    name: `proposed: ${chain.count > 1 ? `${chain.count} in series, ` : ""}${body}`,
    kind: "resistor",
    count: chain.count,
    ohms: chain.eachOhms,
    watts,
    volts: bodyVolts[chain.bodyName] ?? 250,
  };
}

/** Voltage ratings of the bodies that proposals are made from. */
const bodyVolts: Readonly<Record<string, number>> = Object.fromEntries(
  judgementConstants.F.parts.map(([name, , volts]) => [name, volts]),
);
