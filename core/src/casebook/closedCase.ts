import type { PartKind } from "../board/board";
import type { Section } from "../board/sections";
import type { CapacitorClass } from "../capacitors/capacitorClass";
import { tradeConstants } from "../constants/tradeConstants";
import { deviceProfiles, type Topology } from "../facts/deviceProfiles";
import { type Outcome, outcomes } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import type { VerdictWord } from "../facts/overrules";
import { faultFacts, roundNumber, roundView } from "../facts/rounds";
import {
  ageBandOf,
  anyFault,
  type FaultTallyKind,
  type MadePart,
  makerSubject,
  type RecordLevel,
  seriesSubject,
} from "../facts/shopRecord";
import { latestSigns } from "../facts/visualSigns";
import { isFound, testOf } from "../faults/cascadeChecks";
import { rankExplanations } from "../faults/explanations";
import { jobEvidence } from "../faults/faultEvidence";
import { type FaultKnowledge, faultKnowledge, knowledgeOfBoard } from "../faults/faultKnowledge";
import { type Finding, isTestFinding } from "../faults/findings";
import { gradePart } from "../judgement/gradePart";
import { judgeBoard } from "../judgement/judgeBoard";
import { judgeDevice } from "../judgement/judgeDevice";
import { tunedConstants } from "../judgement/tunedConstants";
import type { PartJudgement } from "../judgement/verdict";
import { inOrder } from "../readings/factMoment";
import { isInCircuit, isReadOpen, type Reading, tellingReadings } from "../readings/reading";

const { otherExplainsFromRatio } = tradeConstants.casebook;

/** What a part that was looked at turned out to be; `unknown`: nothing settled it. */
export type ShownState = "failed" | "worn" | "sound" | "unknown";
/**
 * By what: its own number off the board, a sign that nobody can miss, its standard test, the bank in circuit, or that it was left in a
 * unit that worked with it.
 */
export type ShownBy = "own_reading" | "sign" | "test" | "in_circuit" | "left_in";

/** One place of a closed job, as it came in. */
export interface ClosedPart {
  readonly positionId: string;
  readonly designator: string;
  readonly kind: PartKind;
  readonly section: Section | null;
  readonly series: string | null;
  readonly maker: string | null;
  readonly capacitorClass: CapacitorClass | null;
  readonly capacitanceFarads: number | null;
  readonly ratedVolts: number | null;
  /** Something beside it warms it. */
  readonly isWarmed: boolean;
  readonly shown: ShownState;
  readonly shownBy: ShownBy | null;
  /** Chance of "failed" as the board told it in circuit, before it was off the board; null where nobody read it so. */
  readonly saidProbability: number | null;
  readonly computedVerdict: VerdictWord | null;
  readonly overruledVerdict: VerdictWord | null;
  readonly wasReplaced: boolean;
}

/** What one test told of the cause that was shown in the end. */
export interface TestWorth {
  readonly finding: Finding;
  /** By how many bits it moved the chance of the cause; below 0 where it led away from it. */
  readonly bits: number;
}

/** One thing that a closed job says of the fault knowledge. */
export interface CaseTally {
  readonly kind: FaultTallyKind;
  readonly fault: string;
  readonly other: string | null;
  readonly isSeen: boolean;
}

/** What a closed job leaves behind for those that come after it. */
export interface ClosedCase {
  readonly topology: Topology | null;
  readonly outcome: Outcome | null;
  readonly symptoms: readonly string[];
  /** Faults whose own surest test was done and showed them, on a unit that was repaired by it. */
  readonly causes: readonly string[];
  readonly parts: readonly ClosedPart[];
  readonly tests: readonly TestWorth[];
  readonly tallies: readonly CaseTally[];
}

/**
 * A closed job as the casebook keeps it, judged by its own readings alone: what other jobs said of its like is left out, so
 * that the record cannot confirm itself. Verdicts are those of the units as they came in.
 *
 * A cause counts as shown where its own surest test was done and found it, and the job was closed as repaired: what the model made of
 * it has no say, for it is the model that is to learn. A part counts as what its own numbers off the board say against the school's limits, or a sign, or its
 * standard test; what only its bank said in circuit counts where the verdict was plain. One that nothing settled and that was left
 * in a unit which was closed as working, and did not come back with the same fault, counts as sound: else only bad parts, which
 * are the ones taken off the board, would be counted.
 *
 * @param hasReturnedSame it came back with the same fault: then nothing was shown to be its cause
 */
