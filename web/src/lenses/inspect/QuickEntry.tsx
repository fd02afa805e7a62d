import { Autocomplete, Button } from "@mantine/core";
import { completeEntry, parsePartEntry } from "@pale-cap/core";
import { understoodWords } from "@pale-cap/wording";
import { type ClipboardEvent, type KeyboardEvent, useMemo, useRef } from "react";
import { useJob } from "../../job/JobContext";
import { useShownBoardEdit } from "../../job/useBoardEdit";
import { useTarget } from "../../job/useTarget";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { Understood } from "../../ui/Understood";
import { useDraft } from "../../ui/useDraft";
import { useKeys } from "../../ui/useKeys";
import { following, isTaken, nextCapacitor } from "./designators";
import { chooseNet, entryChanges, netBook } from "./entryChanges";
import { PastedEntries } from "./PastedEntries";
import classes from "./quickEntry.module.css";

/** One line for a part or a range of them: what is understood stands below while it is typed; Enter puts it on the board. */
export function QuickEntry() {
  const { shown: detail } = useJob();
  const [, select] = useTarget();
  const [edit, { problem, isLoading }] = useShownBoardEdit();
  const [line, setLine] = useDraft(`${detail.job.id} quick entry`, "");
  const [pasted, setPasted] = useDraft<string | null>(`${detail.job.id} pasted`, null);
  const input = useRef<HTMLInputElement>(null);
  useKeys("Inspect", [{ key: "e", label: "quick entry", action: () => input.current?.focus() }]);

  const { entry, problems } = useMemo(() => parsePartEntry(line), [line]);
  const [net, book] = useMemo(() => chooseNet(entry, netBook(detail.nets)), [entry, detail.nets]);
  const taken = entry.designators.filter((one) => isTaken(detail.positions, one));
  const isReady = problems.length === 0 && net.question === null && taken.length === 0;
  const completions = completeEntry(
    line,
    detail.nets.map((one) => one.name),
    nextCapacitor(detail.positions),
  );

  async function add() {
    if (!isReady) return;
    const { changes, positionIds } = entryChanges(entry, net.netId);
    const refused = await edit(() => [...book.changes, ...changes]);
    if (refused) return;
    // The rest is typed anew: the next part is another one.
    const next = following(entry.designators.at(-1) ?? "");
    // What was typed while this one was stored stays.
    setLine((now) => (now === line ? next && `${next} ` : now));
    const last = positionIds.at(-1);
    if (last && entry.kind === "electrolytic") select({ kind: "part", id: last });
    input.current?.focus();
  }

  function onPaste(event: ClipboardEvent) {
    const text = event.clipboardData.getData("text/plain");
    if (!text.trim().includes("\n")) return;
    event.preventDefault();
    setPasted(text.trim());
  }

  if (pasted !== null) return <PastedEntries start={pasted} onClose={() => setPasted(null)} />;
  return (
    <div className={classes.quick}>
      <div className={classes.line}>
        <Autocomplete
          ref={input}
          aria-label="Quick entry"
          placeholder="C14 out 1000u 25v 105 10x20 p5"
          value={line}
          data={completions.map((one) => one.word)}
          filter={({ options }) => options}
          limit={8}
          onChange={setLine}
          onOptionSubmit={(word) => {
            // The field would take the bare word: it belongs in the place of the one being typed.
            setTimeout(() => setLine(`${line.replace(/\S*$/, "")}${word} `), 0);
          }}
          onKeyDown={(event: KeyboardEvent) => {
            if (event.key !== "Enter" || event.currentTarget.getAttribute("aria-activedescendant")) return;
            event.preventDefault();
            void add();
          }}
          onPaste={onPaste}
          autoComplete="off"
          spellCheck={false}
        />
        <Button variant="filled" loading={isLoading} disabled={!isReady} onClick={() => void add()}>
          Put on the board
        </Button>
        <Button onClick={() => setPasted("")}>Several lines</Button>
      </div>
      <Understood
        line={line}
        hint="Words in any order: section or :rail, 1000u, 25v, 105, 10x20, p5, @60/30, -down, C14-C18. Key e leads here."
        pieces={understoodWords(entry, net.name && `${net.name}${net.isNew ? ", new rail" : ""}`)}
        problems={problems}
      >
        {net.question && (
          <span className={text.wrong}>
            Which rail? Name it:{" "}
            {net.question.map((name) => (/\s/.test(name) ? `:"${name}"` : `:${name}`)).join(" or ")}
          </span>
        )}
        {taken.length > 0 && <span className={text.wrong}>{taken.join(", ")} on the board already</span>}
      </Understood>
      <ProblemNote problem={problem} />
    </div>
  );
}
