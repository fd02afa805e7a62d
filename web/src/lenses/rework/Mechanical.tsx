import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { WordLine } from "../../ui/WordLine";

/** What was changed beside soldering: a hole, a bracket, a fan turned round. It goes into the record. */
export function Mechanical() {
  const { detail, facts } = useJob();
  const [act, { problem }] = useLogAct();
  const [words, setWords, dropWords] = useDraft(`${detail.job.id} mechanical`, "");
  const done = facts.acts.filter((one) => one.kind === "mechanical");
  if (done.length === 0 && facts.ticks.length === 0) return null;
  const log = async (note: string) => {
    if (await act({ kind: "mechanical", note })) dropWords(words);
  };
  return (
    <Part title="Mechanical changes">
      {done.map((one) => (
        <div key={one.id ?? one.at}>{one.note}</div>
      ))}
      <WordLine
        label="What was changed mechanically"
        placeholder="a hole drilled, a bracket bent, a fan turned"
        maxLength={500}
        value={words}
        onChange={setWords}
        button="Note it"
        onTake={(note) => void log(note)}
      />
      {done.length === 0 && <p className={text.soft}>None noted.</p>}
      <ProblemNote problem={problem} />
    </Part>
  );
}
