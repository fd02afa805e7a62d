import { formatQuantity, type GateCause, type PowerGate, type Rig } from "@pale-cap/core";

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
  electronicLimiter:
    "Readings through a limiter are kept but prove nothing: it folds back where the supply would not. It limits and does not isolate.",
  isolationTransformer:
    "Behind a transformer the residual-current device protects no more, and timing can be wrong by a factor of three. It isolates and limits nothing.",
} as const;

/** The residual-current device upstream, as it stands with this rig. */
export function residualCurrentWords(rig: Rig): string {
  return rig.isIsolationTransformer
    ? "Residual-current device: ineffective behind the transformer."
    : "Residual-current device: in the path; test its button before you rely on it.";
}

const gateCauses: Readonly<Record<GateCause, string>> = {
  told_at_intake: "A blown fuse or tripped breaker was told at intake",
  fuse_blown: "A fuse blew",
  breaker_tripped: "The breaker tripped",
  short_found: "The short test found a short",
};

/** Why no power-up is offered, or what opened the way again. */
export function powerGateWords(gate: PowerGate): string {
  if (gate.cause === null) return "";
  const cause = gateCauses[gate.cause];
  if (gate.isShut) return `${cause}: no power-up is offered before a test without a short is logged.`;
  const { openedBy } = gate;
  if (openedBy?.kind === "gate_overruled") return `${cause}; overruled: ${openedBy.note ?? ""}`;
  const ohms = openedBy?.resistanceOhms ?? null;
  return `${cause}; tested since, no short${ohms === null ? "" : `, ${formatQuantity(ohms, "Ω").text}`}.`;
}

/** Short, for the probe bar: through what the next reading is taken. */
export function rigWords(rig: Rig): string {
  const through = [
    rig.isSeriesLamp && "a series lamp",
    rig.isElectronicLimiter && "a limiter",
    rig.isIsolationTransformer && "an isolation transformer",
  ];
  const names = through.filter(Boolean).join(" and ");
  return names ? `Taken through ${names}: kept, but proves nothing.` : "";
}