export function closedCase(facts: JobFacts, rules: JobRules, hasReturnedSame = false): ClosedCase {
  const own: JobFacts = { ...facts, record: null };
  const outcome = outcomeOf(own);
  const topology = own.device.topology ?? deviceProfiles[own.device.kind].topologies[0] ?? null;
  const knowledge = faultKnowledge(topology, own.device.kind);
  const causes = new Set<string>();
  const evidence = new Map<Finding, boolean>();
  const tests: TestWorth[] = [];
  const rounds = Array.from({ length: roundNumber(own.acts) }, (_, n): JudgedRound => {
    const view = roundView(own, n + 1);
    return { view, judgements: judgeBoard(view, rules.judgement) };
  });
  for (const { view, judgements } of rounds) {
    const told = jobEvidence(faultFacts(view), judgements, rules).evidence;
    for (const [finding, isSeen] of told) evidence.set(finding, isSeen || evidence.get(finding) === true);
    if (outcome !== "repaired" || hasReturnedSame) continue;
    const shown = knowledge.filter((fault) => isFound(fault, told)).map((fault) => fault.code);
    for (const code of shown) causes.add(code);
    tests.push(...testWorths(knowledgeOfBoard(knowledge, view), told, shown));
  }
  return {
    ...{ topology, outcome, symptoms: own.symptoms, causes: [...causes], tests },
    parts: closedParts(
      own,
      rounds[0] as JudgedRound,
      rules,
      !hasReturnedSame && (outcome === "repaired" || outcome === "no_fault_found"),
    ),
    tallies: talliesOf(knowledge, causes, evidence),
  };
}

function outcomeOf({ acts }: JobFacts): Outcome | null {
  const last = inOrder(acts.filter((one) => one.kind === "outcome")).at(-1);
  return outcomes.find((one) => one === last?.word) ?? null;
}

/** For each test that was done: the chance of the shown causes with it, against without it. */
function testWorths(
  knowledge: FaultKnowledge,
  evidence: ReadonlyMap<Finding, boolean>,
  causes: readonly string[],
): readonly TestWorth[] {
  const done = [...evidence.keys()].filter(isTestFinding);
  if (causes.length === 0 || done.length < 2) return [];
  const chance = (told: ReadonlyMap<Finding, boolean>) => {
    const { probabilities } = rankExplanations(knowledge, told);
    return causes.reduce((product, code) => product * Math.max(probabilities.get(code) ?? 0, 1e-6), 1);
  };
  const whole = chance(evidence);
  return done.map((finding) => {
    const without = new Map([...evidence].filter(([one]) => one !== finding));
    return { finding, bits: Math.log2(whole / chance(without)) };
  });
}

/** What it says of priors, of what faults show, and of what they take along. */
function talliesOf(
  knowledge: FaultKnowledge,
  causes: ReadonlySet<string>,
  evidence: ReadonlyMap<Finding, boolean>,
): readonly CaseTally[] {
  if (causes.size === 0) return [];
  const faults = new Map(knowledge.map((fault) => [fault.code, fault]));
  const tallies: CaseTally[] = [anyFault, ...causes].map((fault) => ({
    ...{ kind: "prior" as const, fault, other: null },
    isSeen: fault !== anyFault,
  }));
  const isTold = [...evidence.keys()].some((one) => !isTestFinding(one));
  for (const code of causes) {
    const fault = faults.get(code);
    if (!fault) continue;
    for (const finding of Object.keys(fault.shows)) {
      // Where another cause that was shown brings it about as well, it tells nothing of this one.
      const isShared = [...causes].some(
        (other) => other !== code && (faults.get(other)?.shows[finding] ?? 0) >= otherExplainsFromRatio,
      );
      if (isShared) continue;
      const seen = evidence.get(finding);
      // A complaint that was not made counts as not seen; a test that nobody did counts for nothing.
      if (isTestFinding(finding) ? seen === undefined : !isTold) continue;
      tallies.push({ kind: "shows", fault: code, other: finding, isSeen: seen === true });
    }
    for (const other of Object.keys(fault.causes)) {
      const taken = faults.get(other);
      const test = taken ? testOf(taken) : null;
      if (!test || (evidence.get(test) === undefined && !causes.has(other))) continue;
      tallies.push({ kind: "causes", fault: code, other, isSeen: causes.has(other) });
    }
  }
  return tallies;
}

/** A round of the job as it was found, judged by its own readings. */
interface JudgedRound {
  readonly view: JobFacts;
  readonly judgements: ReadonlyMap<string, PartJudgement>;
}

