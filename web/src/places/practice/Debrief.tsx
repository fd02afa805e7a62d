import { Slider } from "@mantine/core";
import type { BestAct, PracticeResult, PracticeState } from "@pale-cap/contract";
import { type Debrief as DebriefFacts, type DebriefStep, formatQuantity, outsideItem } from "@pale-cap/core";
import {
  actWords,
  breachLabels,
  circuitLabels,
  faultName,
  listWords,
  outsideLabel,
  quantityFacts,
  scoreNote,
} from "@pale-cap/wording";
import { useCallback, useMemo, useState } from "react";
import { Link } from "react-router";
import type { PartLook } from "../../drawing/BoardDrawing";
import { StillBoard } from "../../drawing/StillBoard";
import { useJob } from "../../job/JobContext";
import { Happened } from "../../job/practice/HandsPanel";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./practice.module.css";

/** The supply told again from its end: the thing at the left, what it came to and each step at the right. */
export function Debrief({ practice, result }: { readonly practice: PracticeState; readonly result: PracticeResult }) {
  const { debrief } = result;
  return (
    <div className={classes.debrief}>
      <div>
        <Truth result={result} />
        <section className={classes.panel} aria-label="What it was">
          <h2>What it was</h2>
          <p className={classes.answer}>{result.answer}</p>
          <Said debrief={debrief} />
        </section>
        {practice.events.length > 0 && (
          <section className={classes.panel} aria-label="What came of it">
            <h2>What came of it</h2>
            {practice.events.map((one) => (
              <Happened key={one.sequence} event={one} />
            ))}
          </section>
        )}
      </div>
      <div>
        <Score debrief={debrief} />
        <Replay debrief={debrief} best={result.best} />
        <p className={text.softLine}>
          <Link to="/practice">Another supply</Link> ·{" "}
          <Link to={`/jobs/${practice.jobId}/judge`}>The job as it was</Link>
        </p>
      </div>
    </div>
  );
}

/** The board with the truth, and where the last word missed it. */
function Truth({ result }: { readonly result: PracticeResult }) {
  const { detail, shown } = useJob();
  const said = useMemo(() => new Map(result.debrief.items.map((one) => [one.at, one.badProbability])), [result]);
  const look = useCallback(
    (id: string): PartLook => {
      const at = detail.positions.find((one) => one.id === id)?.designator ?? "";
      const isBad = result.bad[at] === true;
      const p = said.get(at) ?? 0.5;
      if (isBad) return { verdict: "failed", note: p >= 0.5 ? "bad" : "bad, left" };
      return p >= 0.5 ? { verdict: "sound", note: "sound, condemned" } : { verdict: "sound", isFaded: true };
    },
    [detail, result, said],
  );
  return (
    <StillBoard shown={shown} look={look}>
      Crossed: bad. Full: sound, but condemned. Faded: sound, and left in peace.
    </StillBoard>
  );
}

const nameOf = (at: string) => (at === outsideItem ? outsideLabel.toLowerCase() : at);

/** What the last word got right and what it missed, in sentences. */
function Said({ debrief }: { readonly debrief: DebriefFacts }) {
  const { badLeft, soundCondemned, needlessLifts, checksMissed, wrongParts, unproved, items } = debrief;
  const found = items.filter((one) => one.isBad && one.badProbability >= 0.5).map((one) => nameOf(one.at));
  const rows: readonly (readonly [string, readonly string[]])[] = [
    ["Found", found],
    ["Left in, though bad", badLeft.map(nameOf)],
    ["Condemned, though sound", soundCondemned.map(nameOf)],
    ["Leads lifted for nothing", [...new Set(needlessLifts)]],
    ["Not tested, though the fault takes it along", checksMissed.map(faultName)],
    ["New parts that do not fit", wrongParts],
    ["Not read under load afterwards", unproved],
  ];
  return (
    <dl className={classes.said}>
      {rows
        .filter(([, all]) => all.length > 0)
        .map(([label, all]) => (
          <div key={label}>
            <dt>{label}</dt>
            <dd>{listWords(all)}</dd>
          </div>
        ))}
    </dl>
  );
}

function Score({ debrief }: { readonly debrief: DebriefFacts }) {
  const { score, breaches, minutes, bestMinutes } = debrief;
  const told = breaches.filter((one) => one.points > 0);
  return (
    <section className={classes.panel} aria-label="Score">
      <div className={classes.score}>
        <div>
          <span className={classes.total}>{Math.round(score.total)}</span>
          <span className={text.soft}> of 100</span>
        </div>
        <strong data-passed={score.isPassed || undefined}>
          {score.isPassed ? "passed" : score.isFatal ? "not passed: somebody could have been hurt" : "not passed"}
        </strong>
      </div>
      <dl className={classes.figures}>
        <div>
          <dt>what you said fits</dt>
          <dd>
            <span className={text.figure}>{Math.round(100 * score.brierScore)}</span> %
          </dd>
        </div>
        <div>
          <dt>and how surely</dt>
          <dd>
            <span className={text.figure}>{Math.round(100 * score.logScore)}</span> %
          </dd>
        </div>
        <div>
          <dt>minutes of search</dt>
          <dd>
            <span className={text.figure}>{minutes.toFixed(minutes < 10 ? 1 : 0)}</span>, the application's{" "}
            {bestMinutes.toFixed(0)}
          </dd>
        </div>
        <div>
          <dt>taken off</dt>
          <dd>
            <span className={text.figure}>{Math.round(score.penalty)}</span>
          </dd>
        </div>
      </dl>
      {told.length > 0 && (
        <ul className={classes.breaches}>
          {told.map((one) => (
            <li key={one.code}>
              <span className={text.figure}>−{one.points}</span> {breachLabels[one.code]}
              {one.count > 1 && `, ${one.count} times`}
            </li>
          ))}
        </ul>
      )}
      <p className={text.softLine}>{scoreNote}</p>
    </section>
  );
}

