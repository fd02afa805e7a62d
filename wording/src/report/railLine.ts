import { type BoardNet, type CheckState, formatQuantity, proofOf } from "@pale-cap/core";
import type { ReportModel } from "./reportModel";

const amps = (value: number) => formatQuantity(value, "A").text;
const volts = (value: number) => formatQuantity(value, "V", { significantDigits: 4 }).text;

const held: Readonly<Partial<Record<CheckState, string>>> = {
  passed: " and held within its limits.",
  part_load: " only, and held within its limits there.",
  failed: " and was outside its limits.",
  wrong_sign: " and was outside its limits.",
  unexplained: " and held within its limits since; what had made it read otherwise before is not explained.",
  no_limit: "; its limits are not known.",
};
const shown = new Set<CheckState>(["passed", "part_load", "unexplained", "no_limit"]);

/** How far a promised output was loaded and whether it held, in plain words. */
export function railLine(
  net: BoardNet,
  { facts, rules }: Pick<ReportModel, "facts" | "rules">,
  withVolts: boolean,
): { readonly words: string; readonly isShown: boolean } {
  const { loaded } = proofOf(net, facts, rules);
  const { reading, state } = loaded;
  if (reading?.loadAmps == null || net.fullLoadAmps === null) {
    return { words: `Output ${net.name}: not loaded.`, isShown: false };
  }
  const stood = withVolts && reading.value !== null ? ` It stood at ${volts(reading.value)}.` : "";
  const load = `Output ${net.name} was loaded with ${amps(reading.loadAmps)} of the ${amps(net.fullLoadAmps)} promised`;
  return { words: `${load}${held[state] ?? ", and nobody noted how far it held."}${stood}`, isShown: shown.has(state) };
}
