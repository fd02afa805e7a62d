import type { BoardPosition } from "../board/board";
import { currentPart, foundPart } from "../board/board";
import { railBand } from "../board/railBand";
import { rippleLimitVolts } from "../board/rippleLimit";
import { sectionFacts } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { latestSigns } from "../facts/visualSigns";
import { judgeDevice } from "../judgement/judgeDevice";
import type { PartJudgement } from "../judgement/verdict";
import { falsifiedBy } from "../readings/falsified";
import { overRangeCode, type Reading, tellingReadings } from "../readings/reading";
import { drainClues } from "./drainClues";
import type { FaultEvidence } from "./explanations";
import { type Finding, isFinding, type TestFinding } from "./findings";
import { capacitorFindings, shuntBelowOhms } from "./findingsOfPart";

const { shortVolts, shortOhms } = tradeConstants.board;
const { openFuseOhms, shortedRailOhms } = tradeConstants.faults;
const { openThermistorOhms, shortedControlOhms, shortedJunctionOhms, openShuntOhms, soundShuntOhms, couplerLampVolts } =
  tradeConstants.faults;

/**
 * What a job's own record says to the fault model: symptoms as told; capacitors as judged; fuse, bridge, transistors and
 * the rest by their readings; rails by their limits; what the drain told. A finding counts as not seen only where every
 * test that would show it was done and was in order; what nobody looked at is not in it.
 */
export function faultEvidence(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  rules: JobRules,
): FaultEvidence {
  const evidence = new Map<Finding, boolean>();
  for (const symptom of facts.symptoms) {
    const finding = symptomFindings[symptom] ?? symptom;
    if (finding !== null && isFinding(finding)) evidence.set(finding, true);
  }
  const note = (finding: TestFinding, isSeen: boolean | null) => {
    if (isSeen === null) return;
    // One that was seen is not unseen by another that is in order.
    evidence.set(finding, isSeen || evidence.get(finding) === true);
  };
  capacitors(facts, judgements, note);
  const standing = tellingReadings(facts.readings);
  for (const position of facts.positions) {
    if (position.kind !== "electrolytic") device(facts, position, standing, note);
  }
  rails(facts, standing, rules, note);
  drains(facts, rules, note);
  joints(facts, note);
  captures(facts, rules, note);
  return evidence;
}

/** A tripped breaker tells the model what a blown fuse does; a residual current is a matter of the way to earth alone. */
const symptomFindings: Readonly<Record<string, Finding | null>> = {
  breaker_tripped: "fuse_blown",
  residual_current_tripped: null,
};

type Note = (finding: TestFinding, isSeen: boolean | null) => void;

function capacitors(facts: JobFacts, judgements: ReadonlyMap<string, PartJudgement>, note: Note): void {
  for (const [section, finding] of Object.entries(capacitorFindings)) {
    const netIds = new Set(facts.nets.filter((net) => net.section === section).map((net) => net.id));
    const own = facts.positions
      .filter((one) => one.kind === "electrolytic" && one.netId !== null && netIds.has(one.netId))
      .map((one) => judgements.get(one.id));
    if (own.length === 0) continue;
    const isBad = own.some((one) => one !== undefined && (one.verdict === "failed" || one.mustReplace));
    if (isBad) note(finding, true);
    else if (own.every((one) => one?.verdict === "sound")) note(finding, false);
  }
}

