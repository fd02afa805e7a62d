import { type Section, sectionFacts } from "../board/sections";
import { type CapacitorClass, hasPolymer } from "../capacitors/capacitorClass";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { lifeWithRippleHeating } from "../life/lifeWithRipple";
import { missionLife } from "../life/missionLife";
import { checkReplacement, type ReplacementCheck } from "./checkReplacement";
import type { LimitSource } from "./limit";
import type { Requirement } from "./requirement";

const {
  pitchToleranceMetres,
  sizeToleranceMetres,
  nearMiss,
  polymerDecadeKelvin,
  polymerCoreRiseKelvin,
  rippleMarginRatio,
  printedRatio,
} = tradeConstants.replacement;
const { typicalOfCatalogueRatio } = tradeConstants.ripple;

/** A part that can be bought. ESR (maximum, 20 degrees C) and ripple (at the temperature class) at 100 kHz. */
export interface CataloguePart {
  readonly id: string;
  readonly maker: string;
  readonly series: string;
  readonly capacitorClass: CapacitorClass;
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  readonly temperatureClassCelsius: number;
  readonly diameterMetres: number;
  readonly heightMetres: number;
  readonly pitchMetres: number;
  readonly esrOhms: number;
  readonly rippleAmpsRms: number;
  readonly ratedLifeHours: number;
  readonly priceMinor: number;
}

export type RejectionCode =
  | "capacitance_low"
  | "capacitance_high"
  | "voltage_low"
  | "temperature_class_low"
  | "diameter_large"
  | "height_large"
  | "pitch_differs"
  | "esr_high"
  | "esr_low"
  | "ripple_low"
  | "not_low_esr"
  | "position_check";

/** Why a part was turned down: what it has and what it would need, SI. */
export interface Rejection {
  readonly code: RejectionCode;
  readonly got: number | null;
  readonly limit: number | null;
  /** Codes of checkReplacement, with `position_check`. */
  readonly checks: readonly string[];
}

export interface RankedReplacement {
  readonly part: CataloguePart;
  /** Hours of work in steady conditions, or with a promised day the hours from now on the calendar. */
  readonly lifeHours: number;
  readonly cappedLifeHours: number;
  readonly coreRiseKelvin: number;
  /** The life in every other air that anything says; the warmest counts above. */
  readonly otherLives: readonly { readonly source: LimitSource; readonly cappedLifeHours: number }[];
  readonly rejections: readonly Rejection[];
  readonly warnings: readonly string[];
}

export interface ReplacementRanking {
  /** Longest expected life first. */
  readonly survivors: readonly RankedReplacement[];
  /** Turned down although they would have ranked with the first survivors; fewest reasons first. */
  readonly nearMisses: readonly RankedReplacement[];
  readonly rejectedCount: number;
  /** How many were turned down by what no reason overrides, by the limit. */
  readonly refusedCounts: Readonly<Partial<Record<RejectionCode, number>>>;
}

/**
 * Filters a catalogue by a requirement and orders the survivors by expected life (ripple-heated ten-kelvin rule,
 * school `split`), then by price.
 *
 * A rejected part is a near miss when its life would have placed it among the first `nearCount` survivors (or when
 * there are fewer survivors than that).
 */
export function rankReplacements(
  requirement: Requirement,
  section: Section,
  catalogue: readonly CataloguePart[],
  nearCount = 10,
): ReplacementRanking {
  // A part that no reason could let in is turned down before its life is reckoned.
  const refused: { readonly rejections: readonly Rejection[] }[] = [];
  const ranked = catalogue
    .flatMap((part) => {
      const rejections = limitRejections(requirement, part);
      const isHopeless =
        rejections.some((one) => !isOverridable(requirement, one)) ||
        (rejections.length > 0 && !isComparable(requirement, part));
      if (!isHopeless) return [rankPart(requirement, section, part, rejections)];
      refused.push({ rejections });
      return [];
    })
    .sort(byLife);
  const survivors = ranked.filter((one) => one.rejections.length === 0);
  const rejected = ranked.filter((one) => one.rejections.length > 0);
  const bar = survivors[nearCount - 1];
  const nearMisses = rejected
    .filter((one) => one.rejections.every((rejection) => isOverridable(requirement, rejection)))
    .filter((one) => !bar || byLife(one, bar) <= 0)
    .sort((a, b) => a.rejections.length - b.rejections.length || missedBy(a) - missedBy(b) || byLife(a, b))
    .slice(0, nearCount);
  const turnedDown = [...rejected, ...refused];
  return {
    ...{ survivors, nearMisses, rejectedCount: turnedDown.length },
    refusedCounts: refusedBy(requirement, turnedDown),
  };
}

