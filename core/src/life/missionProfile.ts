import type { MissionSegment } from "./missionLife";

/** What a unit must do day by day, as it was promised at intake; null where nobody knows. */
export interface Purpose {
  readonly hoursPerDay: number | null;
  readonly standbyHoursPerDay: number | null;
  /** Air around the device. */
  readonly ambientCelsius: number | null;
  /** Built in or covered; null: unknown. */
  readonly isEnclosed: boolean | null;
}

export interface MissionProfile {
  readonly segments: readonly MissionSegment[];
  readonly offAmbientCelsius: number;
  /** Air around the capacitor while it works. */
  readonly partAmbientCelsius: number;
}

/** Rise of the air around a capacitor over the air around the device: in the open, closed in, on standby. Rough. */
const openRiseKelvin = 20;
const enclosedRiseKelvin = 35;
const standbyRiseKelvin = 8;
const usualRoomCelsius = 25;
/** A standby converter loads its capacitors lightly; the main outputs carry nothing then. Rough. */
const standbyRippleShare = 0.3;
const usualHoursPerDay = 8;

/**
 * The day of a capacitor from the purpose of its unit: hours at work, hours on standby, the rest switched off.
 *
 * The air at the part is the room's plus 20 K, or 35 K where the unit is enclosed (8 K on standby). What is not known is
 * taken as usual: 25 degrees C, 8 hours, no standby. Rough: a temperature measured at the part is better.
 *
 * @param isStandbySection the part belongs to the supply that runs on standby too
 * @returns null while nothing at all was promised
 */
export function missionProfile(
  purpose: Purpose,
  rippleAmpsRms: number,
  isStandbySection: boolean,
): MissionProfile | null {
  const { hoursPerDay, standbyHoursPerDay, ambientCelsius, isEnclosed } = purpose;
  if (hoursPerDay === null && standbyHoursPerDay === null && ambientCelsius === null && isEnclosed === null)
    return null;
  const room = ambientCelsius ?? usualRoomCelsius;
  const partAmbientCelsius = room + (isEnclosed ? enclosedRiseKelvin : openRiseKelvin);
  const working = Math.min(hoursPerDay ?? usualHoursPerDay, 24);
  const standby = Math.min(standbyHoursPerDay ?? 0, 24 - working);
  const segments: MissionSegment[] = [];
  if (working > 0) segments.push({ hours: working, ambientCelsius: partAmbientCelsius, rippleAmpsRms });
  if (standby > 0) {
    const standbyAmps = isStandbySection ? standbyRippleShare * rippleAmpsRms : 0;
    segments.push({ hours: standby, ambientCelsius: room + standbyRiseKelvin, rippleAmpsRms: standbyAmps });
  }
  return segments.length === 0 ? null : { segments, offAmbientCelsius: room, partAmbientCelsius };
}
