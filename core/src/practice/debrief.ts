import { foundPart } from "../board/board";
import { type Section, sectionFacts } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { JobJudge, type JobJudgement } from "../job/jobJudge";
import { nextTargets } from "../measuring/nextTargets";
import { type ProposedTarget, probingMinutes } from "../measuring/proposal";
import { entropyBits } from "../numerics/entropyBits";
import { inOrder } from "../readings/factMoment";
import type { CircuitState, Reading } from "../readings/reading";
import { itemChances, outsideItem } from "./itemChances";
import type { PracticeSkill, SkillTrials } from "./learner";
import { type PracticeBreach, practicePenalties } from "./penalties";
import { type PracticeScore, practiceScore } from "./practiceScore";

const { weights, knownRatio, provedLoadRatio, fittedFromRatio, fittedToRatio } = tradeConstants.practice;

/** Something that hands did, in the shop's one order beside the readings. */
export interface PracticeAct {
  readonly sequence: number;
  readonly kind: string;
  /** Designator or net. */
  readonly at: string | null;
  readonly minutes: number;
  /** With `fit`: what went in. */
  readonly fitted: {
    readonly capacitanceFarads: number;
    readonly ratedVolts: number;
    readonly isReversed: boolean;
  } | null;
  /** With `hint`: which step of it. */
  readonly hintLevel: number | null;
}

export interface DebriefQuestion {
  /** Of the practice job, as it ended. */
  readonly facts: JobFacts;
  readonly rules: JobRules;
  /** By designator, and whatever is around the supply. */
  readonly truth: ReadonlyMap<string, boolean>;
  /** The learner's last word, likewise. What is not in it counts as a coin. */
  readonly answer: ReadonlyMap<string, number>;
  readonly acts: readonly PracticeAct[];
  /** What came of it on the bench. */
  readonly events: readonly { readonly code: string; readonly at: string | null }[];
  readonly bestMinutes: number;
  /** Points at which it counts as passed. */
  readonly passMark?: number;
}

/** One line of what was done: what it cost, and by how much the doubt about all parts fell. */
export interface DebriefStep {
  readonly kind: string;
  readonly isReading: boolean;
  readonly at: string | null;
  readonly terminals: string | null;
  readonly circuitState: CircuitState | null;
  readonly value: number | null;
  readonly minutes: number;
  readonly bits: number;
  /** What the application would have read instead, with what it expected of it; null where it had nothing to propose. */
  readonly better: {
    readonly at: string;
    readonly quantity: string;
    readonly circuitState: CircuitState;
    readonly bits: number;
  } | null;
}

export interface DebriefItem {
  readonly at: string;
  readonly badProbability: number;
  readonly isBad: boolean;
}

export interface Debrief {
  readonly steps: readonly DebriefStep[];
  readonly minutes: number;
  readonly bestMinutes: number;
  /** After which step everything lay on the right side and stayed there; null: it never did. */
  readonly sufficedAfter: number | null;
  readonly items: readonly DebriefItem[];
  readonly soundCondemned: readonly string[];
  readonly badLeft: readonly string[];
  readonly needlessLifts: readonly string[];
  /** Faults that a found one may have taken along and nobody tested for. */
  readonly checksMissed: readonly string[];
  readonly wrongParts: readonly string[];
  /** Outputs of a mended supply that were never read under load. */
  readonly unproved: readonly string[];
  readonly breaches: readonly { readonly code: PracticeBreach; readonly count: number; readonly points: number }[];
  readonly score: PracticeScore;
  readonly skills: SkillTrials;
}

/** Acts by which a supply is mended: their minutes are no search. */
const repairs = ["fit", "renew", "resolder", "clean", "mend"];
/** A store was charged, or emptied. */
const meetingCharge = ["mains_on", "drain"];
/** The safety of these belongs to draining. */
const drainBreaches: readonly string[] = ["live_touch", "meter_killed"];

