import { ActionIcon, NativeSelect, TextInput } from "@mantine/core";
import {
  type Instrument,
  type InstrumentAct,
  type InstrumentFunction,
  type InstrumentState,
  instrumentFunctions,
} from "@pale-cap/contract";
import { formatQuantity } from "@pale-cap/core";
import { functionFacts, kindLabels, statusWords } from "@pale-cap/wording";
import { IconSettings } from "@tabler/icons-react";
import { useState } from "react";
import { noAct, useActOnInstrumentMutation } from "../../probe/instruments/instrumentApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./instruments.module.css";
import { LoadControls } from "./LoadControls";
import { MainsControls } from "./MainsControls";
import { ScopeScreen } from "./ScopeScreen";

/** One instrument: its value in large digits, where its probes are, what it reads, and what is wrong with it. */
export function InstrumentCard(props: {
  readonly instrument: Instrument;
  readonly state: InstrumentState | undefined;
  readonly onEdit: () => void;
}) {
  const { instrument, state } = props;
  const [send, { error }] = useActOnInstrumentMutation();
  const act = (change: Partial<InstrumentAct>) => void send({ id: instrument.id, act: { ...noAct, ...change } });
  const reading = state?.reading;
  const functions: readonly InstrumentFunction[] = instrumentFunctions[instrument.kind];
  const status = instrument.isEnabled ? (state?.status ?? "connecting") : "off";
  const unit = reading ? functionFacts[reading.function].unit : "";
  const hasProbes = instrument.kind !== "mains" && instrument.kind !== "load";
  return (
    <section className={classes.card} aria-label={instrument.name} data-status={status}>
      <header className={classes.cardHead}>
        <h2>{instrument.name}</h2>
        <span className={`${text.soft} ${classes.note}`}>
          {kindLabels[instrument.kind]}, {instrument.transport === "simulated" ? "simulated" : instrument.transport}
        </span>
        <ActionIcon variant="subtle" color="gray" aria-label={`Set up ${instrument.name}`} onClick={props.onEdit}>
          <IconSettings size={17} />
        </ActionIcon>
      </header>
      <div className={classes.value} aria-live="off">
        {reading?.value != null ? (
          <Large value={reading.value} unit={unit} />
        ) : (
          <span className={classes.none}>{status === "ready" ? "– – –" : statusWords[status]}</span>
        )}
        <span className={classes.steady}>{reading?.value != null && (reading.isSteady ? "steady" : "settling")}</span>
      </div>
      <p className={classes.trouble} role="status">
        {state?.runId ? "A run holds it: it can be switched off, nothing else." : (state?.trouble ?? "")}
      </p>
      <div className={classes.controls}>
        {functions.length > 1 && (
          <NativeSelect
            aria-label={`${instrument.name} reads`}
            size="xs"
            data={functions.map((one) => ({ value: one, label: functionFacts[one].label }))}
            value={reading?.function ?? functions[0]}
            onChange={(event) => act({ function: event.currentTarget.value as InstrumentFunction })}
          />
        )}
        {hasProbes && (
          <ProbePlace name={instrument.name} place={reading?.points ?? null} onPlace={(points) => act({ points })} />
        )}
        {instrument.kind === "oscilloscope" && instrument.driver === "bench_lines" && (
          <ScopeScreen instrumentId={instrument.id} />
        )}
        {instrument.kind === "load" && <LoadControls settings={state?.settings ?? {}} act={act} />}
        {instrument.kind === "mains" && <MainsControls settings={state?.settings ?? {}} act={act} />}
      </div>
      <ProblemNote problem={asProblem(error)} />
    </section>
  );
}

function Large({ value, unit }: { readonly value: number; readonly unit: Parameters<typeof formatQuantity>[1] }) {
  const printed = formatQuantity(value, unit, { significantDigits: 4 });
  return (
    <span className={classes.digits}>
      {printed.number}
      <span className={classes.unit}>{printed.unit}</span>
    </span>
  );
}

/** Where the probes are: a designator, a net, or two pins. */
function ProbePlace(props: {
  readonly name: string;
  readonly place: string | null;
  readonly onPlace: (points: string) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  function commit() {
    if (text !== null && text.trim() !== (props.place ?? "")) props.onPlace(text.trim());
    setText(null);
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        commit();
      }}
    >
      <TextInput
        aria-label={`Probes of ${props.name}`}
        size="xs"
        placeholder="probes: C14, 12 V, or Q1.D,Q1.S"
        value={text ?? props.place ?? ""}
        onChange={(event) => setText(event.currentTarget.value)}
        onBlur={commit}
      />
    </form>
  );
}
