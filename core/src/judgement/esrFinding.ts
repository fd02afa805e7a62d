import { compensatedEsr } from "../capacitors/compensatedEsr";
import { expectedEsrOfPart, type PartExpectation, partForSchool } from "../capacitors/expectedEsrOfPart";
import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { JudgementRules } from "../facts/jobRules";
import { bankIntervals, type PartInterval } from "../incircuit/bankIntervals";
import { groupReadings, isSameFrequency, type ReadingGroup } from "../readings/groupReadings";
import { doRepeatsConflict } from "./conflicts";
import { type JudgementQuestion, openSurroundings, type PlacedPart } from "./verdict";

/** An ESR that may be weighed against one part, and how it was got. */
export interface EsrFinding {
  /** As read, with leads and reactance taken off where the house rules say so. */
  readonly group: ReadingGroup;
  readonly esrOhms: number | null;
  readonly interval: PartInterval | null;
  readonly expected: PartExpectation;
  /** Neighbours that were read by themselves and are reckoned with as they are. */
  readonly knownPositionIds: readonly string[];
  readonly isConflicting: boolean;
}

/** What a neighbour that was read by itself may carry more or less in its bank. */
const knownSpread = 0.3;

/** The ESR that counts for a part: its own out of circuit before what a bank says in circuit. */
export function findEsr(question: JudgementQuestion, constants: JudgementConstants): EsrFinding | null {
  const own = groupReadings(question.readings, "esr").find((group) => !group.isInCircuit);
  const inCircuit = groupReadings(question.bankReadings, "esr").find((candidate) => candidate.isInCircuit);
  const raw = own ?? inCircuit;
  if (!raw) return null;
  const { rules, bank } = question;
  const expectation = (member: PlacedPart) =>
    expectedEsrOfPart(
      partForSchool(member.part, rules.esrSourceSchool),
      raw.frequencyHertz,
      raw.temperatureCelsius,
      constants.A,
    );
  const expected = expectation(question.subject);
  if (!expected) return null;
  const group = compensated(raw, own ? [question.subject] : bank, rules);
  const isConflicting = doRepeatsConflict(group, esrUncertaintyOfOne(group, rules));
  const alone = { group, interval: null, expected, knownPositionIds: [], isConflicting };
  if (own) return { ...alone, esrOhms: group.value };

  const expectedOfBank = bank.map(expectation);
  if (expectedOfBank.includes(null)) return { ...alone, esrOhms: null };
  if (!(group.value > 0)) return { ...alone, esrOhms: bank.length === 1 ? 0 : null };
  const surroundings = question.surroundings ?? openSurroundings;
  const across = surroundings.acrossChoke.map((member) => ({ member, expected: expectation(member) }));
  const choke = across.length > 0 ? surroundings.chokeHenrys : null;
  const known = bank.map((member) => knownByItself(member, question, group.frequencyHertz));
  const index = bank.findIndex((member) => member.position.id === question.subject.position.id);
  // Parts that were read with a lead up are no longer unknown: what they carry is taken off as a parallel load.
  const unknown = bank.map((_, n) => n).filter((n) => known[n] === null || n === index);
  const typicalEsrOhms = unknown.map((n) => (expectedOfBank[n] as PartExpectation).typicalOhms);
  const knownSiemens = known.reduce<number>((sum, one, n) => sum + (one !== null && n !== index ? 1 / one : 0), 0);
  // What lies across a choke carries most, as a conductance, where its resistance equals the choke's reactance.
  const chokeReactanceOhms = choke === null ? null : 2 * Math.PI * group.frequencyHertz * choke;
  const pseudoOhms = chokeReactanceOhms === null ? [] : [(2 * chokeReactanceOhms) / constants.C.r_lo];
  // Below the resonance of usual chokes a reading can lie above all of its parts: no bound holds.
  const isUnbounded = choke !== null && group.frequencyHertz < tradeConstants.judgement.bank.resonantBelowHertz;
  const bound = (knownShare: number) => {
    const siemens =
      knownShare * knownSiemens + (surroundings.parallelOhms === null ? 0 : 1 / surroundings.parallelOhms);
    const intervals = bankIntervals(
      {
        typicalEsrOhms: [...typicalEsrOhms, ...pseudoOhms],
        readingOhms: group.value,
        standardUncertaintyOhms: group.value * esrUncertainty(group, rules),
        leadOhms: 0,
        parallelOhms: siemens > 0 ? 1 / siemens : null,
        mode: "any",
      },
      constants.C,
    );
    return intervals.parts[unknown.indexOf(index)] ?? null;
  };
  // What neighbours read is not exact either: a bound counts where it holds with less and with more of them.
  const [less, more] = knownSiemens > 0 ? [bound(1 - knownSpread), bound(1 + knownSpread)] : [bound(1), bound(1)];
  const isTold = less?.verdict === more?.verdict || less === null;
  const interval: PartInterval | null = isUnbounded ? null : isTold ? less : { ...less, verdict: "masked" };
  return {
    ...alone,
    interval,
    esrOhms: esrInCircuit(bank.length + pseudoOhms.length, group.value, interval, expected),
    knownPositionIds: bank.filter((_, n) => known[n] !== null && n !== index).map((member) => member.position.id),
  };
}

