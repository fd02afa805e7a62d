import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import { newId } from "../../api/newId";
import { BoardPanel } from "../../job/BoardPanel";
import { useAppSelector } from "../../job/hooks";
import { useJob } from "../../job/JobContext";
import { useAcceptPointMutation, useHandOverMutation } from "../../job/jobApi";
import { LensLayout } from "../../job/LensLayout";
import { useVerdictLook } from "../../job/useVerdictLook";
import { Pane, Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { dayText } from "../../ui/times";
import { openPointWords } from "../../wording/lensWords";
import classes from "./handOver.module.css";

/** What is still open, the report, and closing the job. */
export function HandOverLens() {
  const { detail, openPoints, houseRules } = useJob();
  const { job } = detail;
  const [handOver, { error, isLoading }] = useHandOverMutation();
  // What leaves the shop: the parts that are in now, not the ones that were found.
  const look = useVerdictLook("current");
  const accepted = new Map(detail.acceptances.map((one) => [one.key, one.reason]));
  const waiting = openPoints.filter((point) => !accepted.has(point.key));
  const months = houseRules["shop.warrantyMonths"];
  const [minutes, setMinutes] = useState<number | null>(job.spentMinutes);
  const [isValid, setValid] = useState(true);

  function close(isReopened: boolean) {
    const body = {
      id: newId(),
      handedOverAt: new Date().toISOString(),
      warrantyMonths: months,
      spentMinutes: minutes,
      note: null,
      isReopened,
    };
    void handOver({ jobId: job.id, body });
  }

  return (
    <LensLayout
      paneWidth="medium"
      board={<BoardPanel look={look} />}
      pane={
        <Pane
          title="Hand over"
          note={
            job.handedOverAt
              ? `Handed over ${dayText(job.handedOverAt)}${job.warrantyUntil ? `, warranty until ${dayText(job.warrantyUntil)}` : ""}.`
              : "“It lights up” closes nothing: each open point is resolved or accepted with a reason."
          }
          actions={
            <Button component={Link} to={`/jobs/${job.id}/report`}>
              Show the report
            </Button>
          }
        >
          <ProblemNote problem={asProblem(error)} />
          <Part title="Open points" aside={<span className={classes.soft}>{waiting.length} to resolve or accept</span>}>
            {openPoints.length === 0 && <p className={classes.soft}>None.</p>}
            <ul className={classes.points}>
              {openPoints.map((point) => (
                <OpenPointLine
                  key={point.key}
                  pointKey={point.key}
                  words={openPointWords(point)}
                  reason={accepted.get(point.key)}
                />
              ))}
            </ul>
          </Part>
          <Part title="Closing">
            {job.handedOverAt ? (
              <Button loading={isLoading} onClick={() => close(true)}>
                Open the job again
              </Button>
            ) : (
              <>
                <p>
                  Warranty of {months} months from today, by the house rule. The judgement as it stands is kept with the
                  job.
                </p>
                <div className={classes.minutes}>
                  <QuantityInput
                    label="Minutes it took"
                    unit=""
                    limits={[0, 6000]}
                    value={minutes}
                    onChange={setMinutes}
                    onValidity={setValid}
                  />
                  <span className={classes.soft}>Later estimates for this kind are made from it.</span>
                </div>
                <Button
                  variant="filled"
                  loading={isLoading}
                  disabled={waiting.length > 0 || !isValid}
                  onClick={() => close(false)}
                >
                  Hand over
                </Button>
              </>
            )}
          </Part>
        </Pane>
      }
    />
  );
}

function OpenPointLine(props: {
  readonly pointKey: string;
  readonly words: string;
  readonly reason: string | undefined;
}) {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.bench.personId);
  const [accept, { error }] = useAcceptPointMutation();
  const [reason, setReason] = useState("");
  return (
    <li>
      <div>{props.words}</div>
      {props.reason ? (
        <div className={classes.soft}>accepted: {props.reason}</div>
      ) : (
        <form
          className={classes.accept}
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim() === "") return;
            const body = {
              id: newId(),
              key: props.pointKey,
              reason: reason.trim(),
              acceptedAt: new Date().toISOString(),
              personId,
            };
            void accept({ jobId: detail.job.id, body });
          }}
        >
          <TextInput
            size="xs"
            aria-label={`Reason to accept: ${props.words}`}
            placeholder="reason, if it stays as it is"
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
          />
          <Button size="xs" type="submit" disabled={reason.trim() === ""}>
            Accept
          </Button>
        </form>
      )}
      <ProblemNote problem={asProblem(error)} />
    </li>
  );
}