/**
 * A practice supply told again from its end: each act with what it cost and taught, when the evidence sufficed, what was needless,
 * missed and passed by, and the score. What an act taught is the fall of the doubt over all parts as the application judges them
 * (sum of their entropies before minus after): a wrong turn may raise it. Minutes are those of the search: mending and waiting for a
 * charge are left out.
 */
export function debrief(question: DebriefQuestion): Debrief {
  const { facts, truth, answer, acts } = question;
  const idOf = new Map(facts.positions.map((one) => [one.designator, one.id]));
  const course = courseOf(question);
  const items = [...truth].map(([at, isBad]) => ({ at, isBad, badProbability: answer.get(at) ?? 0.5 }));
  const soundCondemned = items.filter((one) => !one.isBad && one.badProbability >= 0.5 && answer.has(one.at));
  const badLeft = items.filter((one) => one.isBad && one.badProbability < 0.5);
  const isRepaired = acts.some((one) => repairs.includes(one.kind));
  const isToMend = [...truth].some(([at, isBad]) => isBad && at !== outsideItem);
  const checksMissed = (course.last.explanation?.checks ?? [])
    .filter((one) => one.state === "open")
    .map((one) => one.code);
  const isCascade = [...truth].filter(([at, isBad]) => isBad && !at.startsWith("C") && at !== outsideItem).length > 1;
  const missed = isCascade ? checksMissed : [];
  const wrongParts = acts.flatMap((one) => (isWrongPart(one, facts, idOf) ? [one.at ?? ""] : []));
  const unproved = isToMend && isRepaired ? unprovedRails(facts, acts) : [];
  const counts: Record<string, number> = {};
  const count = (code: PracticeBreach, by = 1) => {
    if (by > 0) counts[code] = (counts[code] ?? 0) + by;
  };
  for (const { code } of question.events) if (Object.hasOwn(practicePenalties, code)) count(code as PracticeBreach);
  for (const { hintLevel } of acts) if (hintLevel !== null) count(`hint_${hintLevel}` as PracticeBreach);
  count("sound_condemned", soundCondemned.length);
  count("bad_left", badLeft.length);
  count("needless_lift", course.needlessLifts.length);
  count("check_missed", missed.length);
  count("wrong_part", wrongParts.length);
  count("proof_left", unproved.length);
  const minutes = Math.max(course.minutes, probingMinutes);
  const score = practiceScore({
    ...{ items, minutes, bestMinutes: question.bestMinutes, weights, penalties: practicePenalties },
    violations: Object.entries(counts).map(([code, total]) => ({ code, count: total })),
    ...(question.passMark === undefined ? {} : { passMark: question.passMark }),
  });
  return {
    ...{ steps: course.steps, minutes, bestMinutes: question.bestMinutes, sufficedAfter: course.sufficedAfter, items },
    soundCondemned: soundCondemned.map((one) => one.at),
    badLeft: badLeft.map((one) => one.at),
    ...{ needlessLifts: course.needlessLifts, checksMissed: missed, wrongParts, unproved, score },
    breaches: Object.entries(counts)
      .map(([code, total]) => ({
        ...{ code: code as PracticeBreach, count: total },
        points: total * practicePenalties[code as PracticeBreach],
      }))
      .sort((a, b) => b.points - a.points),
    skills: skillsOf({ question, counts, isCascade, isRepaired, isToMend, needless: course.needlessLifts.length }),
  };
}

interface Course {
  readonly steps: readonly DebriefStep[];
  readonly minutes: number;
  readonly sufficedAfter: number | null;
  readonly needlessLifts: readonly string[];
  readonly last: JobJudgement;
}

