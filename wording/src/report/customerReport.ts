import type { QuoteAnswerRow, QuoteRow, ReportBlock, ReportDocument } from "@pale-cap/contract";
import {
  boardDamages,
  consentOf,
  headlineOf,
  lastAct,
  lastActOf,
  lineMinor,
  loadedRails,
  type PartKind,
  type ProofStep,
  type ProofStepCode,
  proofPlan,
  quoteTotals,
  type WorkKind,
  workChecks,
} from "@pale-cap/core";
import { listWords } from "../boardWords";
import { deviceName } from "../deviceName";
import { faultName } from "../explanationWords";
import { notRepairedTag, outcomeLabels } from "../handOverWords";
import { moneyText } from "../money";
import { answerWayLabels, consentWords, quoteLineWords } from "../quoteWords";
import { durationText } from "../times";
import { countedKind, emptyNow, fittedNow } from "./partWords";
import { railLine } from "./railLine";
import { list, paragraph, section, table } from "./reportDocument";
import { jobNumberText, type ReportModel, shopDay } from "./reportModel";

/** Steps of a proof as somebody reads them who was not there. */
const tested: Readonly<Record<ProofStepCode, string>> = {
  cold_checks: "Short circuits on the outputs, before any power",
  first_power: "First power through a limiter, with every output watched",
  over_voltage: "That no output runs too high, before anything was connected to it",
  unloaded: "Every output without load",
  loaded: "Every output under the load that was promised of it",
  ripple: "How clean the outputs are under load",
  hold_up: "How long it goes on when the mains is gone",
  heat: "How warm it gets under load",
  burn_in: "A longer run under load",
  cold_starts: "Starting again and again, as when it failed",
  in_device: "The fault itself, tried again in the device",
  earth_insulation: "Protective earth and insulation",
};

/** One page in plain words: what the customer needs to understand the repair and to trust it, and nothing that belongs to the bench. */
export function customerReport(model: ReportModel): ReportDocument {
  const { detail, houseRules, outcome } = model;
  const { job } = detail;
  const isClosed = job.handedOverAt !== null;
  return {
    audience: "customer",
    title: `Your repair ${jobNumberText(job.number)}`,
    device: `${deviceName(job)}${job.deviceSerial ? `, serial ${job.deviceSerial}` : ""}`,
    dates: [
      ["Taken in", shopDay(model, job.createdAt)],
      ["Handed over", job.handedOverAt ? shopDay(model, job.handedOverAt) : "not yet"],
      ...(job.warrantyUntil ? [["Warranty until", shopDay(model, job.warrantyUntil)] as const] : []),
    ],
    notices: [
      ...(isClosed ? [] : ["The repair is not finished: this is how it stands."]),
      ...(job.realm === "practice" ? ["A practice job: nobody's unit."] : []),
      ...(outcome === "not_repaired" ? [notRepairedTag] : []),
    ],
    blocks: [
      ...section("What you told us", [paragraph(job.ownersWords ?? job.complaint ?? "No complaint was noted.")]),
      ...section("What we found", found(model)),
      ...section("What we did", done(model)),
      ...testedSections(model),
      ...section("How to care for it", [list(care(model))]),
      ...warranty(model),
      ...price(model),
    ],
    foot: [houseRules["shop.name"], houseRules["shop.contact"]].filter((one) => one !== "").join(" · "),
  };
}

