import { Button, TextInput } from "@mantine/core";
import { jobReminders } from "@pale-cap/core";
import { dayText } from "@pale-cap/wording";
import dayjs from "dayjs";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { EntryFieldset } from "../../ui/closedEntry";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { useDraft } from "../../ui/useDraft";
import classes from "./intake.module.css";

/** A call that was promised: about what, and when; it stands on the bench screen until it was made. */
export function CallBackCard() {
  const { whole, nowMilliseconds } = useJob();
  const { job } = whole.detail;
  const [act, { problem }] = useLogAct();
  const [note, setNote, dropNote] = useDraft(`${job.id} call back`, "");
  const [day, setDay, dropDay] = useDraft(`${job.id} call back on`, "");
  const { acts } = whole.facts;
  const nothing = { runEndsMilliseconds: [], dueMilliseconds: null, nowMilliseconds };
  const calls = jobReminders({ acts, ...nothing }).filter((one) => one.kind === "call_back");
  const isDay = dayjs(day).isValid();
  async function promise(): Promise<void> {
    if (!(await act({ kind: "call_back", word: "promised", note: note.trim(), value: dayjs(day).unix() }))) return;
    dropNote(note);
    dropDay(day);
  }
  return (
    <Part title="Call back">
      <ProblemNote problem={problem} />
      {calls.map((one) => (
        <p key={`${one.atMilliseconds} ${one.note}`}>
          {dayText(new Date(one.atMilliseconds).toISOString())}: {one.note}
        </p>
      ))}
      <EntryFieldset>
        <div className={`${classes.row} ${classes.atFoot}`}>
          <TextInput label="On" type="date" value={day} onChange={(event) => setDay(event.currentTarget.value)} />
          <TextInput
            label="About"
            maxLength={500}
            value={note}
            onChange={(event) => setNote(event.currentTarget.value)}
          />
          <Button disabled={note.trim() === "" || !isDay} onClick={() => void promise()}>
            Promise it
          </Button>
          {calls.length > 0 && (
            <Button onClick={() => void act({ kind: "call_back", word: "made", note: "called" })}>Called</Button>
          )}
        </div>
      </EntryFieldset>
    </Part>
  );
}
