import type { BoardPosition } from "../board/board";
import { currentPart, foundPart } from "../board/board";
import { railBand } from "../board/railBand";
import { rippleLimitVolts } from "../board/rippleLimit";
import { isRegulator, type Section, sectionFacts } from "../board/sections";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { latestSigns } from "../facts/visualSigns";
import type { PartJudgement } from "../judgement/verdict";
import { falsifiedBy } from "../readings/falsified";
import { isInCircuit, isReadOpen, overRangeCode, type Reading, tellingReadings } from "../readings/reading";
import { deviceEvidence, type Note } from "./deviceEvidence";
import { drainClues } from "./drainClues";
import type { FaultEvidence, SoftEvidence } from "./explanations";
import { type Finding, isFinding, type TestFinding } from "./findings";
import { capacitorFindings, findingsOfPart } from "./findingsOfPart";
import { historyCodes } from "./symptoms";

const { shortedRailOhms, shortedBulkOhms, clearBulkOhms, openBulkRatio } = tradeConstants.faults;
const { runsFromRatio, runsToRatio, unboostedVolts, unloadedHighRatio, loadedFromRatio, mostSoftFactor } =
  tradeConstants.faults;

/** What a job says of each finding: surely seen or not; and, where parts only make it likely, by what factor. */
export interface JobEvidence {
  readonly evidence: FaultEvidence;
  readonly soft: SoftEvidence;
}

/**
 * What a job's own record says to the fault model: the counter's checks and what the output stood at; symptoms as told;
 * capacitors and all other parts as judged; rails by their limits; what the drain told; and that it runs. A finding counts
 * as not seen only where every test that would show it was done and was in order; what nobody looked at is not in it.
 */
export function jobEvidence(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  rules: JobRules,
): JobEvidence {
  const evidence = new Map<Finding, boolean>();
  const soft = new Map<Finding, number>();
  for (const symptom of facts.symptoms) {
    const finding = symptomFindings[symptom] ?? symptom;
    if (!historyCodes.includes(symptom) && isFinding(finding)) evidence.set(finding, true);
  }
  const note = (finding: TestFinding, isSeen: boolean | null) => {
    if (isSeen === null) return;
    // One that was seen is not unseen by another that is in order.
    evidence.set(finding, isSeen || evidence.get(finding) === true);
  };
  // Somebody looked at the fuse already.
  if (facts.symptoms.includes("fuse_blown")) note("fuse_open", true);
  counter(facts, note);
  capacitors(facts, judgements, note, soft);
  const standing = tellingReadings(facts.readings);
  otherParts(facts, standing, note);
  rails(facts, standing, rules, note);
  drains(facts, rules, note);
  seen(facts, note);
  captures(facts, rules, note);
  running(facts, evidence, note);
  for (const finding of soft.keys()) if (evidence.has(finding)) soft.delete(finding);
  return { evidence, soft };
}

/** Other parts by their own tests. What several of them could show is not seen only once each of these was tested and in order. */
function otherParts(facts: JobFacts, standing: readonly Reading[], note: Note): void {
  const told = new Map<TestFinding, { isSeen: boolean; count: number }>();
  const able = new Map<TestFinding, number>();
  for (const position of facts.positions.filter((one) => one.kind !== "electrolytic")) {
    const section = facts.nets.find((net) => net.id === position.netId)?.section;
    const own = new Map<TestFinding, boolean>();
    deviceEvidence(facts, position, standing, (finding, isSeen) => {
      if (isSeen !== null) own.set(finding, isSeen || own.get(finding) === true);
    });
    for (const finding of new Set([...findingsOfPart(position, section), ...own.keys()])) {
      able.set(finding, (able.get(finding) ?? 0) + 1);
    }
    for (const [finding, isSeen] of own) {
      const before = told.get(finding) ?? { isSeen: false, count: 0 };
      told.set(finding, { isSeen: before.isSeen || isSeen, count: before.count + 1 });
    }
  }
  for (const [finding, { isSeen, count }] of told) {
    if (isSeen || count >= (able.get(finding) ?? 0)) note(finding, isSeen);
  }
}

