import { Button, SegmentedControl } from "@mantine/core";
import type { NewStockAct, StockActKind, StockActRow, StockItemDetail } from "@pale-cap/contract";
import {
  dischargeResistor,
  formatQuantity,
  looseCharge,
  looseChargeActs,
  type ReformReading,
  reformAdvice,
  reformPlan,
  type Unit,
} from "@pale-cap/core";
import { actLabels, cautions, looseChargeWords, momentText, reformAdviceWords } from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useLogStockActMutation } from "../../job/catalogueApi";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./parts.module.css";

const units: Readonly<Record<StockActKind, Unit>> = {
  capacitance_read: "F",
  esr_read: "Ω",
  voltage_loss_read: "%",
  leakage_read: "A",
  volts_read: "V",
  drained: "Ω",
  reform_step: "A",
  reform_ended: "",
};
const readKinds = ["capacitance_read", "esr_read", "voltage_loss_read"] as const;

type Log = (act: Partial<NewStockAct> & Pick<NewStockAct, "kind">) => Promise<boolean>;

/** What was read of a loose part, its charge, and how it is brought back where it lay too long. */
export function HeapTests({ item }: { readonly item: StockItemDetail }) {
  const personId = useAppSelector((state) => state.workplace.personId);
  const [send, { error }] = useLogStockActMutation();
  const log: Log = async (act) => {
    const nothing = { value: null, volts: null, seconds: null, riseKelvin: null, frequencyHertz: null, note: null };
    const answer = await send({ itemId: item.id, body: { ...nothing, ...act, id: newId(), personId } });
    return !answer.error;
  };
  return (
    <>
      <Readings item={item} log={log} />
      <Charge item={item} log={log} />
      <Reforming item={item} log={log} />
      <ProblemNote problem={asProblem(error)} />
    </>
  );
}

interface TestProps {
  readonly item: StockItemDetail;
  readonly log: Log;
}

function Readings({ item, log }: TestProps) {
  const [kind, setKind] = useState<(typeof readKinds)[number]>("capacitance_read");
  const read = item.acts.filter((one) => (readKinds as readonly StockActKind[]).includes(one.kind));
  return (
    <Part title="Read in the hand">
      <div className={classes.row}>
        <SegmentedControl
          size="xs"
          aria-label="What is read"
          value={kind}
          data={readKinds.map((value) => ({ value, label: actLabels[value] }))}
          onChange={(value) => setKind(value as typeof kind)}
        />
        <LoggedNumber
          key={kind}
          label={`${actLabels[kind]} as read`}
          unit={units[kind]}
          onLog={(value) => log({ kind, value, frequencyHertz: kind === "esr_read" ? 100e3 : null })}
        />
      </div>
      {read.length > 0 && <Log acts={read} />}
    </Part>
  );
}

function Charge({ item, log }: TestProps) {
  const { data: rules } = useHouseRulesQuery();
  const limitVolts = rules?.["charge.workingVolts"] ?? 0;
  const charge = looseCharge(looseChargeActs(item.acts), limitVolts);
  const { capacitanceFarads, ratedVolts } = item.marking;
  const chain =
    ratedVolts > limitVolts && limitVolts > 0
      ? dischargeResistor({ capacitanceFarads, startVolts: ratedVolts, targetVolts: limitVolts, longestSeconds: 10 })
      : null;
  const acts = item.acts.filter((one) => one.kind === "volts_read" || one.kind === "drained");
  if (charge === "never_charged" && acts.length === 0) return null;
  return (
    <Part title="Its charge">
      <p className={classes.advice} data-stop={charge === "covered" || undefined}>
        {looseChargeWords[charge]}
      </p>
      {charge === "covered" && <Caution>{cautions.chargedByTest}</Caution>}
      {chain && charge !== "two_readings" && (
        <p className={text.softLine}>
          From its rated volts to {formatQuantity(limitVolts, "V").text}: {chain.count > 1 && `${chain.count} × `}
          {formatQuantity(chain.eachOhms, "Ω").text} {chain.bodyName} for {Math.ceil(chain.durationSeconds)} s.
        </p>
      )}
      <div className={classes.row}>
        <LoggedNumber
          label="Drained through"
          unit="Ω"
          start={chain?.totalOhms ?? null}
          onLog={(value) => log({ kind: "drained", value })}
        />
        <LoggedNumber label="Volts between its leads" unit="V" onLog={(value) => log({ kind: "volts_read", value })} />
      </div>
      <Log acts={acts} />
    </Part>
  );
}