/** The acts and readings once more in their order, judged after each. */
function courseOf({ facts, rules, truth, acts }: DebriefQuestion): Course {
  const designatorOf = new Map(facts.positions.map((one) => [one.id, one.designator]));
  const named = (chances: ReadonlyMap<string, number>) =>
    new Map([...chances].map(([id, p]) => [designatorOf.get(id) ?? id, p]));
  const start: JobFacts = { ...facts, readings: [], signs: [] };
  const judge = new JobJudge(start, rules);
  let judged = judge.judge();
  let known: JobFacts = start;
  let chances = named(itemChances(known, judged));
  let doubt = doubtOf(chances);
  const isRight = () => [...truth].every(([at, isBad]) => (chances.get(at) ?? 0) >= 0.5 === isBad);
  let suffices = isRight();
  let sufficedAfter: number | null = suffices ? 0 : null;
  const signs = inOrder(facts.signs);
  const rows = [
    ...inOrder(facts.readings.filter((one) => !one.isWithdrawn)).map((reading) => ({
      sequence: reading.sequence ?? Number.MAX_SAFE_INTEGER,
      reading,
      act: null,
    })),
    ...acts.map((act) => ({ sequence: act.sequence, reading: null, act })),
  ].sort((a, b) => a.sequence - b.sequence);
  const steps: DebriefStep[] = [];
  const needlessLifts: string[] = [];
  // The search is over once everything that is bad was mended, and no sooner.
  const toMend = new Set([...truth].flatMap(([at, isBad]) => (isBad && at !== outsideItem ? [at] : [])));
  let isMended = false;
  let minutes = 0;
  const learn = (change: Partial<JobFacts>, added: readonly Reading[]) => {
    known = { ...known, ...change, readings: [...known.readings, ...added] };
    judge.take({ facts: change, rules: null, addedReadings: added, removedReadingIds: [] });
    judged = judge.judge();
    chances = named(itemChances(known, judged));
    const before = doubt;
    doubt = doubtOf(chances);
    return before - doubt;
  };
  for (const { sequence, reading, act } of rows) {
    const seen = signs.filter((one) => (one.sequence ?? 0) <= sequence);
    if (seen.length > known.signs.length) learn({ signs: seen }, []);
    if (act) {
      const isRepair = repairs.includes(act.kind);
      if (isRepair && toMend.delete(act.at ?? "")) isMended = toMend.size === 0;
      const p = chances.get(act.at ?? "");
      if (act.kind === "lift" && p !== undefined && Math.min(p, 1 - p) < knownRatio) needlessLifts.push(act.at ?? "");
      const counted = isRepair && truth.get(act.at ?? "") === true ? 0 : act.minutes;
      if (!isMended || truth.get(act.at ?? "") === false) minutes += counted;
      steps.push({
        ...{ kind: act.kind, isReading: false, at: act.at, terminals: null, circuitState: null, value: null },
        ...{ minutes: act.minutes, bits: 0, better: null },
      });
    } else if (reading) {
      const better = betterThan(known, judged, reading);
      const bits = learn({}, [reading]);
      if (!isMended) minutes += probingMinutes;
      steps.push({
        ...{
          kind: reading.quantity,
          isReading: true,
          at: designatorOf.get(reading.targetId) ?? railOf(facts, reading),
        },
        ...{ terminals: reading.terminals, circuitState: reading.circuitState, value: reading.value },
        ...{ minutes: probingMinutes, bits },
        better: better && {
          ...{ at: designatorOf.get(better.positionId) ?? "", quantity: better.quantity },
          ...{ circuitState: better.circuitState, bits: better.gainBits },
        },
      });
    }
    const now = isRight();
    if (now && !suffices) sufficedAfter = steps.length;
    if (!now) sufficedAfter = null;
    suffices = now;
  }
  return { steps, minutes, sufficedAfter, needlessLifts, last: judged };
}

const doubtOf = (chances: ReadonlyMap<string, number>) =>
  [...chances.values()].reduce((sum, p) => sum + entropyBits(Math.min(Math.max(p, 0), 1)), 0);

const railOf = (facts: JobFacts, reading: Reading) =>
  facts.nets.find((one) => one.id === reading.targetId)?.name ?? null;

/** What would have told more a minute; null where the reading was the best, or where nothing was proposed. */
function betterThan(facts: JobFacts, judged: JobJudgement, reading: Reading): ProposedTarget | null {
  const gains = judged.explanation?.gains;
  const [best] = nextTargets({
    ...{ facts, judgements: judged.judgements, deviceKind: facts.device.kind, strategy: "failed_only" },
    isChargeVerified: true,
    ...(gains ? { gains } : {}),
  });
  if (!best) return null;
  const isSame = best.positionId === reading.targetId && best.quantity === reading.quantity;
  return isSame ? null : best;
}

