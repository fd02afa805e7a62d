import { Button, TextInput } from "@mantine/core";
import { acceptedReasons, type Problem } from "@pale-cap/contract";
import { dayText, openPointWords } from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { useInTurn } from "../../job/useInTurn";
import { useVerdictLook } from "../../job/useVerdictLook";
import { useSubmit } from "../../outbox/useSubmit";
import { useIsEntryClosed } from "../../ui/closedEntry";
import { Pane, Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./handOver.module.css";
import { useHandOverMutation } from "./handOverApi";

/** What is still open, the report, and closing the job. */
export function HandOverLens() {
  const { detail, openPoints, houseRules } = useJob();
  const { job } = detail;
  const personId = useAppSelector((state) => state.workplace.personId);
  const [handOver, { isLoading }] = useHandOverMutation();
  const [problem, setProblem] = useState<Problem>();
  const inTurn = useInTurn();
  // What leaves the shop: the parts that are in now, not the ones that were found.
  const look = useVerdictLook("current");
  const accepted = acceptedReasons(detail);
  const waiting = openPoints.filter((point) => !accepted.has(point.key));
  const months = houseRules["shop.warrantyMonths"];
  const [minutes, setMinutes, dropMinutes] = useDraft<number | null>(`${job.id} minutes`, job.spentMinutes);
  const [isValid, setValid] = useState(true);

  function close(isReopened: boolean) {
    const body = {
      id: newId(),
      handedOverAt: pageClock.moment(),
      warrantyMonths: months,
      spentMinutes: minutes,
      note: null,
      isReopened,
      version: job.version,
      clockId: pageClock.id,
      personId,
    };
    void inTurn(
      async ({ job: latest }) => {
        const answer = await handOver({ jobId: job.id, body: { ...body, version: latest.version } });
        setProblem(asProblem(answer.error));
        if (answer.data) dropMinutes();
      },
      (problem) => setProblem(problem),
    );
  }

  return (
    <LensLayout
      paneWidth="medium"
      board={<BoardPanel look={look} />}
      pane={
        <Pane
          hasOwnEntries
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
          second={
            <Part title="Closing">
              {job.handedOverAt ? (
                <Button loading={isLoading} onClick={() => close(true)}>
                  Open the job again
                </Button>
              ) : (
                <>
                  <p>
                    Warranty of {months} months from today, by the house rule. The judgement as it stands is kept with
                    the job.
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
                    <span className={text.soft}>Later estimates for this kind are made from it.</span>
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
          }
        >
          <ProblemNote problem={problem} />
          <Part
            title="Open points"
            aside={
              <span className={text.soft}>
                {waiting.length} {job.handedOverAt ? "as things stand now" : "to resolve or accept"}
              </span>
            }
          >
            {openPoints.length === 0 && <p className={text.soft}>None.</p>}
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
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, { problem }] = useSubmit();
  const isClosed = useIsEntryClosed();
  const [reason, setReason, dropReason] = useDraft(`${detail.job.id} accept ${props.pointKey}`, "");
  return (
    <li>
      <div>{props.words}</div>
      {props.reason ? (
        <div className={text.soft}>accepted: {props.reason}</div>
      ) : isClosed ? null : (
        <form
          className={classes.accept}
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim() === "") return;
            const body = {
              id: newId(),
              key: props.pointKey,
              reason: reason.trim(),
              acceptedAt: pageClock.moment(),
              personId,
            };
            void submit({ kind: "acceptance", jobId: detail.job.id, body }).then((isSafe) => isSafe && dropReason());
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
      <ProblemNote problem={problem} />
    </li>
  );
}
