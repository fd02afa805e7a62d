import { Button, TextInput } from "@mantine/core";
import { formatQuantity } from "@pale-cap/core";
import { useState } from "react";
import { ProblemNote } from "../../../ui/ProblemNote";
import { useDraft } from "../../../ui/useDraft";
import { useInvalidFields } from "../../../ui/useInvalidFields";
import { useJob } from "../../JobContext";
import { RailField } from "./RailField";
import classes from "./rails.module.css";
import { anotherName, matchingNet, railName, useAddRails } from "./useAddRails";

const empty = { name: "", volts: null as number | null, amps: null as number | null };

/**
 * One more rail in a line: name, volts, amperes; Enter adds it. Without a name it is called by its volts. Where a rail of
 * that name or those volts stands already it is asked which of the two is meant.
 */
export function RailEntry() {
  const { shown: detail } = useJob();
  const [add, { problem, isLoading }] = useAddRails();
  const [draft, setDraft, dropDraft] = useDraft(`${detail.job.id} rail`, empty);
  const [isAsked, setIsAsked] = useState(false);
  const [invalid, validity] = useInvalidFields();
  const isReady = invalid.size === 0 && (draft.volts !== null || draft.name.trim() !== "");

  const standing = isReady ? matchingNet(detail, draft) : undefined;

  async function submit(name: string = draft.name) {
    if (!isReady) return;
    setIsAsked(false);
    if (!(await add([{ name, volts: draft.volts, amps: draft.amps }]))) dropDraft(draft);
  }
  const submitOrAsk = () => (standing ? setIsAsked(true) : void submit());

  return (
    <>
      {/* No form of its own: the table may stand inside another one, and that one is not meant by Enter here. */}
      <fieldset
        className={`${classes.rail} ${classes.entry}`}
        onKeyDown={(event) => {
          if (event.key === "Enter" && event.target instanceof HTMLInputElement) submitOrAsk();
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
        <Button size="xs" loading={isLoading} disabled={!isReady} onClick={submitOrAsk}>
          Add rail
        </Button>
      </fieldset>
      {isAsked && standing && (
        <div className={classes.asked} role="status">
          <span>
            {standing.name} stands already
            {standing.fullLoadAmps === null ? "" : `, ${formatQuantity(standing.fullLoadAmps, "A").text} promised`}.
          </span>
          <Button size="xs" variant="default" onClick={() => void submit(standing.name)}>
            {draft.amps === null ? "It is that one" : `That one: promise ${formatQuantity(draft.amps, "A").text}`}
          </Button>
          <Button size="xs" variant="default" onClick={() => void submit(anotherName(detail, railName(draft)))}>
            Another: {anotherName(detail, railName(draft))}
          </Button>
        </div>
      )}
      <ProblemNote problem={problem} />
    </>
  );
}
