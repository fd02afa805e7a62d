import { type BoardPosition, foundPart, type PartKind } from "../board/board";
import { type DeviceTest, deviceTests } from "../board/deviceTests";
import { type Section, sectionFacts } from "../board/sections";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { DeviceKind } from "../facts/deviceKinds";
import { isChosen, type JobFacts } from "../facts/jobFacts";
import type { Finding } from "../faults/findings";
import { findingsOfPart } from "../faults/findingsOfPart";
import { firstSuspects, type Stage } from "../faults/firstSuspects";
import { isEsrContradicted } from "../judgement/contradiction";
import { judgeDevice } from "../judgement/judgeDevice";
import { type ReplacementStrategy, replacementSet } from "../judgement/replacementSet";
import type { PartJudgement } from "../judgement/verdict";
import { entropyBits } from "../numerics/entropyBits";
import { isInCircuit, type QuantityKind, standingReadings } from "../readings/reading";
import { leakTargets } from "./leakTargets";
import { liftedShare, liftingMinutes, type Proposal, type ProposedTarget, probingMinutes } from "./proposal";

const { leastGainBits, chargeWorthFactor } = tradeConstants.measuring;

/**
 * How much of a part's doubt a reading can settle: alone on its net an ESR in circuit condemns but does not clear; in a
 * bank it is shared among the members; a lifted lead settles nearly all; capacitance adds what ESR leaves. Rough shares.
 */
const inCircuitShare = 0.55;
const capacitanceShare = 0.5;
const readAgainShare = 0.3;
const contradictionBits = 0.3;
/** A part that is condemned is asked for no more from here on; one that is doubted from there on is read once more. */
const [sureRatio, readAgainFrom] = [0.9, 0.2];
/** Which stage of a supply a section belongs to, where the symptoms point. */
const stageOf: Readonly<Partial<Record<Section, Stage>>> = {
  bulk: "bulk",
  pfc: "pfc",
  vcc: "control-supply",
  standby: "standby",
  output: "output-capacitors",
  "output-post": "output-capacitors",
  feedback: "feedback",
};

interface Question {
  readonly facts: JobFacts;
  readonly judgements: ReadonlyMap<string, PartJudgement>;
  readonly deviceKind: DeviceKind;
  readonly strategy: ReplacementStrategy;
  /** Whether the mains side is verified now. */
  readonly isChargeVerified: boolean;
  /** What each test would tell about which explanation holds, in bits; absent where nothing was explained. */
  readonly gains?: ReadonlyMap<Finding, number>;
}

/**
 * What to read next: information per minute, worth only what it may change in the plan.
 *
 *     worth = (H(p) x settled share x (1 + suspicion / 4) + information about the explanation) / minutes,   in bits
 *
 * p is the chance that the part has failed as it stands, or the prior. The second term is what the test would tell
 * about which set of faults holds (findingGains), shared among the parts that could show it; suspicion by symptom stands
 * in for it where there is no such ranking. A part that goes out anyway, by itself or by the
 * house's rule, tells nothing that matters and is not proposed. All of these are cold: a lead is lifted only where
 * probing in circuit has said what it can, and a live test is never proposed here. Parts behind a charge that is not
 * verified come after the others. Rough: an order for the hand, no measure of truth.
 *
 * @returns best first
 */
export function nextTargets(question: Question): readonly ProposedTarget[] {
  const { facts, judgements, isChargeVerified } = question;
  const planned = new Set(facts.plans.filter(isChosen).map((plan) => plan.positionId));
  const goesAnyway = new Set([...replacementSet(facts, judgements, question.strategy), ...planned]);
  const { gains } = question;
  const suspicion = gains ? new Map<Section, number>() : suspicionBySection(facts.symptoms, question.deviceKind);
  const sectionOf = (position: BoardPosition) => facts.nets.find((net) => net.id === position.netId)?.section;
  const placed = (position: BoardPosition, proposal: Proposal, told: number): ProposedTarget => {
    const section = sectionOf(position) ?? "other";
    const isChargeOpen = sectionFacts[section].isMainsSide && !isChargeVerified;
    const gainBits = proposal.gainBits * (1 + (suspicion.get(section) ?? 0) / 4) + told;
    return { ...proposal, positionId: position.id, terminals: null, gainBits, isChargeOpen };
  };
  const leaks = leakTargets(facts, judgements, goesAnyway).flatMap(({ positionId, proposal }) => {
    const position = facts.positions.find((one) => one.id === positionId);
    return position ? [placed(position, proposal, 0)] : [];
  });
  const found = facts.positions
    .flatMap((position): ProposedTarget[] => {
      const judgement = judgements.get(position.id);
      const isToConfirm =
        judgement?.computedVerdict === "failed" && judgement.overrule === null && !planned.has(position.id);
      if (!judgement || (goesAnyway.has(position.id) && !isToConfirm)) return [];
      const proposal = bestReading(position, judgement, facts);
      if (!proposal) return [];
      const section = sectionOf(position);
      const sharers = facts.positions.filter((one) => one.kind === "electrolytic" && sectionOf(one) === section).length;
      return [placed(position, proposal, gains ? informationOf(position, section, gains) / Math.max(sharers, 1) : 0)];
    })
    .concat(leaks)
    .concat(deviceTargets(question))
    .filter((one) => one.gainBits > leastGainBits);
  return withDrain(inWorth(found), facts);
}

