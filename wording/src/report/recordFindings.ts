import type { ReportBlock } from "@pale-cap/contract";
import { type DeviceLine, formatMarkedCapacitance, formatQuantity, standingReadings, type Unit } from "@pale-cap/core";
import { quantityFacts, signLabels } from "../boardWords";
import { partKindLabels } from "../entryWords";
import { ledgerLine } from "../ledgerWords";
import { coarseLabels } from "../probeWords";
import { verdictLabels } from "../verdictWords";
import { list, paragraph, section, table } from "./reportDocument";
import type { ReportModel, ReportRound } from "./reportModel";

/** A value with its unit; nothing where nothing was read. */
export const said = (
  value: number | null | undefined,
  unit: Unit,
  significantDigits = 3,
  keepsZeros = false,
): string => (value == null ? "" : formatQuantity(value, unit, { significantDigits, keepsZeros }).text);

const marked = (farads: number | null) => (farads === null ? "" : formatMarkedCapacitance(farads));

/** What one round found, as it stood when its first new part went in. */
export function findings(round: ReportRound, { rounds, detail }: ReportModel): readonly ReportBlock[] {
  const isOneOfMany = rounds.length > 1;
  const hasSummary = isOneOfMany || detail.job.verdictSummary === null;
  const heads = ["Part", "Rail", "Found", "Seen", "ESR before", "C before", "Judged", "ESR after", "C after"];
  const rows = round.rows.map((row) => [
    row.designator,
    row.rail,
    [marked(row.farads), row.volts === null ? "" : `${row.volts}\u00a0V`].filter(Boolean).join(" "),
    [...row.seen.map((sign) => signLabels[sign]), row.note ?? ""].filter(Boolean).join(", "),
    [said(row.before.esr, "Ω"), row.before.band ? coarseLabels[row.before.band] : ""].filter(Boolean).join(", "),
    marked(row.before.capacitance),
    verdictLabels[row.verdict] +
      (row.overruled
        ? `, by hand: ${row.overruled.reason}; from the readings ${verdictLabels[row.overruled.computed]}`
        : ""),
    row.isReplaced
      ? [said(row.after.esr, "Ω"), row.after.band ? coarseLabels[row.after.band] : ""].filter(Boolean).join(", ") ||
        "not read"
      : "stays in",
    row.isReplaced ? marked(row.after.capacitance) || "not read" : "",
  ]);
  return section(isOneOfMany ? `Round ${round.number}: findings, before and after` : "Findings, before and after", [
    hasSummary && round.summary ? paragraph(round.summary) : null,
    table("Findings", heads, rows, [4, 5, 7, 8]) ?? paragraph("No capacitor was measured or condemned."),
  ]);
}

/** What was found on parts that are no capacitors. */
export function otherParts({ devices }: ReportModel): readonly ReportBlock[] {
  const rows = devices.map((row) => [
    row.designator,
    partKindLabels[row.kind],
    [...row.seen.map((sign) => signLabels[sign]), row.note ?? ""].filter(Boolean).join(", "),
    row.lines.map(deviceLine).join("; "),
    row.verdict === null ? "not measured" : verdictLabels[row.verdict],
    row.after === null
      ? "stays in"
      : row.after === undefined
        ? "replaced, the new one not read"
        : `replaced, the new one reads ${verdictLabels[row.after]}`,
  ]);
  return section("Other parts", [table("Other parts", ["Part", "Kind", "Seen", "Read", "Judged", "Since"], rows)]);
}

function deviceLine({ test, reading }: DeviceLine): string {
  const value = reading?.coarseCode
    ? coarseLabels[reading.coarseCode]
    : said(reading?.value ?? null, quantityFacts[test.quantity].unit);
  return `${test.terminals.replace(",", " to ")} ${value}`.trim();
}

/** What speaks for and against each verdict, in the words in which it was weighed; the last round's stands. */
export function evidence({ detail, rounds, facts }: ReportModel): readonly ReportBlock[] {
  const nameOf = (id: string | null) => detail.positions.find((one) => one.id === id)?.designator;
  const readings = standingReadings(facts.readings);
  const items = detail.positions
    .filter((one) => one.kind === "electrolytic")
    .sort((a, b) => a.designator.localeCompare(b.designator, "en", { numeric: true }))
    .flatMap(({ id, designator }) => {
      const judged = rounds
        .flatMap((one) => one.judgements.get(id) ?? [])
        .filter((one) => one.verdict !== "not_measured");
      return judged.map((judgement) => {
        const neighbours = judgement.bankPositionIds.filter((one) => one !== id).flatMap((one) => nameOf(one) ?? []);
        const lift = nameOf(judgement.leadToLiftId) ?? designator;
        const lines = judgement.ledger.map((entry) => ledgerLine(entry, designator, neighbours, lift));
        const count = readings.filter((one) => one.targetId === id).length;
        const said = lines.map((line) => `${line.title}: ${line.text}`.trim().replace(/[.:]$/, ""));
        return `${designator}, ${verdictLabels[judgement.verdict]}, ${count} ${count === 1 ? "reading" : "readings"}. ${said.join(". ")}.`;
      });
    });
  return section("What each verdict stands on", [list(items)]);
}
