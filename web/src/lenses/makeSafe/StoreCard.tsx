import { Button, Checkbox, SegmentedControl } from "@mantine/core";
import type { EnergyStoreRow, Problem } from "@pale-cap/contract";
import {
  assumedStoreFarads,
  type ChargeState,
  type DrainKitItem,
  discharge,
  drainClues,
  formatMarkedCapacitance,
  inOrder,
  type LineSide,
  lineSides,
} from "@pale-cap/core";
import { cautions, chargeWords, drainClueWords, lineSideLabels } from "@pale-cap/wording";
import { lazy, Suspense, useState } from "react";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { useInTurn } from "../../job/useInTurn";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { DrainPlanner } from "./DrainPlanner";
import { MeterVolts } from "./MeterVolts";
import classes from "./makeSafe.module.css";
import { Recovery, StoreFigures } from "./StoreFigures";
import { useEditEnergyStoreMutation } from "./storeApi";
import { useLogChargeEvent } from "./useLogChargeEvent";

const DischargeChart = lazy(async () => ({ default: (await import("./DischargeChart")).DischargeChart }));

/** One energy store: what it holds, what drains it in which time, and what was measured on it. */
export function StoreCard({ store, state }: { readonly store: EnergyStoreRow; readonly state: ChargeState }) {
  const { facts, rules, nowMilliseconds } = useJob();
  const inTurn = useInTurn();
  const [log, { problem, isLoading }] = useLogChargeEvent();
  const [editStore] = useEditEnergyStoreMutation();
  const [unsent, setUnsent] = useState<Problem>();
  // What hung on it last is what is offered again, until another part is taken.
  const lastDrain = inOrder(facts.chargeEvents)
    .filter((event) => event.kind === "drain_started" && event.storeId === store.id)
    .reduce<(typeof facts.chargeEvents)[number] | null>((_, one) => one, null);
  const [taken, setTaken] = useState<DrainKitItem | null>(lastDrain?.drainItem ?? null);
  const { capacitanceFarads, expectedVolts, drainOhms } = store;
  // What was read counts before what was expected; low or high.
  const isRead = state.name === "charged" || state.name === "drained_once" || state.name === "verified";
  const startVolts = isRead && state.volts !== null ? Math.abs(state.volts) : expectedVolts;
  const targetVolts = rules.charge.workingVolts;

  const change = (values: Partial<Pick<EnergyStoreRow, "drainOhms" | "bleederOhms">>) =>
    void inTurn(async ({ job, energyStores }) => {
      const stored = energyStores.find((one) => one.id === store.id);
      if (!stored) return;
      const { id, version, ...rest } = stored;
      const body = { writeId: newId(), version, values: { ...rest, ...values } };
      setUnsent(asProblem((await editStore({ jobId: job.id, storeId: id, body })).error));
    }, setUnsent);

  const isTyped = taken === null && drainOhms !== null && capacitanceFarads !== null && startVolts !== null;
  const typedDrain =
    isTyped && startVolts > 0
      ? discharge({ capacitanceFarads, startVolts, targetVolts, resistanceOhms: drainOhms })
      : null;
  const drainedFarads = capacitanceFarads ?? assumedStoreFarads(store.kind);
  const isKnown = capacitanceFarads !== null && startVolts !== null && startVolts > 0;
  return (
    <Part
      title={store.name}
      aside={<span className={classes.state}>{chargeWords(state, [store], nowMilliseconds)}</span>}
    >
      {isKnown ? (
        <StoreFigures {...{ store, state, startVolts, capacitanceFarads, isRead, typedDrain }} />
      ) : (
        <p className={`${text.softLine} ${classes.note}`}>
          {startVolts === null
            ? "Its voltage is unknown: energy and time cannot be computed. Enter what to expect, or measure it."
            : `Its capacitance is unknown: times are reckoned with ${formatMarkedCapacitance(drainedFarads)}, more than usual ones have. What is read at the pins decides.`}
        </p>
      )}
      {store.kind === "x_capacitor" && <Caution>{cautions.xCapacitor}</Caution>}
      {startVolts !== null && startVolts > targetVolts && (
        <DrainPlanner
          capacitanceFarads={drainedFarads}
          startVolts={startVolts}
          bleederOhms={store.bleederOhms}
          chosenName={taken?.name ?? null}
          onChoose={(item) => {
            setTaken(item);
            change({ drainOhms: item.ohms === null ? null : item.ohms * item.count });
          }}
        />
      )}
      <div className={classes.row}>
        <QuantityInput
          label="Or a drain resistor of"
          unit="Ω"
          limits={[10, 10e6]}
          value={drainOhms}
          onCommit={(ohms) => {
            setTaken(null);
            change({ drainOhms: ohms });
          }}
          placeholder="10k"
        />
        <QuantityInput
          label="Bleeder across it"
          unit="Ω"
          limits={[100, 100e6]}
          value={store.bleederOhms}
          onCommit={(bleederOhms) => change({ bleederOhms })}
          placeholder="unknown"
        />
        {(drainOhms !== null || taken) && (
          <Button
            loading={isLoading}
            onClick={() =>
              void log({ kind: "drain_started", storeId: store.id, resistanceOhms: drainOhms, drainItem: taken })
            }
          >
            Drain connected
          </Button>
        )}
        {state.isDrainOn && (
          <Button
            variant="filled"
            loading={isLoading}
            onClick={() => void log({ kind: "drain_removed", storeId: store.id })}
          >
            Drain off
          </Button>
        )}
      </div>
      <ProblemNote problem={unsent ?? problem} />
      {state.isDrainOn && (
        <p className={`${text.softLine} ${classes.note}`}>
          While the drain is on, ohms, C and leakage of its net count for no verdict and first power is shut.
        </p>
      )}
      <VoltageForm store={store} />
      {drainClues(store, facts.chargeEvents, targetVolts).map((clue) => (
        <div key={clue.code} role="status" className={classes.clue}>
          {drainClueWords(clue)}
        </div>
      ))}
      {isKnown && expectedVolts !== null && <Recovery state={state} expectedVolts={expectedVolts} />}
      {isKnown && (drainOhms !== null || taken) && (
        <Suspense fallback={<div className={classes.chart} />}>
          <DischargeChart {...{ store, startVolts, capacitanceFarads }} item={taken} />
        </Suspense>
      )}
    </Part>
  );
}

