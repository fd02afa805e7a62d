import { Button } from "@mantine/core";
import { backupsLeftWords, dayText, erasureWords } from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useCustomerQuery, useEraseMutation } from "../../job/returnApi";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";

/** A customer who asks to be forgotten: what goes is said before it goes, and it goes for good. */
export function ErasureCard() {
  const { job } = useJob().detail;
  const personId = useAppSelector((state) => state.workplace.personId);
  const waiting = useAppSelector((state) => state.outbox.facts.filter((one) => one.jobId === job.id).length);
  const { data } = useCustomerQuery({ jobId: job.id, version: job.version }, { refetchOnMountOrArgChange: true });
  const [erase, { error, isLoading }] = useEraseMutation();
  const [isAsking, setAsking] = useState(false);
  if (!data?.customerId) return null;
  const { customerId, erasedAt, backupsAt } = data;
  if (erasedAt !== null) {
    return (
      <Part title="Customer erased">
        <p>
          On request, {dayText(erasedAt)}. {backupsLeftWords(backupsAt)}
        </p>
      </Part>
    );
  }
  async function eraseNow(): Promise<void> {
    await erase({ jobId: job.id, body: { id: newId(), customerId, personId } });
    setAsking(false);
  }
  return (
    <Part title="If the customer asks to be forgotten">
      <ProblemNote problem={asProblem(error)} />
      {!isAsking && (
        <Button size="compact-sm" onClick={() => setAsking(true)}>
          Erase this customer…
        </Button>
      )}
      {isAsking && (
        <>
          {erasureWords(data).map((one) => (
            <p key={one}>{one}</p>
          ))}
          <p className={text.soft}>{backupsLeftWords(backupsAt)}</p>
          {waiting > 0 && (
            <p className={text.wrong}>
              {waiting} {waiting === 1 ? "entry of this job waits" : "entries of this job wait"} to be stored: first let
              that be done.
            </p>
          )}
          <Button variant="filled" onClick={() => setAsking(false)}>
            Leave it
          </Button>{" "}
          <Button loading={isLoading} disabled={waiting > 0} onClick={() => void eraseNow()}>
            Erase for good
          </Button>
        </>
      )}
    </Part>
  );
}
