import type { BoardNet, BoardPosition, FittedPart } from "../board/board";
import { type Section, sectionFacts } from "../board/sections";
import { canImpedance, pseudoRatedRippleAmpsRms } from "../capacitors/canImpedance";
import { canSurfaceSquareMetres } from "../capacitors/canSurface";
import { type CapacitorClass, hasPolymer } from "../capacitors/capacitorClass";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import { tradeConstants } from "../constants/tradeConstants";
import { type MissionProfile, missionProfile, type Purpose } from "../life/missionProfile";
import { tellingReadings } from "../readings/reading";
import { airAround } from "./airAround";
import { bulkWindow } from "./bulkWindow";
import type { ComparedPart } from "./checkReplacement";
import { controlWindow } from "./controlWindow";
import { esrLimits } from "./esrLimits";
import type { Limit, LimitSource } from "./limit";
import { placeRoom } from "./placeRoom";
import { type PositionLimits, positionLimits, type VoltageSchool } from "./ratedVoltage";
import { type RippleNeed, rippleNeed } from "./rippleNeed";
import type { Surroundings } from "./surroundings";

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
  /** What the rail itself wants with its margin: the marking above it can be given up, this not. Null while nobody knows it. */
  readonly railNeedVolts: number | null;
  readonly leastTemperatureClassCelsius: Limit;
  readonly diameterMaxMetres: Limit | null;
  readonly heightMaxMetres: Limit | null;
  readonly pitchMetres: Limit | null;
  readonly esrMaxOhms: Limit | null;
  readonly esrMinOhms: Limit | null;
  /** No ESR lies between both ends, as they were set by hand: what would open the window. */
  readonly esrOpens: readonly EsrOpening[];
  /** ESR below which the regulation loses noticeable phase; null where it does not matter, or nobody knows. */
  readonly esrWarnOhms: number | null;
  /** By what is assumed of the converter even the old part as new would not keep the rail's ripple limit. */
  readonly isOldOverRipple: boolean;
  readonly isLowEsrOnly: boolean;
  readonly rippleAmpsRms: Limit;
  /** How the ripple current was reckoned; null: a share of the old rating. */
  readonly ripple: RippleNeed | null;
  readonly ambientCelsius: Limit;
  /** Every temperature of the air that anything says, the one that counts first. */
  readonly ambients: readonly Limit[];
  /** Which neighbour keeps the diameter small; null where none does, or the drawing does not say. */
  readonly nextToId: string | null;
  readonly ratedCoreRiseKelvin: Limit;
  /** The day that was promised at intake; null: around the clock at the ambient above. */
  readonly mission: MissionProfile | null;
}

/** What would let an ESR lie between both ends again. */
export type EsrOpening = "keep_a_liquid_part" | "load_step_test" | "higher_ripple_limit";

/** What the technician changed; null keeps the computed limit. */
export interface RequirementOverrides {
  readonly diameterMaxMetres: number | null;
  readonly heightMaxMetres: number | null;
  readonly pitchMetres: number | null;
  readonly esrMaxOhms: number | null;
  readonly rippleAmpsRms: number | null;
  readonly ambientCelsius: number | null;
  readonly capacitanceMinFarads?: number | null | undefined;
  readonly capacitanceMaxFarads?: number | null | undefined;
  readonly leastRatedVolts?: number | null | undefined;
  readonly esrMinOhms?: number | null | undefined;
}

export const noOverrides: RequirementOverrides = {
  diameterMaxMetres: null,
  heightMaxMetres: null,
  pitchMetres: null,
  esrMaxOhms: null,
  rippleAmpsRms: null,
  ambientCelsius: null,
  capacitanceMinFarads: null,
  capacitanceMaxFarads: null,
  leastRatedVolts: null,
  esrMinOhms: null,
};

