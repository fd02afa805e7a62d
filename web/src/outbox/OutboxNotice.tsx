import { Button } from "@mantine/core";
import { formatQuantity } from "@pale-cap/core";
import { useAppSelector } from "../job/hooks";
import { useJob } from "../job/JobContext";
import { quantityFacts } from "../wording/boardWords";
import type { QueuedFact } from "./fact";
import { outbox } from "./outbox";
import classes from "./outbox.module.css";

/** What was confirmed here and is not stored: that it waits, or what the server said against it. */
export function OutboxNotice() {
  const { detail } = useJob();
  const facts = useAppSelector((state) => state.outbox.facts);
  const isServerSilent = useAppSelector((state) => state.outbox.isServerSilent);
  const [refused] = facts.filter((fact) => fact.refusal !== null);
  const waiting = facts.filter((fact) => fact.refusal === null);
  if (refused) {
    return (
      <div role="alert" className={classes.unsent}>
        <span>
          <b>{nameOf(refused)}</b> is not stored: {refused.refusal}
        </span>
        <Button size="compact-sm" onClick={() => void outbox.again(refused)}>
          Store now
        </Button>
        <Button size="compact-sm" onClick={() => void outbox.letGo(refused.body.id)}>
          Let it go
        </Button>
      </div>
    );
  }
  // On an ordinary day an entry is stored before anybody could read this.
  if (!isServerSilent || waiting.length === 0) return null;
  return (
    <div role="alert" className={classes.unsent}>
      <span>
        <b>{waiting.length === 1 && waiting[0] ? nameOf(waiting[0]) : `${waiting.length} entries`}</b>{" "}
        {waiting.length === 1 ? "is" : "are"} not stored yet: the server does not answer. They are kept on this computer
        and sent when it does.
      </span>
      <Button size="compact-sm" onClick={() => void outbox.flush()}>
        Try now
      </Button>
    </div>
  );

  function nameOf(fact: QueuedFact): string {
    if (fact.kind !== "reading")
      return {
        signs: "A look",
        overrule: "An overrule",
        charge: "A charge entry",
        power: "A power entry",
        ticks: "A tick",
        return: "A count",
      }[fact.kind];
    const { targetId, value, quantity } = fact.body;
    const name =
      detail.positions.find((one) => one.id === targetId)?.designator ??
      detail.nets.find((one) => one.id === targetId)?.name ??
      "A reading";
    return `${name} ${value === null ? "taken back" : formatQuantity(value, quantityFacts[quantity].unit).text}`;
  }
}
