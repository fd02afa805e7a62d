import { Button, Textarea } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import type { Problem } from "@pale-cap/contract";
import { summaryOf } from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../../api/newId";
import { Part } from "../../../ui/Pane";
import { asProblem, ProblemNote } from "../../../ui/ProblemNote";
import { TypedOverNote } from "../../../ui/TypedOverNote";
import text from "../../../ui/text.module.css";
import { useDraft } from "../../../ui/useDraft";
import { useOnLeave } from "../../../ui/useOnLeave";
import { useTypedOver } from "../../../ui/useTypedOver";
import { useJob } from "../../JobContext";
import { useInTurn } from "../../useInTurn";
import { useEditVerdictSummaryMutation } from "../../verdictApi";
import classes from "./summary.module.css";

/** The verdict of the job in two or three sentences: made from the model, or in a person's own words. */
export function SummaryCard() {
  const { detail, explanation } = useJob();
  const { job } = detail;
  const [edit, { isLoading }] = useEditVerdictSummaryMutation();
  const [problem, setProblem] = useState<Problem>();
  const inTurn = useInTurn();
  const [draft, setDraft, dropDraft] = useDraft<string | null>(`${job.id} summary`, null);
  const generated = summaryOf(explanation);
  const shown = job.verdictSummary ?? generated;
  const stored = job.verdictSummary ?? "";
  const { isConflict, sent, seen } = useTypedOver(`${job.id} summary`, stored, draft ?? stored);
  const store = async (text: string | null) => {
    sent(text ?? "");
    const refusal = await inTurn(
      async ({ job: latest }) =>
        asProblem((await edit({ jobId: job.id, body: { writeId: newId(), version: latest.version, text } })).error),
      (unsent) => unsent,
    );
    setProblem(refusal);
    if (!refusal) dropDraft(draft);
    return refusal;
  };
  useOnLeave(() => {
    if (draft === null || draft.trim() === "" || draft === shown || isConflict) return;
    void store(draft).then((refusal) =>
      notifications.show({
        message: refusal
          ? `The verdict in your words was not stored: ${refusal.detail} It stands where it was typed.`
          : "The verdict in your words was stored.",
      }),
    );
  });
  if (shown === null && draft === null) return null;
  return (
    <Part
      title="Verdict of the job"
      aside={
        draft === null && (
          <Button size="compact-sm" onClick={() => setDraft(shown ?? "")}>
            In other words
          </Button>
        )
      }
    >
      {draft === null ? (
        <p className={classes.story}>{shown}</p>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void store(draft.trim() === "" || draft.trim() === generated ? null : draft);
          }}
        >
          <Textarea
            aria-label="Verdict of the job"
            value={draft}
            autosize
            minRows={3}
            maxLength={2000}
            onChange={(event) => setDraft(event.currentTarget.value)}
          />
          {isConflict && (
            <TypedOverNote
              stored={stored}
              onMine={seen}
              onTheirs={() => dropDraft()}
              onBoth={
                stored === ""
                  ? undefined
                  : () => {
                      seen();
                      setDraft(`${stored} ${draft}`);
                    }
              }
            />
          )}
          <div className={classes.acts}>
            <Button type="submit" variant="filled" loading={isLoading} disabled={isConflict}>
              Keep
            </Button>
            <Button onClick={() => dropDraft()}>Leave it</Button>
          </div>
        </form>
      )}
      {job.verdictSummary !== null && draft === null && (
        <p className={text.soft}>
          Written by hand. {generated ? `From the readings it would say: ${generated}` : ""}{" "}
          <button type="button" className={classes.linkLike} onClick={() => void store(null)}>
            Back to that
          </button>
        </p>
      )}
      <ProblemNote problem={problem} />
    </Part>
  );
}
