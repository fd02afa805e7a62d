import type { BoardNet } from "../board/board";
import type { RailRules } from "../board/railRules";
import { rippleLimitVolts } from "../board/rippleLimit";
import { type Reading, standingReadings } from "../readings/reading";

export type CheckState = "passed" | "failed" | "not_measured" | "no_limit";

export interface RailProof {
  readonly netId: string;
  readonly unloadedVolts: number | null;
  readonly loadedVolts: number | null;
  readonly loadAmps: number | null;
  /** (unloaded - loaded) / nominal; null until both were measured. */
  readonly loadRegulationRatio: number | null;
  /** Volts per ampere of load; tens of milliohms are often the lead, not the supply. */
  readonly outputResistanceOhms: number | null;
  readonly lowLimitVolts: number | null;
  readonly highLimitVolts: number | null;
  readonly rippleVolts: number | null;
  readonly rippleLimitVolts: number | null;
  readonly unloaded: CheckState;
  readonly loaded: CheckState;
  readonly ripple: CheckState;
}

/**
 * What the readings on a rail prove, against its limits. A reading through a series lamp, a limiter or an isolation transformer is
 * not the same measurement: it is kept, but proves nothing here. Load regulation is related to the nominal voltage (the usual
 * bench convention; relating it to the loaded voltage differs by less than the regulation itself). Only readings under
 * load count for "loaded" and only the latest of each kind counts.
 */
export function railProof(net: BoardNet, readings: readonly Reading[], rules: RailRules): RailProof {
  const own = standingReadings(readings).filter(
    (reading) => reading.targetKind === "rail" && reading.targetId === net.id && reading.isPowered && isDirect(reading),
  );
  const isLoaded = (reading: Reading) => (reading.loadAmps ?? 0) > 0;
  const latest = (quantity: Reading["quantity"], loaded: boolean | null) =>
    own.filter((one) => one.quantity === quantity && (loaded === null || isLoaded(one) === loaded)).at(-1) ?? null;

  const unloadedVolts = latest("dc_voltage", false)?.value ?? null;
  const underLoad = latest("dc_voltage", true);
  const loadedVolts = underLoad?.value ?? null;
  const loadAmps = underLoad?.loadAmps ?? null;
  const rippleVolts = (latest("ripple_voltage", true) ?? latest("ripple_voltage", false))?.value ?? null;
  const nominal = net.nominalVolts === 0 ? null : net.nominalVolts;
  const tolerance = net.toleranceRatio ?? rules.railToleranceRatio;
  const edges = nominal === null ? null : [nominal * (1 - tolerance), nominal * (1 + tolerance)].sort((a, b) => a - b);
  const rippleLimit = rippleLimitVolts(net, rules);
  const drop = unloadedVolts !== null && loadedVolts !== null ? Math.abs(unloadedVolts) - Math.abs(loadedVolts) : null;
  return {
    netId: net.id,
    unloadedVolts,
    loadedVolts,
    loadAmps,
    loadRegulationRatio: drop === null || nominal === null ? null : drop / Math.abs(nominal),
    outputResistanceOhms: drop === null || !loadAmps ? null : drop / loadAmps,
    lowLimitVolts: edges?.[0] ?? null,
    highLimitVolts: edges?.[1] ?? null,
    rippleVolts,
    rippleLimitVolts: rippleLimit,
    unloaded: inside(unloadedVolts, edges),
    loaded: inside(loadedVolts, edges),
    ripple: inside(rippleVolts, rippleLimit === null ? null : [0, rippleLimit]),
  };
}

function isDirect({ rig }: Reading): boolean {
  return !rig.isSeriesLamp && !rig.isElectronicLimiter && !rig.isIsolationTransformer;
}

function inside(value: number | null, edges: readonly number[] | null): CheckState {
  if (value === null) return "not_measured";
  if (edges === null) return "no_limit";
  return value >= (edges[0] as number) && value <= (edges[1] as number) ? "passed" : "failed";
}