function refusedBy(
  requirement: Requirement,
  rejected: readonly { readonly rejections: readonly Rejection[] }[],
): Partial<Record<RejectionCode, number>> {
  const counts: Partial<Record<RejectionCode, number>> = {};
  for (const { rejections } of rejected) {
    for (const rejection of rejections) {
      if (!isOverridable(requirement, rejection)) counts[rejection.code] = (counts[rejection.code] ?? 0) + 1;
    }
  }
  return counts;
}

/**
 * What no reason overrides: rated volts below the rail with its margin or unknown, a lower class, a part that is not low-ESR
 * where a converter switches.
 */
export function isOverridable({ railNeedVolts }: Requirement, { code, checks, got }: Rejection): boolean {
  if (code === "temperature_class_low" || code === "not_low_esr") return false;
  // A marking may be given up where the rail itself allows it.
  if (code === "voltage_low") return railNeedVolts !== null && got !== null && got >= railNeedVolts;
  return !checks.some((check) => check.startsWith("R_V_"));
}

/** How far all that it lacks lies from what was asked for: the sum of the logarithms. */
const missedBy = ({ rejections }: RankedReplacement): number =>
  rejections.reduce(
    (sum, { got, limit }) =>
      sum + (got !== null && limit !== null && got > 0 && limit > 0 ? Math.abs(Math.log(got / limit)) : 1),
    0,
  );

function byLife(a: RankedReplacement, b: RankedReplacement): number {
  return b.cappedLifeHours - a.cappedLifeHours || b.lifeHours - a.lifeHours || a.part.priceMinor - b.part.priceMinor;
}

const codesOf = ({ findings }: ReplacementCheck, level: "reject" | "warn") =>
  findings.filter((one) => one.level === level).map((one) => one.code);

/** A part of a wholly different value is no near miss, whatever its life. */
function isComparable(requirement: Requirement, part: CataloguePart): boolean {
  const ratio = part.capacitanceFarads / requirement.original.capacitanceFarads;
  const { leastRatio, mostRatio, leastVoltsRatio } = nearMiss;
  return (
    ratio >= leastRatio && ratio <= mostRatio && part.ratedVolts >= requirement.leastRatedVolts.value * leastVoltsRatio
  );
}

function rankPart(
  requirement: Requirement,
  section: Section,
  part: CataloguePart,
  rejections: Rejection[],
): RankedReplacement {
  const check = checkReplacement({
    position: sectionFacts[section].positionClass,
    railVolts: requirement.railVolts,
    original: requirement.original,
    replacement: { ...part, technology: hasPolymer(part.capacitorClass) ? "polymer" : "liquid" },
  });
  const life = expectedLife(requirement, part);
  // Where the current itself is known, the old part's rating says nothing more.
  const isReckoned = requirement.rippleAmpsRms.source !== "assumed";
  const isOld = (code: string) => isReckoned && (code === "R_RIPPLE" || code === "W_RIPPLE");
  const checks = codesOf(check, "reject").filter((code) => !isOld(code));
  if (rejections.length === 0 && checks.length > 0) {
    rejections.push({ code: "position_check", got: null, limit: null, checks });
  }
  return {
    part,
    lifeHours: life.lifeHours,
    cappedLifeHours: life.cappedLifeHours,
    coreRiseKelvin: life.coreRiseKelvin,
    otherLives:
      requirement.ambientCelsius.source === "entered"
        ? []
        : requirement.ambients.slice(1).map(({ source, value }) => ({
            source,
            cappedLifeHours: expectedLife(requirement, part, value).cappedLifeHours,
          })),
    rejections,
    warnings: [
      ...codesOf(check, "warn").filter((code) => !isOld(code)),
      ...(isReckoned && part.rippleAmpsRms < rippleMarginRatio * requirement.rippleAmpsRms.value
        ? ["W_RIPPLE_MARGIN"]
        : []),
      ...(requirement.esrWarnOhms !== null && typicalOfCatalogueRatio * part.esrOhms < requirement.esrWarnOhms
        ? ["W_LOOP_PHASE"]
        : []),
    ],
  };
}

