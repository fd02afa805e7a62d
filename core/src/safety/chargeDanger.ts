import { tradeConstants } from "../constants/tradeConstants";
import { requireNonNegative } from "../numerics/requireRange";

const { touchLimitVolts, severeFromJoules, deadlyFromJoules } = tradeConstants.safety;

/** From a spark that marks a pin to a charge that can stop a heart. */
export const dangerLevels = ["faint", "startling", "severe", "deadly"] as const;
export type DangerLevel = (typeof dangerLevels)[number];

/**
 * What a charge can do to a person, by energy and voltage.
 *
 * At or below 60 V d.c. skin hardly lets it through: `faint`. Above: under 0.25 J `startling` (the jerk hurts more than
 * the shock), under 10 J `severe` (painful, dangerous across the chest), from 10 J `deadly`. Bands as usual in guides
 * for stored electrical energy; rough, and no promise: a hand-to-hand path through wet skin has killed with less.
 *
 * @throws {OutOfRangeError} negative or not finite
 */
export function chargeDanger(storedJoules: number, volts: number): DangerLevel {
  const joules = requireNonNegative("storedJoules", storedJoules);
  if (requireNonNegative("volts", volts) <= touchLimitVolts) return "faint";
  if (joules < severeFromJoules) return "startling";
  return joules < deadlyFromJoules ? "severe" : "deadly";
}

const standardGravity = 9.81;

/** Height from which a kilogram falls with the same energy: h = E / (m g). */
export function fallOfKilogramMetres(storedJoules: number): number {
  return requireNonNegative("storedJoules", storedJoules) / standardGravity;
}
