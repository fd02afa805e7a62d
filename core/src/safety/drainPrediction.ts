import { decayedVolts } from "./discharge";
import { drainCourse } from "./drainPath";
import { type DrainKitItem, drainKitLoad } from "./drainPlan";

/** What hangs on a store while it drains; a bleeder drains beside it. */
export interface DrainConnection {
  readonly capacitanceFarads: number;
  readonly startVolts: number;
  readonly bleederOhms: number | null;
  /** The named part of the shop's kit; null: a plain resistor. */
  readonly item: DrainKitItem | null;
  readonly resistanceOhms: number | null;
}

/** A lamp's course is followed down to this; below, a lamp is as good as its cold resistance. */
const lampFloorVolts = 1;

/**
 * Voltage that is left some seconds after the drain was connected: the closed form for resistors, the integrated course
 * for lamps.
 *
 * @returns null while neither an item nor a resistance is known
 * @throws {OutOfRangeError} capacitance, voltage or resistances not above 0
 */
export function predictedDrainVolts(path: DrainConnection, elapsedSeconds: number): number | null {
  const { capacitanceFarads, startVolts, bleederOhms, item } = path;
  if (!(startVolts > 0)) return 0;
  if (item?.kind === "lamp") {
    if (startVolts <= lampFloorVolts) return startVolts;
    const { samples } = drainCourse(
      { capacitanceFarads, startVolts, bleederOhms, esrOhms: 0, load: drainKitLoad(item) },
      [lampFloorVolts],
    );
    return sampledVolts(samples, elapsedSeconds);
  }
  const ohms = item ? (item.ohms ?? 0) * item.count : path.resistanceOhms;
  if (!ohms) return null;
  const together = 1 / (1 / ohms + (bleederOhms === null ? 0 : 1 / bleederOhms));
  return decayedVolts(startVolts, together * capacitanceFarads, elapsedSeconds);
}

function sampledVolts(
  samples: readonly { readonly seconds: number; readonly volts: number }[],
  seconds: number,
): number {
  const after = samples.findIndex((sample) => sample.seconds >= seconds);
  if (after === -1) return samples.at(-1)?.volts ?? 0;
  const [from, to] = [samples[Math.max(after - 1, 0)], samples[after]];
  if (!from || !to || to.seconds === from.seconds) return to?.volts ?? 0;
  const share = (Math.max(seconds, 0) - from.seconds) / (to.seconds - from.seconds);
  return from.volts + share * (to.volts - from.volts);
}