/** Around the clock at the ambient of the requirement, or over the promised day, whose ambient an entered one replaces. */
export function expectedLife(
  requirement: Requirement,
  part: Pick<CataloguePart, "ratedLifeHours" | "temperatureClassCelsius" | "rippleAmpsRms" | "capacitorClass">,
  ambientCelsius: number = requirement.ambientCelsius.value,
) {
  const rating = {
    ratedLifeHours: part.ratedLifeHours,
    ratedTemperatureCelsius: part.temperatureClassCelsius,
    ratedRippleAmpsRms: part.rippleAmpsRms,
    ratedCoreRiseKelvin:
      part.capacitorClass === "polymer" ? polymerCoreRiseKelvin : requirement.ratedCoreRiseKelvin.value,
    school: "split",
    // Solid polymer does not dry: its sheets promise ten times the life for twenty kelvin.
    ...(part.capacitorClass === "polymer" && { decadeKelvin: polymerDecadeKelvin }),
  } as const;
  const steady = lifeWithRippleHeating({ ...rating, ambientCelsius, rippleAmpsRms: requirement.rippleAmpsRms.value });
  const { mission } = requirement;
  if (!mission) return steady;
  const [working, ...rest] = mission.segments;
  const segments = working ? [{ ...working, ambientCelsius }, ...rest] : rest;
  const life = missionLife(rating, segments, mission.offAmbientCelsius);
  const capHours = judgementConstants.D.cap_h;
  return { ...steady, lifeHours: life.lifeDays * 24, cappedLifeHours: Math.min(life.lifeDays * 24, capHours) };
}

/** A part as far as it is known: a limit against which it says nothing turns it down by nothing. */
export type KnownPart = { readonly [K in ComparedField]: CataloguePart[K] | null };
type ComparedField =
  | "capacitanceFarads"
  | "ratedVolts"
  | "temperatureClassCelsius"
  | "diameterMetres"
  | "heightMetres"
  | "pitchMetres"
  | "esrOhms"
  | "capacitorClass";
/** Rated ripple is asked of what a catalogue says it for. */
type RatedPart = KnownPart & { readonly rippleAmpsRms?: number | null };

/**
 * Every limit of a requirement that a part breaks, as far as it is known; of a catalogue part as the ranking turns it down.
 *
 * @param part SI; null: not known, and not held against it
 */
export function limitRejections(requirement: Requirement, part: RatedPart): Rejection[] {
  const found: Rejection[] = [];
  const reject = (code: RejectionCode, got: number, limit: number) => found.push({ code, got, limit, checks: [] });
  const least = (code: RejectionCode, got: number | null, limit: number) => {
    if (got !== null && got < limit * (1 - 1e-9)) reject(code, got, limit);
  };
  const most = (code: RejectionCode, got: number | null, limit: number | undefined, slack = 0) => {
    if (got !== null && limit !== undefined && got > limit * (1 + 1e-9) + slack) reject(code, got, limit);
  };
  least("capacitance_low", part.capacitanceFarads, requirement.capacitanceMinFarads.value);
  most("capacitance_high", part.capacitanceFarads, requirement.capacitanceMaxFarads.value);
  least("voltage_low", part.ratedVolts, requirement.leastRatedVolts.value);
  least("temperature_class_low", part.temperatureClassCelsius, requirement.leastTemperatureClassCelsius.value);
  most("diameter_large", part.diameterMetres, requirement.diameterMaxMetres?.value, sizeToleranceMetres);
  most("height_large", part.heightMetres, requirement.heightMaxMetres?.value, sizeToleranceMetres);
  const pitch = requirement.pitchMetres?.value;
  if (pitch !== undefined && part.pitchMetres !== null && Math.abs(part.pitchMetres - pitch) > pitchToleranceMetres) {
    reject("pitch_differs", part.pitchMetres, pitch);
  }
  // Sheets print two or three digits: a limit that is the same in print turns nothing down.
  most("esr_high", part.esrOhms, requirement.esrMaxOhms?.value, printedRatio * (requirement.esrMaxOhms?.value ?? 0));
  // A sheet says the most that a part may have; the regulation sees what it typically has.
  const typical = part.esrOhms === null ? null : typicalOfCatalogueRatio * part.esrOhms;
  if (requirement.esrMinOhms) least("esr_low", typical, requirement.esrMinOhms.value);
  // Over what is assumed the least counts: what surely is too little, not what may be. The rest is warned of.
  const { source, value, band } = requirement.rippleAmpsRms;
  if (source !== "assumed") least("ripple_low", part.rippleAmpsRms ?? null, (1 - printedRatio) * (band?.[0] ?? value));
  if (requirement.isLowEsrOnly && part.capacitorClass === "gp") {
    found.push({ code: "not_low_esr", got: null, limit: null, checks: [] });
  }
  return found;
}
