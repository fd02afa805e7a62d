import { Button, Checkbox } from "@mantine/core";
import { acceptedReasons, type Problem } from "@pale-cap/contract";
import { outcomeOf, weightOf } from "@pale-cap/core";
import { dayText, notRepairedTag, outcomeLabels, summaryOf } from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { Allowed } from "../../job/Allowed";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { QuotePanel } from "../../job/panels/quote/QuotePanel";
import { SummaryCard } from "../../job/panels/summary/SummaryCard";
import { TakeBackButton } from "../../job/TakeBackButton";
import { useInTurn } from "../../job/useInTurn";
import { useVerdictLook } from "../../job/useVerdictLook";
import { Caution } from "../../ui/Caution";
import { EntryFieldset } from "../../ui/closedEntry";
import { Pane, Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { FilesPart } from "./FilesPart";
import classes from "./handOver.module.css";
import { useHandOverMutation } from "./handOverApi";
import { LabelsPart } from "./LabelsPart";
import { OpenPoints } from "./OpenPoints";
import { OutcomeChoice } from "./OutcomeChoice";

/** What is still open, the report, and closing the job. */
export function HandOverLens() {
  const { whole, facts, openPoints, houseRules, explanation } = useJob();
  const { detail } = whole;
  const { job } = detail;
  const personId = useAppSelector((state) => state.workplace.personId);
  const [handOver, { isLoading }] = useHandOverMutation();
  const [problem, setProblem] = useState<Problem>();
  const inTurn = useInTurn();
  // What leaves the shop: the parts that are in now, not the ones that were found.
  const look = useVerdictLook();
  const accepted = acceptedReasons(detail);
  const outcome = outcomeOf(facts.acts);
  const isTagged = outcome === "not_repaired" || outcome === "scrapped";
  // An earth is accepted by nobody: with one open the unit leaves as not repaired, or nowhere.
  const waiting = openPoints.filter((point) =>
    weightOf(point.code) === "earth" ? !isTagged : !accepted.has(point.key),
  );
  const months = houseRules["shop.warrantyMonths"];
  const [minutes, setMinutes, dropMinutes] = useDraft<number | null>(`${job.id} minutes`, job.spentMinutes);
  const [isValid, setValid] = useState(true);
  const summary = outcome === "repaired" ? (job.verdictSummary ?? summaryOf(explanation)) : null;
  const [readSummary, setReadSummary] = useDraft<string | null>(`${job.id} summary read`, null);
  const isSummaryRead = summary === null || readSummary === summary;

  function close(isReopened: boolean) {
    const body = {
      id: newId(),
      handedOverAt: pageClock.moment(),
      warrantyMonths: outcome === "repaired" ? months : 0,
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
        if (answer.data) dropMinutes(minutes);
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
            <>
              <Part title="Quote and answer">
                <EntryFieldset>
                  <QuotePanel isFolded />
                </EntryFieldset>
              </Part>
              <div data-leaves>
                <LabelsPart />
                <FilesPart />
              </div>
              <Part title="Closing">
                <Allowed right="hand_over">
                  {job.handedOverAt ? (
                    <>
                      <p className={text.soft}>
                        The unit is back on the counter? That is a job of its own, and it knows this one.
                      </p>
                      <TakeBackButton job={job} size="sm" />{" "}
                      <Button loading={isLoading} onClick={() => close(true)}>
                        Open the job again
                      </Button>
                    </>
                  ) : (
                    <>
                      <p>
                        {outcome === "repaired"
                          ? `Warranty of ${months} months from today, by the house rule.`
                          : `Handed back ${outcomeLabels[outcome]}: no warranty.`}{" "}
                        The judgement as it stands is kept with the job.
                      </p>
                      {outcome === "not_repaired" && <Caution>{notRepairedTag}</Caution>}
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
                      {summary !== null && (
                        <Checkbox
                          mb={8}
                          label="The verdict of the job was read, and says what was found"
                          checked={isSummaryRead}
                          onChange={(event) => setReadSummary(event.currentTarget.checked ? summary : null)}
                        />
                      )}
                      <Button
                        variant="filled"
                        loading={isLoading}
                        disabled={waiting.length > 0 || !isValid || !isSummaryRead}
                        onClick={() => close(false)}
                      >
                        Hand over
                      </Button>
                    </>
                  )}
                </Allowed>
              </Part>
            </>
          }
        >
          <ProblemNote problem={problem} />
          <OutcomeChoice />
          {summary !== null && (
            <EntryFieldset>
              <SummaryCard />
            </EntryFieldset>
          )}
          <OpenPoints points={openPoints} accepted={accepted} />
        </Pane>
      }
    />
  );
}