/** The ohms of a member of the bank with a lead up, at about the frequency of the bank's reading. */
function knownByItself(member: PlacedPart, { bankReadings }: JudgementQuestion, frequencyHertz: number): number | null {
  const own = bankReadings.filter((one) => one.fittedPartId === member.part.id);
  const esr = groupReadings(own, "esr").find(
    (group) => !group.isInCircuit && group.value > 0 && isSameFrequency(group.frequencyHertz, frequencyHertz),
  );
  return esr?.value ?? null;
}

/** Relative standard deviation of a group of ESR readings; repeats that do not agree count with their whole spread. */
export function esrUncertainty(group: ReadingGroup, rules: JudgementRules): number {
  const ofOne = esrUncertaintyOfOne(group, rules);
  const spread = doRepeatsConflict(group, ofOne) ? group.spreadRatio : group.spreadRatio / Math.sqrt(group.count);
  return Math.hypot(ofOne, spread);
}

function esrUncertaintyOfOne(group: ReadingGroup, rules: JudgementRules): number {
  const contact = group.value > 0 ? rules.contactOhms / group.value : 0;
  return Math.hypot(rules.esrUncertaintyRatio, contact);
}

/** Leads and reactance taken off, as the house's meter and leads want it; as read where the marking is not known. */
export function compensated(group: ReadingGroup, parts: readonly PlacedPart[], rules: JudgementRules): ReadingGroup {
  if (rules.leadOhms === 0 && rules.testerShows === "real") return group;
  const farads = parts.map(({ part }) => part.capacitanceFarads);
  if (farads.includes(null)) return group;
  const capacitanceFarads = farads.reduce<number>((sum, one) => sum + (one ?? 0), 0);
  const situation = {
    capacitanceFarads,
    frequencyHertz: group.frequencyHertz,
    eslHenrys: tradeConstants.judgement.bank.canHenrys / parts.length,
    leadOhms: rules.leadOhms,
    leadHenrys: 0,
    mode: rules.testerShows,
  };
  const none = { meterOhms: 0, leadOhms: 0, contactOhms: 0 };
  const { esrOhms } = compensatedEsr(group.value, situation, none);
  return { ...group, value: esrOhms ?? 0 };
}

/** Alone on the net the reading is the part's; in a bank only a bound is, and only where it decides. */
function esrInCircuit(
  memberCount: number,
  readingOhms: number,
  interval: PartInterval | null,
  expected: PartExpectation,
): number | null {
  if (memberCount === 1) return readingOhms;
  if (interval?.verdict === "condemned" && Number.isFinite(interval.multipleMin)) {
    return (interval.multipleMin as number) * expected.typicalOhms;
  }
  if (interval?.verdict === "cleared" && Number.isFinite(interval.multipleMax)) {
    return (interval.multipleMax as number) * expected.typicalOhms;
  }
  return null;
}
