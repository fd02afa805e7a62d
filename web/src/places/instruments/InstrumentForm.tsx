import { Button, NativeSelect, NumberInput, Switch, TextInput } from "@mantine/core";
import { type Instrument, type InstrumentValues, instrumentKinds, mostLoads } from "@pale-cap/contract";
import { kindLabels } from "@pale-cap/wording";
import { type FormEvent, useMemo, useState } from "react";
import { newId } from "../../api/newId";
import {
  useAddInstrumentMutation,
  useEditInstrumentMutation,
  useRemoveInstrumentMutation,
} from "../../probe/instruments/instrumentApi";
import { usePageBench } from "../../probe/instruments/usePageBench";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { useDraft } from "../../ui/useDraft";
import classes from "./instruments.module.css";

const blank: InstrumentValues = {
  name: "",
  kind: "multimeter",
  driver: "read_only_lines",
  transport: "tcp",
  host: "127.0.0.1",
  port: 5025,
  devicePath: null,
  baudRate: null,
  isEnabled: true,
};

/** How an instrument is reached and what it speaks. */
export function InstrumentForm({
  instrument,
  onDone,
}: {
  readonly instrument?: Instrument;
  readonly onDone: () => void;
}) {
  const start = useMemo((): InstrumentValues => {
    if (!instrument) return blank;
    const { id: _, version: __, simulatedSet: ___, ...stored } = instrument;
    return stored;
  }, [instrument]);
  const [values, setValues, dropValues] = useDraft(`instrument ${instrument?.id ?? "new"}`, start);
  const [id] = useState(() => instrument?.id ?? newId());
  const [add, added] = useAddInstrumentMutation();
  const [edit, edited] = useEditInstrumentMutation();
  const [remove] = useRemoveInstrumentMutation();
  const set = (change: Partial<InstrumentValues>) => setValues((now) => ({ ...now, ...change }));
  const { bench, benches } = usePageBench();
  const { transport } = values;
  async function save(event: FormEvent) {
    event.preventDefault();
    // What belongs to another way of reaching it is not kept.
    const body: InstrumentValues = {
      ...values,
      benchId: values.benchId ?? bench?.id ?? null,
      host: transport === "tcp" ? values.host : null,
      port: transport === "tcp" ? values.port : null,
      devicePath: transport === "serial" ? values.devicePath : null,
      baudRate: transport === "serial" ? values.baudRate : null,
    };
    const result = instrument
      ? await edit({ id, version: instrument.version, values: body })
      : await add({ id, values: body });
    if (result.error) return;
    dropValues(values);
    onDone();
  }
  return (
    <form
      className={classes.form}
      onSubmit={save}
      aria-label={instrument ? `Set-up of ${instrument.name}` : "New instrument"}
    >
      <TextInput
        label="Name"
        required
        maxLength={40}
        value={values.name}
        onChange={(event) => set({ name: event.currentTarget.value })}
      />
      <NativeSelect
        label="Kind"
        data={instrumentKinds.map((kind) => ({ value: kind, label: kindLabels[kind] }))}
        value={values.kind}
        onChange={(event) => set({ kind: event.currentTarget.value as InstrumentValues["kind"] })}
      />
      <NativeSelect
        label="Reached by"
        data={[
          { value: "tcp", label: "TCP port" },
          { value: "serial", label: "serial device" },
          { value: "simulated", label: "simulated bench" },
        ]}
        value={transport}
        onChange={(event) => {
          const next = event.currentTarget.value as InstrumentValues["transport"];
          set({ transport: next, ...(next === "serial" && { baudRate: values.baudRate ?? 9600 }) });
        }}
      />
      <NativeSelect
        label="Speaks"
        data={[
          { value: "bench_lines", label: "all lines of docs/instruments.md" },
          { value: "read_only_lines", label: "only answers READ? with a number" },
        ]}
        value={values.driver}
        onChange={(event) => set({ driver: event.currentTarget.value as InstrumentValues["driver"] })}
      />
      <TextInput
        label="Last check"
        description="when it was held against something known: the record says it"
        type="date"
        value={values.checkedOn ?? ""}
        onChange={(event) => set({ checkedOn: event.currentTarget.value === "" ? null : event.currentTarget.value })}
      />
      {transport === "tcp" && (
        <>
          <TextInput
            label="Host"
            value={values.host ?? ""}
            onChange={(event) => set({ host: event.currentTarget.value })}
          />
          <NumberInput
            label="Port"
            min={1}
            max={65535}
            hideControls
            value={values.port ?? ""}
            onChange={(port) => set({ port: Number(port) || null })}
          />
        </>
      )}
      {transport === "serial" && (
        <>
          <TextInput
            label="Device"
            placeholder="/dev/ttyUSB0"
            value={values.devicePath ?? ""}
            onChange={(event) => set({ devicePath: event.currentTarget.value })}
          />
          <NumberInput
            label="Baud"
            min={300}
            hideControls
            value={values.baudRate ?? ""}
            onChange={(baudRate) => set({ baudRate: Number(baudRate) || null })}
          />
        </>
      )}
      {benches.length > 1 && (
        <NativeSelect
          label="Bench"
          data={benches.map((one) => ({ value: one.id, label: one.name }))}
          value={values.benchId ?? bench?.id ?? ""}
          onChange={(event) => set({ benchId: event.currentTarget.value })}
        />
      )}
      {transport === "simulated" && values.kind === "load" && (
        <NativeSelect
          label="Which of its loads"
          data={Array.from({ length: mostLoads }, (_, n) => String(n + 1))}
          value={String(values.channel ?? 1)}
          onChange={(event) => set({ channel: Number(event.currentTarget.value) })}
        />
      )}
      <Switch
        label="in use"
        checked={values.isEnabled}
        onChange={(event) => set({ isEnabled: event.currentTarget.checked })}
      />
      <div className={classes.row}>
        <Button type="submit">Keep</Button>
        <Button variant="default" onClick={onDone}>
          Leave as it was
        </Button>
        {instrument && (
          <Button
            variant="subtle"
            color="gray"
            onClick={() => void remove({ id, version: instrument?.version ?? 1 }).then(onDone)}
          >
            Take it off the bench
          </Button>
        )}
      </div>
      <ProblemNote problem={asProblem(added.error ?? edited.error)} />
    </form>
  );
}
