import { netsInOrder, type ReportBlock } from "@pale-cap/contract";
import {
  type BeforeAfter,
  beforeAfter,
  type CheckState,
  type HeatCurve,
  heatCurves,
  lastActOf,
  leadOhmsOf,
  outputShares,
  proofOf,
  proofPlan,
  type RailCurve,
  type Reading,
  railBand,
  railCurve,
  rippleLimitVolts,
  runState,
  standingReadings,
  timings,
} from "@pale-cap/core";
import { quantityFacts } from "../boardWords";
import { falsifierWords } from "../firstPowerWords";
import { checkStateLabels } from "../handOverWords";
import { coarseLabels } from "../probeWords";
import {
  droopWords,
  kneeWords,
  proofLimitWords,
  proofReasonWords,
  proofStateLabels,
  proofStepLabels,
  settleWords,
  timingWords,
} from "../proofWords";
import { runKindLabels, runStateLabels, stopWords } from "../runWords";
import { durationText } from "../times";
import { said } from "./recordFindings";
import { heading, list, paragraph, section, table } from "./reportDocument";
import { type ReportModel, shopMoment } from "./reportModel";

/** What shows that the repair holds: steps, rails, charts, times, heat and runs, each with its limits. */
export function proofBlocks(model: ReportModel): readonly ReportBlock[] {
  const parts = [
    ...steps(model),
    ...rails(model),
    ...comparisons(model),
    ...timings(model.facts).map((one) => paragraph(timingWords(one))),
    ...noticed(model),
    ...captured(model),
    ...charts(model),
    ...runs(model),
  ];
  return [heading("Proof"), ...(parts.length > 0 ? parts : [paragraph("Nothing was measured under power.")])];
}

const blocks = (...all: readonly (ReportBlock | null)[]): readonly ReportBlock[] => all.filter((one) => one !== null);

function steps({ facts, rules }: ReportModel): readonly ReportBlock[] {
  const rows = proofPlan(facts, rules).map(({ code, state, reason, note, count }) => [
    proofStepLabels[code],
    `${proofStateLabels[state]}${count ? `, ${count.done} of ${count.wanted}` : ""}`,
    note === null ? proofReasonWords[reason] : `because ${note}`,
    proofLimitWords[code],
  ]);
  return blocks(table("Steps of the proof", ["Step", "State", "Why", "Held against"], rows));
}

/** What is not simply within its limits is said beside the number. */
const isPlain = (state: CheckState) => state === "passed" || state === "no_limit" || state === "not_measured";
const withState = (words: string, state: CheckState) =>
  words === "" || !isPlain(state)
    ? [words, checkStateLabels[words === "" && isPlain(state) ? "not_measured" : state]].filter(Boolean).join(", ")
    : words;

/** Every rail that was promised or read: as it came, and as it is. */
function rails(model: ReportModel): readonly ReportBlock[] {
  const { detail, facts, rules } = model;
  const own = (netId: string) => standingReadings(facts.readings).filter((one) => one.targetId === netId);
  const rows = netsInOrder(detail)
    .filter((net) => net.fullLoadAmps !== null || own(net.id).length > 0)
    .map((net) => {
      const { unloaded, loaded, ripple, loadRegulationRatio, asReceived, voided } = proofOf(net, facts, rules);
      const last = own(net.id).at(-1);
      const before = (quantity: Reading["quantity"]) =>
        asReceived.filter((one) => one.quantity === quantity && one.value !== null).at(-1)?.value ?? null;
      return [
        net.name,
        said(net.fullLoadAmps, "A"),
        said(before("dc_voltage"), "V", 4, true),
        withState(said(unloaded.reading?.value, "V", 4, true), unloaded.state),
        withState(said(loaded.reading?.value, "V", 4, true), loaded.state),
        said(loaded.reading?.loadAmps, "A"),
        said(loadRegulationRatio, "%", 2),
        said(before("ripple_voltage"), "V"),
        withState(said(ripple.reading?.value, "V"), ripple.state),
        said(ripple.high, "V"),
        [
          last ? shopMoment(model, last.measuredAt) : "never read",
          ...voided.slice(0, 1).map(({ by }) => falsifierWords[by]),
        ].join(", "),
      ];
    });
  const heads = [
    ...["Rail", "Promised", "V as it came", "Unloaded", "Loaded", "At", "Regulation", "Ripple as it came"],
    ...["Ripple p-p", "Limit", "Last reading"],
  ];
  return blocks(table("Rails", heads, rows, [1, 2, 5, 6, 7, 9]) ?? paragraph("No rail was measured."));
}

