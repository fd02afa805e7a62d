import type { BoardNet } from "../board/board";
import { railBand } from "../board/railBand";
import type { RailRules } from "../board/railRules";
import { tradeConstants } from "../constants/tradeConstants";
import { hostLimitVolts } from "../proof/hostLimit";
import { type LabelLimits, labelShare } from "../proof/labelLimits";
import { type LoadStep, loadedRails, loadPlan } from "../proof/loadPlan";
import type { RunKind, RunPlan, RunRail, RunSpot, RunStep } from "./runPlan";

const limits = tradeConstants.runs;

export interface RunQuestion {
  readonly kind: RunKind;
  readonly nets: readonly BoardNet[];
  readonly label: LabelLimits;
  readonly rules: RailRules;
  /** Which load hangs on which rail; a rail without one is not loaded. */
  readonly loads: readonly { readonly netId: string; readonly loadId: string }[];
  readonly mainsId: string | null;
  readonly scope: { readonly scopeId: string; readonly netId: string } | null;
  readonly spots: readonly RunSpot[];
  /** Of each step, or of the whole burn-in. */
  readonly dwellSeconds: number;
  readonly mostKelvinPerMinute: number;
  /** Beyond the promise, which nobody asks for unless somebody means it. */
  readonly isOverloadMeant?: boolean;
}

/**
 * The run that shows what was promised, with the limits at which it ends by itself.
 *
 * Steps are those of the load plan over the rails that have a load; a burn-in holds the last of them: all together, as far as the
 * label's watts reach. A rail may rise to what its host bears and fall as far again below its band as the band is wide: a little too
 * low is measured and told, a collapse ends it, and so with the ripple. Amperes a tenth above the promise, watts as a poor supply would draw. Usual.
 */
export function proposedRun(question: RunQuestion): RunPlan {
  const { kind, nets, label, rules, loads, mainsId, scope, spots, isOverloadMeant = false } = question;
  const loaded = nets.filter((net) => loads.some((one) => one.netId === net.id));
  const rails = loadedRails(loaded);
  const all = loadPlan(loaded, label);
  const heaviest = all.at(-1);
  const meant = isOverloadMeant && heaviest && kind === "load_run" ? [overloaded(heaviest, rails)] : [];
  const chosen = kind === "load_run" ? [...all, ...meant] : heaviest ? [heaviest] : [];
  const wattsOf = (amps: (net: BoardNet) => number) =>
    rails.reduce((sum, net) => sum + amps(net) * Math.abs(net.nominalVolts ?? 0), 0);
  const steps = chosen.map((step): RunStep => {
    const amps = (net: BoardNet) => step.loads.get(net.id) ?? 0;
    // A label may promise less than one of its rails alone.
    const isBeyond = isOverloadMeant && meant.includes(step);
    const drawn = new Map(rails.map((net) => [net.id, amps(net) * Math.abs(net.nominalVolts ?? 0)]));
    const share = isBeyond ? 1 : labelShare(drawn, label);
    return {
      loads: rails.map((net) => ({ netId: net.id, amps: rounded(share * amps(net)) })),
      dwellSeconds: question.dwellSeconds,
    };
  });
  const watts = Math.max(
    ...steps.map((step) => wattsOf((net) => step.loads.find((one) => one.netId === net.id)?.amps ?? 0)),
    0,
  );
  const scoped = scope && rails.find((net) => net.id === scope.netId);
  return {
    ...{ kind, steps, mainsId, spots, mostKelvinPerMinute: question.mostKelvinPerMinute },
    sampleSeconds: kind === "burn_in" ? limits.burnInSampleSeconds : limits.sampleSeconds,
    rails: rails.map((net) =>
      railOf(net, rules, loads.find((one) => one.netId === net.id)?.loadId ?? "", isOverloadMeant),
    ),
    mostInputWatts: mainsId === null ? null : Math.ceil(watts / limits.poorEfficiencyRatio + limits.idleWatts),
    ripple:
      scoped && scope
        ? { ...scope, mostVolts: rounded(limits.rippleStopRatio * Math.abs(scoped.nominalVolts ?? 0)) }
        : null,
  };
}

/** A tenth more than the promise on all rails; a current output gives what it gives. */
function overloaded(step: LoadStep, rails: readonly BoardNet[]): LoadStep {
  const loads = new Map(
    rails.map((net) => [net.id, (net.isCurrentOutput ? 1 : limits.overloadRatio) * (net.fullLoadAmps ?? 0)]),
  );
  return { ...step, key: "overload", loads };
}

function railOf(net: BoardNet, rules: RailRules, loadId: string, isOverloadMeant: boolean): RunRail {
  const nominal = Math.abs(net.nominalVolts ?? 0);
  const band = railBand(net, rules, true);
  const low = band ? Math.min(Math.abs(band.low), Math.abs(band.high)) : 0;
  return {
    ...{ netId: net.id, loadId },
    lowVolts: rounded(Math.max(low - (nominal - low), 0)),
    highVolts: rounded(hostLimitVolts(nominal)),
    mostAmps: rounded((isOverloadMeant ? limits.overloadRatio : 1) * limits.overPromiseRatio * (net.fullLoadAmps ?? 0)),
    heldVolts: net.isCurrentOutput ? nominal : null,
  };
}

/** As a load or a person is told it; never above what it came from. */
const rounded = (value: number): number => Math.floor(value * 1000 + 1e-6) / 1000;