/** Leakage at rated volts, and the way back for what lay too long. */
function Reforming({ item, log }: TestProps) {
  const plan = reformPlan(item.marking);
  const begun = item.acts.map((one) => one.kind).lastIndexOf("reform_ended") + 1;
  const acts = item.acts.slice(begun).filter((one) => one.kind === "reform_step");
  const readings = acts.map(
    (one): ReformReading => ({
      stepVolts: one.volts ?? 0,
      atSeconds: one.seconds ?? 0,
      leakageAmps: one.value ?? 0,
      riseKelvin: one.riseKelvin,
    }),
  );
  const advice = reformAdvice(plan, readings);
  const [stepVolts, setStepVolts] = useState<number | null>(plan.stepVolts[0] ?? null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [rise, setRise] = useState<number | null>(null);
  const [isOpen, setOpen] = useState(acts.length > 0);
  const isStop = advice.startsWith("stop") || advice === "formed";
  const value = (amount: number, unit: Unit) => formatQuantity(amount, unit).text;
  if (!isOpen) {
    return (
      <Part title="Leakage and re-forming">
        <Button onClick={() => setOpen(true)}>Test or re-form it</Button>
        <Log acts={item.acts.filter((one) => one.kind === "leakage_read" || one.kind === "reform_ended")} />
      </Part>
    );
  }
  return (
    <Part title="Leakage and re-forming">
      <Caution>{cautions.reforming}</Caution>
      <ol className={classes.steps}>
        <li>
          Out of any unit, plus of the supply to its plus, in series with {value(plan.seriesOhms, "Ω")} of at least{" "}
          {Math.ceil(plan.resistorWatts)} W: more than {value(plan.mostAmps, "A")} never flows.
        </li>
        <li>
          Steps: {plan.stepVolts.map((one) => value(one, "V")).join(", ")}. On when less than{" "}
          {value(plan.leakageLimitAmps, "A")} flows.
        </li>
        <li>
          Stop when the current rises or the can is more than {plan.mostRiseKelvin} K above the air. An hour at the last
          step, then drain through {value(plan.drainOhms, "Ω")}, a day of rest, C and ESR.
        </li>
      </ol>
      <p className={classes.advice} data-stop={advice.startsWith("stop") || undefined}>
        {reformAdviceWords[advice]}
      </p>
      <div className={classes.fields}>
        <QuantityInput label="Step set to" unit="V" value={stepVolts} onChange={setStepVolts} />
        <QuantityInput label="Minutes at it" unit="" value={minutes} onChange={setMinutes} />
        <QuantityInput label="Can above the air" unit="K" value={rise} onChange={setRise} />
      </div>
      <div className={classes.row}>
        <LoggedNumber
          label="What flows"
          unit="A"
          isDisabled={stepVolts === null}
          onLog={(leakage) =>
            log({
              ...{ kind: "reform_step", value: leakage, volts: stepVolts },
              ...{ seconds: (minutes ?? 0) * 60, riseKelvin: rise },
            })
          }
        />
        <LoggedNumber
          label="or only its leakage at rated volts"
          unit="A"
          onLog={(leakage) => log({ kind: "leakage_read", value: leakage, volts: item.marking.ratedVolts })}
        />
        {acts.length > 0 && (
          <Button
            variant={isStop ? "filled" : "default"}
            onClick={() => void log({ kind: "reform_ended", note: advice }).then(() => setOpen(false))}
          >
            End it here
          </Button>
        )}
      </div>
      <Log acts={acts} />
    </Part>
  );
}

/** A number that is logged by Enter or its button; it stays until it is stored. */
function LoggedNumber(props: {
  readonly label: string;
  readonly unit: Unit;
  readonly start?: number | null;
  readonly isDisabled?: boolean;
  readonly onLog: (value: number) => Promise<boolean>;
}) {
  const [value, setValue] = useState<number | null>(props.start ?? null);
  const [isValid, setValid] = useState(true);
  const isReady = value !== null && isValid && !props.isDisabled;
  const store = () => {
    if (isReady) void props.onLog(value).then((isStored) => isStored && setValue(null));
  };
  return (
    <>
      <QuantityInput
        label={props.label}
        unit={props.unit}
        value={value}
        onChange={setValue}
        onValidity={setValid}
        onKeyDown={(event) => event.key === "Enter" && store()}
      />
      <Button disabled={!isReady} onClick={store}>
        Log
      </Button>
    </>
  );
}

function Log({ acts }: { readonly acts: readonly StockActRow[] }) {
  return (
    <ul className={classes.log}>
      {[...acts].reverse().map((one) => (
        <li key={one.id}>
          {momentText(one.at)}: {actLabels[one.kind]}{" "}
          {one.value !== null && formatQuantity(one.value, units[one.kind]).text}
          {one.volts !== null && ` at ${formatQuantity(one.volts, "V").text}`}
          {one.seconds !== null && ` after ${Math.round(one.seconds / 60)} min`}
          {one.kind === "reform_ended" && one.note && reformAdviceWords[one.note as keyof typeof reformAdviceWords]}
        </li>
      ))}
    </ul>
  );
}
