import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { drainKitLoad } from "../discharge/drainKitLoad";
import { type DrainCourse, drainCourse } from "../discharge/drainPath";
import type { DrainKitItem } from "../facts/drainKit";

const { hottestFilamentKelvin, lampVoltsRatio } = tradeConstants.safety;

export type DrainRefusalCode = "volts_exceeded" | "pulse_power_exceeded" | "filament_too_hot" | "too_slow";

/** Why a body would be over-stressed: what it would see and what it stands. */
export interface DrainRefusal {
  readonly code: DrainRefusalCode;
  readonly got: number;
  readonly limit: number;
}

export interface DrainPlan {
  readonly item: DrainKitItem;
  /** Series resistance; null for lamps, which have none of their own. */
  readonly totalOhms: number | null;
  readonly course: DrainCourse;
  readonly peakPowerEachWatts: number;
  readonly energyEachJoules: number;
  readonly voltsEach: number;
  /** To 60 V, to the house limit, to 10 V. */
  readonly secondsToTouchLimit: number;
  readonly secondsToWorkingLimit: number;
  readonly secondsToTarget: number;
  readonly refusals: readonly DrainRefusal[];
}

/**
 * What draining a store with a kit item would do: times, energy, stress on each body, and reasons against it.
 *
 * Resistors: voltage rating with margin and the single-pulse power of the constants (wire-wound from 5 W stand more).
 * Lamps: filament temperature from the model, and voltage. Usual and cautious; one drain at a time, never a live supply.
 *
 * @throws {OutOfRangeError} values not above 0
 */
export function drainPlan(
  store: { readonly capacitanceFarads: number; readonly startVolts: number; readonly bleederOhms: number | null },
  item: DrainKitItem,
  limits: { readonly workingVolts: number; readonly longestSeconds: number },
  constants: JudgementConstants["F"] = judgementConstants.F,
): DrainPlan {
  const targets = [constants.V_elv, limits.workingVolts, constants.V_target];
  const course = drainCourse({ ...store, esrOhms: 0, load: drainKitLoad(item) }, targets);
  const [toTouch, toWorking, toTarget] = course.secondsToTargets as readonly [number, number, number];
  const voltsEach = store.startVolts / item.count;
  const peakPowerEachWatts = course.peakPowerWatts / item.count;
  const refusals: DrainRefusal[] = [];
  const refuse = (code: DrainRefusalCode, got: number, limit: number) => {
    if (got > limit * (1 + 1e-9)) refusals.push({ code, got, limit });
  };
  if (item.kind === "resistor") {
    refuse("volts_exceeded", voltsEach, constants.v_margin * item.volts);
    refuse("pulse_power_exceeded", peakPowerEachWatts, pulseFactor(item.watts, constants) * item.watts);
  } else {
    refuse("volts_exceeded", voltsEach, lampVoltsRatio * item.volts);
    refuse("filament_too_hot", course.peakKelvin ?? 0, hottestFilamentKelvin);
  }
  refuse("too_slow", toWorking, limits.longestSeconds);
  return {
    item,
    totalOhms: item.ohms === null ? null : item.ohms * item.count,
    course,
    peakPowerEachWatts,
    energyEachJoules: course.loadJoules / item.count,
    voltsEach,
    secondsToTouchLimit: toTouch,
    secondsToWorkingLimit: toWorking,
    secondsToTarget: toTarget,
    refusals,
  };
}

/** Single-pulse factor of the largest body in the constants that is not larger than this one. */
function pulseFactor(watts: number, constants: JudgementConstants["F"]): number {
  const known = constants.parts.filter(([, rated]) => rated <= watts).at(-1) ?? constants.parts[0];
  return known?.[3] ?? 1;
}
