import type { NetCourse } from "./operation";

/** What a scope sees: the mean, both ripples, pulses and spikes at the edges, from a moment on. */
export function voltsAt(course: NetCourse, seconds: number, mainsHertz: number): number {
  const { pulses } = course;
  let volts = course.meanVolts;
  if (pulses) {
    const phase = (seconds / pulses.periodSeconds) % 1;
    const isOn = phase < pulses.onRatio;
    const within = isOn ? phase / pulses.onRatio : (phase - pulses.onRatio) / (1 - pulses.onRatio);
    // Falling while it runs, climbing while it waits: a control supply; an output is charged and left.
    volts = isOn
      ? pulses.highVolts - (pulses.highVolts - pulses.lowVolts) * within
      : pulses.lowVolts + (pulses.highVolts - pulses.lowVolts) * within;
  }
  // Rectified mains: a quick rise and a slow, nearly straight fall, twice in each cycle.
  const half = (seconds * 2 * mainsHertz) % 1;
  volts += course.mainsPeakToPeak * (half < 0.2 ? half / 0.2 - 0.5 : 0.5 - (half - 0.2) / 0.8);
  return volts + swingVolts(course, seconds) + switchingVolts(course, seconds);
}

/** Half of the time the load is up: each step dips, or overshoots, and comes back. */
function swingVolts({ swing }: NetCourse, seconds: number): number {
  if (!swing) return 0;
  const [half, phase] = [swing.periodSeconds / 2, seconds % swing.periodSeconds];
  return phase < half ? swing.voltsAfter(phase) : -swing.voltsAfter(phase - half);
}

function switchingVolts({ switching }: NetCourse, seconds: number): number {
  if (!switching) return 0;
  const at = seconds % switching.periodSeconds;
  let [low, high] = [0, switching.seconds.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((switching.seconds[middle] as number) <= at) low = middle;
    else high = middle;
  }
  const [t0 = 0, t1 = 0] = [switching.seconds[low], switching.seconds[high]];
  const [v0 = 0, v1 = 0] = [switching.volts[low], switching.volts[high]];
  return t1 > t0 ? v0 + ((v1 - v0) * (at - t0)) / (t1 - t0) : v0;
}