function nameOf(
  { detail }: ReportModel,
  { targetKind, targetId }: Pick<BeforeAfter, "targetKind" | "targetId">,
): string {
  if (targetKind === "unit") return "the unit";
  const place = detail.positions.find((one) => one.id === targetId)?.designator;
  return place ?? detail.nets.find((one) => one.id === targetId)?.name ?? "removed";
}

/** Heat, times and power before the last work and since. */
function comparisons(model: ReportModel): readonly ReportBlock[] {
  const value = (reading: Reading | null) => {
    if (!reading) return "not read";
    const { quantity, temperatureCelsius: ambient } = reading;
    const above =
      quantity === "temperature" && ambient !== null && reading.value !== null
        ? `, ${(reading.value - ambient).toFixed(0)} K above its surroundings`
        : "";
    const load = reading.loadAmps ? ` at ${reading.loadAmps} A` : "";
    return `${said(reading.value, quantityFacts[quantity].unit)}${load}${above}, ${shopMoment(model, reading.measuredAt)}`;
  };
  const rows = beforeAfter(model.facts).map((one) => [
    `${nameOf(model, one)}, ${quantityFacts[one.quantity].label.toLowerCase()}${one.isCaseClosed ? ", case closed" : ""}`,
    value(one.before),
    value(one.after) + (one.afterVoidedBy ? `, ${falsifierWords[one.afterVoidedBy]}` : ""),
  ]);
  return blocks(table("Heat, times and power", ["Heat, times, power", "Before the last work", "Since"], rows));
}

/** What was heard and smelt under power, what it draws, and how long it stands without the mains. */
function noticed({ detail, facts }: ReportModel): readonly ReportBlock[] {
  const seen = standingReadings(facts.readings).filter((one) => one.quantity === "observation" && one.isPowered);
  const words = seen.flatMap((one) => (one.coarseCode ? [coarseLabels[one.coarseCode]] : []));
  const best = outputShares(detail.nets, facts)
    .filter((one) => one.efficiencyRatio !== null)
    .at(-1);
  const holdUp = lastActOf(facts.acts, "hold_up", null)?.value ?? null;
  const ran = lastActOf(facts.acts, "burn_in", null)?.value ?? null;
  return blocks(
    words.length > 0 ? paragraph(`Noticed under power: ${words.join(", ")}.`) : null,
    best
      ? paragraph(
          `Of ${said(best.inputWatts, "W")} in, ${said(best.outputWatts, "W")} come out: ${Math.round(100 * (best.efficiencyRatio ?? 0))} %.`,
        )
      : null,
    holdUp === null ? null : paragraph(`Its outputs stood for ${said(holdUp, "s")} after the mains went, read last.`),
    ran === null ? null : paragraph(`Longest run under load, told last: ${durationText(ran)}.`),
  );
}

/** Ripple as a scope drew it: what of it is there all the time, what are its edges, and through what it was taken. */
function captured(model: ReportModel): readonly ReportBlock[] {
  const { detail } = model;
  const rows = detail.captures.map(({ netId, name, loadAmps, analysis, instrument, rig, measuredAt }) => [
    name,
    detail.nets.find((one) => one.id === netId)?.name ?? "a rail",
    said(loadAmps, "A"),
    said(analysis.quietPeakToPeakVolts, "V"),
    said(analysis.peakToPeakVolts, "V"),
    said(analysis.switching?.frequencyHertz, "Hz"),
    [
      instrument ?? "",
      rig.hasLongGroundLead ? "long ground lead" : "",
      rig.isBandwidthLimited ? "bandwidth limited" : "",
    ]
      .filter(Boolean)
      .join(", "),
    shopMoment(model, measuredAt),
  ]);
  const heads = ["Capture", "Rail", "Load", "Quiet p-p", "With edges", "Switching", "Taken with", "When"];
  return blocks(table("Captured ripple", heads, rows, [2, 3, 4, 5]));
}