/** Assumptions where nothing was measured: share of the original's ripple rating, air around the part, core rise. */
const assumedRippleShare = 0.7;
const assumedCoreRiseKelvin = 5;
const { highMainsRatio, controlSupplyVoltsRatio } = tradeConstants.replacement;
const { lowRailVolts } = tradeConstants.board;
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
    /** What it stands in: without it markings, sizes and shares of old ratings have to do. */
    readonly around?: Surroundings;
    /** Volts that rails up to 6 V want over what was logged there; null: as the table of positions has it. */
    readonly lowRailVoltsRatio?: number | null;
  },
  overrides: RequirementOverrides = noOverrides,
): Requirement | null {
  const { part, position, net } = place;
  const { capacitanceFarads, ratedVolts } = part;
  if (capacitanceFarads === null || ratedVolts === null) return null;
  const facts = sectionFacts[net?.section ?? "other"];
  const original = originalPart(part, capacitanceFarads, ratedVolts);
  const around = place.around ?? null;
  const highest = highestVolts(net, around);
  const railVolts = highest?.value ?? null;
  const entered = (value: number | null | undefined, computed: Limit | null): Limit | null =>
    value == null ? computed : { value, source: "entered" };
  const known = (value: number | null, source: LimitSource): Limit | null =>
    value === null ? null : { value, source };
  const ripple = net && around ? rippleNeed(position, net, around) : null;
  const rippleAmpsRms = entered(
    overrides.rippleAmpsRms,
    ripple
      ? { value: ripple.ampsRms, source: "ripple", band: [ripple.lowAmpsRms, ripple.highAmpsRms] }
      : { value: assumedRippleShare * (original.rippleAmpsRms ?? 0), source: "assumed" },
  ) as Limit;
  const mission = place.purpose
    ? missionProfile(place.purpose, rippleAmpsRms.value, isLoadedOnStandby(net, around))
    : null;
  const ambients = airAround({ position, part, net, mission, purpose: place.purpose ?? null, around });
  const esr = esrLimits(position, part, net, around);
  const esrMaxOhms = entered(
    overrides.esrMaxOhms,
    esr.mostOhms === null ? null : { value: esr.mostOhms, source: esrSources[esr.mostBy ?? "old_part"] },
  );
  const esrMinOhms = entered(
    overrides.esrMinOhms,
    esr.leastOhms === null ? null : { value: esr.leastOhms, source: esr.leastBy === "linear" ? "linear" : "loop" },
  );
  const isEmpty = esrMaxOhms !== null && esrMinOhms !== null && esrMinOhms.value > esrMaxOhms.value;
  const room = around ? placeRoom(position, around) : null;
  const capacitance = capacitanceLimits(capacitanceFarads, place);
  return {
    positionId: position.id,
    original,
    railVolts,
    capacitanceMinFarads: entered(overrides.capacitanceMinFarads, capacitance.least) as Limit,
    capacitanceMaxFarads: entered(overrides.capacitanceMaxFarads, capacitance.most) as Limit,
    leastRatedVolts: entered(overrides.leastRatedVolts, leastVolts(highest, ratedVolts, place)) as Limit,
    railNeedVolts: highest && railNeed(highest, place),
    leastTemperatureClassCelsius: leastClass(part.temperatureClassCelsius, net?.section),
    diameterMaxMetres: entered(
      overrides.diameterMaxMetres,
      known(room?.diameterMaxMetres ?? null, "drawing") ?? known(part.diameterMetres, "size"),
    ),
    heightMaxMetres: entered(
      overrides.heightMaxMetres,
      known(room?.heightMaxMetres ?? null, "lid") ?? known(part.heightMetres, "size"),
    ),
    pitchMetres: entered(overrides.pitchMetres, known(position.pitchMetres, "size")),
    ...{ esrMaxOhms, esrMinOhms },
    esrOpens: isEmpty ? ["keep_a_liquid_part", "load_step_test", "higher_ripple_limit"] : [],
    isOldOverRipple: esr.isOldOver,
    esrWarnOhms: esr.warnOhms,
    isLowEsrOnly: facts.isSwitchingOutput || net?.section === "vcc",
    rippleAmpsRms,
    ripple,
    ambientCelsius: entered(overrides.ambientCelsius, ambients[0] ?? null) as Limit,
    ambients,
    nextToId: room?.nextToId ?? null,
    mission,
    ratedCoreRiseKelvin: { value: assumedCoreRiseKelvin, source: "assumed" },
  };
}