/** The sure part of it. */
export function faultEvidence(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  rules: JobRules,
): FaultEvidence {
  return jobEvidence(facts, judgements, rules).evidence;
}

/** A residual current and a tingle are a matter of the way to earth alone: no fault of the model, and never explained away. */
const symptomFindings: Readonly<Record<string, Finding>> = { residual_current_tripped: "", tingle: "" };

/** What the counter tried: lead, switch, output lead, another supply, the load on a bench supply. */
function counter({ intake }: JobFacts, note: Note): void {
  const { leadAndFuse, rearSwitch, outputLead, swap, benchFeed, lamps, rangeSwitch } = intake.checks;
  if (leadAndFuse === "good" && rearSwitch !== "bad") note("lead_checked_good", true);
  if (rangeSwitch !== undefined && rangeSwitch !== null) note("range_switch_checked_bad", rangeSwitch === "bad");
  if (outputLead === "good") note("output_lead_checked_good", true);
  if (outputLead === "bad") note("output_lead_checked_bad", true);
  if (lamps === "good") note("light_tested_good", true);
  if (lamps !== undefined && lamps !== null) note("light_tested_bad", lamps === "bad");
  // Another supply in its place: the load works with it, or does not.
  if (swap === "good" || benchFeed === "good") {
    note("load_fed_well", true);
    note("bench_supply_feeds_load_badly", false);
  }
  if (swap === "bad" || benchFeed === "bad") note("bench_supply_feeds_load_badly", true);
}

function capacitors(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  note: Note,
  soft: Map<Finding, number>,
): void {
  for (const [section, finding] of Object.entries(capacitorFindings)) {
    const netIds = new Set(facts.nets.filter((net) => net.section === section).map((net) => net.id));
    const places = facts.positions.filter(
      (one) => one.kind === "electrolytic" && one.netId !== null && netIds.has(one.netId),
    );
    const own = places.map((one) => judgements.get(one.id));
    if (own.length === 0) continue;
    // One that reads a short tells of the short: its ESR and C mean nothing then.
    const isShorted = (one: PartJudgement) => one.ledger.some(({ code }) => code === "short_resistance");
    const isBad = own.some(
      (one) => one !== undefined && (one.mustReplace || (one.verdict === "failed" && !isShorted(one))),
    );
    if (isBad) note(finding, true);
    else if (own.every((one) => one?.verdict === "sound")) note(finding, false);
    else likely(own, finding, soft);
    if (section === "bulk" || section === "pfc") bulks(facts, places, own, section, note);
    if (isRegulator(section as Section)) {
      const isLeaky = own.some((one) => (one?.leakProbability ?? 0) > 0.5);
      if (isLeaky) note("regulator_capacitor_leaky", true);
    }
  }
}

/** Parts that were read without a last word: together they make it so much likelier or less likely than before. */
function likely(own: readonly (PartJudgement | undefined)[], finding: Finding, soft: Map<Finding, number>): void {
  const known = own.filter((one) => one?.failedProbability != null);
  if (known.length === 0) return;
  const prior = judgementConstants.B.prior_fail;
  const none = (chance: (one: PartJudgement | undefined) => number) =>
    own.reduce((product, one) => product * (1 - chance(one)), 1);
  const odds = (free: number) => (1 - free) / free;
  const before = odds(none(() => prior));
  const after = odds(
    Math.max(
      none((one) => one?.failedProbability ?? prior),
      1e-6,
    ),
  );
  const most = mostSoftFactor;
  const factor = Math.min(Math.max(after / before, 1 / most), most);
  soft.set(finding, Math.min(factor, soft.get(finding) ?? Number.POSITIVE_INFINITY));
}

