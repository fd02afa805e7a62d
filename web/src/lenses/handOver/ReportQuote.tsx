import type { QuoteAnswerRow, QuoteRow } from "@pale-cap/contract";
import { consentOf, lineMinor, quoteTotals } from "@pale-cap/core";
import { answerWayLabels, consentWords, dayText, moneyText, quoteLineWords } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import text from "../../ui/text.module.css";

/** What the customer was told last, line by line, and what was agreed to; nothing where nothing was told. */
export function ReportQuote() {
  const { detail, houseRules } = useJob();
  const currency = houseRules["shop.currency"];
  const consent = consentOf<QuoteRow, QuoteAnswerRow>(
    detail.quotes,
    detail.quoteAnswers,
    houseRules["shop.quoteToleranceRatio"],
  );
  const { quote, answer } = consent;
  if (!quote) return null;
  const { netMinor, taxMinor, totalMinor } = quoteTotals(quote.lines, quote.taxRatio);
  return (
    <section>
      <h2>
        Quote, version {detail.quotes.length}, {dayText(quote.at)}
      </h2>
      <table className={text.table} aria-label="Quote">
        <tbody>
          {quote.lines.map((line) => (
            <tr key={`${line.kind} ${line.words}`}>
              <td>{quoteLineWords(line)}</td>
              <td>{moneyText(lineMinor(line), currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        {moneyText(netMinor, currency)} net, {moneyText(taxMinor, currency)} tax, together{" "}
        <b>{moneyText(totalMinor, currency)}</b>. {consentWords(consent, currency)}
        {answer && ` ${answer.byWhom}, ${answerWayLabels[answer.way]}, ${dayText(answer.at)}.`}
      </p>
    </section>
  );
}
