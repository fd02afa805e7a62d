import { Button, TextInput } from "@mantine/core";
import { ProblemNote } from "../../../ui/ProblemNote";
import { useDraft } from "../../../ui/useDraft";
import { useInvalidFields } from "../../../ui/useInvalidFields";
import { useJob } from "../../JobContext";
import { RailField } from "./RailField";
import classes from "./rails.module.css";
import { useAddRails } from "./useAddRails";

const empty = { name: "", volts: null as number | null, amps: null as number | null };

/** One more rail in a line: name, volts, amperes; Enter adds it. Without a name it is called by its volts. */
export function RailEntry() {
  const [add, { problem, isLoading }] = useAddRails();
  const [draft, setDraft, dropDraft] = useDraft(`${useJob().detail.job.id} rail`, empty);
  const [invalid, validity] = useInvalidFields();
  const isReady = invalid.size === 0 && (draft.volts !== null || draft.name.trim() !== "");

  async function submit() {
    if (!isReady) return;
    if (!(await add([{ name: draft.name, volts: draft.volts, amps: draft.amps }]))) dropDraft(draft);
  }

  return (
    <>
      {/* No form of its own: the table may stand inside another one, and that one is not meant by Enter here. */}
      <fieldset
        className={`${classes.rail} ${classes.entry}`}
        onKeyDown={(event) => {
          if (event.key === "Enter" && event.target instanceof HTMLInputElement) void submit();
        }}
      >
        <TextInput
          size="xs"
          aria-label="New rail, name"
          placeholder="rail"
          maxLength={40}
          value={draft.name}
          onChange={(event) => setDraft({ ...draft, name: event.currentTarget.value })}
        />
        <RailField
          of="volts"
          label="New rail, volts"
          value={draft.volts}
          onChange={(volts) => setDraft((now) => ({ ...now, volts }))}
          onValidity={validity("volts")}
        />
        <RailField
          of="amps"
          label="New rail, promised load"
          value={draft.amps}
          onChange={(amps) => setDraft((now) => ({ ...now, amps }))}
          onValidity={validity("amps")}
        />
        <Button size="xs" loading={isLoading} disabled={!isReady} onClick={() => void submit()}>
          Add rail
        </Button>
      </fieldset>
      <ProblemNote problem={problem} />
    </>
  );
}
