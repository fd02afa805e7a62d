import type { Rig } from "@pale-cap/core";

/** What a series lamp does at first power, and what that means. */
export const firstPowerSigns: readonly (readonly [sign: string, meaning: string])[] = [
  ["flash, then dim or dark", "the bulk charged and little is drawn: go on, with care"],
  ["bright and steady", "a short or a heavy overload: switch off, drain, test for shorts"],
  ["pulsing", "it starts and gives up: control supply, a shorted output, or the lamp is too small"],
  ["dark from the start", "nothing is drawn: inlet, fuse, thermistor, bridge"],
];

/** What a rig falsifies; kept with every reading that is taken through it. */
export const rigNotes = {
  seriesLamp:
    "Readings through a lamp are kept but prove nothing: regulation, start-up timing and ripple under load are read again without it. A lamp limits and does not isolate.",
  isolationTransformer:
    "Behind a transformer the residual-current device protects no more, and timing can be wrong by a factor of three. It isolates and limits nothing.",
} as const;

/** Short, for the probe bar: through what the next reading is taken. */
export function rigWords(rig: Rig): string {
  const through = [rig.isSeriesLamp && "a series lamp", rig.isIsolationTransformer && "an isolation transformer"];
  const names = through.filter(Boolean).join(" and ");
  return names ? `Taken through ${names}: kept, but proves nothing.` : "";
}
