import { Button, TextInput } from "@mantine/core";
import type { OwnPart, Position } from "@pale-cap/contract";
import { formatQuantity, limitRejections, type OwnPartEntry, parseOwnPart, type Requirement } from "@pale-cap/core";
import { ownPartWords, rejectionWords } from "@pale-cap/wording";
import { type KeyboardEvent, useMemo, useRef } from "react";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { Understood } from "../../ui/Understood";
import { useDraft } from "../../ui/useDraft";
import { useKeys } from "../../ui/useKeys";
import classes from "./choose.module.css";
import { useChoosePlan } from "./useChoosePlan";
import { useReadInHand } from "./useReadInHand";

/** Whatever lies in the hand, in one line: with no catalogue at all a part can be chosen, read and fitted. */
export function OwnPartLine(props: { readonly position: Position; readonly requirement: Requirement | null }) {
  const { position, requirement } = props;
  const { detail } = useJob();
  const [line, setLine, dropLine] = useDraft(`${detail.job.id} own part ${position.id}`, "");
  const { save, problem, isLoading } = useChoosePlan(position.id);
  const logRead = useReadInHand(position.id);
  const input = useRef<HTMLInputElement>(null);
  useKeys("Choose", [{ key: "o", label: "what I have", action: () => input.current?.focus() }]);

  const { entry, problems } = useMemo(() => parseOwnPart(line), [line]);
  const railVolts = requirement?.railVolts ?? null;
  const isBelowRail = railVolts !== null && entry.ratedVolts !== null && entry.ratedVolts < railVolts;
  const isReady = line.trim() !== "" && problems.length === 0 && !isBelowRail;
  const against =
    requirement && isReady ? limitRejections(requirement, { ...entry, pitchMetres: null }).map(rejectionWords) : [];

  async function take() {
    const ownPart = isReady ? markingOf(entry) : null;
    if (!ownPart) return;
    const id = newId();
    if (!(await save(() => ({ cataloguePartId: null, partInHand: { id, ownPart } })))) return;
    logRead(id, entry);
    dropLine(line);
  }

  return (
    <Part title="What I have" aside={<span className={text.soft}>key o</span>}>
      <div className={classes.own}>
        <TextInput
          ref={input}
          aria-label={`What I have for ${position.designator}`}
          placeholder="1000u 25v 105 10x20 drawer esr 41m c 980u"
          value={line}
          onChange={(event) => setLine(event.currentTarget.value)}
          onKeyDown={(event: KeyboardEvent) => {
            if (event.key !== "Enter") return;
            event.preventDefault();
            void take();
          }}
          autoComplete="off"
          spellCheck={false}
        />
        <Button variant="filled" loading={isLoading} disabled={!isReady} onClick={() => void take()}>
          Take it
        </Button>
      </div>
      <Understood
        line={line}
        hint="Words in any order: value, volts, class, size; drawer, bought or salvaged; esr and c as read. No catalogue is needed."
        pieces={ownPartWords(entry)}
        problems={problems}
      >
        {entry.source === "salvaged" && (
          <span className={classes.against}>salvaged: C, ESR and leakage are read first, and its hours count on</span>
        )}
        {isBelowRail && railVolts !== null && (
          <span className={text.wrong}>
            rated {entry.ratedVolts} V, below the {formatQuantity(railVolts, "V").text} of the rail: it would vent
          </span>
        )}
        {against.map((words) => (
          <span key={words} className={classes.against}>
            {words}
          </span>
        ))}
      </Understood>
      <ProblemNote problem={problem} />
    </Part>
  );
}

function markingOf(entry: OwnPartEntry): OwnPart | null {
  const { capacitanceFarads, ratedVolts, esrOhms: _, readFarads: __, ...rest } = entry;
  return capacitanceFarads === null || ratedVolts === null ? null : { ...rest, capacitanceFarads, ratedVolts };
}
