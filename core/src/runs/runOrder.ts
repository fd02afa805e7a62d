import { tradeConstants } from "../constants/tradeConstants";
import type { RunStop } from "./watchRun";

/** One act of ending a run, in its turn. */
export type EndAct = "mains_off" | "wait_for_rails" | "loads_off" | "ask_for_mains_off";

/**
 * The order in which a run is ended: the mains first, the loads on until each rail is below a volt: an output that is relieved of its
 * load while something is wrong runs up. Only where too much current flows, or where nobody but a person can switch the mains, the
 * loads go first.
 */
export function endOrder(stop: Pick<RunStop, "code"> | null, canSwitchMains: boolean): readonly EndAct[] {
  if (!canSwitchMains) return ["loads_off", "ask_for_mains_off"];
  if (stop?.code === "over_current") return ["loads_off", "mains_off"];
  return ["mains_off", "wait_for_rails", "loads_off"];
}

/** Below this a rail holds nothing that a load has to take. */
export const emptiedVolts = tradeConstants.runs.emptiedVolts;

export interface RestartFinding {
  /** Since the last sample that was stored, by the clock of the database. */
  readonly gapSeconds: number;
  readonly mostGapSeconds: number;
  /** Mains and loads as they say themselves; null: one does not answer. */
  readonly isMainsOn: boolean | null;
  readonly areLoadsOn: boolean | null;
  /** Of a first reading. */
  readonly stop: RunStop | null;
}

/**
 * Whether a run that lost its server goes on. It is read before anything is set; it goes on only if all is on, within limits, and the
 * gap short. Nothing is ever switched on for it.
 */
export function mayGoOn(found: RestartFinding): boolean {
  const isShort = found.gapSeconds >= 0 && found.gapSeconds < found.mostGapSeconds;
  return isShort && found.isMainsOn === true && found.areLoadsOn === true && found.stop === null;
}

/** How long the instruments wait by themselves for a word before they switch off: the mains before the loads. */
export function ownTimeouts(mostGapSeconds: number): { readonly mainsSeconds: number; readonly loadSeconds: number } {
  const mainsSeconds = mostGapSeconds + tradeConstants.runs.timeoutMarginSeconds;
  return { mainsSeconds, loadSeconds: mainsSeconds + tradeConstants.runs.timeoutMarginSeconds };
}
