import { foundPart } from "../board/board";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import { needsReplacement } from "../judgement/needsReplacement";
import type { PartJudgement } from "../judgement/verdict";
import { lifeByTenKelvinRule } from "../life/lifeTenKelvin";
import { compareStrategies, type StrategyComparison, type StrategyPart } from "./repairStrategy";

const { assumedLifeHours, assumedClassCelsius, newLifeHours, returnHandlingMinutes, swapMinutes, swapReturnRatio } =
  tradeConstants.replacement;

export interface StrategyQuestion {
  readonly facts: JobFacts;
  readonly judgements: ReadonlyMap<string, PartJudgement>;
  /** By position: what the air around it is taken to be, and what its new part costs, where one is chosen. */
  readonly places: ReadonlyMap<string, { readonly ambientCelsius: number; readonly partMinor: number | null }>;
  readonly hoursPerDay: number | null;
  readonly warrantyMonths: number;
  readonly labourPerHourMinor: number;
  readonly usualMinutes: number;
  readonly minutesPerPart: number;
  readonly usualPartMinor: number;
  /** Price of a whole supply; null: none is offered. */
  readonly supplyMinor: number | null;
}

export interface JobStrategies {
  readonly comparison: StrategyComparison;
  readonly parts: readonly (StrategyPart & { readonly positionId: string })[];
  readonly returnMinor: number;
}

/** What is missing before strategies can be weighed. */
export type StrategyGap = "age" | "hours" | "nothing_failed" | "no_capacitors";

const hoursOfMonth = 30.4;
const daysOfYear = 365;

/**
 * The ways to repair a job, weighed: each capacitor by the life that its class and the air around it give, as old as the unit is;
 * parts of one kind on one rail share their luck. A return costs the bench time again and a quarter of an hour of handling.
 *
 * Rough: lives are those of usual series; it orders ways, it promises no figure.
 *
 * @returns what is missing, where it cannot be said
 */
export function jobStrategies(question: StrategyQuestion): JobStrategies | StrategyGap {
  const { facts, judgements, hoursPerDay } = question;
  const years = facts.device.ageYears;
  if (!years) return "age";
  if (!hoursPerDay) return "hours";
  const ageHours = years * daysOfYear * hoursPerDay;
  const parts = facts.positions.flatMap((position) => {
    const part = position.kind === "electrolytic" ? foundPart(facts.fittedParts, position.id) : undefined;
    if (!part || part.capacitanceFarads === null || part.ratedVolts === null) return [];
    const place = question.places.get(position.id);
    const ambientCelsius = place?.ambientCelsius ?? tradeConstants.replacement.assumedAmbientCelsius;
    const judgement = judgements.get(position.id);
    const series = part.series ?? `${part.capacitanceFarads} ${part.ratedVolts} ${part.diameterMetres ?? "?"}`;
    const etaOf = (ratedLifeHours: number, ratedTemperatureCelsius: number) =>
      characteristicHours(lifeByTenKelvinRule({ ratedLifeHours, ratedTemperatureCelsius, ambientCelsius }).lifeHours);
    const beta = judgementConstants.D.beta;
    return [
      {
        positionId: position.id,
        group: `${position.netId ?? position.id} ${series}`,
        rail: position.netId ?? position.id,
        series,
        ageHours,
        hasFailed: judgement !== undefined && needsReplacement(judgement),
        etaHours: etaOf(
          assumedLifeHours[part.capacitorClass ?? "lowz"],
          part.temperatureClassCelsius ?? assumedClassCelsius,
        ),
        newEtaHours: etaOf(newLifeHours, assumedClassCelsius),
        ...{ beta, newBeta: beta },
        partCost: place?.partMinor ?? question.usualPartMinor,
        minutes: question.minutesPerPart,
      },
    ];
  });
  if (parts.length === 0) return "no_capacitors";
  if (!parts.some((one) => one.hasFailed)) return "nothing_failed";
  const returnMinor = ((question.usualMinutes + returnHandlingMinutes) / 60) * question.labourPerHourMinor;
  const comparison = compareStrategies({
    parts,
    warrantyHours: question.warrantyMonths * hoursOfMonth * hoursPerDay,
    hasFrailty: true,
    ratePerHour: question.labourPerHourMinor,
    fixedMinutes: Math.max(0, question.usualMinutes - 2 * question.minutesPerPart),
    returnCost: returnMinor,
    swap:
      question.supplyMinor === null
        ? null
        : { cost: question.supplyMinor, minutes: swapMinutes, returnProbability: swapReturnRatio },
  });
  return { comparison, parts, returnMinor };
}

/** A tenth has failed at the life that a catalogue means. */
function characteristicHours(lifeHours: number): number {
  return lifeHours / (-Math.log(0.9)) ** (1 / judgementConstants.D.beta);
}
