import type { Section } from "../board/sections";
import { expectedEsrOfPart, type PartExpectation, partForSchool } from "../capacitors/expectedEsrOfPart";
import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { groupReadings, type ReadingGroup } from "../readings/groupReadings";
import { isInCircuit, isOnlyReadOpen, type Reading } from "../readings/reading";
import { type BankLookQuestion, type BankMember, bankLook, type GroupLook, looksTogether } from "./bankLook";
import { besideLogOdds } from "./beside";
import { compensated, esrUncertainty } from "./esrFinding";
import { type OwnEsr, type OwnLook, ownLook, splitEsr } from "./ownLook";
import { type ConditionBins, conditionBins, mostListedParts } from "./partConditions";
import { seriesPrior } from "./seriesPrior";
import { type JudgementQuestion, openSurroundings, type PlacedPart } from "./verdict";

const { chances, bank: rough } = tradeConstants.judgement;

/** Air of a shop where nobody wrote it down. */
const [coolCelsius, warmCelsius] = [12, 28];

/** A bank as it is judged: its parts, and the question of each as far as it was asked. */
export interface Group {
  readonly members: readonly PlacedPart[];
  readonly questions: readonly JudgementQuestion[];
  /** What was read of the bank as it hangs together. */
  readonly bankReadings: readonly Reading[];
  readonly surroundings: NonNullable<JudgementQuestion["surroundings"]>;
  readonly section: Section;
}

/** The group of a question; what was asked of its neighbours comes from their own questions where there are any. */
export function groupOf(
  question: JudgementQuestion,
  questionOf: (partId: string) => JudgementQuestion | undefined,
): Group {
  return {
    members: question.bank,
    questions: question.bank.map((member) =>
      member.part.id === question.subject.part.id
        ? question
        : (questionOf(member.part.id) ?? {
            ...question,
            ...{ subject: member, signs: {}, history: null, baseline: [], overrule: null },
            readings: question.bankReadings.filter((one) => one.fittedPartId === member.part.id),
          }),
    ),
    bankReadings: question.bankReadings.filter(isInCircuit),
    surroundings: question.surroundings ?? openSurroundings,
    section: question.section ?? "other",
  };
}

/** What its readings say of a group, for each offset of the leads. */
export function groupLook(
  group: Group,
  offsets: readonly number[],
  isProbeShown: boolean,
  constants: JudgementConstants,
): GroupLook {
  const bank = inCircuit(group);
  const isListed = bank !== null && group.members.length <= mostListedParts;
  const bins = conditionBins(group.members.length, isListed);
  const looks = group.questions.map((one) => memberLook(one, offsets, bins, isProbeShown, constants));
  const series = seriesOf(group, constants);
  const listed = isListed ? bankQuestion(group, bank, looks, bins, offsets, series, constants) : null;
  return listed ? bankLook(listed) : looksTogether(looks, series, offsets.length);
}

/** One factor for all: by the part with the widest doubt, for a bank is bought together. */
function seriesOf({ members, questions, section }: Group, constants: JudgementConstants): readonly number[] {
  const first = questions[0] as JudgementQuestion;
  const isTemperatureTold = questions.every((one) =>
    [...one.readings, ...one.bankReadings].every((read) => read.quantity !== "esr" || read.temperatureCelsius !== null),
  );
  const { part } = (members.find((one) => one.part.capacitorClass === null) ?? members[0]) as PlacedPart;
  const at = (celsius: number) => expectedEsrOfPart(part, 100e3, celsius, constants.A)?.typicalOhms ?? 1;
  const byAir = isTemperatureTold ? 0 : Math.log(at(coolCelsius) / at(warmCelsius)) / 2;
  // Far below 100 kHz the oxide and the whole depth of the foil are read, and the table knows less of them.
  const isSlow = questions.some((one) =>
    [...one.readings, ...one.bankReadings].some(
      (read) => read.quantity === "esr" && (read.frequencyHertz ?? 100e3) < chances.slowBelowHertz,
    ),
  );
  const common = Math.hypot(byAir, isSlow ? chances.slowSeriesSpreadRatio : 0);
  return seriesPrior(part, section, common, first.rules.esrSourceSchool, constants.A);
}

function expectation(
  { part }: PlacedPart,
  question: JudgementQuestion,
  frequencyHertz: number,
  celsius: number,
  constants: JudgementConstants,
): PartExpectation | null {
  return expectedEsrOfPart(partForSchool(part, question.rules.esrSourceSchool), frequencyHertz, celsius, constants.A);
}