/** What was found, and why it failed: by the model only as surely as it stands. */
function found(model: ReportModel): readonly (ReportBlock | null)[] {
  const { rounds, devices, explanation, detail } = model;
  const bad = new Map<PartKind, number>();
  const add = (kind: PartKind) => bad.set(kind, (bad.get(kind) ?? 0) + 1);
  for (const row of rounds.flatMap((one) => one.rows)) {
    if (row.verdict === "failed" || row.verdict === "worn") add("electrolytic");
  }
  for (const row of devices) if (row.verdict === "failed") add(row.kind);
  const counts = [...bad].map(([kind, count]) => countedKind(kind, count));
  const headline = explanation && headlineOf(explanation.ranking);
  const isLikely =
    headline?.lead && headline.sureness !== "so_far" && (headline.explanation?.contradicted.length ?? 0) === 0;
  const why = detail.job.verdictSummary ?? null;
  const likely = isLikely && headline.lead ? `Most likely cause: ${faultName(headline.lead.code)}.` : null;
  return [
    why !== null ? paragraph(why) : likely ? paragraph(likely) : null,
    paragraph(
      counts.length > 0
        ? `${listWords(counts)} ${counts.length === 1 && /^1 /.test(counts[0] ?? "") ? "was" : "were"} worn, or had failed.`
        : why !== null || likely
          ? "No part was found to have failed by its readings."
          : "Nothing was found to have failed so far.",
    ),
  ];
}

function done(model: ReportModel): readonly (ReportBlock | null)[] {
  const { detail, facts, outcome } = model;
  const fitted = fittedNow(model);
  const kinds = new Map<PartKind, string[]>();
  for (const { kind, designator } of fitted) kinds.set(kind, [...(kinds.get(kind) ?? []), designator]);
  const nameOf = (id: string | null) => detail.positions.find((one) => one.id === id)?.designator ?? "a place";
  const items = [
    ...[...kinds].map(([kind, names]) => `New: ${countedKind(kind, names.length)} (${names.join(", ")}).`),
    ...boardDamages(facts.acts).map(
      ({ positionId, state }) =>
        `The board was damaged at ${nameOf(positionId)}${state === "open" ? " and is not mended." : state === "shown" ? ", mended, and read through afterwards." : "; it was mended, and not shown to hold."}`,
    ),
    ...trimmed(model).map((name) => `The voltage of output ${name} was set anew.`),
    ...(workChecks(facts).some((one) => cleaning.includes(one.kind) && one.doneIds.length > 0)
      ? ["The board was cleaned where it needed it."]
      : []),
    ...(fitted.length === 0 && emptyNow(model).length === 0 && lastAct(facts.ticks) !== null
      ? ["Parts were taken out for a test and put back."]
      : []),
    ...facts.acts.filter((one) => one.kind === "mechanical" && one.note).map((one) => `${one.note}`),
    ...detail.positions
      .filter(({ id }) => lastActOf(facts.acts, "temporary_part", id)?.word === "for_now")
      .map((one) => `The part at ${one.designator} is in for now only.`),
    ...emptyNow(model).map((name) => `${name} was taken out, and its place is empty.`),
  ];
  return [
    outcome === "repaired" ? null : paragraph(`It goes back ${outcomeLabels[outcome]}.`),
    list(items) ?? paragraph("Nothing was changed on the unit."),
  ];
}

const cleaning: readonly WorkKind[] = ["adhesive_scraped", "alloy_cleared", "electrolyte_washed", "dried"];

/** Rails whose trim was turned: a change, though no part was. */
const trimmed = ({ detail, facts }: ReportModel): readonly string[] =>
  detail.nets
    .filter(({ id }) => facts.acts.some((one) => one.kind === "trim_turned" && one.subjectId === id))
    .map((one) => one.name);

/** What was tested and how far, and what was not: a step that did not go through is no test that was passed. */
function testedSections(model: ReportModel): readonly ReportBlock[] {
  const { detail, facts, rules, points, outcome, houseRules } = model;
  const steps = proofPlan(facts, rules);
  const rails = loadedRails(detail.nets).map((net) => railLine(net, model, houseRules["shop.customerReadings"]));
  const through = steps.filter((one) => one.state === "done");
  const others = steps.filter((one) => one.state !== "done");
  const left = [
    ...others.map((one) => `${tested[one.code]}: ${notTested(one)}.`),
    ...(steps.length === 0 && outcome === "repaired" ? ["Nothing was tested after the work."] : []),
    ...rails.filter((one) => !one.isShown).map((one) => one.words),
  ];
  const open = points.length;
  return [
    ...section("What we tested, and how far", [
      list([
        ...through
          .filter((one) => one.code !== "loaded" || rails.length === 0)
          .map((one) => `${tested[one.code]}${howFar(model, one)}.`),
        ...rails.filter((one) => one.isShown).map((one) => one.words),
      ]) ?? paragraph("Nothing was tested."),
    ]),
    ...section("What was not tested, or not as it should be", [
      list(left),
      open > 0
        ? paragraph(
            `${open === 1 ? "One point is" : `${open} points are`} open in the workshop's record; ask us for it.`,
          )
        : null,
    ]),
  ];
}

