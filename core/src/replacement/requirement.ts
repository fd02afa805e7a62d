import type { BoardNet, BoardPosition, FittedPart } from "../board/board";
import { type Section, sectionFacts } from "../board/sections";
import { canImpedance, pseudoRatedRippleAmpsRms } from "../capacitors/canImpedance";
import { canSurfaceSquareMetres } from "../capacitors/canSurface";
import { type CapacitorClass, hasPolymer } from "../capacitors/capacitorClass";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import { type MissionProfile, missionProfile, type Purpose } from "../life/missionProfile";
import type { ComparedPart } from "./checkReplacement";
import { type PositionLimits, positionLimits, replacementRatedVoltage, type VoltageSchool } from "./ratedVoltage";

/** Where a limit comes from, so that every number can be asked why. */
export type LimitSource =
  | "marking"
  | "position_table"
  | "house_rule"
  | "rail"
  | "size"
  | "purpose"
  | "assumed"
  | "entered";

export interface Limit {
  readonly value: number;
  readonly source: LimitSource;
}

/** How near the capacitance must be: the table of the position, the marking itself, about it, or not below it. */
export type CapacitanceSchool = "by_position" | "exact" | "near" | "not_below";

/** Ratios to the marking; E-series neighbours of "the same" value lie within 5 %. */
function capacitanceRatios(school: CapacitanceSchool, limits: PositionLimits): readonly [number, number] {
  switch (school) {
    case "by_position":
      return [limits.capacitanceMinRatio, limits.capacitanceMaxRatio];
    case "exact":
      return [0.95, 1.05];
    case "near":
      return [0.8, 1.25];
    case "not_below":
      return [0.999, Math.max(limits.capacitanceMaxRatio, 1)];
  }
}

/** What a part must be to go into a failed position. null: no limit known. */
export interface Requirement {
  readonly positionId: string;
  readonly original: ComparedPart;
  readonly railVolts: number | null;
  readonly capacitanceMinFarads: Limit;
  readonly capacitanceMaxFarads: Limit;
  readonly leastRatedVolts: Limit;
  readonly leastTemperatureClassCelsius: Limit;
  readonly diameterMaxMetres: Limit | null;
  readonly heightMaxMetres: Limit | null;
  readonly pitchMetres: Limit | null;
  readonly esrMaxOhms: Limit | null;
  readonly isLowEsrOnly: boolean;
  readonly rippleAmpsRms: Limit;
  readonly ambientCelsius: Limit;
  readonly ratedCoreRiseKelvin: Limit;
  /** The day that was promised at intake; null: around the clock at the ambient above. */
  readonly mission: MissionProfile | null;
}

/** What the technician changed; null keeps the computed limit. */
export interface RequirementOverrides {
  readonly diameterMaxMetres: number | null;
  readonly heightMaxMetres: number | null;
  readonly pitchMetres: number | null;
  readonly esrMaxOhms: number | null;
  readonly rippleAmpsRms: number | null;
  readonly ambientCelsius: number | null;
}

export const noOverrides: RequirementOverrides = {
  diameterMaxMetres: null,
  heightMaxMetres: null,
  pitchMetres: null,
  esrMaxOhms: null,
  rippleAmpsRms: null,
  ambientCelsius: null,
};

/** Assumptions where nothing was measured: share of the original's ripple rating, air around the part, core rise. */
const assumedRippleShare = 0.7;
const assumedAmbientCelsius = 60;
const assumedCoreRiseKelvin = 5;
const assumedTemperatureClassCelsius = 105;
const controlSupplyClassCelsius = 105;

/**
 * Limits of a replacement, from the old part's marking and size, the rail and the position's table; what was neither
 * measured nor marked is assumed and says so. null while value or voltage of the old part are unknown.
 */
