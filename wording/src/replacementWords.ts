import { formatMarkedCapacitance, formatQuantity, type LimitSource, type Rejection } from "@pale-cap/core";

export const limitSourceLabels: Readonly<Record<LimitSource, string>> = {
  marking: "marking",
  position_table: "position table",
  house_rule: "house rule",
  purpose: "promised use",
  rail: "rail with margin",
  logged: "highest volts logged, with margin",
  size: "old part",
  drawing: "room in the drawing",
  lid: "room under the lid",
  ripple: "its converter and load",
  loop: "the regulation's phase",
  linear: "linear regulator",
  hold_up: "time it must hold up",
  inrush: "what the thermistor takes in",
  take_over: "until the winding carries it, IC assumed",
  start_time: "start within 3 s, IC assumed",
  spot: "read there under power",
  predecessor: "as the old one died",
  survivor: "at most, as the old one lived",
  assumed: "assumed",
  entered: "entered",
};

const checks: Readonly<Record<string, string>> = {
  R_V_BELOW_RAIL_LIMIT: "rated too near the rail",
  R_V_BELOW_MARKING_RAIL_UNKNOWN: "below the marking, and the rail is not known",
  R_C_TOO_SMALL: "far too little C",
  R_C_TOO_LARGE: "far too much C",
  R_ESR_TOO_HIGH: "ESR far too high",
  R_RIPPLE: "ripple rating below the old part's",
  R_POLYMER: "a polymer does not belong here",
  W_V_MARGIN: "little margin over the rail",
  W_V_BELOW_MARKING: "below the old marking",
  W_V_MUCH_HIGHER: "rated far above the old part",
  W_C_SMALL: "less C than usual here",
  W_C_LARGE: "more C than usual here",
  W_ESR_TOO_LOW: "ESR far lower: a loop may ring",
  W_ESR_HIGH: "ESR somewhat higher",
  W_ESR_UNKNOWN: "ESR not known",
  W_RIPPLE: "ripple rating somewhat lower",
  W_RIPPLE_UNKNOWN: "ripple rating not known",
  W_LOOP_PHASE: "ESR takes 15 to 30 degrees of the regulation's phase: try a load step",
  W_RIPPLE_MARGIN: "ripple rating with little over the current here",
  W_POLYMER: "polymer in place of a liquid part",
};

export const checkWords = (code: string): string => checks[code] ?? code;

/** Why a part was turned down, with what it has and what was needed. */
export function rejectionWords(rejection: Rejection): string {
  const got = rejection.got ?? 0;
  const limit = rejection.limit ?? 0;
  const mm = (metres: number) => formatQuantity(metres, "mm").text;
  switch (rejection.code) {
    case "capacitance_low":
      return `C ${formatMarkedCapacitance(got)}, needs ${formatMarkedCapacitance(limit)}`;
    case "capacitance_high":
      return `C ${formatMarkedCapacitance(got)}, at most ${formatMarkedCapacitance(limit)}`;
    case "voltage_low":
      return `${got} V, needs ${Number(limit.toPrecision(3))} V`;
    case "temperature_class_low":
      return `${got} °C class, needs ${limit} °C`;
    case "diameter_large":
      return `⌀ ${mm(got)}, room for ${mm(limit)}`;
    case "height_large":
      return `${mm(got)} high, room for ${mm(limit)}`;
    case "pitch_differs":
      return `pitch ${mm(got)}, holes at ${mm(limit)}`;
    case "esr_high":
      return `ESR ${formatQuantity(got, "Ω").text}, at most ${formatQuantity(limit, "Ω").text}`;
    case "esr_low":
      return `ESR typically ${formatQuantity(got, "Ω").text}: the regulation wants ${formatQuantity(limit, "Ω").text} at least`;
    case "ripple_low":
      return `rated ${formatQuantity(got, "A").text} of ripple, the place carries ${formatQuantity(limit, "A").text}`;
    case "not_low_esr":
      return "general purpose: no low-ESR part, and this is a switching output";
    case "position_check":
      return rejection.checks.map(checkWords).join(", ");
  }
}
