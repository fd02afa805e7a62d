import type { ReasonKey } from "@pale-cap/contract";
import type { Limit, RejectionCode, Requirement, RequirementOverrides, RippleNeed } from "@pale-cap/core";
import { formatQuantity, type InrushNote } from "@pale-cap/core";
import { listWords } from "./boardWords";
import { limitSourceLabels } from "./replacementWords";

/** Each limit that can be set by hand, and the part itself. */
export const overrideLabels: Readonly<Record<ReasonKey & (keyof RequirementOverrides | "part"), string>> = {
  diameterMaxMetres: "⌀ set by hand",
  heightMaxMetres: "Height set by hand",
  pitchMetres: "Pitch set by hand",
  esrMaxOhms: "ESR at most, set by hand",
  esrMinOhms: "ESR at least, set by hand",
  rippleAmpsRms: "Ripple current set by hand",
  ambientCelsius: "Air set by hand",
  capacitanceMinFarads: "C at least, set by hand",
  capacitanceMaxFarads: "C at most, set by hand",
  leastRatedVolts: "Rated volts set by hand",
  part: "Taken although it breaks a limit",
};

const assumedNames: Readonly<Record<RippleNeed["assumed"][number], string>> = {
  switchingHertz: "switching frequency",
  dutyRatio: "share of the period",
  rippleRatio: "swing",
  riseSeconds: "edges",
  loadAmps: "load",
  low_mains: "mains a tenth low",
};

const amps = (value: number) => formatQuantity(value, "A", { significantDigits: 2 }).text;

/** How the ripple current was reckoned, or that it was not. */
export function rippleNeedWords({
  ripple,
  rippleAmpsRms,
}: Pick<Requirement, "ripple" | "rippleAmpsRms">): string | null {
  if (rippleAmpsRms.source === "entered") return null;
  if (!ripple) {
    return "Ripple current: 70 % of the old part's own rating, assumed. Tell the rail's full load, and its converter under Ripple, and it is reckoned.";
  }
  const parts = ripple.twoParts
    ? ` ${amps(ripple.twoParts.twiceMainsAmpsRms)} at twice the mains and ${amps(ripple.twoParts.switchingAmpsRms)} of switching.`
    : "";
  const assumed =
    ripple.assumed.length > 0
      ? ` ${amps(ripple.lowAmpsRms)} to ${amps(ripple.highAmpsRms)} over what is assumed: ${listWords(ripple.assumed.map((one) => assumedNames[one]))}.`
      : "";
  return `Ripple current by the converter at its full load, this place's share beside the others as they will stand, as at 100 kHz.${parts}${assumed}`;
}

/** Every temperature that anything says of the air, and which of them counts. */
export function ambientWords(ambients: readonly Limit[]): string | null {
  const [first, ...rest] = ambients;
  if (!first) return null;
  const words = ({ value, source }: Limit) => `${Math.round(value)} °C ${limitSourceLabels[source]}`;
  if (first.source === "assumed") return "Air: 60 °C, assumed. A temperature read there under power is better.";
  if (rest.length === 0) return null;
  const why = first.source === "spot" ? "what was read there counts" : "the warmer counts";
  return `Air: ${listWords([first, ...rest].map(words))}; ${why}.`;
}

export const oldOverRippleWords =
  "By what is known and assumed of the converter even the old part as new would not keep this rail's ripple limit: its own ESR stands as the limit. A capture would tell.";

const openings = {
  keep_a_liquid_part: "one liquid part in the bank",
  load_step_test: "a load step that shows it does not ring",
  higher_ripple_limit: "a higher ripple limit of the rail",
} as const;

export function esrOpensWords(opens: Requirement["esrOpens"]): string | null {
  return opens.length === 0
    ? null
    : `No ESR lies between what the regulation wants and what the ripple allows. It would open with ${listWords(opens.map((one) => openings[one])).replace(/ and (?=[^,]*$)/, " or ")}.`;
}

/** What a bulk draws as it is switched on, cold and hot. */
export function inrushWords(note: InrushNote): string {
  const whole = (value: number, unit: string) => `${value < 10 ? value.toFixed(1) : Math.round(value)} ${unit}`;
  const assumed = note.isThermistorAssumed ? " with a thermistor of 5 Ω, assumed" : "";
  return `Switched on cold it draws up to ${whole(note.coldAmps, "A")} (${whole(note.coldAmpsSquaredSeconds, "A²s")})${assumed}; again within a minute or two, the thermistor still hot, ${whole(note.hotAmps, "A")} (${whole(note.hotAmpsSquaredSeconds, "A²s")}). Fuse and bridge must stand the second; the thermistor takes in ${whole(note.joules, "J")}. More C draws more in proportion.`;
}

const refusals: Readonly<Partial<Record<RejectionCode, string>>> = {
  voltage_low: "rated too low for the rail",
  temperature_class_low: "of a lower class",
  not_low_esr: "not low-ESR",
  position_check: "refused for the place",
};

/** What no reason overrides, counted; null where nothing was turned down for it. */
export function refusedWords(counts: Readonly<Partial<Record<RejectionCode, number>>>): string | null {
  const parts = Object.entries(counts).map(([code, count]) => `${count} ${refusals[code as RejectionCode] ?? code}`);
  return parts.length === 0 ? null : `Not offered, whatever the reason: ${listWords(parts)}.`;
}
