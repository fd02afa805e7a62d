import { Button, NativeSelect, SegmentedControl, TextInput } from "@mantine/core";
import type { QuoteAnswerRow, QuoteRow } from "@pale-cap/contract";
import {
  type AnswerWay,
  answerWays,
  beyondConsentMinor,
  consentOf,
  lineMinor,
  type QuoteAnswerWord,
  type QuoteLine,
  quoteAnswerWords,
  quoteTotals,
} from "@pale-cap/core";
import {
  amountText,
  answerWayLabels,
  answerWordLabels,
  beyondWords,
  consentWords,
  dayText,
  majorAmount,
  minorAmount,
  moneyText,
  quoteLineWords,
} from "@pale-cap/wording";
import Papa from "papaparse";
import { useState } from "react";
import { pageClock } from "../../../api/clock";
import { newId } from "../../../api/newId";
import { useAppSelector } from "../../../app/store/hooks";
import { useSubmit } from "../../../outbox/useSubmit";
import { download } from "../../../ui/download";
import { ProblemNote } from "../../../ui/ProblemNote";
import { QuantityInput } from "../../../ui/QuantityInput";
import text from "../../../ui/text.module.css";
import { useDraft } from "../../../ui/useDraft";
import { useJob } from "../../JobContext";
import classes from "./quote.module.css";
import { useQuoteLines } from "./useQuoteLines";

const dayMilliseconds = 86_400_000;

