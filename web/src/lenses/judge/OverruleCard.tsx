import { Button, NativeSelect, TextInput } from "@mantine/core";
import { type PartJudgement, type VerdictWord, verdictWords } from "@pale-cap/core";
import { momentText, verdictLabels } from "@pale-cap/wording";
import { useState } from "react";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useSubmit } from "../../outbox/useSubmit";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./judge.module.css";

/** Why verdicts are overruled; anything else can be typed. */
const reasons = [
  "swapped against a good one",
  "opened and looked inside",
  "read again on another instrument",
  "the reading was a slip",
  "known weak series",
] as const;

/** A person's word against the computed verdict: with a reason, kept beside it, and taken back the same way. */
export function OverruleCard({
  judgement,
  designator,
}: {
  readonly judgement: PartJudgement;
  readonly designator: string;
}) {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const place = `${detail.job.id} overrule ${judgement.positionId}`;
  const [reason, setReason, dropReason] = useDraft(place, "");
  const [isOpen, setOpen] = useState(reason !== "");
  const [verdict, setVerdict] = useState<VerdictWord>(judgement.computedVerdict === "failed" ? "sound" : "failed");
  const [submit, { problem, isLoading }] = useSubmit();
  const { overrule, computedVerdict } = judgement;
  const part = detail.fittedParts.find((one) => one.positionId === judgement.positionId && one.origin === "found");
  if (!part) return null;
  const say = async (word: VerdictWord | null, why: string) => {
    const at = pageClock.moment();
    const body = { id: newId(), fittedPartId: part.id, verdict: word, reason: why, at, personId };
    if (!(await submit({ kind: "overrule", jobId: detail.job.id, body }))) return;
    dropReason(reason);
    setOpen(false);
  };
  if (overrule) {
    return (
      <Part title="Overruled">
        <p>
          {verdictLabels[overrule.verdict]} by hand, {momentText(overrule.at)}: {overrule.reason}. From the readings:{" "}
          {verdictLabels[computedVerdict]}.
        </p>
        <Button loading={isLoading} onClick={() => void say(null, "taken back")}>
          Take it back
        </Button>
        <ProblemNote problem={problem} />
      </Part>
    );
  }
  if (!isOpen) {
    return (
      <p>
        <Button size="compact-sm" onClick={() => setOpen(true)}>
          Overrule
        </Button>
      </p>
    );
  }
  return (
    <Part title={`Overrule ${designator}`} aside={<span className={text.soft}>kept beside the computed one</span>}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (reason.trim() !== "") void say(verdict, reason.trim());
        }}
      >
        <div className={classes.overrule}>
          <NativeSelect
            label="It is"
            value={verdict}
            data={verdictWords
              .filter((word) => word !== computedVerdict && word !== "not_measured")
              .map((word) => ({ value: word, label: verdictLabels[word] }))}
            onChange={(event) => setVerdict(event.currentTarget.value as VerdictWord)}
          />
          <TextInput
            label="Because"
            value={reason}
            list="overrule-reasons"
            maxLength={300}
            onChange={(event) => setReason(event.currentTarget.value)}
          />
          <datalist id="overrule-reasons">
            {reasons.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </div>
        <div className={classes.acts}>
          <Button type="submit" variant="filled" loading={isLoading} disabled={reason.trim() === ""}>
            Overrule
          </Button>
          <Button
            onClick={() => {
              dropReason();
              setOpen(false);
            }}
          >
            Leave it
          </Button>
        </div>
      </form>
      <ProblemNote problem={problem} />
    </Part>
  );
}
