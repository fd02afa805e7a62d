import { Button, TextInput } from "@mantine/core";
import { powerGate } from "@pale-cap/core";
import { cautions, powerGateWords } from "@pale-cap/wording";
import { useState } from "react";
import { ProblemNote } from "../../../ui/ProblemNote";
import { QuantityInput } from "../../../ui/QuantityInput";
import text from "../../../ui/text.module.css";
import { useDraft } from "../../../ui/useDraft";
import { useJob } from "../../JobContext";
import classes from "./power.module.css";
import { useLogPower } from "./useLogPower";

/** After a blown fuse or a tripped breaker the way to mains is shut until a short test; a reason overrules it. */
export function PowerGateCard() {
  const { detail, facts } = useJob();
  const gate = powerGate(facts.symptoms, facts.powerEvents);
  const [log, { problem, isLoading }] = useLogPower();
  const [ohms, setOhms, dropOhms] = useDraft<number | null>(`${detail.job.id} short test`, null);
  const [isValid, setValid] = useState(true);
  const [reason, setReason, dropReason] = useDraft(`${detail.job.id} gate reason`, "");

  async function test(hasShort: boolean) {
    if (isValid && (await log({ kind: "short_test", hasShort, resistanceOhms: ohms }))) dropOhms(ohms);
  }

  async function overrule() {
    if (await log({ kind: "gate_overruled", note: reason.trim() })) dropReason(reason);
  }

  return (
    <section className={classes.gate} data-shut={gate.isShut || undefined} aria-label="Way to mains">
      {gate.cause === null ? (
        <div className={text.softLine}>Did a fuse blow or a breaker trip? Log it: a short test then comes first.</div>
      ) : (
        <div role="status">
          <strong>{powerGateWords(gate)}</strong>
        </div>
      )}
      {gate.isShut && <div className={text.softLine}>{cautions.blownFuse}</div>}
      <ProblemNote problem={problem} />
      {gate.isShut && (
        <>
          <form className={classes.row} onSubmit={(event) => event.preventDefault()}>
            <QuantityInput
              label="Across the drained bulk"
              unit="Ω"
              limits={[0, 100e6]}
              value={ohms}
              onChange={setOhms}
              onValidity={setValid}
              placeholder="ohms, if read"
            />
            <Button variant="filled" loading={isLoading} disabled={!isValid} onClick={() => void test(false)}>
              Tested: no short
            </Button>
            <Button loading={isLoading} disabled={!isValid} onClick={() => void test(true)}>
              Tested: a short
            </Button>
          </form>
          <form
            className={classes.row}
            onSubmit={(event) => {
              event.preventDefault();
              void overrule();
            }}
          >
            <TextInput
              className={classes.grow}
              label="Or go on without it, because"
              value={reason}
              maxLength={300}
              onChange={(event) => setReason(event.currentTarget.value)}
            />
            <Button type="submit" loading={isLoading} disabled={reason.trim().length < 3}>
              Overrule
            </Button>
          </form>
        </>
      )}
      {!gate.isShut && (
        <div className={classes.row}>
          <Button size="xs" loading={isLoading} onClick={() => void log({ kind: "fuse_blown" })}>
            Fuse blew
          </Button>
          <Button size="xs" loading={isLoading} onClick={() => void log({ kind: "breaker_tripped" })}>
            Breaker tripped
          </Button>
        </div>
      )}
    </section>
  );
}