function closedParts(
  facts: JobFacts,
  { view: first, judgements }: JudgedRound,
  rules: JobRules,
  hasWorked: boolean,
): readonly ClosedPart[] {
  const inCircuit = {
    ...first,
    readings: first.readings.filter((one) => one.targetKind !== "part" || isInCircuit(one)),
  };
  const said = judgeBoard({ ...inCircuit, overrules: [] }, rules.judgement);
  const standing = tellingReadings(first.readings);
  const sections = new Map(first.nets.map((net) => [net.id, net.section]));
  const replaced = new Set(
    facts.ticks.filter((tick) => tick.step === "fitted" && tick.isDone).map((tick) => tick.positionId),
  );
  return first.positions.flatMap((position): ClosedPart[] => {
    const part = first.fittedParts.find((one) => one.positionId === position.id && one.origin === "found") ?? null;
    const judgement = judgements.get(position.id) ?? null;
    const device = position.kind === "electrolytic" ? null : judgeDevice(position, first, "found");
    if (!judgement && !device) return [];
    const settled = judgement
      ? shownOfCapacitor(judgement, part, standing, first, rules)
      : shownOfDevice(device?.verdict ?? "not_measured");
    const isLeftIn = hasWorked && !replaced.has(position.id);
    const { shown, shownBy } = settled.shown === "unknown" && isLeftIn ? leftIn : settled;
    const before = said.get(position.id);
    const wasReadInCircuit = standing.some(
      (one) => one.fittedPartId === part?.id && isInCircuit(one) && one.quantity === "esr",
    );
    return [
      {
        ...{ positionId: position.id, designator: position.designator, kind: position.kind },
        section: position.netId === null ? null : (sections.get(position.netId) ?? null),
        ...{
          series: part?.series ?? null,
          maker: (part as MadePart | null)?.maker ?? null,
          capacitorClass: part?.capacitorClass ?? null,
        },
        ...{ capacitanceFarads: part?.capacitanceFarads ?? null, ratedVolts: part?.ratedVolts ?? null },
        isWarmed: position.heatSource !== null,
        ...{ shown, shownBy },
        // What its own number decided is no forecast of it.
        saidProbability: shownBy === "own_reading" && wasReadInCircuit ? (before?.failedProbability ?? null) : null,
        computedVerdict: judgement?.computedVerdict ?? device?.verdict ?? null,
        overruledVerdict: judgement?.overrule?.verdict ?? null,
        wasReplaced: replaced.has(position.id),
      },
    ];
  });
}

const leftIn = { shown: "sound", shownBy: "left_in" } as const;
const nothingShown = { shown: "unknown", shownBy: null } as const;

function shownOfDevice(verdict: VerdictWord): Pick<ClosedPart, "shown" | "shownBy"> {
  if (verdict === "failed" || verdict === "sound" || verdict === "worn") return { shown: verdict, shownBy: "test" };
  return nothingShown;
}

/** Its own numbers against the school's limits first; the chances of a board are what is to be held against them. */
function shownOfCapacitor(
  judgement: PartJudgement,
  part: JobFacts["fittedParts"][number] | null,
  standing: readonly Reading[],
  facts: JobFacts,
  rules: JobRules,
): Pick<ClosedPart, "shown" | "shownBy"> {
  const own = standing.filter((one) => one.fittedPartId === part?.id && !isInCircuit(one) && !one.isPowered);
  if (own.some(isReadOpen)) return { shown: "failed", shownBy: "own_reading" };
  const last = (quantity: Reading["quantity"]) =>
    own.filter((one) => one.quantity === quantity && one.value !== null).at(-1) ?? null;
  const esr = last("esr");
  const farads = last("capacitance");
  const { expected } = judgement;
  if (part && ((esr && expected) || (farads && part.capacitanceFarads))) {
    const { B } = tunedConstants;
    const school = B.schools[rules.judgement.school];
    const esrRatio = esr?.value != null && expected ? esr.value / expected.typicalOhms : null;
    const capacitanceRatio =
      farads?.value != null && part.capacitanceFarads ? farads.value / part.capacitanceFarads : null;
    const grade = gradePart(
      {
        school: rules.judgement.school,
        capacitanceRatio,
        capacitanceUncertaintyRatio: rules.judgement.capacitanceUncertaintyRatio,
        esrOhms: esrRatio === null ? null : (esr?.value ?? null),
        esrUncertaintyRatio: rules.judgement.esrUncertaintyRatio,
        expected: expected ?? { lowOhms: 1, typicalOhms: 1, highOhms: 1 },
        ...{ leakageRatio: null, voltageLossRatio: null, evidence: {} },
        // Told by the numbers alone, from even odds.
        ...{ priorFailed: 0.5, priorWorn: null },
      },
      B,
    );
    if (capacitanceRatio !== null && capacitanceRatio < school.c_f) return { shown: "failed", shownBy: "own_reading" };
    if (grade.failedProbability >= 0.5) return { shown: "failed", shownBy: "own_reading" };
    return { shown: (grade.wornProbability ?? 0) >= 0.5 ? "worn" : "sound", shownBy: "own_reading" };
  }
  const signs = part ? latestSigns(facts.signs, part.id) : {};
  if (signs.vented === "seen" || signs.leak === "seen") return { shown: "failed", shownBy: "sign" };
  const { computedVerdict: word } = judgement;
  if (word === "failed" || word === "worn" || word === "sound") return { shown: word, shownBy: "in_circuit" };
  return nothingShown;
}

/** Under what a closed part counts for later ones of its series; null where it was never shown to be anything. */
export function partSubjects(
  part: Pick<ClosedPart, "shown" | "series" | "maker" | "section" | "designator">,
  ageYears: number | null,
): Readonly<Record<RecordLevel, string | null>> | null {
  if (part.shown === "unknown") return null;
  const band = ageBandOf(ageYears);
  return {
    place: part.designator,
    series: seriesSubject(part, part.section),
    series_age: band && seriesSubject(part, part.section, band),
    maker: makerSubject(part.maker, part.section),
  };
}
