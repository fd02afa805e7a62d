import { Button, Textarea } from "@mantine/core";
import type { BoardChange } from "@pale-cap/contract";
import { parsePartEntry } from "@pale-cap/core";
import { entryProblemWords, understoodWords } from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { useShownBoardEdit } from "../../job/useBoardEdit";
import { ProblemNote } from "../../ui/ProblemNote";
import words from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { isTaken } from "./designators";
import { chooseNet, entryChanges, netBook } from "./entryChanges";
import classes from "./quickEntry.module.css";

interface ReadLine {
  readonly text: string;
  readonly pieces: readonly string[];
  readonly wrong: readonly string[];
  readonly changes: readonly BoardChange[];
  readonly count: number;
}

/** Many lines at once: each with what was understood of it; all go on the board together, or none. */
export function PastedEntries({ start, onClose }: { readonly start: string; readonly onClose: () => void }) {
  const { shown: detail } = useJob();
  const [edit, { problem, isLoading }] = useShownBoardEdit();
  const [text, setText, dropText] = useDraft(`${detail.job.id} pasted lines`, start);
  const { lines, netChanges } = useMemo(() => readLines(text, detail), [text, detail]);
  const count = lines.reduce((sum, line) => sum + line.count, 0);
  const wrongCount = lines.filter((line) => line.wrong.length > 0).length;

  async function add() {
    const refused = await edit(() => [...netChanges, ...lines.flatMap((line) => line.changes)]);
    if (refused) return;
    dropText(text);
    onClose();
  }

  return (
    <div className={classes.pasted}>
      <Textarea
        label="One part or range a line"
        autosize
        minRows={4}
        maxRows={12}
        value={text}
        spellCheck={false}
        onChange={(event) => setText(event.currentTarget.value)}
        classNames={{ input: classes.mono }}
      />
      <ol className={classes.lines} aria-label="Understood, line by line">
        {lines.map((line, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place in the text
          <li key={index} data-wrong={line.wrong.length > 0 || undefined}>
            {line.pieces.join(" · ")}
            {line.wrong.length > 0 && <span className={words.wrong}> {line.wrong.join("; ")}</span>}
          </li>
        ))}
      </ol>
      <div className={classes.line}>
        <Button
          variant="filled"
          loading={isLoading}
          disabled={count === 0 || wrongCount > 0}
          onClick={() => void add()}
        >
          Put {count} part{count === 1 ? "" : "s"} on the board
        </Button>
        <Button
          onClick={() => {
            dropText();
            onClose();
          }}
        >
          Back to one line
        </Button>
        {wrongCount > 0 && (
          <span className={words.softLine}>
            {wrongCount} line{wrongCount === 1 ? "" : "s"} to mend first; nothing is stored before.
          </span>
        )}
      </div>
      <ProblemNote problem={problem} />
    </div>
  );
}

type BoardOfLines = Pick<ReturnType<typeof useJob>["detail"], "nets" | "positions">;

function readLines(text: string, detail: BoardOfLines) {
  let book = netBook(detail.nets);
  const seen = new Set<string>();
  const lines = text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== "")
    .map((line): ReadLine => {
      const { entry, problems } = parsePartEntry(line);
      const [net, nextBook] = chooseNet(entry, book);
      book = nextBook;
      const twice = entry.designators.filter((one) => seen.has(one) || isTaken(detail.positions, one));
      for (const one of entry.designators) seen.add(one);
      const wrong = [
        ...problems.map(entryProblemWords),
        ...(net.question ? [`which rail: ${net.question.join(" or ")}`] : []),
        ...(twice.length > 0 ? [`${twice.join(", ")} twice, or on the board already`] : []),
      ];
      const { changes } = entryChanges(entry, net.netId);
      const pieces = understoodWords(entry, net.name && `${net.name}${net.isNew ? ", new rail" : ""}`);
      return { text: line, pieces, wrong, changes, count: entry.designators.length };
    });
  return { lines, netChanges: book.changes };
}
