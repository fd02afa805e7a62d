import { Button } from "@mantine/core";
import type { JobDetail } from "@pale-cap/contract";
import { formatQuantity } from "@pale-cap/core";
import { factLabels, quantityFacts, waitWords } from "@pale-cap/wording";
import { useAppSelector } from "../app/store/hooks";
import { useJobQuery } from "../job/jobApi";
import type { QueuedFact } from "./fact";
import { keepingWords } from "./keepingWords";
import { outbox } from "./outbox";
import classes from "./outbox.module.css";

/** Below the ladder of every screen: what was confirmed here and is not stored, and why; or that nothing is kept here. */
export function OutboxNotice() {
  const facts = useAppSelector((state) => state.outbox.facts);
  const { isServerSilent, isStorageShut, waitsFor } = useAppSelector((state) => state.outbox);
  const aside = facts.find((fact) => fact.aside !== null);
  const waiting = facts.filter((fact) => fact.aside === null);
  const told = aside ?? waiting[0];
  const { data: detail } = useJobQuery(told?.jobId ?? "", { skip: !told });
  const nameOf = (fact: QueuedFact) => factName(fact, detail?.job.id === fact.jobId ? detail : undefined);
  if (aside?.aside) {
    const { refusal, isTrouble } = aside.aside;
    return (
      <div role="alert" className={classes.unsent}>
        <span>
          <b>{nameOf(aside)}</b> is not stored: {isTrouble ? "the server fails over it. " : ""}
          {refusal}
          {isTrouble && (aside.isKept ? " It is kept on this computer; what came after it goes on." : "")}
        </span>
        <Button size="compact-sm" onClick={() => void outbox.again(aside)}>
          Store now
        </Button>
        <Button size="compact-sm" onClick={() => void outbox.letGo(aside.body.id)}>
          Let it go
        </Button>
      </div>
    );
  }
  // On an ordinary day an entry is stored before anybody could read this.
  if (isServerSilent && waiting.length > 0) {
    const [first] = waiting;
    return (
      <div role="alert" className={classes.unsent}>
        <span>
          <b>{waiting.length === 1 && first ? nameOf(first) : `${waiting.length} entries`}</b>{" "}
          {waiting.length === 1 ? "is" : "are"} not stored yet: {waitWords(waitsFor)}.{" "}
          {keepingWords(waiting, isStorageShut)}
        </span>
        <Button size="compact-sm" onClick={() => void outbox.flush()}>
          Try now
        </Button>
      </div>
    );
  }
  if (!isStorageShut) return null;
  return (
    <div role="status" className={classes.unkept}>
      This browser keeps nothing on this computer: an entry is safe only once the server has it.
    </div>
  );
}

function factName(fact: QueuedFact, detail: JobDetail | undefined): string {
  if (fact.kind !== "reading") return factLabels[fact.kind];
  const { targetId, value, quantity } = fact.body;
  const name =
    detail?.positions.find((one) => one.id === targetId)?.designator ??
    detail?.nets.find((one) => one.id === targetId)?.name ??
    factLabels.reading;
  return `${name} ${value === null ? "taken back" : formatQuantity(value, quantityFacts[quantity].unit).text}`;
}
