import { Button, TextInput } from "@mantine/core";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./rework.module.css";

/** What was changed beside soldering: a hole, a bracket, a fan turned round. It goes into the record. */
export function Mechanical() {
  const { detail, facts } = useJob();
  const [act, { problem }] = useLogAct();
  const [words, setWords, dropWords] = useDraft(`${detail.job.id} mechanical`, "");
  const done = facts.acts.filter((one) => one.kind === "mechanical");
  if (done.length === 0 && facts.ticks.length === 0) return null;
  const log = async () => {
    if (await act({ kind: "mechanical", note: words.trim() })) dropWords(words);
  };
  return (
    <Part title="Mechanical changes">
      {done.map((one) => (
        <div key={one.id ?? one.at}>{one.note}</div>
      ))}
      <div className={classes.goesIn}>
        <TextInput
          size="xs"
          aria-label="What was changed mechanically"
          placeholder="a hole drilled, a bracket bent, a fan turned"
          maxLength={500}
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
          onKeyDown={(event) => event.key === "Enter" && words.trim() !== "" && void log()}
        />
        <Button size="compact-sm" disabled={words.trim() === ""} onClick={() => void log()}>
          Note it
        </Button>
      </div>
      {done.length === 0 && <p className={text.soft}>None noted.</p>}
      <ProblemNote problem={problem} />
    </Part>
  );
}