/** A bulk that is shorted, one that is open, and one that has dried are three. */
function bulks(
  facts: JobFacts,
  places: readonly BoardPosition[],
  own: readonly (PartJudgement | undefined)[],
  section: "bulk" | "pfc",
  note: Note,
): void {
  const ids = new Set(places.map((one) => one.id));
  const read = tellingReadings(facts.readings).filter((one) => ids.has(one.targetId) && !one.isPowered);
  const short = section === "bulk" ? "bulk_reads_shorted" : "boost_bulk_reads_shorted";
  const ohms = read.filter((one) => one.quantity === "resistance");
  const isShort = ohms.some((one) => !isInCircuit(one) && one.value !== null && one.value < shortedBulkOhms);
  if (isShort) note(short, true);
  else if (ohms.some((one) => one.coarseCode === overRangeCode || (one.value ?? 0) > clearBulkOhms)) note(short, false);
  if (section !== "bulk") return;
  const isOpen = read.some((one) => {
    if (isInCircuit(one)) return false;
    const part = facts.fittedParts.find((fitted) => fitted.id === one.fittedPartId);
    const left = one.value !== null && part?.capacitanceFarads ? one.value / part.capacitanceFarads : null;
    return isReadOpen(one) || (one.quantity === "capacitance" && left !== null && left < openBulkRatio);
  });
  if (isOpen) note("bulk_reads_open", true);
  else if (read.some((one) => one.quantity === "capacitance" && one.value !== null && !isInCircuit(one))) {
    note("bulk_reads_open", false);
  } else if (own.every((one) => one?.verdict === "sound")) note("bulk_reads_open", false);
}

/** That it runs, or its standby does, at that moment: it speaks hard against all that would have stopped it. */
function running(facts: JobFacts, evidence: FaultEvidence, note: Note): void {
  const isStopped = stopped.some((one) => facts.symptoms.includes(one));
  // What comes and goes ran when it ran.
  if (facts.symptoms.includes("intermittent")) return;
  const isNear = (volts: number, nominal: number) =>
    Math.abs(volts) >= runsFromRatio * Math.abs(nominal) && Math.abs(volts) <= runsToRatio * Math.abs(nominal);
  const outputs = facts.nets.filter((net) => !sectionFacts[net.section].isMainsSide && (net.nominalVolts ?? 0) !== 0);
  const live = tellingReadings(facts.readings).filter(
    (one) => one.targetKind === "rail" && one.quantity === "dc_voltage" && one.isPowered && one.value !== null,
  );
  const runs = (net: (typeof outputs)[number]) =>
    live.some((one) => one.targetId === net.id && isNear(one.value as number, net.nominalVolts as number));
  const main = outputs.filter((net) => net.section !== "standby");
  const received = facts.intake.outputVolts;
  const isMain =
    main.some(runs) || (received !== null && main.some((net) => isNear(received, net.nominalVolts as number)));
  const isToldRunning = !isStopped && runningSymptoms.some((one) => facts.symptoms.includes(one));
  if (isMain || isToldRunning) note("supply_runs", true);
  const isStandby = outputs.some((net) => net.section === "standby" && runs(net));
  if (isMain || isToldRunning || isStandby || (!isStopped && evidence.get("indicator_steady") === true)) {
    note("standby_runs", true);
  }
}

/** What nobody can notice on a unit that does not run, and what tells that it does not. */
const runningSymptoms = [
  ...["hum", "ripple_mains", "ripple_mains_single", "ripple_switching", "collapses_under_load", "fails_under_load"],
  ...[
    "repeated_attempts",
    "cold_start_fails",
    "backlight_drops_out",
    "no_picture",
    "resets",
    "fails_when_warm",
    "drops_after_minutes",
    "dim_or_flickers",
  ],
];
const stopped = ["dead", "fuse_blown", "breaker_tripped", "bang", "ticking", "indicator_pulses"];