/** A new part that cannot stand in for the old one: too few volts for its rail, another value, or the wrong way round. */
function isWrongPart({ kind, at, fitted }: PracticeAct, facts: JobFacts, idOf: ReadonlyMap<string, string>): boolean {
  if (kind !== "fit" || !fitted || !at) return false;
  const id = idOf.get(at);
  const old = id === undefined ? undefined : foundPart(facts.fittedParts, id);
  const net = facts.nets.find((one) => one.id === facts.positions.find((place) => place.id === id)?.netId);
  const isSplit = net?.network?.arrangement === "series";
  const rail = Math.abs(net?.nominalVolts ?? 0) / (isSplit ? 2 : 1);
  const ratio = old?.capacitanceFarads ? fitted.capacitanceFarads / old.capacitanceFarads : 1;
  return fitted.isReversed || fitted.ratedVolts < rail || ratio < fittedFromRatio || ratio > fittedToRatio;
}

/** Outputs with a promise that were not read under load after the last part went in. */
function unprovedRails(facts: JobFacts, acts: readonly PracticeAct[]): readonly string[] {
  const last = Math.max(0, ...acts.filter((one) => repairs.includes(one.kind)).map((one) => one.sequence));
  const isOutput = (section: Section) => !sectionFacts[section].isMainsSide;
  return facts.nets
    .filter((net) => isOutput(net.section) && (net.fullLoadAmps ?? 0) > 0)
    .filter(
      (net) =>
        !facts.readings.some(
          (one) =>
            one.targetId === net.id &&
            one.quantity === "dc_voltage" &&
            one.isPowered &&
            !one.isWithdrawn &&
            (one.sequence ?? Number.MAX_SAFE_INTEGER) > last &&
            (one.loadAmps ?? 0) >= provedLoadRatio * (net.fullLoadAmps ?? 0),
        ),
    )
    .map((net) => net.name);
}

/** What this supply says of each skill that it asked for. */
function skillsOf(how: {
  readonly question: DebriefQuestion;
  readonly counts: Readonly<Record<string, number>>;
  readonly isCascade: boolean;
  readonly isRepaired: boolean;
  readonly isToMend: boolean;
  readonly needless: number;
}): SkillTrials {
  const { question, counts, isCascade, isRepaired, isToMend, needless } = how;
  const { facts, truth, answer, acts } = question;
  const trials: Partial<Record<PracticeSkill, { good: number; total: number }>> = {};
  const put = (skill: PracticeSkill, isGood: boolean) => {
    const before = trials[skill] ?? { good: 0, total: 0 };
    trials[skill] = { good: before.good + Number(isGood), total: before.total + 1 };
  };
  const has = (code: string) => (counts[code] ?? 0) > 0;
  // Who never met a charge has shown nothing of it.
  const hasMet = acts.some((one) => meetingCharge.includes(one.kind)) || drainBreaches.some(has);
  if (hasMet && facts.nets.some((net) => net.section === "bulk" || net.section === "pfc")) {
    put("draining", !drainBreaches.some(has));
  }
  const cans = [...truth].filter(([at]) =>
    facts.positions.some((one) => one.designator === at && one.kind === "electrolytic"),
  );
  if (cans.some(([, isBad]) => isBad))
    put(
      "in_circuit",
      cans.every(([at, isBad]) => (answer.get(at) ?? 0.5) >= 0.5 === isBad),
    );
  if (acts.some((one) => one.kind === "lift")) put("in_circuit", needless <= 1);
  if (isCascade) put("cascades", !has("check_missed") && !has("new_part_burnt") && !has("bad_left"));
  if (acts.some((one) => one.kind === "fit"))
    put("choosing", !has("wrong_part") && !has("overvolted") && !has("part_vented"));
  if (isToMend && isRepaired) put("proving", !has("proof_left") && !has("host_killed"));
  return trials;
}