const worth = ({ gainBits, minutes }: ProposedTarget) => gainBits / minutes;

/** The most telling first; what lies behind an open charge after the others, unless it is worth far more than any of them. */
function inWorth(found: readonly ProposedTarget[]): ProposedTarget[] {
  const free = Math.max(0, ...found.filter((one) => !one.isChargeOpen).map(worth));
  const isLate = (one: ProposedTarget) => Number(one.isChargeOpen && worth(one) < chargeWorthFactor * free);
  return [...found].sort((a, b) => isLate(a) - isLate(b) || worth(b) - worth(a));
}

/** Where what tells most lies behind an open charge, the volts of its store come before it. */
function withDrain(ordered: readonly ProposedTarget[], facts: JobFacts): readonly ProposedTarget[] {
  const [first] = ordered;
  if (!first?.isChargeOpen) return ordered;
  const isStore = (netId: string | null) =>
    facts.nets.some((net) => net.id === netId && (net.section === "bulk" || net.section === "pfc"));
  const store = facts.positions.find((one) => one.kind === "electrolytic" && isStore(one.netId));
  if (!store || first.quantity === "dc_voltage") return ordered;
  const volts = { quantity: "dc_voltage", circuitState: "in_circuit", terminals: null } as const;
  return [{ ...first, ...volts, positionId: store.id }, ...ordered];
}

/** Which stage a part that is no capacitor belongs to. */
const deviceStages: Readonly<Partial<Record<PartKind, Stage>>> = {
  fuse: "input",
  ntc: "input",
  bridge: "bridge",
  transistor: "primary-switch",
  resistor: "primary-switch",
  ic: "control-supply",
  diode: "output-rectifier",
  optocoupler: "feedback",
};
/** Chance that such a part is bad where nothing points to it, and where everything does; a test settles most of it. */
const devicePrior = 0.03;
const suspectedDevicePrior = 0.3;
const deviceShare = 0.8;

/** The first test that was not done of each part in a stage to which the symptoms point. */
function deviceTargets({ facts, deviceKind: kind, isChargeVerified, gains }: Question): readonly ProposedTarget[] {
  const scores = new Map(firstSuspects(facts.symptoms, kind).map((one) => [one.stage, one.score]));
  const most = Math.max(1, ...scores.values());
  return facts.positions.flatMap((position): ProposedTarget[] => {
    const stage = deviceStages[position.kind];
    const suspicion = stage ? (scores.get(stage) ?? 0) / most : 0;
    const test = deviceTests[position.kind]?.find(
      (one) =>
        !one.isLive &&
        !one.isOptional &&
        !facts.readings.some(
          (read) => read.targetId === position.id && (read.terminals ?? "") === one.terminals && !read.isWithdrawn,
        ),
    );
    const told = gains
      ? informationOf(position, facts.nets.find((net) => net.id === position.netId)?.section, gains)
      : 0;
    const doubtful = test ? undefined : doubtfulTest(position, facts);
    if (!(test ?? doubtful) || (suspicion === 0 && told === 0)) return [];
    const section = facts.nets.find((net) => net.id === position.netId)?.section;
    // Without a rail a part may sit on either side: it is treated as the dangerous one.
    const isMainsSide = section ? sectionFacts[section].isMainsSide : true;
    const doubt = entropyBits(devicePrior + (suspectedDevicePrior - devicePrior) * suspicion);
    return [
      {
        positionId: position.id,
        terminals: (test ?? doubtful)?.terminals || null,
        quantity: (test ?? doubtful)?.quantity ?? "resistance",
        circuitState: test ? "in_circuit" : "lead_lifted",
        minutes: test ? probingMinutes : liftingMinutes,
        gainBits: gains ? told * deviceShare : doubt * deviceShare * suspicion,
        isChargeOpen: isMainsSide && !isChargeVerified,
      },
    ];
  });
}