function rails(facts: JobFacts, standing: readonly Reading[], rules: JobRules, note: Note): void {
  const outputCount = facts.nets.filter((net) => !sectionFacts[net.section].isMainsSide).length;
  boosted(facts, standing, note);
  for (const net of facts.nets) {
    if (sectionFacts[net.section].isMainsSide) continue;
    const own = standing.filter((one) => one.targetKind === "rail" && one.targetId === net.id);
    const ohms = own.filter((one) => one.quantity === "resistance" && one.value !== null);
    // A later reading that is in order does not undo a short that was found: something was done between.
    if (ohms.length > 0)
      note(
        "rail_reads_shorted",
        ohms.some((one) => (one.value as number) < shortedRailOhms),
      );
    if (net.nominalVolts === null || net.nominalVolts === 0) continue;
    const band = railBand(net, rules.rail, false);
    if (!band) continue;
    const [least, most] = [Math.abs(band.low), Math.abs(band.high)].sort((a, b) => a - b) as [number, number];
    const volts = own.filter(
      (one) => one.quantity === "dc_voltage" && one.isPowered && one.value !== null && falsifiedBy(one) === null,
    );
    const idle = volts.filter((one) => !one.loadAmps).at(-1)?.value;
    const loaded = volts.filter((one) => one.loadAmps).at(-1)?.value;
    if (idle != null) {
      // Of several outputs one is sensed: the others stand high while nothing is drawn.
      const isSensed = net.converter?.isSensed ?? outputCount === 1;
      const isTelling = isSensed || Math.abs(idle) > unloadedHighRatio * most;
      if (Math.abs(idle) <= most || isTelling) note("rail_too_high", Math.abs(idle) > most);
      note("rail_too_low", Math.abs(idle) < least);
    }
    const drawn = volts.filter((one) => one.loadAmps).at(-1)?.loadAmps ?? 0;
    if (loaded != null && net.fullLoadAmps !== null && drawn >= loadedFromRatio * net.fullLoadAmps) {
      if (Math.abs(loaded) > most) note("rail_too_high", true);
    }
    if (loaded != null && (idle == null || Math.abs(idle) >= least)) {
      note("rail_falls_under_load", Math.abs(loaded) < least);
    }
  }
}

function drains(facts: JobFacts, rules: JobRules, note: Note): void {
  for (const store of facts.energyStores) {
    if (store.kind !== "bulk" && store.kind !== "pfc_bulk") continue;
    for (const { code } of drainClues(store, facts.chargeEvents, rules.charge.workingVolts)) {
      if (code === "stays_full") note("bulk_stays_full", true);
      if (code === "zero_from_start") note("bulk_never_charged", true);
    }
  }
}

/** Ripple as captured: each part against the rail's own limit; between a quarter of it and the limit nothing is said. */
function captures(facts: JobFacts, rules: JobRules, note: Note): void {
  for (const { netId, analysis } of facts.captures) {
    const net = facts.nets.find((one) => one.id === netId);
    if (!net || sectionFacts[net.section].isMainsSide) continue;
    const limit = rippleLimitVolts(net, rules.rail);
    if (limit === null || !(limit > 0)) continue;
    const say = (finding: TestFinding, volts: number | undefined) => {
      if (volts === undefined) return;
      if (volts > limit) note(finding, true);
      else if (volts < limit / 4) note(finding, false);
    };
    say("ripple_mains_measured", analysis.doubleMains?.peakToPeak);
    say("ripple_switching_measured", analysis.switching?.peakToPeak);
  }
}

/** Under power a bulk behind a boost stage stands at its own volts, or at the crest of the mains where nothing boosts. */
function boosted(facts: JobFacts, standing: readonly Reading[], note: Note): void {
  const nets = new Set(facts.nets.filter((net) => net.section === "pfc").map((net) => net.id));
  const places = new Set(facts.positions.filter((one) => nets.has(one.netId ?? "")).map((one) => one.id));
  const volts = standing
    .filter(
      (one) =>
        one.quantity === "dc_voltage" && one.value !== null && (nets.has(one.targetId) || places.has(one.targetId)),
    )
    .filter((one) => one.isPowered)
    .at(-1)?.value;
  if (volts == null) return;
  const [least, most] = unboostedVolts;
  if (volts > least) note("boost_volts_not_raised", volts < most);
}

function seen(facts: JobFacts, note: Note): void {
  for (const position of facts.positions) {
    const part = currentPart(facts.fittedParts, position.id) ?? foundPart(facts.fittedParts, position.id);
    const signs = [latestSigns(facts.signs, position.id), ...(part ? [latestSigns(facts.signs, part.id)] : [])];
    if (signs.some((one) => one.cracked_joint === "seen")) note("joint_seen_cracked", true);
    if (signs.some((one) => one.adhesive_brown === "seen")) note("adhesive_or_corrosion_seen", true);
  }
}
