import { Button, Checkbox, NativeSelect, Textarea, TextInput } from "@mantine/core";
import { schemaResolver, useForm } from "@mantine/form";
import { type Intake, type IntakeDetails, intakeSchema, type Job, type Problem } from "@pale-cap/contract";
import { deviceKinds, sectionFacts } from "@pale-cap/core";
import { fieldFaultWords, majorAmount, minorAmount } from "@pale-cap/wording";
import { memo, useCallback, useEffect, useRef, useState } from "react";
import { api } from "../../api/api";
import { newId } from "../../api/newId";
import { useAppDispatch } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { RailTable } from "../../job/panels/rails/RailTable";
import { useInTurn } from "../../job/useInTurn";
import { Columns, Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import words from "../../ui/text.module.css";
import { readDraft, writeDraft } from "../../ui/useDraft";
import { useInvalidFields } from "../../ui/useInvalidFields";
import { useUnchanged } from "../../ui/useUnchanged";
import { CounterNotes } from "./CounterNotes";
import { FirstSuspects } from "./FirstSuspects";
import { IntakeConflicts } from "./IntakeConflicts";
import classes from "./intake.module.css";
import { useEditIntakeMutation } from "./intakeApi";
import { fieldName, intakeOf, withoutEmpty } from "./intakeOf";
import type { IntakePage } from "./intakePages";
import { KnownKindCard } from "./KnownKindCard";
import { LabelPlateCard } from "./LabelPlateCard";
import { type IntakeConflict, mergeIntake, settledIntake } from "./mergeIntake";
import { PromiseFromLabel, PurposeCard } from "./PurposeCard";
import { RepairBalanceCard } from "./RepairBalanceCard";
import { SymptomChips } from "./SymptomChips";
import { useStoreOnLeave } from "./useStoreOnLeave";

type TextField = Exclude<
  keyof Intake,
  "symptoms" | "deviceKind" | "deviceAgeYears" | "priceLimitMinor" | "intakeDetails"
>;

/** The pages that belong to the one form; the others store by themselves. */
const formPages: readonly IntakePage[] = ["counter", "label", "sum"];

interface Saved {
  readonly data: Job | undefined;
  readonly problem: Problem | undefined;
}

interface IntakeDraft {
  readonly values: Intake;
  /** The version that it was typed over. */
  readonly version: number;
}

/** The form of intake. Saves as one edit from the version it was filled from; a stale one is shown, not lost. */
export function IntakeForm({ job, page }: { readonly job: Job; readonly page: IntakePage }) {
  const currency = useJob().houseRules["shop.currency"];
  const [edit, { isLoading }] = useEditIntakeMutation();
  const inTurn = useInTurn();
  const dispatch = useAppDispatch();
  const [problem, setProblem] = useState<Problem>();
  const writeId = useRef(newId());
  /** What the form itself refused, wherever its field stands: it may be on another page. */
  const [refused, setRefused] = useState<readonly string[]>([]);
  const [invalid, validity] = useInvalidFields();
  const place = `${job.id} intake`;
  const [kept] = useState(() => readDraft<IntakeDraft>(place));
  const base = useRef(kept?.version ?? job.version);
  const form = useForm<Intake>({
    initialValues: intakeOf(job),
    validate: schemaResolver(intakeSchema, { sync: true }),
    onValuesChange: (values) => {
      const isStored = JSON.stringify(values) === JSON.stringify(form.getInitialValues());
      writeDraft(place, { values, version: base.current }, isStored);
    },
  });
  // What was typed here and not saved, perhaps on another day, stands again.
  const isLaid = useRef(false);
  useEffect(() => {
    if (kept && !isLaid.current) form.setValues(kept.values);
    isLaid.current = true;
  }, [kept, form.setValues]);
  useStoreOnLeave(job.id, form, base, invalid);
  const [conflicts, setConflicts] = useState<readonly IntakeConflict[]>([]);
  // Somebody else stored meanwhile: what they touched alone is taken, what both touched is shown with both texts.
  useEffect(() => {
    if (job.version <= base.current) return;
    const stored = intakeOf(job);
    const { values, conflicts: more } = mergeIntake(form.getInitialValues(), form.getValues(), stored);
    base.current = job.version;
    form.setInitialValues(stored);
    form.setValues(values);
    form.resetDirty(stored);
    setConflicts((before) => [...before.filter((one) => more.every((other) => other.field !== one.field)), ...more]);
    setProblem((before) => (before?.code === "stale_version" ? undefined : before));
  }, [job, form.getInitialValues, form.getValues, form.setInitialValues, form.setValues, form.resetDirty]);

  async function save(values: Intake) {
    const body = { writeId: writeId.current, version: base.current, values: withoutEmpty(values) };
    const answer = await inTurn(
      async (): Promise<Saved> => {
        const { data, error } = await edit({ jobId: job.id, body });
        return { data, problem: asProblem(error) };
      },
      (unsent): Saved => ({ data: undefined, problem: unsent }),
    );
    // A refused write never used up its id, but a changed body needs a new one in any case.
    writeId.current = newId();
    const refusal = answer.problem;
    setProblem(refusal);
    // What stands there now is read, and laid under what was typed.
    if (refusal?.code === "stale_version") dispatch(api.util.invalidateTags([{ type: "Job", id: job.id }]));
    if (answer.data) {
      setConflicts([]);
      base.current = answer.data.version;
      form.setInitialValues(intakeOf(answer.data));
      form.resetDirty(intakeOf(answer.data));
      // Something may have been typed while it was on its way.
      const isSame = JSON.stringify(form.getValues()) === JSON.stringify(values);
      writeDraft(place, { values: form.getValues(), version: base.current }, isSame);
    } else if (refusal) {
      form.setErrors(
        Object.fromEntries(refusal.errors.map((one) => [one.path.replace(/^values\./, ""), fieldFaultWords(one)])),
      );
    }
  }

  const text = (name: TextField) => ({
    value: form.values[name] ?? "",
    onChange: (event: { currentTarget: { value: string } }) =>
      form.setFieldValue(name, event.currentTarget.value === "" ? null : (event.currentTarget.value as never)),
    error: form.errors[name],
    autoComplete: "off",
  });
  // At each key the form is a copy: the cards that show none of what was typed stay as they are drawn.
  const details = useUnchanged(form.values.intakeDetails);
  const symptoms = useUnchanged(form.values.symptoms);
  const { setFieldValue } = form;
  const setDetails = useCallback((changed: IntakeDetails) => setFieldValue("intakeDetails", changed), [setFieldValue]);
  const setSymptoms = useCallback((chosen: string[]) => setFieldValue("symptoms", chosen as never), [setFieldValue]);
  return (
    <form
      className={classes.form}
      hidden={!formPages.includes(page)}
      onSubmit={form.onSubmit(
        (values) => {
          setRefused([]);
          if (invalid.size === 0) void save(values);
        },
        (errors) => setRefused(Object.entries(errors).map(([field, message]) => `${fieldName(field)} ${message}`)),
      )}
    >
      <ProblemNote problem={problem} />
      <IntakeConflicts
        conflicts={conflicts}
        onSettle={(conflict, how) => {
          if (how !== "mine") form.setValues(settledIntake(form.getValues(), conflict, how));
          setConflicts(conflicts.filter((one) => one !== conflict));
        }}
      />
      <Columns
        isHidden={page !== "counter"}
        second={
          <>
            <CounterNotes details={details} onChange={setDetails} validity={validity} />
            <FirstSuspects symptoms={symptoms} kind={form.values.deviceKind} />
            <Part title="Agreed">
              <div className={classes.row}>
                <QuantityInput
                  label={`Price limit, ${currency}`}
                  unit=""
                  digits={10}
                  limits={[0, 1_000_000]}
                  value={
                    form.values.priceLimitMinor === null ? null : majorAmount(form.values.priceLimitMinor, currency)
                  }
                  onChange={(value) =>
                    form.setFieldValue("priceLimitMinor", value === null ? null : minorAmount(value, currency))
                  }
                  onValidity={validity("price")}
                  error={form.errors.priceLimitMinor as string | undefined}
                />
                <TextInput label="Due" type="date" {...text("dueOn")} />
                <TextInput label="Owner" {...text("customerName")} />
                <TextInput label="How to reach" {...text("customerContact")} />
              </div>
              <Textarea label="The owner's words" autosize minRows={1} maxRows={3} {...text("ownersWords")} />
            </Part>
          </>
        }
      >
        <Part title="Device">
          <div className={classes.row}>
            <NativeSelect
              label="Kind"
              data={deviceKinds.map((kind) => ({ value: kind, label: kind.replace("-", " ") }))}
              {...form.getInputProps("deviceKind")}
            />
            <TextInput label="Maker" {...text("deviceMaker")} />
            <TextInput label="Model" {...text("deviceModel")} />
            <TextInput label="Serial" {...text("deviceSerial")} />
            <QuantityInput
              label="Age, years"
              unit=""
              limits={[0, 100]}
              value={form.values.deviceAgeYears}
              onChange={(value) => form.setFieldValue("deviceAgeYears", value)}
              onValidity={validity("age")}
              error={form.errors.deviceAgeYears as string | undefined}
            />
          </div>
          <Checkbox
            mt="xs"
            label="A known-good unit, measured so that others of its board type can be held against it"
            checked={details.isKnownGood}
            onChange={(event) => setDetails({ ...details, isKnownGood: event.currentTarget.checked })}
          />
        </Part>
        <KnownKindCard maker={form.values.deviceMaker} model={form.values.deviceModel} />
        <Part title="Complaint">
          <Textarea label="What it does wrong" autosize minRows={2} maxRows={5} {...text("complaint")} />
          <SymptomChips symptoms={symptoms} onChange={setSymptoms} />
          <TextInput label="Symptoms in free words" {...text("symptomNote")} />
        </Part>
      </Columns>
      <div hidden={page !== "label"}>
        <LabelPlateCard kind={form.values.deviceKind} details={details} onChange={setDetails} validity={validity} />
        <PromiseFromLabel details={details} />
        <PurposeCard details={details} onChange={setDetails} validity={validity} />
        <PromisedRails />
      </div>
      <div hidden={page !== "sum"}>
        <RepairBalanceCard
          details={details}
          limitMinor={form.values.priceLimitMinor}
          dueOn={form.values.dueOn}
          onChange={setDetails}
          validity={validity}
        />
      </div>
      <div className={classes.save}>
        <Button
          type="submit"
          variant="filled"
          loading={isLoading}
          disabled={invalid.size > 0 || conflicts.length > 0 || (!form.isDirty() && !problem)}
        >
          Save intake
        </Button>
        <span className={words.dim}>
          {refused.length > 0 && <span role="alert">Not saved: {refused.join("; ")}. </span>}
          {invalid.size > 0 ? "one number is not understood" : form.isDirty() ? "not saved yet" : "saved"}
        </span>
      </div>
    </form>
  );
}

/** The rails that Prove tests: they are the board's, and stored by themselves. */
const PromisedRails = memo(function PromisedRails() {
  return (
    <RailTable title="Promised rails: what Prove tests" isShown={(net) => !sectionFacts[net.section].isMainsSide} />
  );
});
