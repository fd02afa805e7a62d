import { Button } from "@mantine/core";
import { recordCode } from "@pale-cap/contract";
import {
  type CascadeCheck,
  type FaultRanking,
  headlineOf,
  overVoltageCheck,
  type RecordedChange,
} from "@pale-cap/core";
import { cautions, changeWords, faultName, faultTest, findingWords } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { useLeaveOut } from "../../job/useLeaveOut";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./judge.module.css";

const shownCauses = 4;
const leastShown = 0.05;
const leastMoved = 0.03;

/** What most likely began it, by its chance over all sets of faults; what it took along, what it leaves over, what is to be checked. */
export function FaultsCard() {
  const { explanation: answer } = useJob();
  const headline = answer && headlineOf(answer.ranking);
  if (!answer || !headline) {
    return (
      <Part title="What explains it">
        <p className={text.soft}>
          Symptoms from Intake and readings from Measure are weighed here as soon as there are any.
        </p>
      </Part>
    );
  }
  const { ranking } = answer;
  const causes = [...ranking.firstProbabilities].sort((a, b) => b[1] - a[1]).slice(0, shownCauses);
  return (
    <>
      <Part title="What explains it" aside={<span className={text.soft}>what began it, likeliest first</span>}>
        <ol className={classes.explanations}>
          {!headline.lead && (
            <li>
              <Share chance={ranking.noneProbability} />
              <div>nothing in the supply, by what was told and read so far</div>
            </li>
          )}
          {causes
            .filter(([code, chance]) => chance >= leastShown || code === headline.lead?.code)
            .map(([code, chance]) => (
              <CauseLine key={code} code={code} chance={chance} ranking={ranking} />
            ))}
        </ol>
        <Recorded changes={answer.recorded} ranking={ranking} />
      </Part>
      <Checks checks={answer.checks} />
    </>
  );
}

/** What the shop's closed jobs moved in what is told here; a fault that is out of the question is left away. */
function Recorded(props: { readonly changes: readonly RecordedChange[]; readonly ranking: FaultRanking }) {
  const { record } = useJob().detail;
  const { leave, problem } = useLeaveOut();
  const shown = props.changes.filter(
    ({ fault, defaultProbability, probability }) =>
      (props.ranking.probabilities.get(fault) ?? 0) >= leastShown &&
      Math.abs(probability - defaultProbability) >= leastMoved,
  );
  if (shown.length === 0) return null;
  return (
    <details className={classes.recorded}>
      <summary>
        {shown.length} chance{shown.length === 1 ? "" : "s"} moved by closed jobs of this shop
      </summary>
      <ProblemNote problem={problem} />
      <ul>
        {shown.map((change) => {
          const subject = change.other === null ? change.fault : `${change.fault}>${change.other}`;
          const code = recordCode(change.kind, record?.scopes[change.of] ?? "", subject);
          return (
            <li key={`${change.of} ${code}`}>
              {changeWords(change)}{" "}
              <Button size="compact-sm" onClick={() => leave(code, true)}>
                Leave this out
              </Button>
            </li>
          );
        })}
      </ul>
    </details>
  );
}

function Share({ chance }: { readonly chance: number }) {
  return <span className={classes.share}>{chance < 0.01 ? "under 1 %" : `${Math.round(chance * 100)} %`}</span>;
}

/** One first cause, with the likeliest set that it began. */
function CauseLine(props: { readonly code: string; readonly chance: number; readonly ranking: FaultRanking }) {
  const { code, chance, ranking } = props;
  const set = ranking.explanations.find((one) => one.first.includes(code));
  const followed = set?.faults.filter((one) => !set.first.includes(one)) ?? [];
  const unexplained = set?.unexplained ?? [];
  const contradicted = set?.contradicted ?? [];
  return (
    <li>
      <Share chance={chance} />
      <div>
        <div>{faultName(code)}</div>
        {followed.length > 0 && <div className={text.soft}>took along: {followed.map(faultName).join(", ")}</div>}
        {unexplained.length > 0 && (
          <div className={text.soft}>leaves over: {unexplained.map(findingWords).join(", ")}</div>
        )}
        {contradicted.length > 0 && (
          <div className={classes.against}>
            speaks against it, looked for and not found: {contradicted.map(findingWords).join(", ")}
          </div>
        )}
      </div>
    </li>
  );
}

const stateWords: Readonly<Record<CascadeCheck["state"], string>> = {
  open: "not yet checked",
  cleared: "in order",
  found: "found",
};

/** What a found fault usually takes along: each with how to look for it, and whether that was done. */
function Checks({ checks }: { readonly checks: readonly CascadeCheck[] }) {
  if (checks.length === 0) return null;
  return (
    <Part title="Check as well">
      {checks.some((one) => one.code === overVoltageCheck && one.state === "open") && (
        <Caution>{cautions.overVoltage}</Caution>
      )}
      <ul className={classes.checks}>
        {checks.map((check) => (
          <li key={check.code} data-state={check.state}>
            <div>
              <b>{faultName(check.code)}</b> <span className={text.soft}>because {faultName(check.because)}</span>
            </div>
            <div className={text.soft}>{faultTest(check.code)}</div>
            <span className={classes.state}>{stateWords[check.state]}</span>
          </li>
        ))}
      </ul>
    </Part>
  );
}