const esrSources = { old_part: "marking", ripple: "ripple", linear: "linear" } as const;

/** Nominal or the highest that was logged there, whichever is more; of a bulk the crest of the highest mains. */
function highestVolts(net: BoardNet | null, around: Surroundings | null): Limit | null {
  if (!net) return null;
  const nominal = net.nominalVolts != null && net.nominalVolts !== 0 ? Math.abs(net.nominalVolts) : null;
  const logged = Math.max(
    0,
    ...tellingReadings(around?.facts.readings ?? [])
      .filter((one) => one.targetId === net.id && one.quantity === "dc_voltage" && one.isPowered)
      .map((one) => Math.abs(one.value ?? 0)),
  );
  const crest = net.section === "bulk" && around ? Math.SQRT2 * around.rail.mainsVoltsRms * highMainsRatio : 0;
  const value = Math.max(nominal ?? 0, logged, crest);
  if (value === 0) return null;
  return { value, source: logged === value && logged > (nominal ?? 0) ? "logged" : "rail" };
}

/** A supply of one converter works on standby too; of several only that of the standby, and what it hangs on. */
function isLoadedOnStandby(net: BoardNet | null, around: Surroundings | null): boolean {
  if (net?.section === "standby" || net?.section === "bulk" || net?.section === "pfc") return true;
  const topology = around?.facts.device.topology;
  return topology === "flyback" || topology === "self_oscillating";
}

const higher = (limit: Limit, value: number | null, source: LimitSource): Limit =>
  value !== null && value > limit.value ? { value, source } : limit;
const lower = (limit: Limit, value: number | null, source: LimitSource): Limit =>
  value !== null && value < limit.value ? { value, source } : limit;

function capacitanceLimits(
  capacitanceFarads: number,
  place: Parameters<typeof replacementRequirement>[0],
): { readonly least: Limit; readonly most: Limit } {
  const { net, around } = place;
  const limits = positionLimits(sectionFacts[net?.section ?? "other"].positionClass);
  const school = place.capacitanceSchool ?? "by_position";
  const [minRatio, maxRatio] = capacitanceRatios(school, limits);
  const source: LimitSource = school === "by_position" ? "position_table" : "house_rule";
  const least: Limit = { value: minRatio * capacitanceFarads, source };
  const most: Limit = { value: maxRatio * capacitanceFarads, source };
  if (net?.section === "vcc" && around) {
    const control = controlWindow(capacitanceFarads, around.rail.mainsVoltsRms);
    return {
      least: higher(least, control.leastFarads, "take_over"),
      most: lower(most, control.mostFarads, "start_time"),
    };
  }
  const window = net && around ? bulkWindow(place.position, net, capacitanceFarads, around) : null;
  if (!window) return { least, most };
  return { least: higher(least, window.leastFarads, "hold_up"), most: lower(most, window.mostFarads, "inrush") };
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
  highest: Limit | null,
  originalRatedVolts: number,
  place: Parameters<typeof replacementRequirement>[0],
): Limit {
  if (highest === null) return { value: originalRatedVolts, source: "marking" };
  if (place.voltageSchool === "marking") return { value: originalRatedVolts, source: "marking" };
  const need = railNeed(highest, place);
  const value = place.voltageSchool === "rail" ? need : Math.max(need, originalRatedVolts);
  return { value, source: value > originalRatedVolts || place.voltageSchool === "rail" ? highest.source : "marking" };
}

/** The highest volts of a rail with the margin of its position. */
function railNeed({ value: railVolts }: Limit, place: Parameters<typeof replacementRequirement>[0]): number {
  const section = place.net?.section ?? "other";
  const { positionClass: position } = sectionFacts[section];
  const ratio =
    section === "vcc"
      ? controlSupplyVoltsRatio
      : section === "bulk" && place.around
        ? positionLimits(position).voltsRejectRatio
        : railVolts <= lowRailVolts && place.lowRailVoltsRatio
          ? place.lowRailVoltsRatio
          : positionLimits(position).voltsWarnRatio;
  return ratio * railVolts;
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