export function replacementRequirement(
  place: {
    readonly position: BoardPosition;
    readonly part: FittedPart;
    readonly net: BoardNet | null;
    readonly voltageSchool: VoltageSchool;
    readonly capacitanceSchool?: CapacitanceSchool;
    /** What the unit was promised to do, for the air around the part and its expected life. */
    readonly purpose?: Purpose;
  },
  overrides: RequirementOverrides = noOverrides,
): Requirement | null {
  const { part, position, net } = place;
  const { capacitanceFarads, ratedVolts } = part;
  if (capacitanceFarads === null || ratedVolts === null) return null;
  const facts = sectionFacts[net?.section ?? "other"];
  const limits = positionLimits(facts.positionClass);
  const school = place.capacitanceSchool ?? "by_position";
  const [minRatio, maxRatio] = capacitanceRatios(school, limits);
  const capacitanceSource: LimitSource = school === "by_position" ? "position_table" : "house_rule";
  const original = originalPart(part, capacitanceFarads, ratedVolts);
  const railVolts = net?.nominalVolts != null && net.nominalVolts !== 0 ? Math.abs(net.nominalVolts) : null;
  const entered = (value: number | null, computed: Limit | null): Limit | null =>
    value === null ? computed : { value, source: "entered" };
  const known = (value: number | null, source: LimitSource): Limit | null =>
    value === null ? null : { value, source };
  const rippleAmpsRms = entered(overrides.rippleAmpsRms, {
    value: assumedRippleShare * (original.rippleAmpsRms ?? 0),
    source: "assumed",
  }) as Limit;
  const mission = place.purpose
    ? missionProfile(place.purpose, rippleAmpsRms.value, net?.section === "standby" || net?.section === "bulk")
    : null;
  return {
    positionId: position.id,
    original,
    railVolts,
    capacitanceMinFarads: { value: minRatio * capacitanceFarads, source: capacitanceSource },
    capacitanceMaxFarads: { value: maxRatio * capacitanceFarads, source: capacitanceSource },
    leastRatedVolts: leastVolts(railVolts, ratedVolts, place.voltageSchool, facts.positionClass),
    leastTemperatureClassCelsius: leastClass(part.temperatureClassCelsius, net?.section),
    diameterMaxMetres: entered(overrides.diameterMaxMetres, known(part.diameterMetres, "size")),
    heightMaxMetres: entered(overrides.heightMaxMetres, known(part.heightMetres, "size")),
    pitchMetres: entered(overrides.pitchMetres, known(position.pitchMetres, "size")),
    esrMaxOhms: entered(
      overrides.esrMaxOhms,
      known(original.esrOhms === null ? null : original.esrOhms * limits.esrWarnRatio, "position_table"),
    ),
    isLowEsrOnly: facts.isSwitchingOutput || net?.section === "vcc",
    rippleAmpsRms,
    ambientCelsius: entered(
      overrides.ambientCelsius,
      known(mission?.partAmbientCelsius ?? null, "purpose") ?? { value: assumedAmbientCelsius, source: "assumed" },
    ) as Limit,
    mission,
    ratedCoreRiseKelvin: { value: assumedCoreRiseKelvin, source: "assumed" },
  };
}

/**
 * The old part's class; a control supply sits between transformer, clamp and chip, is fed by switching pulses and decides the start:
 * there never less than 105 degrees, whatever stood there before.
 */
function leastClass(markedCelsius: number | null, section: Section | undefined): Limit {
  if (section === "vcc" && (markedCelsius ?? 0) < controlSupplyClassCelsius) {
    return { value: controlSupplyClassCelsius, source: "position_table" };
  }
  return markedCelsius === null
    ? { value: assumedTemperatureClassCelsius, source: "assumed" }
    : { value: markedCelsius, source: "marking" };
}

function leastVolts(
  railVolts: number | null,
  originalRatedVolts: number,
  school: VoltageSchool,
  position: Parameters<typeof positionLimits>[0],
): Limit {
  if (railVolts === null) return { value: originalRatedVolts, source: "marking" };
  const { leastVolts: value } = replacementRatedVoltage({ railVolts, position, originalRatedVolts, school });
  return { value, source: value > originalRatedVolts || school === "rail" ? "rail" : "marking" };
}

/** The old part as it was when new: catalogue-maximum ESR and rated ripple estimated from marking and size. */
function originalPart(part: FittedPart, capacitanceFarads: number, ratedVolts: number): ComparedPart {
  const capacitorClass = part.capacitorClass ?? "lowz";
  const esrOhms = expectedEsrOfPart(part, 100e3, 20)?.highOhms ?? null;
  return {
    capacitanceFarads,
    ratedVolts,
    esrOhms,
    rippleAmpsRms: ratedRipple(part, ratedVolts, capacitorClass, esrOhms),
    technology: hasPolymer(capacitorClass) ? "polymer" : "liquid",
  };
}

function ratedRipple(
  part: FittedPart,
  ratedVolts: number,
  capacitorClass: CapacitorClass,
  esrOhms: number | null,
): number | null {
  const { diameterMetres, heightMetres } = part;
  if (diameterMetres === null || heightMetres === null || esrOhms === null) return null;
  if (!hasPolymer(capacitorClass) && ratedVolts <= 100) {
    return canImpedance({ diameterMetres, heightMetres, ratedVolts, capacitorClass }).ratedRippleAmpsRms;
  }
  return pseudoRatedRippleAmpsRms(canSurfaceSquareMetres(diameterMetres, heightMetres), esrOhms);
}