/** Volts and ripple over load, heat over time: the curves that the numbers above are points of. */
function charts(model: ReportModel): readonly ReportBlock[] {
  const { detail, facts, rules } = model;
  const found = netsInOrder(detail).flatMap((net): readonly ReportBlock[] => {
    const lead = leadOhmsOf(facts.acts, net.id);
    const curve = railCurve(net, facts, lead);
    if (curve.points.length < 2) return [];
    const band = railBand(net, rules.rail, true);
    const limit = rippleLimitVolts(net, rules.rail);
    const knee = curve.line && kneeWords(curve.line);
    return blocks(
      chart(
        `${net.name}: volts over load`,
        "load in A",
        "volts in V",
        net.name,
        pointsOf(curve, (one) => one.volts),
        band ? [Math.abs(band.low), Math.abs(band.high)] : [],
      ),
      chart(
        `${net.name}: ripple over load`,
        "load in A",
        "ripple in V p-p",
        net.name,
        pointsOf(curve, (one) => one.rippleVolts),
        limit === null ? [] : [limit],
      ),
      curve.droop ? paragraph(droopWords(curve.droop, Math.abs(net.nominalVolts ?? 0), lead !== null)) : null,
      knee ? paragraph(knee) : null,
    );
  });
  const heat = heatCurves(facts).filter((one) => one.points.length > 1);
  const called = (one: HeatCurve) => `${nameOf(model, one)}${one.isCaseClosed ? ", case closed" : ""}`;
  const warmth: readonly ReportBlock[] =
    heat.length === 0
      ? []
      : blocks(
          {
            ...{ kind: "chart", name: "Heat over time", x: "minutes", y: "°C", limits: [] },
            lines: heat.map((one) => ({
              name: called(one),
              points: one.points.map((point) => [point.seconds / 60, point.celsius] as const),
            })),
          },
          list(heat.flatMap((one) => (one.settle ? [`${called(one)}: ${settleWords(one.settle)}`] : []))),
        );
  return [...found, ...warmth];
}

const pointsOf = (curve: RailCurve, of: (point: RailCurve["points"][number]) => number | null) =>
  curve.points.flatMap((point) => {
    const value = of(point);
    return value === null ? [] : [[point.loadAmps, value] as const];
  });

function chart(
  name: string,
  x: string,
  y: string,
  line: string,
  points: readonly (readonly [number, number])[],
  limits: readonly number[],
): ReportBlock | null {
  return points.length < 2 ? null : { kind: "chart", name, x, y, lines: [{ name: line, points }], limits };
}

/** Runs that the instruments drove: how each ended, and what its steps came to. */
function runs(model: ReportModel): readonly ReportBlock[] {
  const { detail } = model;
  const called = (id: string | null) =>
    detail.nets.find((one) => one.id === id)?.name ??
    detail.positions.find((one) => one.id === id)?.designator ??
    "an instrument";
  return model.runs.flatMap(({ plan, begunAt, events, findings, isAttendedOnly }): readonly ReportBlock[] => {
    const { name, stop, isUnconfirmed } = runState(events);
    const title = `${runKindLabels[plan.kind]} of ${shopMoment(model, begunAt)}`;
    const heads = [
      ...["Step", ...plan.rails.map((rail) => called(rail.netId))],
      ...["Ripple", "Drawn", "Comes out", ...plan.spots.map((spot) => called(spot.targetId))],
    ];
    const rows = findings.flatMap((finding, n) =>
      finding === null
        ? []
        : [
            [
              String(n + 1),
              ...finding.rails.map(
                ({ volts, amps }) => `${said(volts, "V", 4, true)} at ${said(Math.max(amps, 0), "A")}`,
              ),
              said(finding.rippleVolts, "V"),
              said(finding.inputWatts, "W"),
              finding.efficiencyRatio === null ? "" : `${Math.round(100 * finding.efficiencyRatio)} %`,
              ...finding.celsius.map((celsius) => said(celsius, "°C")),
            ],
          ],
    );
    return section(
      title,
      blocks(
        paragraph(
          [
            `${runStateLabels[name]}${stop ? `: ${stopWords(stop, called(stop.subjectId))}` : "."}`,
            isUnconfirmed ? "An instrument did not confirm that it was off." : "",
            isAttendedOnly ? "Attended only: an instrument had no limits or no time-out of its own." : "",
          ]
            .filter(Boolean)
            .join(" "),
        ),
        table(title, heads, rows),
      ),
    );
  });
}