interface Row {
  readonly key: string;
  readonly words: string;
  readonly minutes: number;
  readonly bits: number;
  readonly until: number;
  readonly better: string | null;
}

/** Both ways beside each other; the slider goes through their minutes together. */
function Replay({ debrief, best }: { readonly debrief: DebriefFacts; readonly best: readonly BestAct[] }) {
  const { detail } = useJob();
  const own = useMemo(() => rowsOf(debrief.steps), [debrief.steps]);
  const theirs = useMemo(() => rowsOf(best.map(toStep)), [best]);
  const most = Math.max(own.at(-1)?.until ?? 0, theirs.at(-1)?.until ?? 0, 1);
  const [minute, setMinute] = useState(most);
  const suffices = debrief.sufficedAfter;
  return (
    <section className={classes.panel} aria-label="Step by step">
      <h2>Step by step</h2>
      <p className={text.softLine}>
        {suffices === null
          ? "By what was read, the record never lay on the right side for every part."
          : suffices === 0
            ? "Before anything was read the record lay on the right side for every part: no reading was needed to say so, only to know it."
            : suffices < debrief.steps.length
              ? `After step ${suffices} of ${debrief.steps.length} the evidence sufficed for all ${detail.positions.length} parts; what came later only confirmed it.`
              : `The evidence sufficed with the last of ${debrief.steps.length} steps.`}{" "}
        Bits: by how much the doubt about all parts fell. A step may also raise it.
      </p>
      <div className={classes.knob}>
        <span>
          As far as minute <b className={text.figure}>{minute.toFixed(0)}</b>
        </span>
        <Slider
          thumbLabel="As far as minute"
          label={null}
          min={0}
          max={Math.ceil(most)}
          step={1}
          value={minute}
          onChange={setMinute}
        />
      </div>
      <div className={classes.ways}>
        <Way title="Your way" rows={own} minute={minute} suffices={suffices} />
        <Way title="The application's way" rows={theirs} minute={minute} suffices={null} />
      </div>
    </section>
  );
}

const toStep = (one: BestAct): DebriefStep => ({
  ...{ kind: one.kind, isReading: one.what === "reading", at: one.at, terminals: one.terminals, better: null },
  ...{ circuitState: one.circuitState, value: one.value, minutes: one.minutes, bits: one.bits },
});

function rowsOf(steps: readonly DebriefStep[]): readonly Row[] {
  let until = 0;
  return steps.map((step, n) => {
    until += step.minutes;
    const { better } = step;
    return {
      ...{ key: `${n} ${step.kind} ${step.at}`, words: wordsOf(step), minutes: step.minutes, bits: step.bits, until },
      better:
        better &&
        `${quantityFacts[better.quantity as keyof typeof quantityFacts]?.label ?? better.quantity} of ${better.at}, ${circuitLabels[better.circuitState]} (${better.bits.toFixed(2)} bit expected)`,
    };
  });
}

function wordsOf({ kind, isReading, at, terminals, circuitState, value }: DebriefStep): string {
  if (!isReading) return actWords(kind, at);
  const facts = quantityFacts[kind as keyof typeof quantityFacts];
  const shown = value === null ? "open" : facts?.unit ? formatQuantity(value, facts.unit) : String(value);
  const where = circuitState === "in_circuit" || circuitState === null ? "" : `, ${circuitLabels[circuitState]}`;
  return `${at}${terminals ? ` ${terminals}` : ""}: ${facts?.label ?? kind} ${shown}${where}`;
}

function Way(props: {
  readonly title: string;
  readonly rows: readonly Row[];
  readonly minute: number;
  readonly suffices: number | null;
}) {
  const { title, rows, minute, suffices } = props;
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keys
    <div className={classes.way} tabIndex={0}>
      <h3>
        {title} <span className={text.soft}>{(rows.at(-1)?.until ?? 0).toFixed(0)} min</span>
      </h3>
      <table className={`${text.table} ${text.ruled}`} aria-label={title}>
        <TableHead names={["", "What", "bit", "min"]} />
        <tbody>
          {rows.map((row, n) => (
            <tr
              key={row.key}
              data-later={row.until - row.minutes > minute || undefined}
              data-enough={suffices === n + 1 || undefined}
            >
              <td className={text.soft}>{n + 1}</td>
              <td>
                {row.words}
                {row.better && <div className={text.soft}>or: {row.better}</div>}
                {suffices === n + 1 && <div className={text.soft}>here the evidence sufficed</div>}
              </td>
              <td className={text.figure}>{row.bits === 0 ? "" : row.bits.toFixed(2)}</td>
              <td className={text.figure}>{row.minutes === 0 ? "" : row.minutes.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
