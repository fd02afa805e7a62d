import type { EnergyStoreRow } from "@pale-cap/contract";
import { absorptionRecovery, type ChargeState, type Discharge, discharge, storedEnergyJoules } from "@pale-cap/core";
import { dangerWords, durationText } from "@pale-cap/wording";
import type { ReactNode } from "react";
import { useJob } from "../../job/JobContext";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import classes from "./makeSafe.module.css";

interface StoreFiguresProps {
  readonly store: EnergyStoreRow;
  readonly state: ChargeState;
  readonly startVolts: number;
  readonly capacitanceFarads: number;
  /** The voltage was read, not expected. */
  readonly isRead: boolean;
  /** Through the resistor that was typed in, where none of the kit was taken. */
  readonly typedDrain: Discharge | null;
}

/** What a store holds, what that can do, and what becomes of it when nobody drains it. */
export function StoreFigures(props: StoreFiguresProps) {
  const { store, state, startVolts, capacitanceFarads } = props;
  const targetVolts = useJob().rules.charge.workingVolts;
  const storedJoules = storedEnergyJoules(capacitanceFarads, startVolts);
  return (
    <>
      <div className={classes.figures}>
        <Figure label="Capacitance" value={<Quantity value={capacitanceFarads} unit="F" isMarking />} />
        <Figure label={props.isRead ? "Measured" : "Expected"} value={<Quantity value={startVolts} unit="V" />} />
        <Figure label="Stored" value={<Quantity value={storedJoules} unit="J" />} />
        {props.typedDrain && (
          <>
            <Figure label={`To ${targetVolts} V`} value={durationText(props.typedDrain.durationSeconds)} />
            <Figure
              label="Peak power"
              value={<Quantity value={props.typedDrain.peakPowerWatts} unit="W" digits={2} />}
            />
          </>
        )}
        {state.name === "draining" && state.predictedVolts !== null && (
          <Figure label="Left, if connected" value={<Quantity value={state.predictedVolts} unit="V" digits={2} />} />
        )}
      </div>
      <p className={`${text.softLine} ${classes.note}`}>
        <strong>{dangerWords(storedJoules, startVolts)}.</strong>{" "}
        {startVolts > targetVolts && <NaturalDecay {...{ store, startVolts, capacitanceFarads }} />}
      </p>
    </>
  );
}

function Figure({ label, value }: { readonly label: string; readonly value: ReactNode }) {
  return (
    <div>
      <div className={`${text.softLine} ${classes.note}`}>{label}</div>
      <div className={classes.big}>{value}</div>
    </div>
  );
}

/** Through the bleeder alone, or the plain statement that nothing is known to drain it. */
function NaturalDecay(props: {
  readonly store: EnergyStoreRow;
  readonly startVolts: number;
  readonly capacitanceFarads: number;
}) {
  const { rules } = useJob();
  const { store, startVolts, capacitanceFarads } = props;
  if (store.bleederOhms === null) return <>No bleeder is known: left alone it can stay charged for hours.</>;
  const through = (targetVolts: number) =>
    durationText(
      discharge({ capacitanceFarads, startVolts, targetVolts, resistanceOhms: store.bleederOhms as number })
        .durationSeconds,
    );
  return (
    <>
      Left alone, through its bleeder of <Quantity value={store.bleederOhms} unit="Ω" />: 60 V after {through(60)},{" "}
      {rules.charge.workingVolts} V after {through(rules.charge.workingVolts)}, if the bleeder is whole.
    </>
  );
}

/**
 * How far it can creep back: after a drain that is still to come, or from a first low reading. Once two readings a minute
 * apart told what it does, they count and not the rule of thumb.
 */
export function Recovery(props: { readonly state: ChargeState; readonly expectedVolts: number }) {
  const { state, expectedVolts } = props;
  if (state.name === "verified" || state.waitsFor === "creeps_back" || state.waitsFor === "other_side_of_fuse")
    return null;
  const isOnceLow = state.name === "drained_once";
  const remainingVolts = isOnceLow ? Math.abs(state.volts ?? 0) : 0;
  const startVolts = Math.max(expectedVolts, Math.abs(state.volts ?? 0));
  const back = absorptionRecovery({ startVolts, remainingVolts });
  return (
    <p className={`${text.softLine} ${classes.note}`}>
      {isOnceLow ? "It" : "Once drained it"} can creep back to <Quantity value={back.lowVolts} unit="V" digits={2} /> to{" "}
      <Quantity value={back.highVolts} unit="V" digits={2} /> (dielectric absorption, rough)
      {back.mustDrainAgain ? ": the second reading tells. Drain again if it did." : "."}
    </p>
  );
}