/** What one part's own readings and looks say of it. */
function memberLook(
  question: JudgementQuestion,
  offsets: readonly number[],
  bins: ConditionBins,
  isProbeShown: boolean,
  constants: JudgementConstants,
): OwnLook {
  const { subject, rules, readings } = question;
  const { capacitanceFarads } = subject.part;
  const out = readings.filter((one) => !isInCircuit(one));
  const esr = groupReadings(out, "esr").flatMap((raw): OwnEsr[] => {
    const expected = expectation(subject, question, raw.frequencyHertz, raw.temperatureCelsius, constants);
    if (!expected || capacitanceFarads === null) return [];
    const group = compensated(raw, [subject], rules);
    return [
      {
        ohms: group.value,
        count: group.count,
        uncertaintyRatio: ownUncertainty(group, question),
        expected: splitEsr(expected, capacitanceFarads, group.frequencyHertz),
      },
    ];
  });
  const capacitance = groupReadings(out, "capacitance")[0] ?? null;
  const isOpen = isOnlyReadOpen(out);
  const typical = expectation(subject, question, 100e3, 20, constants);
  return ownLook({
    esr,
    capacitanceRatio: capacitance && capacitanceFarads !== null ? capacitance.value / capacitanceFarads : null,
    capacitanceUncertaintyRatio: Math.hypot(
      rules.capacitanceUncertaintyRatio,
      capacitance?.spreadRatio ?? 0,
      (capacitance?.frequencyHertz ?? 0) > chances.fastCapacitanceFromHertz ? chances.fastCapacitanceSpread : 0,
    ),
    ...{ isOpen, isProbeShown, offsets, bins },
    school: constants.B.schools[rules.school],
    highRatio: typical ? typical.highOhms / typical.typicalOhms : 1.5,
    besideLogOdds: besideLogOdds(question, constants),
  });
}

function ownUncertainty(group: ReadingGroup, { rules }: JudgementQuestion): number {
  const slow = group.frequencyHertz < chances.slowBelowHertz ? chances.slowSpreadRatio : 0;
  return Math.hypot(esrUncertainty(group, rules), chances.partSpreadRatio, slow);
}

interface InCircuit {
  readonly esr: ReadingGroup | null;
  readonly isOpen: boolean;
  readonly capacitance: ReadingGroup | null;
}

function inCircuit({ bankReadings }: Group): InCircuit | null {
  const esr = groupReadings(bankReadings, "esr")[0] ?? null;
  const capacitance = groupReadings(bankReadings, "capacitance")[0] ?? null;
  const isOpen = isOnlyReadOpen(bankReadings);
  return esr || capacitance || isOpen ? { esr, isOpen, capacitance } : null;
}

/** The bank as it is listed; null where a marking is not known. */
function bankQuestion(
  group: Group,
  { esr: raw, isOpen, capacitance }: InCircuit,
  looks: readonly OwnLook[],
  bins: ConditionBins,
  offsets: readonly number[],
  series: readonly number[],
  constants: JudgementConstants,
): BankLookQuestion | null {
  const first = group.questions[0] as JudgementQuestion;
  const { rules } = first;
  const hertz = raw?.frequencyHertz ?? 100e3;
  const celsius = raw?.temperatureCelsius ?? 20;
  const capacitanceHertz = capacitance?.frequencyHertz ?? 120;
  const capacitanceCelsius = capacitance?.temperatureCelsius ?? celsius;
  const members = group.members.flatMap((member, n): BankMember[] => {
    const farads = member.part.capacitanceFarads;
    const expected = expectation(member, first, hertz, celsius, constants);
    const slow = expectation(member, first, capacitanceHertz, capacitanceCelsius, constants);
    if (farads === null || !expected || !slow) return [];
    return [
      {
        look: looks[n] as OwnLook,
        farads,
        expected: splitEsr(expected, farads, hertz),
        expectedAtCapacitance: splitEsr(slow, farads, capacitanceHertz),
      },
    ];
  });
  if (members.length < group.members.length) return null;
  const esr = raw && compensated(raw, group.members, rules);
  const { acrossChoke, chokeHenrys, chokeOhms, parallelOhms, isChokeKnown } = group.surroundings;
  const across = acrossChoke.flatMap((member) => {
    const farads = member.part.capacitanceFarads;
    const expected = expectation(member, first, hertz, celsius, constants);
    return farads !== null && expected ? [{ farads, ohms: expected.typicalOhms }] : [];
  });
  const chokes =
    across.length === 0 || chokeHenrys === null
      ? []
      : isChokeKnown
        ? [{ henrys: chokeHenrys, ohms: chokeOhms, shareRatio: 1 }]
        : rough.unknownChokes.map(([henrys, shareRatio]) => ({ henrys, ohms: chokeOhms, shareRatio }));
  return {
    ...{ members, bins, offsets, series, across, chokes, parallelOhms },
    esr: {
      ohms: esr && esr.value > 0 ? esr.value : null,
      isOpen,
      uncertaintyRatio: esr
        ? Math.hypot(ownUncertainty(esr, first), bins.widthRatio)
        : Math.hypot(rules.esrUncertaintyRatio, bins.widthRatio),
      hertz,
    },
    capacitance:
      capacitance && capacitance.value > 0
        ? {
            farads: capacitance.value,
            hertz: capacitanceHertz,
            uncertaintyRatio: Math.hypot(rules.capacitanceUncertaintyRatio, chances.newCapacitanceSpread),
          }
        : null,
  };
}
