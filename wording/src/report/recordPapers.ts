import type { QuoteAnswerRow, QuoteRow, ReportBlock } from "@pale-cap/contract";
import { beyondConsentMinor, consentOf, lineMinor, quoteTotals } from "@pale-cap/core";
import { moneyText } from "../money";
import { answerWayLabels, answerWordLabels, beyondWords, consentWords, quoteLineWords } from "../quoteWords";
import { list, paragraph, section, table } from "./reportDocument";
import { personName, type ReportModel, shopDay, shopMoment } from "./reportModel";

/** Who accepted a point, and when. */
export function momentOfAcceptance(model: ReportModel, key: string): string {
  const last = model.detail.acceptances.filter((one) => one.key === key).at(-1);
  if (!last) return "";
  const name = personName(model, last.personId);
  return `${name === null ? "" : ` by ${name}`}, ${shopMoment(model, last.acceptedAt)}`;
}

/** Every version of the quote, what was said to each, and work beyond it. */
export function quoteBlocks(model: ReportModel): readonly ReportBlock[] {
  const { detail, houseRules } = model;
  const currency = houseRules["shop.currency"];
  const consent = consentOf<QuoteRow, QuoteAnswerRow>(
    detail.quotes,
    detail.quoteAnswers,
    houseRules["shop.quoteToleranceRatio"],
  );
  const { quote } = consent;
  if (!quote) return [];
  const { netMinor, taxMinor, totalMinor } = quoteTotals(quote.lines, quote.taxRatio);
  const beyond = beyondConsentMinor(consent, totalMinor);
  const history = detail.quotes.map((one, n) => {
    const answers = detail.quoteAnswers.filter((answer) => answer.quoteId === one.id);
    const said = answers.map(
      (answer) =>
        `${answerWordLabels[answer.word]}${answer.limitMinor === null ? "" : ` ${moneyText(answer.limitMinor, currency)}`}, ${answer.byWhom}, ${answerWayLabels[answer.way]}, ${shopDay(model, answer.at)}`,
    );
    const total = moneyText(quoteTotals(one.lines, one.taxRatio).totalMinor, currency);
    return `Version ${n + 1}, ${shopDay(model, one.at)}: ${total}. ${said.length === 0 ? "Not answered." : `Answered: ${said.join("; ")}.`}`;
  });
  return section("Quote and consent", [
    table(
      "Quote",
      ["For", "Price"],
      [
        ...quote.lines.map((line) => [quoteLineWords(line), moneyText(lineMinor(line), currency)]),
        ["Net", moneyText(netMinor, currency)],
        ["Tax", moneyText(taxMinor, currency)],
        ["Together", moneyText(totalMinor, currency)],
      ],
      [1],
    ),
    list(history),
    paragraph(consentWords(consent, currency)),
    beyond === null ? null : paragraph(beyondWords(beyond, currency), "warning"),
  ]);
}

const kinds = {
  label: "label",
  board_top: "board from above",
  board_bottom: "board from below",
  connectors: "connectors",
  opening: "opening",
  other: "photo",
} as const;

/** Photos as they were taken, with the pen marks that lie over them. */
export function photoBlocks(model: ReportModel): readonly ReportBlock[] {
  const photos = model.detail.photos.filter((one) => !one.isRemoved);
  return section(
    "Photos",
    photos.map(({ id, kind, caption, takenAt, widthPixels, heightPixels, marks }) => ({
      ...{ kind: "photo" as const, photoId: id, widthPixels, heightPixels, marks },
      caption: `${caption ?? kinds[kind]}, ${shopMoment(model, takenAt)}`,
    })),
  );
}
