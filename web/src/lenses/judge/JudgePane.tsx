import { capacitorsInOrder } from "@pale-cap/contract";
import { drainClues, entryQuestions, needsReplacement, type PartJudgement, verdictWords } from "@pale-cap/core";
import {
  chanceWords,
  clueMeaningWords,
  drainClueWords,
  entryQuestionWords,
  listWords,
  verdictLabels,
} from "@pale-cap/wording";
import { useMemo } from "react";
import { Link } from "react-router";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { Allowed } from "../../job/Allowed";
import { useJob } from "../../job/JobContext";
import { RippleLinks } from "../../job/panels/RippleLinks";
import { SummaryCard } from "../../job/panels/summary/SummaryCard";
import { useSelectedPosition, useTarget } from "../../job/useTarget";
import { EntryFieldset } from "../../ui/closedEntry";
import { Pane, Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import { DeviceLedger, DeviceOverview } from "./DeviceVerdicts";
import { FaultsCard } from "./FaultsCard";
import classes from "./judge.module.css";
import { Ledger } from "./Ledger";
import { OverruleCard } from "./OverruleCard";
import { RuleNote } from "./RuleNote";

/** The verdicts of the board, and under a selected part everything that speaks for and against it. */
export function JudgePane() {
  const { detail, judgements, devices, houseRules } = useJob();
  const position = useSelectedPosition();
  const judgement = position ? judgements.get(position.id) : undefined;
  const device = position ? devices.get(position.id) : undefined;
  const verdict = judgement?.verdict ?? device?.verdict;
  return (
    <Pane
      hasOwnEntries
      title={
        position && verdict ? (
          <span className={classes.head}>
            <span className={classes.designator}>{position.designator}</span>
            <VerdictGlyph verdict={verdict} size={24} /> {verdictLabels[verdict]}
          </span>
        ) : (
          "Verdicts"
        )
      }
      note={judgement ? <Chances judgement={judgement} /> : device ? "By its standard tests." : <Counts />}
      second={
        <>
          <Overview />
          <DeviceOverview />
          <RippleLinks />
          <p className={text.soft}>
            <Link to="/esr-sheet">Expected ESR, as a sheet for the tester’s lid</Link>
          </p>
          <p className={text.soft}>
            School “{houseRules["judge.school"]}”;{" "}
            {houseRules["judge.inCircuit"] === "condemn_only"
              ? "in circuit condemns, a lifted lead clears"
              : "a bound over the bank clears too"}
            .
          </p>
        </>
      }
    >
      <RuleNote />
      <EntryQuestions />
      {!judgement && !device && (
        <EntryFieldset>
          <SummaryCard />
        </EntryFieldset>
      )}
      {position && judgement && (
        <Ledger judgement={judgement} designator={position.designator} neighbours={neighbours(judgement)} />
      )}
      {position && judgement && (
        <EntryFieldset key={position.id}>
          <Allowed right="overrule">
            <OverruleCard judgement={judgement} designator={position.designator} />
          </Allowed>
        </EntryFieldset>
      )}
      {position && device && <DeviceLedger judgement={device} />}
      <FaultsCard />
      <DrainFindings />
    </Pane>
  );

  function neighbours(of: PartJudgement): string[] {
    return of.bankPositionIds
      .filter((id) => id !== of.positionId)
      .map((id) => detail.positions.find((one) => one.id === id)?.designator ?? "?");
  }
}

/** Entries that equal parts contradict together: asked about, never changed. */
function EntryQuestions() {
  const { detail, facts, rules } = useJob();
  const questions = useMemo(() => entryQuestions(facts, rules.judgement), [facts, rules]);
  if (questions.length === 0) return null;
  const nameOf = (id: string) => detail.positions.find((one) => one.id === id)?.designator ?? "?";
  return (
    <Part title="Entered right?" aside={<span className={text.soft}>a question, nothing is changed</span>}>
      <ul className={classes.clues}>
        {questions.map((one) => (
          <li key={one.kind + one.positionIds.join()}>
            <strong>{listWords(one.positionIds.map(nameOf))}.</strong> {entryQuestionWords(one)}{" "}
            <Link to={`/jobs/${detail.job.id}/inspect`}>Correct it in Inspect</Link>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** What the drain told, offered as evidence: it points at faults, and decides none. */
function DrainFindings() {
  const { facts, rules } = useJob();
  const clues = facts.energyStores.flatMap((store) =>
    drainClues(store, facts.chargeEvents, rules.charge.workingVolts)
      .filter((clue) => clue.code !== "creeps_back")
      .map((clue) => ({ store, clue })),
  );
  if (clues.length === 0) return null;
  return (
    <Part title="What the drain told" aside={<span className={text.soft}>a clue, no verdict</span>}>
      <ul className={classes.clues}>
        {clues.map(({ store, clue }) => (
          <li key={store.id + clue.code}>
            <strong>{store.name}.</strong> {drainClueWords(clue)} {clueMeaningWords(clue.code)}
          </li>
        ))}
      </ul>
    </Part>
  );
}

function Chances({ judgement }: { readonly judgement: PartJudgement }) {
  if (judgement.failedProbability === null || judgement.wornProbability === null)
    return <>No readings that decide anything yet.</>;
  return (
    <>
      {judgement.verdict === "worn"
        ? `worn or worse ${chanceWords(judgement.wornProbability)}, perhaps failed ${chanceWords(judgement.failedProbability)}`
        : `failed ${chanceWords(judgement.failedProbability)}, worn or worse ${chanceWords(judgement.wornProbability)}`}
      {judgement.mustReplace && <strong>; goes out in any case</strong>}
      {judgement.overrule && <strong>; computed {verdictLabels[judgement.computedVerdict]}, overruled</strong>}
    </>
  );
}

function Counts() {
  const { judgements } = useJob();
  const all = [...judgements.values()];
  return (
    <>
      {verdictWords
        .map((word) => [word, all.filter((one) => one.verdict === word).length] as const)
        .filter(([, count]) => count > 0)
        .map(([word, count]) => `${count} ${verdictLabels[word]}`)
        .join(", ") || "Nothing on the board yet."}
    </>
  );
}

function Overview() {
  const { detail, judgements } = useJob();
  const [target, select] = useTarget();
  const rank = (judgement: PartJudgement | undefined) =>
    judgement && needsReplacement(judgement)
      ? 0
      : judgement?.verdict === "worn"
        ? 1
        : judgement?.verdict === "cannot_tell"
          ? 2
          : judgement?.verdict === "not_measured"
            ? 3
            : 4;
  const rows = [...capacitorsInOrder(detail)].sort(
    (a, b) => rank(judgements.get(a.position.id)) - rank(judgements.get(b.position.id)),
  );
  return (
    <Part title="All parts, worst first">
      {rows.length === 0 && (
        <p className={text.soft}>Enter capacitors in Inspect and measure them; the verdicts follow by themselves.</p>
      )}
      <ul className={classes.all}>
        {rows.map(({ position, net }) => {
          const judgement = judgements.get(position.id);
          return (
            <li key={position.id} data-selected={target?.id === position.id || undefined}>
              <button type="button" onClick={() => select({ kind: "part", id: position.id })}>
                <VerdictGlyph verdict={judgement?.verdict ?? "not_measured"} />
                <b>{position.designator}</b>
                <span>{verdictLabels[judgement?.verdict ?? "not_measured"]}</span>
                <span className={text.soft}>{net?.name ?? "no net"}</span>
                <span className={text.figure}>
                  {judgement?.failedProbability != null ? chanceWords(judgement.failedProbability) : ""}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
