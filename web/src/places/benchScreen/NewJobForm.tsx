import { Button, NativeSelect, TextInput } from "@mantine/core";
import { schemaResolver, useForm } from "@mantine/form";
import { createJobSchema } from "@pale-cap/contract";
import { deviceKinds } from "@pale-cap/core";
import { fieldFaultWords } from "@pale-cap/wording";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useCreateJobMutation } from "../../job/jobListApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { dropDraft, readDraft, writeDraft } from "../../ui/useDraft";
import classes from "./bench.module.css";

const place = "new job";
const nothingSaid = {
  deviceKind: "monitor" as (typeof deviceKinds)[number],
  deviceMaker: null as string | null,
  deviceModel: null as string | null,
  complaint: null as string | null,
};

/** A new job in one line: kind, maker, model, fault; Enter makes it. */
export function NewJobForm(props: {
  /** Nobody's unit: simulated instruments read there. */
  readonly isPractice: boolean;
  readonly onMade: (jobId: string) => void;
  readonly onCancel: () => void;
}) {
  const personId = useAppSelector((state) => state.workplace.personId);
  const [createJob, { isLoading, error }] = useCreateJobMutation();
  const form = useForm({
    initialValues: {
      id: newId(),
      ...(readDraft<typeof nothingSaid>(place) ?? nothingSaid),
      personId,
    },
    onValuesChange: ({ deviceKind, deviceMaker, deviceModel, complaint }) => {
      const said = { deviceKind, deviceMaker, deviceModel, complaint };
      writeDraft(place, said, JSON.stringify(said) === JSON.stringify(nothingSaid));
    },
    validate: schemaResolver(createJobSchema, { sync: true }),
  });
  const problem = asProblem(error);
  const text = (name: "deviceMaker" | "deviceModel" | "complaint") => ({
    value: form.values[name] ?? "",
    onChange: (event: { currentTarget: { value: string } }) =>
      form.setFieldValue(name, event.currentTarget.value === "" ? null : event.currentTarget.value),
    error: form.errors[name],
  });
  const submit = form.onSubmit(async (values) => {
    const answer = await createJob(props.isPractice ? { ...values, isPractice: true } : values);
    if (answer.data) {
      dropDraft(place);
      props.onMade(answer.data.job.id);
    } else {
      const refused = asProblem(answer.error);
      if (refused) form.setErrors(Object.fromEntries(refused.errors.map((one) => [one.path, fieldFaultWords(one)])));
    }
  });
  return (
    <form
      className={classes.newJob}
      onSubmit={submit}
      onKeyDown={(event) => event.key === "Escape" && props.onCancel()}
    >
      <NativeSelect
        label="Kind"
        data={deviceKinds.map((kind) => ({ value: kind, label: kind.replace("-", " ") }))}
        data-autofocus
        autoFocus
        {...form.getInputProps("deviceKind")}
      />
      <TextInput label="Maker" autoComplete="off" {...text("deviceMaker")} />
      <TextInput label="Model" autoComplete="off" {...text("deviceModel")} />
      <TextInput label="Fault" autoComplete="off" {...text("complaint")} />
      <div className={classes.newJobButtons}>
        <Button type="submit" variant="filled" loading={isLoading}>
          {props.isPractice ? "Make the practice job" : "Make the job"}
        </Button>
        <Button
          onClick={() => {
            dropDraft(place);
            props.onCancel();
          }}
        >
          Cancel
        </Button>
      </div>
      <div className={classes.newJobProblem}>
        <ProblemNote problem={problem} />
      </div>
    </form>
  );
}
