import type { DrainKitItem } from "../facts/drainKit";
import { decayedVolts } from "./discharge";
import { drainKitLoad } from "./drainKitLoad";
import { type DrainCourse, drainCourse } from "./drainPath";

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
    const samples = lampSamples(capacitanceFarads, startVolts, bleederOhms, item);
    return sampledVolts(samples, elapsedSeconds);
  }
  const ohms = item ? (item.ohms ?? 0) * item.count : path.resistanceOhms;
  if (!ohms) return null;
  const together = 1 / (1 / ohms + (bleederOhms === null ? 0 : 1 / bleederOhms));
  return decayedVolts(startVolts, together * capacitanceFarads, elapsedSeconds);
}

type Samples = DrainCourse["samples"];

/** The last few courses: a drain is asked for its voltage again every second, and its course does not change. */
const courses = new Map<string, Samples>();
const keptCourses = 16;

function lampSamples(
  capacitanceFarads: number,
  startVolts: number,
  bleederOhms: number | null,
  lamp: DrainKitItem,
): Samples {
  const key = [capacitanceFarads, startVolts, bleederOhms, lamp.count, lamp.watts, lamp.volts].join("|");
  const known = courses.get(key);
  if (known) return known;
  const path = { capacitanceFarads, startVolts, bleederOhms, esrOhms: 0, load: drainKitLoad(lamp) };
  const { samples } = drainCourse(path, [lampFloorVolts]);
  const [oldest] = courses.keys();
  if (courses.size >= keptCourses && oldest !== undefined) courses.delete(oldest);
  courses.set(key, samples);
  return samples;
}

function sampledVolts(samples: Samples, seconds: number): number {
  const after = samples.findIndex((sample) => sample.seconds >= seconds);
  if (after === -1) return samples.at(-1)?.volts ?? 0;
  const [from, to] = [samples[Math.max(after - 1, 0)], samples[after]];
  if (!from || !to || to.seconds === from.seconds) return to?.volts ?? 0;
  const share = (Math.max(seconds, 0) - from.seconds) / (to.seconds - from.seconds);
  return from.volts + share * (to.volts - from.volts);
}
