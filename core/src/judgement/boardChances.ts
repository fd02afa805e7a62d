import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { isInCircuit, type Reading } from "../readings/reading";
import type { GroupLook } from "./bankLook";
import { type Group, groupLook, groupOf } from "./groupLook";
import { isTipsTogether } from "./leadOffset";
import { tunedConstants } from "./tunedConstants";
import type { BoardChances, JudgementQuestion, PartChance } from "./verdict";

const { leads } = tradeConstants.judgement;

/** Groups as they were last listed: what a reading does not touch is not listed again. */
const known = new Map<string, GroupLook>();
const mostKnown = 400;

/**
 * Chance of each part of a board that it has failed, from all that was read of it: own readings, banks in circuit, the
 * factor of each bank's series, and the leads that one board's readings share. The sum over all of these is exact; the
 * shares that it starts from are rough (tradeConstants.judgement).
 *
 *     P(offset) ~ share x product over banks of sum over series and conditions,  P(failed) = sum over offsets
 *
 * @param questions one for each part
 * @param unitReadings readings of the unit: the tips together among them
 */
export function boardChances(
  questions: readonly JudgementQuestion[],
  unitReadings: readonly Reading[],
  constants: JudgementConstants,
): BoardChances {
  const byPart = new Map(questions.map((one) => [one.subject.part.id, one]));
  const groups = new Map<string, Group>();
  const keys = questions.map((question) => {
    const key = groupKey(question);
    if (!groups.has(key))
      groups.set(
        key,
        groupOf(question, (id) => byPart.get(id)),
      );
    return key;
  });
  const tips = unitReadings.filter(isTipsTogether).at(-1) ?? null;
  const leadOhms = questions[0]?.rules.leadOhms ?? 0;
  const offsets = tips ? [Math.max((tips.value ?? 0) - leadOhms, 0)] : leads.steps.map(([ohms]) => ohms);
  const shares = tips ? [1] : leads.steps.map(([, share]) => share);
  const read = [...groups.values()].flatMap((group) => [
    ...group.bankReadings,
    ...group.questions.flatMap((one) => one.readings),
  ]);
  const isProbeShown = tips !== null || read.some((one) => one.quantity === "esr" && one.value !== null);
  const looks = new Map<string, GroupLook>();
  for (const [key, group] of groups) {
    looks.set(key, remembered(group, offsets, isProbeShown, constants));
  }
  const logs = offsets.map((_, n) =>
    [...looks.values()].reduce(
      (sum, look) => sum + Math.log(Math.max(look.total[n] as number, 1e-300)),
      Math.log(shares[n] as number),
    ),
  );
  const most = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - most));
  const total = weights.reduce((sum, one) => sum + one, 0);
  const offsetChances = weights.map((one) => one / total);
  const mean = (of: (n: number) => number) => offsetChances.reduce((sum, chance, n) => sum + chance * of(n), 0);
  const chances = new Map<string, PartChance>();
  questions.forEach((question, n) => {
    const look = looks.get(keys[n] as string) as GroupLook;
    const index = question.bank.findIndex((one) => one.part.id === question.subject.part.id);
    const share = (of: readonly (readonly number[])[]) =>
      mean((at) => (of[index]?.[at] ?? 0) / Math.max(look.total[at] as number, 1e-300));
    chances.set(question.subject.part.id, {
      failedProbability: share(look.failed),
      wornProbability: share(look.worn),
      seriesRatio: Math.exp(mean((at) => look.seriesMean[at] as number)),
    });
  });
  const added = offsets.reduce((sum, ohms, n) => sum + (ohms > 0 ? (offsetChances[n] as number) : 0), 0);
  return {
    byPart: chances,
    leads: {
      ohms: added > 0 ? mean((n) => offsets[n] as number) / added : 0,
      probability: tips ? Number((offsets[0] as number) > 0) : added,
      isMeasured: tips !== null,
      readingCount: read.filter((one) => one.quantity === "esr" && one.value !== null).length,
    },
  };
}

/** The same bank at the same time. */
function groupKey({ subject, bank, bankReadings }: JudgementQuestion): string {
  const isAlone = bank.length === 1;
  const together = isAlone ? [] : bankReadings.filter(isInCircuit).map((one) => one.id);
  return JSON.stringify([isAlone ? subject.part.id : bank.map((one) => one.part.id), together]);
}

function remembered(
  group: Group,
  offsets: readonly number[],
  isProbeShown: boolean,
  constants: JudgementConstants,
): GroupLook {
  const told = (one: Reading) => [
    one.id,
    one.quantity,
    one.value,
    one.coarseCode,
    one.circuitState,
    one.frequencyHertz,
    one.temperatureCelsius,
    one.measuredAt,
    one.sequence,
  ];
  const key = JSON.stringify([
    group.questions.map(({ subject, readings, signs, rules, history, baseline, section }) => [
      subject.part,
      ...[readings.map(told), signs, rules, history, baseline, section],
    ]),
    group.bankReadings.map(told),
    group.surroundings,
    offsets,
    isProbeShown,
    constants.A === tunedConstants.A && constants.B === tunedConstants.B ? 0 : constants,
  ]);
  const found = known.get(key);
  if (found) {
    // The latest used stays longest.
    known.delete(key);
    known.set(key, found);
    return found;
  }
  const look = groupLook(group, offsets, isProbeShown, constants);
  known.set(key, look);
  if (known.size > mostKnown) known.delete(known.keys().next().value as string);
  return look;
}
