import type { Net } from "@pale-cap/contract";
import { type CheckState, railProof } from "@pale-cap/core";
import { cautions, openPointWords } from "@pale-cap/wording";
import type { ReactNode } from "react";
import { useAppDispatch } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { FirstPower } from "../../job/panels/power/FirstPower";
import { netsInOrder } from "../../job/parts";
import { useTarget } from "../../job/useTarget";
import { probeSet } from "../../job/workplaceSlice";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import classes from "./prove.module.css";

/** Every rail with its limits, what was read, and what is still to be shown. */
export function ProvePane() {
  const { detail, openPoints, power } = useJob();
  const rails = netsInOrder(detail);
  const isShut = power.gate.isShut;
  const isShown = (net: Net) =>
    net.fullLoadAmps !== null || detail.readings.some((reading) => reading.targetId === net.id && reading.isPowered);
  const others = rails.filter((net) => !isShown(net));
  const points = openPoints.filter((point) => point.netId !== null && point.positionId === null);
  return (
    <Pane
      title="Prove"
      note="Readings under power: type them below, with the load they were taken at."
      second={
        <>
          {rails.length === 0 && (
            <p className={text.soft}>No rails yet. Name them in Inspect, with volts and the load that was promised.</p>
          )}
          {!isShut && rails.filter(isShown).map((net) => <Rail key={net.id} net={net} />)}
          {!isShut && others.length > 0 && (
            <details className={classes.others}>
              <summary>Rails without a promise ({others.length})</summary>
              {others.map((net) => (
                <Rail key={net.id} net={net} />
              ))}
            </details>
          )}
          {points.length > 0 && (
            <Part title="Still open">
              <ul className={classes.points}>
                {points.map((point) => (
                  <li key={point.key}>{openPointWords(point)}</li>
                ))}
              </ul>
            </Part>
          )}
        </>
      }
    >
      <FirstPower />
      <Caution>{cautions.underLoad}</Caution>
    </Pane>
  );
}

const checkLabels: Readonly<Record<CheckState, string>> = {
  passed: "within",
  failed: "outside",
  not_measured: "not measured",
  no_limit: "no limit known",
};

function Rail({ net }: { readonly net: Net }) {
  const { facts, rules } = useJob();
  const [target, select] = useTarget();
  const dispatch = useAppDispatch();
  const proof = railProof(net, facts.readings, rules.rail);
  const isCurrent = target?.kind === "rail" && target.id === net.id;
  const aim = (loadAmps: number, quantity: "dc_voltage" | "ripple_voltage") => {
    dispatch(probeSet({ loadAmps, quantity }));
    select({ kind: "rail", id: net.id });
  };
  const row = (
    label: string,
    value: number | null,
    limit: ReactNode,
    state: CheckState,
    load: number,
    quantity: "dc_voltage" | "ripple_voltage",
  ) => (
    <tr>
      <th scope="row">
        <button type="button" className={classes.aim} onClick={() => aim(load, quantity)}>
          {label}
        </button>
      </th>
      <td className={classes.value}>
        <Quantity value={value} unit="V" digits={quantity === "dc_voltage" ? 4 : 3} keepsZeros />
      </td>
      <td className={text.soft}>{limit}</td>
      <td data-state={state} className={classes.state}>
        {checkLabels[state]}
      </td>
    </tr>
  );
  const band = proof.lowLimitVolts !== null && (
    <>
      <Quantity value={proof.lowLimitVolts} unit="V" digits={4} /> to{" "}
      <Quantity value={proof.highLimitVolts} unit="V" digits={4} />
    </>
  );
  const load = net.fullLoadAmps ?? 0;
  return (
    <Part
      title={net.name}
      aside={
        <span className={text.soft}>
          {net.fullLoadAmps === null ? (
            "nothing promised"
          ) : (
            <>
              promised <Quantity value={net.fullLoadAmps} unit="A" />
            </>
          )}
        </span>
      }
    >
      <div data-current={isCurrent || undefined} className={classes.rail}>
        <table className={`${text.table} ${classes.table}`}>
          <tbody>
            {row("Unloaded", proof.unloadedVolts, band, proof.unloaded, 0, "dc_voltage")}
            {row(
              proof.loadAmps ? `Loaded ${proof.loadAmps} A` : "Loaded",
              proof.loadedVolts,
              band,
              proof.loaded,
              load,
              "dc_voltage",
            )}
            {row(
              "Ripple p-p",
              proof.rippleVolts,
              proof.rippleLimitVolts !== null && (
                <>
                  at most <Quantity value={proof.rippleLimitVolts} unit="V" />
                </>
              ),
              proof.ripple,
              load,
              "ripple_voltage",
            )}
          </tbody>
        </table>
        {proof.loadRegulationRatio !== null && (
          <p className={classes.regulation}>
            Load regulation{" "}
            <b>
              <Quantity value={proof.loadRegulationRatio} unit="%" digits={2} />
            </b>
            {proof.outputResistanceOhms !== null && (
              <>
                , as if <Quantity value={proof.outputResistanceOhms} unit="Ω" digits={2} /> lay in the way
                <span className={text.soft}> (some tens of mΩ are often the lead: measured at the terminals?)</span>
              </>
            )}
          </p>
        )}
      </div>
    </Part>
  );
}