/** Logs what the meter says, and whether it was proved. */
function VoltageForm({ store }: { readonly store: EnergyStoreRow }) {
  const { detail } = useJob();
  const [log, { problem }] = useLogChargeEvent();
  const [volts, setVolts, dropVolts] = useDraft<number | null>(`${detail.job.id} volts ${store.id}`, null);
  const [isProved, setProved] = useState(false);
  const [isDrainOn, setDrainOn] = useState(false);
  const [lineSide, setLineSide] = useState<LineSide>("plug");
  const [isValid, setValid] = useState(true);
  const isLine = store.kind === "x_capacitor";
  const measured = (read: number, isSimulated = false) =>
    log({
      ...{ kind: "voltage_measured", storeId: store.id, volts: read, isMeterProved: isProved, isDrainOn },
      lineSide: isLine ? lineSide : null,
      isSimulated,
    });

  async function submit() {
    if (volts === null || !isValid) return;
    // The field is free for the next number at once; what is refused comes back only where nothing was typed since.
    dropVolts();
    if (await measured(volts)) return;
    setVolts((now) => now ?? volts);
  }

  return (
    <>
      <form
        className={classes.row}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
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
        <div className={classes.ticks}>
          <Checkbox
            label="meter proved on a known source, before and after"
            checked={isProved}
            onChange={(event) => setProved(event.currentTarget.checked)}
          />
          {isLine ? (
            <SegmentedControl
              aria-label="Side of the fuse"
              data={lineSides.map((value) => ({ value, label: lineSideLabels[value] }))}
              value={lineSide}
              onChange={(value) => setLineSide(value as LineSide)}
            />
          ) : (
            <Checkbox
              label="drain left on"
              checked={isDrainOn}
              onChange={(event) => setDrainOn(event.currentTarget.checked)}
            />
          )}
        </div>
        <Button type="submit" variant="filled" disabled={volts === null || !isValid}>
          Log voltage
        </Button>
      </form>
      <MeterVolts store={store} onLog={(read, isSimulated) => void measured(read, isSimulated)} />
      <ProblemNote problem={problem} />
    </>
  );
}