/** A test that was done in circuit and left it open, because something beside the part conducts: with a lead up it tells. */
function doubtfulTest(position: BoardPosition, facts: JobFacts): DeviceTest | undefined {
  const wasLifted = facts.readings.some(
    (one) => one.targetId === position.id && !one.isWithdrawn && !isInCircuit(one) && one.value !== null,
  );
  if (wasLifted) return undefined;
  return judgeDevice(position, facts, "found")?.lines.find((one) => one.outcome === "doubtful" && !one.test.isLive)
    ?.test;
}

/**
 * The next reading of one part: in circuit first, then lifted, then its capacitance while the lead is up. One that is
 * condemned by few numbers is confirmed before it goes: its capacitance, or the number that decided alone once more.
 */
function bestReading(position: BoardPosition, judgement: PartJudgement, facts: JobFacts): Proposal | null {
  if (judgement.verdict === "sound" || judgement.mustReplace) return null;
  // What may leak is asked for by leakTargets: ESR and C say nothing of it.
  const leak = judgement.leakProbability ?? 0;
  const probability =
    judgement.failedProbability === null
      ? judgementConstants.B.prior_fail
      : 1 - (1 - judgement.failedProbability) / Math.max(1 - leak, 1e-9);
  const isCondemned = judgement.verdict === "failed";
  if (isCondemned && probability >= sureRatio) return null;
  const doubt = entropyBits(probability);
  const read = (quantity: QuantityKind, isLifted: boolean, ids: readonly string[]) =>
    facts.readings.filter(
      (one) =>
        one.quantity === quantity && !one.isWithdrawn && ids.includes(one.targetId) && isInCircuit(one) !== isLifted,
    );
  const bank = judgement.bankPositionIds;
  const lifted = read("esr", true, [position.id]);
  if (read("esr", false, bank).length === 0 && lifted.length === 0) {
    const gainBits = (doubt * inCircuitShare) / Math.max(bank.length, 1);
    return { quantity: "esr", circuitState: "in_circuit", minutes: probingMinutes, gainBits };
  }
  if (lifted.length === 0) {
    // What the reading in circuit left open is settled by lifting.
    return { quantity: "esr", circuitState: "lead_lifted", minutes: liftingMinutes, gainBits: doubt * liftedShare };
  }
  const beside = { circuitState: "lead_lifted", minutes: probingMinutes, gainBits: doubt * capacitanceShare } as const;
  if (read("capacitance", true, [position.id]).length === 0) return { ...beside, quantity: "capacitance" };
  if (lifted.length === 1 && isContradicted(position, bank, facts)) {
    return { ...beside, quantity: "esr", gainBits: contradictionBits };
  }
  // Two numbers that leave it open contradict each other, or one of them decided alone: read again, once.
  if (lifted.length === 1 && lifted[0]?.value !== null && probability > readAgainFrom) {
    return { ...beside, quantity: "esr", gainBits: doubt * readAgainShare };
  }
  return null;
}

function isContradicted(position: BoardPosition, bank: readonly string[], facts: JobFacts): boolean {
  const part = foundPart(facts.fittedParts, position.id);
  const readings = standingReadings(facts.readings).filter((one) => bank.includes(one.targetId));
  return part !== undefined && isEsrContradicted(part.id, bank.length, readings);
}

/** What testing a part tells about which explanation holds, by the most telling finding of its tests. */
function informationOf(
  position: BoardPosition,
  section: Section | undefined,
  gains: ReadonlyMap<Finding, number>,
): number {
  return Math.max(0, ...findingsOfPart(position, section).map((finding) => gains.get(finding) ?? 0));
}

function suspicionBySection(symptoms: readonly string[], kind: DeviceKind): ReadonlyMap<Section, number> {
  const scores = new Map(firstSuspects(symptoms, kind).map((one) => [one.stage, one.score]));
  const most = Math.max(1, ...scores.values());
  return new Map(
    Object.entries(stageOf).map(([section, stage]) => [section as Section, (4 * (scores.get(stage) ?? 0)) / most]),
  );
}