function device(facts: JobFacts, position: BoardPosition, standing: readonly Reading[], note: Note): void {
  const own = standing.filter((one) => one.targetId === position.id && !one.isPowered);
  const last = (quantity: Reading["quantity"], terminals?: string) =>
    own.filter((one) => one.quantity === quantity && (terminals === undefined || one.terminals === terminals)).at(-1);
  const isOpen = (reading: Reading | undefined, ohms: number = openFuseOhms) =>
    reading ? reading.coarseCode === overRangeCode || (reading.value ?? 0) > ohms : null;
  const isShort = (reading: Reading | undefined, limit: number) =>
    reading ? reading.coarseCode !== overRangeCode && (reading.value ?? Infinity) < limit : null;
  switch (position.kind) {
    case "fuse":
      note("fuse_open", isOpen(last("resistance")));
      return;
    case "ntc":
      note("inrush_limiter_reads_open", isOpen(last("resistance"), openThermistorOhms));
      return;
    case "bridge": {
      const forward = ["L,+", "N,+", "-,L", "-,N"].map((pins) => last("diode_drop", pins));
      const known = forward.filter((one) => one !== undefined);
      if (known.some((one) => isShort(one, shortVolts))) note("bridge_reads_shorted", true);
      else if (known.length === 4) note("bridge_reads_shorted", false);
      if (known.some((one) => one.coarseCode === overRangeCode)) note("bridge_reads_open", true);
      else if (known.length === 4) note("bridge_reads_open", false);
      return;
    }
    case "diode": {
      const drop = last("diode_drop", "A,K");
      note("rectifier_reads_shorted", isShort(drop, shortVolts) ?? isShort(last("resistance"), shortedJunctionOhms));
      note("rectifier_reads_open", drop ? drop.coarseCode === overRangeCode : null);
      return;
    }
    case "transistor": {
      const section = facts.nets.find((net) => net.id === position.netId)?.section;
      const finding = section === "pfc" ? "boost_switch_reads_shorted" : "switch_reads_shorted";
      const pairs = ["D,S", "D,G", "G,S"].map((pins) => isShort(last("resistance", pins), shortOhms));
      if (pairs.includes(true)) note(finding, true);
      else if (pairs[0] === false) note(finding, false);
      return;
    }
    case "resistor": {
      const reading = last("resistance");
      if (position.markedOhms !== null && position.markedOhms >= shuntBelowOhms) {
        const verdict = judgeDevice(position, facts)?.verdict;
        if (verdict === "failed" || verdict === "sound") note("gate_parts_read_wrong", verdict === "failed");
        return;
      }
      // A shunt is small when sound: an open one is a finding, any other value needs its marking.
      if (isOpen(reading, openShuntOhms)) note("shunt_reads_open", true);
      else if (isShort(reading, soundShuntOhms)) note("shunt_reads_open", false);
      return;
    }
    case "ic":
      note("control_ic_reads_shorted", isShort(last("resistance"), shortedControlOhms));
      controlSupply(facts, position, note);
      return;
    case "optocoupler": {
      const drop = last("diode_drop");
      if (drop)
        note(
          "coupler_or_reference_bad",
          drop.value === null || drop.value < couplerLampVolts.low || drop.value > couplerLampVolts.high,
        );
      return;
    }
    case "fan": {
      const turned = last("observation");
      if (turned) note("fan_found_stuck", turned.coarseCode === "turns_hard");
      return;
    }
    case "regulator":
      note("regulator_output_wrong", isShort(last("resistance"), shortOhms) || regulatorIsOff(facts, position));
      return;
    default:
      return;
  }
}

/** Below this a control supply counts as absent. */
const absentSupplyVolts = 3;

/** Least and most of a control chip's supply: only both together say anything. */
function controlSupply(facts: JobFacts, position: BoardPosition, note: Note): void {
  const judgement = judgeDevice(position, facts);
  const live = judgement?.lines.filter((one) => one.test.isLive && one.reading?.value != null) ?? [];
  if (!judgement || live.length < 2) return;
  const most = Math.max(...live.map((one) => one.reading?.value ?? 0));
  note("control_supply_absent", most < absentSupplyVolts);
  note("control_supply_pulses", most >= absentSupplyVolts && judgement.traps.includes("pulses"));
}

/** Whether a regulator's output, least and most, is off its rail; null where nothing was read. */
function regulatorIsOff(facts: JobFacts, position: BoardPosition): boolean | null {
  const live = judgeDevice(position, facts)?.lines.filter((one) => one.test.isLive && one.reading !== null) ?? [];
  if (live.length < 2 || live.some((one) => one.outcome === "doubtful")) return null;
  return live.some((one) => one.outcome === "bad");
}

function rails(facts: JobFacts, standing: readonly Reading[], rules: JobRules, note: Note): void {
  for (const net of facts.nets) {
    if (sectionFacts[net.section].isMainsSide) continue;
    const own = standing.filter((one) => one.targetKind === "rail" && one.targetId === net.id);
    const ohms = own.filter((one) => one.quantity === "resistance").at(-1);
    if (ohms?.value != null) note("rail_reads_shorted", ohms.value < shortedRailOhms);
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
      note("rail_too_high", Math.abs(idle) > most);
      note("rail_too_low", Math.abs(idle) < least);
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

function joints(facts: JobFacts, note: Note): void {
  for (const position of facts.positions) {
    const part = currentPart(facts.fittedParts, position.id) ?? foundPart(facts.fittedParts, position.id);
    if (part && latestSigns(facts.signs, part.id).cracked_joint === "seen") note("joint_seen_cracked", true);
  }
}