function notTested({ state, note, count }: ProofStep): string {
  if (state === "failed") return "not within its limits";
  if (note !== null) return `not done, because ${note}`;
  return count && count.done > 0 ? `${count.done} of ${count.wanted}` : "not done";
}

function howFar({ facts }: ReportModel, { code, count }: ProofStep): string {
  if (code === "cold_starts" && count) return `: ${count.done} times`;
  const ran = code === "burn_in" ? lastActOf(facts.acts, "burn_in", null)?.value : null;
  return ran ? `: ${durationText(ran)}` : "";
}

function care({ rounds, outcome, devices }: ReportModel): readonly string[] {
  const isDry = rounds.some((one) => one.rows.some((row) => row.verdict === "failed" || row.verdict === "worn"));
  const hasFan = devices.some((one) => one.kind === "fan");
  if (outcome === "not_repaired" || outcome === "scrapped") return ["Do not use it."];
  return [
    ...(isDry ? ["Heat is what wears such parts: keep its vents free, and air around it."] : []),
    ...(hasFan ? ["Have its fan freed of dust once a year."] : []),
    "If it smells, hisses, smokes or tingles: pull the plug, leave it off, and bring it back.",
    "Do not open it: parts inside stay charged after the plug is out.",
  ];
}

function warranty(model: ReportModel): readonly ReportBlock[] {
  const { detail, outcome, houseRules } = model;
  const { warrantyUntil } = detail.job;
  if (outcome !== "repaired") return section("Warranty", [paragraph("None: the unit was not repaired.")]);
  const names = fittedNow(model).map((one) => one.designator);
  const covered = names.length > 0 ? `the parts fitted (${listWords(names)}) and the same fault` : "the same fault";
  const months = houseRules["shop.warrantyMonths"];
  const span = warrantyUntil
    ? `Until ${shopDay(model, warrantyUntil)}`
    : `For ${months} months from the day it is handed over`;
  return section("Warranty", [
    paragraph(`${span}, on ${covered}: should it come back, the repair is free of charge.`),
    paragraph(
      "It does not reach other parts, the device around the supply, liquid, storm, falls, or work by others. Days in our workshop do not count. Your rights by law stand beside it.",
      "dim",
    ),
  ]);
}

function price({ detail, houseRules }: ReportModel): readonly ReportBlock[] {
  const currency = houseRules["shop.currency"];
  const tolerance = houseRules["shop.quoteToleranceRatio"];
  const consent = consentOf<QuoteRow, QuoteAnswerRow>(detail.quotes, detail.quoteAnswers, tolerance);
  const { quote, answer } = consent;
  if (!quote) return section("Price", [paragraph("No price was noted with this job.")]);
  const { netMinor, taxMinor, totalMinor } = quoteTotals(quote.lines, quote.taxRatio);
  const told = answer ? ` ${answerWayLabels[answer.way]}, ${shopDay({ houseRules }, answer.at)}.` : "";
  return section("Price, as quoted", [
    table(
      "Price",
      ["For", "Price"],
      [
        ...quote.lines.map((line) => [quoteLineWords(line), moneyText(lineMinor(line), currency)]),
        ["Net", moneyText(netMinor, currency)],
        [`Tax ${Number((quote.taxRatio * 100).toFixed(2))} %`, moneyText(taxMinor, currency)],
        ["Together", moneyText(totalMinor, currency)],
      ],
      [1],
    ),
    paragraph(`${consentWords(consent, currency)}${told}`, "dim"),
  ]);
}
