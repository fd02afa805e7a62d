import { Button } from "@mantine/core";
import type { Net } from "@pale-cap/contract";
import { lastActOf, railStepBound } from "@pale-cap/core";
import { stepWords } from "@pale-cap/wording";
import { useState } from "react";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./prove.module.css";

/** A step of the rail's load as the scope showed it: dip and recovery beside what its capacitors bound it to. */
export function LoadTransient({ net }: { readonly net: Net }) {
  const { facts } = useJob();
  const [act, { problem }] = useLogAct();
  const full = net.fullLoadAmps ?? 0;
  const last = lastActOf(facts.acts, "load_step", net.id)?.numbers ?? null;
  const [from, setFrom] = useState<number | null>(0.25 * full);
  const [to, setTo] = useState<number | null>(0.75 * full);
  const [dip, setDip] = useState<number | null>(null);
  const [back, setBack] = useState<number | null>(null);
  const isStep = from !== null && to !== null && from !== to;
  const [lastFrom = 0, lastTo = 0, lastDip = 0, lastBack = 0] = last ?? [];
  const field = { isCompact: true, size: "xs" } as const;
  return (
    <details className={classes.others}>
      <summary>A step of its load</summary>
      <div className={classes.leadLine}>
        <QuantityInput
          {...field}
          label={`${net.name}: from`}
          unit="A"
          limits={[0, 200]}
          value={from}
          onCommit={setFrom}
        />
        <QuantityInput {...field} label={`${net.name}: to`} unit="A" limits={[0, 200]} value={to} onCommit={setTo} />
        <QuantityInput
          {...field}
          label={`${net.name}: dips`}
          unit="V"
          limits={[0, 100]}
          value={dip}
          onCommit={setDip}
        />
        <QuantityInput
          {...field}
          label={`${net.name}: back after`}
          unit="s"
          limits={[0, 10]}
          value={back}
          onCommit={setBack}
        />
        <Button
          size="compact-sm"
          disabled={!isStep || dip === null}
          onClick={() =>
            void act({ kind: "load_step", subjectId: net.id, numbers: [from ?? 0, to ?? 0, dip ?? 0, back ?? 0] })
          }
        >
          Log it
        </Button>
      </div>
      {last && (
        <p className={text.softLine}>
          {stepWords(lastDip, railStepBound(facts, net.id, Math.abs(lastTo - lastFrom)), lastBack)}
        </p>
      )}
      <ProblemNote problem={problem} />
    </details>
  );
}
