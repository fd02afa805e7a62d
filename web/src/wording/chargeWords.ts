import type { ChargeState, EnergyStore, UnknownReason } from "@pale-cap/core";
import { formatQuantity } from "@pale-cap/core";
import { logTime } from "../ui/times";

const reasons: Readonly<Record<UnknownReason, string>> = {
  nothing_logged: "nothing measured yet",
  mains_connected: "mains was connected",
  live_reading: "a live reading was taken",
  meter_not_proved: "meter not proved",
  zero_without_history: "zero without an earlier voltage",
  verification_expired: "too long ago, measure again",
};

/** The charge watch in words: what was measured and when, never that something is safe. */
export function chargeWords(state: ChargeState, stores: readonly EnergyStore[]): string {
  const name = stores.find((store) => store.id === state.storeId)?.name ?? "Charge";
  const volts = state.volts === null ? "" : formatQuantity(state.volts, "V").text;
  const at = state.at ? ` at ${logTime(state.at)}` : "";
  switch (state.name) {
    case "unknown":
      return `${name} unknown: ${reasons[state.reason ?? "nothing_logged"]}`;
    case "charged":
      return `${name} charged, ${volts}${at}`;
    case "draining":
      return state.predictedVolts === null
        ? `${name} draining since ${at.slice(4)}`
        : `${name} draining, about ${formatQuantity(state.predictedVolts, "V", { significantDigits: 2 }).text} left if connected`;
    case "verified":
      return `${name} measured ${volts}${at}`;
  }
}