/** What the repair comes to now, what the customer was told, what the customer said, and whether the work goes beyond it. */
export function QuotePanel({ isFolded = false }: { readonly isFolded?: boolean }) {
  const { detail, houseRules } = useJob();
  const currency = houseRules["shop.currency"];
  const lines = useQuoteLines();
  const taxRatio = houseRules["shop.taxRatio"];
  const now = quoteTotals(lines, taxRatio);
  const consent = consentOf<QuoteRow, QuoteAnswerRow>(
    detail.quotes,
    detail.quoteAnswers,
    houseRules["shop.quoteToleranceRatio"],
  );
  const beyond = beyondConsentMinor(consent, now.totalMinor);
  const number = detail.quotes.length;
  const earlier = detail.job.intakeDetails.quote;
  return (
    <div>
      {number === 0 && earlier.quotedMinor !== null && (
        <p className={text.softLine}>
          Told before versions were kept: {moneyText(earlier.quotedMinor, currency)}
          {earlier.quotedAt && `, ${dayText(earlier.quotedAt)}`}; the answer was {earlier.answer ?? "not noted"}.
        </p>
      )}
      {isFolded ? (
        <details className={classes.earlier}>
          <summary>As it stands: {moneyText(now.totalMinor, currency)}</summary>
          <Lines lines={lines} taxRatio={taxRatio} currency={currency} />
        </details>
      ) : (
        <Lines lines={lines} taxRatio={taxRatio} currency={currency} />
      )}
      <Send lines={lines} totalMinor={now.totalMinor} last={consent.quote} />
      {consent.quote && <Given quote={consent.quote} number={number} />}
      <p className={beyond === null ? text.softLine : text.wrong} role="status">
        {consentWords(consent, currency)}
        {consent.answer &&
          ` ${consent.answer.byWhom}, ${answerWayLabels[consent.answer.way]}, ${dayText(consent.answer.at)}.`}{" "}
        {beyond !== null && beyondWords(beyond, currency)}
      </p>
      {number > 1 && (
        <details className={classes.earlier}>
          <summary>Earlier versions ({number - 1})</summary>
          <ul>
            {detail.quotes.slice(0, -1).map((one, n) => (
              <li key={one.id}>
                Version {n + 1}, {dayText(one.at)}:{" "}
                {moneyText(quoteTotals(one.lines, one.taxRatio).totalMinor, currency)}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

function Lines(props: { readonly lines: readonly QuoteLine[]; readonly taxRatio: number; readonly currency: string }) {
  const { lines, taxRatio, currency } = props;
  const { netMinor, taxMinor, totalMinor } = quoteTotals(lines, taxRatio);
  const sums = [
    ["net", netMinor],
    [`tax ${Number((100 * taxRatio).toFixed(1))} %`, taxMinor],
    ["together", totalMinor],
  ] as const;
  return (
    <table className={`${text.table} ${classes.lines}`} aria-label="What the repair comes to now">
      <tbody>
        {lines.map((line) => (
          <tr key={`${line.kind} ${line.words}`}>
            <td>{quoteLineWords(line)}</td>
            <td className={classes.money}>{moneyText(lineMinor(line), currency)}</td>
          </tr>
        ))}
        {sums.map(([name, minor]) => (
          <tr key={name} className={name === "together" ? classes.total : text.soft}>
            <td>{name}</td>
            <td className={classes.money}>{moneyText(minor, currency)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** One press tells it to the customer: kept as it stands, whatever is changed later. */
function Send(props: {
  readonly lines: readonly QuoteLine[];
  readonly totalMinor: number;
  readonly last: QuoteRow | null;
}) {
  const { lines, totalMinor, last } = props;
  const { detail, houseRules } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, { problem, isLoading }] = useSubmit();
  const currency = houseRules["shop.currency"];
  const isSame = last !== null && JSON.stringify(last.lines) === JSON.stringify(lines);
  const send = () =>
    void submit({
      kind: "quote",
      jobId: detail.job.id,
      body: {
        ...{ id: newId(), lines: [...lines], taxRatio: houseRules["shop.taxRatio"] },
        ...{ validDays: houseRules["shop.quoteDays"], note: null, at: pageClock.moment(), personId },
      },
    });
  return (
    <div className={classes.row}>
      <Button size="sm" disabled={lines.length === 0 || isSame} loading={isLoading} onClick={send}>
        {last === null ? "Quote" : "Quote anew"} {moneyText(totalMinor, currency)}
      </Button>
      <Button
        size="sm"
        variant="subtle"
        disabled={lines.length === 0}
        onClick={() =>
          download(`quote-${detail.job.number}.csv`, csvOf(last?.lines ?? lines, currency), "text/csv;charset=utf-8")
        }
      >
        Lines as a file
      </Button>
      <ProblemNote problem={problem} />
    </div>
  );
}

/** The version that stands, and what the customer said to it: who, how, up to what. */
function Given({ quote, number }: { readonly quote: QuoteRow; readonly number: number }) {
  const { detail, houseRules } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const currency = houseRules["shop.currency"];
  const [submit, { problem, isLoading }] = useSubmit();
  const [word, setWord] = useState<QuoteAnswerWord>("yes");
  const [limitMinor, setLimit] = useState<number | null>(null);
  const [byWhom, setByWhom, dropByWhom] = useDraft(`${detail.job.id} answered by`, "");
  const [way, setWay] = useState<AnswerWay>("phone");
  const until = new Date(Date.parse(quote.at) + quote.validDays * dayMilliseconds).toISOString();
  const isReady = byWhom.trim() !== "" && (word !== "up_to" || limitMinor !== null);
  async function log() {
    const stored = await submit({
      kind: "quoteAnswer",
      jobId: detail.job.id,
      body: {
        ...{ id: newId(), quoteId: quote.id, word, limitMinor: word === "up_to" ? limitMinor : null },
        ...{ byWhom: byWhom.trim(), way, at: pageClock.moment(), personId },
      },
    });
    if (stored) dropByWhom(byWhom);
  }
  return (
    <div>
      <p>
        Version {number} of {dayText(quote.at)}:{" "}
        <b>{moneyText(quoteTotals(quote.lines, quote.taxRatio).totalMinor, currency)}</b>, until {dayText(until)}.
      </p>
      <div className={classes.row}>
        <SegmentedControl
          aria-label="The customer says"
          data={quoteAnswerWords.map((value) => ({ value, label: answerWordLabels[value] }))}
          value={word}
          onChange={(value) => setWord(value as QuoteAnswerWord)}
        />
        {word === "up_to" && (
          <QuantityInput
            label="Limit the customer set"
            isLabelHidden
            size="xs"
            unit=""
            digits={10}
            limits={[0, 1_000_000]}
            placeholder={currency}
            value={limitMinor === null ? null : majorAmount(limitMinor, currency)}
            onCommit={(amount) => setLimit(amount === null ? null : minorAmount(amount, currency))}
          />
        )}
        <TextInput
          aria-label="Who answered"
          size="xs"
          placeholder="who"
          maxLength={80}
          value={byWhom}
          onChange={(event) => setByWhom(event.currentTarget.value)}
        />
        <NativeSelect
          aria-label="How the answer came"
          size="xs"
          data={answerWays.map((value) => ({ value, label: answerWayLabels[value] }))}
          value={way}
          onChange={(event) => setWay(event.currentTarget.value as AnswerWay)}
        />
        <Button size="sm" disabled={!isReady} loading={isLoading} onClick={() => void log()}>
          Log the answer
        </Button>
      </div>
      <ProblemNote problem={problem} />
    </div>
  );
}

/** For whoever keeps the books: one row a line. */
function csvOf(lines: readonly QuoteLine[], currency: string): string {
  const data = lines.map((line) => [
    ...[line.kind, quoteLineWords(line), line.quantity],
    ...[amountText(lineMinor(line), currency), currency],
  ]);
  return Papa.unparse({ fields: ["kind", "line", "quantity", "net", "currency"], data }, { escapeFormulae: true });
}
