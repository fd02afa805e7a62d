import { Button, Checkbox } from "@mantine/core";
import type { EnergyStoreRow } from "@pale-cap/contract";
import { absorptionRecovery, type ChargeState, type DrainPlan, discharge, drainClues } from "@pale-cap/core";
import { lazy, Suspense, useState } from "react";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { useEditEnergyStoreMutation } from "../../job/jobApi";
import { useInTurn } from "../../job/useInTurn";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { QuantityInput } from "../../ui/QuantityInput";
import { durationText } from "../../ui/times";
import { chargeWords, drainClueWords } from "../../wording/chargeWords";
import { DrainPlanner } from "./DrainPlanner";
import classes from "./makeSafe.module.css";
import { useLogChargeEvent } from "./useLogChargeEvent";

const DischargeChart = lazy(async () => ({ default: (await import("./DischargeChart")).DischargeChart }));

/** One energy store: what it holds, how long a resistor takes, and what was measured on it. */
export function StoreCard({ store, state }: { readonly store: EnergyStoreRow; readonly state: ChargeState }) {
  const { facts, rules } = useJob();
  const inTurn = useInTurn();
  const [log, { error, isLoading }] = useLogChargeEvent();
  const [editStore, edit] = useEditEnergyStoreMutation();
  const [volts, setVolts] = useState<number | null>(null);
  const [isProved, setProved] = useState(false);
  const [isValid, setValid] = useState(true);
  const [plan, setPlan] = useState<DrainPlan | null>(null);
  const { capacitanceFarads, expectedVolts, drainOhms } = store;
  const startVolts = state.name === "charged" && state.volts ? Math.abs(state.volts) : expectedVolts;
  const targetVolts = rules.charge.workingVolts;

  const setDrain = (ohms: number | null) =>
    void inTurn(async ({ job, energyStores }) => {
      const stored = energyStores.find((one) => one.id === store.id);
      if (!stored) return;
      const { id, version, ...values } = stored;
      const body = { writeId: newId(), version, values: { ...values, drainOhms: ohms } };
      await editStore({ jobId: job.id, storeId: id, body });
    });

  async function logVolts() {
    if (volts === null || !isValid) return;
    const isLogged = await log({ kind: "voltage_measured", storeId: store.id, volts, isMeterProved: isProved });
    if (isLogged) setVolts(null);
  }

  const isKnown = capacitanceFarads !== null && startVolts !== null;
  const energy =
    isKnown && startVolts > 0
      ? discharge({ capacitanceFarads, startVolts, targetVolts, resistanceOhms: drainOhms ?? 1e4 })
      : null;
  return (
    <Part title={store.name} aside={<span className={classes.state}>{chargeWords(state, [store])}</span>}>
      {isKnown && energy ? (
        <div className={classes.figures}>
          <Figure label="Capacitance" value={<Quantity value={capacitanceFarads} unit="F" isMarking />} />
          <Figure
            label={state.name === "charged" ? "Measured" : "Expected"}
            value={<Quantity value={startVolts} unit="V" />}
          />
          <Figure label="Stored" value={<Quantity value={energy.storedJoules} unit="J" />} />
          {drainOhms !== null && (
            <>
              <Figure label={`To ${targetVolts} V`} value={durationText(energy.durationSeconds)} />
              <Figure label="Peak power" value={<Quantity value={energy.peakPowerWatts} unit="W" digits={2} />} />
            </>
          )}
        </div>
      ) : (
        <p className={classes.soft}>Capacitance or voltage unknown: energy and time cannot be computed.</p>
      )}
      <div className={classes.row}>
        <QuantityInput
          label="Drain resistor"
          unit="Ω"
          limits={[10, 10e6]}
          value={drainOhms}
          onCommit={(ohms) => {
            setPlan(null);
            setDrain(ohms);
          }}
          placeholder="10k"
        />
        {(drainOhms !== null || plan) && (
          <Button
            loading={isLoading}
            onClick={() => void log({ kind: "drain_started", storeId: store.id, resistanceOhms: drainOhms })}
          >
            Drain connected
          </Button>
        )}
      </div>
      <ProblemNote problem={asProblem(edit.error)} />
      {isKnown && startVolts > targetVolts && (
        <DrainPlanner
          capacitanceFarads={capacitanceFarads}
          startVolts={startVolts}
          chosenName={plan?.item.name ?? null}
          onChoose={(taken) => {
            setPlan(taken);
            setDrain(taken.totalOhms);
          }}
        />
      )}
      <form
        className={classes.row}
        onSubmit={(event) => {
          event.preventDefault();
          void logVolts();
        }}
      >
        <QuantityInput
          label="Measured voltage"
          unit="V"
          limits={[-1000, 1000]}
          value={volts}
          onChange={setVolts}
          onValidity={setValid}
        />
        <Checkbox
          label="meter proved on a known source before and after"
          checked={isProved}
          onChange={(event) => setProved(event.currentTarget.checked)}
        />
        <Button type="submit" variant="filled" loading={isLoading} disabled={volts === null || !isValid}>
          Log voltage
        </Button>
      </form>
      <ProblemNote problem={asProblem(error)} />
      {drainClues(store, facts.chargeEvents, targetVolts).map((clue) => (
        <div key={clue.code} role="status" className={classes.clue}>
          {drainClueWords(clue)}
        </div>
      ))}
      {isKnown && startVolts > 0 && (
        <Recovery
          startVolts={expectedVolts ?? startVolts}
          remainingVolts={state.volts !== null && Math.abs(state.volts) <= targetVolts ? Math.abs(state.volts) : 0}
        />
      )}
      {isKnown && (drainOhms !== null || plan) && (
        <Suspense fallback={<div className={classes.chart} />}>
          <DischargeChart store={store} startVolts={startVolts} plan={plan} />
        </Suspense>
      )}
    </Part>
  );
}

function Figure({ label, value }: { readonly label: string; readonly value: React.ReactNode }) {
  return (
    <div className={classes.figure}>
      <div className={classes.soft}>{label}</div>
      <div className={classes.big}>{value}</div>
    </div>
  );
}

/** How far it can creep back after draining. */
function Recovery({ startVolts, remainingVolts }: { readonly startVolts: number; readonly remainingVolts: number }) {
  const back = absorptionRecovery({ startVolts, remainingVolts });
  return (
    <p className={classes.soft}>
      It can creep back to <Quantity value={back.lowVolts} unit="V" digits={2} /> to{" "}
      <Quantity value={back.highVolts} unit="V" digits={2} /> (dielectric absorption, rough)
      {back.mustDrainAgain ? ": measure again before touching, drain again if it did." : "."}
    </p>
  );
}
