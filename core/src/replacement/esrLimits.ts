import type { BoardNet, BoardPosition } from "../board/board";
import { currentPart, type FittedPart, foundPart } from "../board/board";
import { rippleLimitVolts } from "../board/rippleLimit";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import { tradeConstants } from "../constants/tradeConstants";
import { converterSource, ImpossibleConverterError } from "../ripple/converter";
import { largestRippleEsr, type RippleShape } from "../ripple/rippleEsr";
import { converterOf } from "../ripple/usualConverter";
import { leastLoopEsrOhms } from "./loopPhase";
import type { Surroundings } from "./surroundings";

const { mostOldEsrRatio, linearLeastOhms, linearMostOhms, loop } = tradeConstants.replacement;
const { warnDegrees } = loop;

export interface EsrLimits {
  readonly mostOhms: number | null;
  readonly mostBy: "old_part" | "ripple" | "linear" | null;
  /** By what is known and assumed of the converter even the old part as new would not keep the rail's ripple limit. */
  readonly isOldOver: boolean;
  readonly leastOhms: number | null;
  /** From here down the regulation loses noticeable phase, if not too much. */
  readonly warnOhms: number | null;
  readonly leastBy: "loop" | "linear" | null;
}

/**
 * ESR that a place may have, at 100 kHz and 20 degrees: above, the old part's catalogue maximum with a quarter more and what the rail's
 * ripple limit leaves for this place; below, what its regulation needs. The others of the bank count as new, by their markings:
 * what was read of them says nothing of what stands there afterwards.
 *
 * A linear regulator's output wants an ESR within a window of its own.
 */
export function esrLimits(
  position: BoardPosition,
  part: FittedPart,
  net: BoardNet | null,
  around: Surroundings | null,
): EsrLimits {
  const old = expectedEsrOfPart(part, 100e3, 20);
  const byOld = old === null ? null : mostOldEsrRatio * old.highOhms;
  if (net?.section === "linear-regulator") {
    const mostOhms = Math.min(byOld ?? linearMostOhms, linearMostOhms);
    return {
      mostOhms,
      mostBy: "linear",
      leastOhms: linearLeastOhms,
      leastBy: "linear",
      isOldOver: false,
      warnOhms: null,
    };
  }
  const bank = net && around ? bankOf(position, part, net, around) : null;
  const ofRipple = bank && net && around ? rippleMost(bank, net, around) : null;
  // Never less than the old part had as new: where even that is over the limit, what is assumed of the converter is off.
  const asNew = old?.highOhms ?? 0;
  const isOldOver = ofRipple !== null && ofRipple < asNew;
  const mostOhms = ofRipple !== null && (byOld === null || ofRipple < byOld) ? Math.max(ofRipple, asNew) : byOld;
  const leastOhms = bank && net && around ? loopLeast(bank, net, around) : null;
  const warnOhms = bank && net && around ? loopLeast(bank, net, around, warnDegrees) : null;
  return {
    ...{ mostOhms, leastOhms, warnOhms },
    isOldOver,
    mostBy: mostOhms === null ? null : mostOhms === ofRipple ? "ripple" : "old_part",
    leastBy: leastOhms === null ? null : "loop",
  };
}

/** The bank as new, this place apart from the others. */
interface Bank {
  readonly ownFarads: number;
  readonly ownOhms: number;
  readonly otherFarads: number;
  readonly otherSiemens: number;
}

function bankOf(position: BoardPosition, part: FittedPart, net: BoardNet, around: Surroundings): Bank | null {
  const own = expectedEsrOfPart(part, 100e3, 20);
  if (!own || part.capacitanceFarads === null) return null;
  let [otherFarads, otherSiemens] = [0, 0];
  for (const one of around.facts.positions) {
    if (one.id === position.id || one.netId !== net.id || one.kind !== "electrolytic") continue;
    const other = foundPart(around.facts.fittedParts, one.id) ?? currentPart(around.facts.fittedParts, one.id);
    const esr = other && expectedEsrOfPart(other, 100e3, 20);
    if (!other?.capacitanceFarads || !esr) continue;
    otherFarads += other.capacitanceFarads;
    otherSiemens += 1 / esr.typicalOhms;
  }
  return { ownFarads: part.capacitanceFarads, ownOhms: own.typicalOhms, otherFarads, otherSiemens };
}

/** What a limit of the whole bank leaves to this place beside the others; Infinity where they alone keep it. */
const placeOhms = (bankOhms: number, { otherSiemens }: Bank): number => {
  const siemens = 1 / bankOhms - otherSiemens;
  return siemens > 0 ? 1 / siemens : Number.POSITIVE_INFINITY;
};

/** By the ripple limit at the load; nothing is said where a choke stands between, or the load is not known. */
function rippleMost(bank: Bank, net: BoardNet, around: Surroundings): number | null {
  const limit = rippleLimitVolts(net, around.rail);
  const { nets } = around.facts;
  const isFiltered = nets.some((one) => one.network?.behindNetId === net.id) || net.network?.behindNetId != null;
  if (limit === null || isFiltered || net.fullLoadAmps === null) return null;
  const converter = converterOf(net, around.facts);
  try {
    const { source, switchingHertz } = converterSource(converter, {
      volts: net.nominalVolts,
      loadAmps: net.fullLoadAmps,
    });
    const currents = source.segments.flatMap((one) => [one.startAmps, one.endAmps]);
    const [low, high] = [Math.min(...currents), Math.max(...currents)];
    const isDiscontinuous = converter.kind === "flyback_discontinuous" || converter.kind === "flyback_quasi_resonant";
    const shape: RippleShape = isDiscontinuous
      ? { kind: "flyback", peakAmps: high, fallRatio: Math.min(1, (2 * net.fullLoadAmps) / high) }
      : { kind: "choke", swingAmps: high - low, dutyRatio: 0.5 };
    if (!(high > low)) return null;
    const found = largestRippleEsr({
      ...{ shape, switchingHertz, rippleLimitVolts: limit },
      capacitanceFarads: bank.ownFarads + bank.otherFarads,
    });
    const bankOhms = found.boundOhms;
    if (bankOhms === null || bankOhms <= 0) return 0;
    const own = placeOhms(bankOhms, bank);
    return Number.isFinite(own) ? own : null;
  } catch (error) {
    if (error instanceof ImpossibleConverterError) return null;
    throw error;
  }
}

const regulated: readonly BoardNet["section"][] = ["output", "output-post", "standby", "board-regulator"];

function loopLeast(bank: Bank, net: BoardNet, around: Surroundings, lostDegrees?: number): number | null {
  if (!regulated.includes(net.section)) return null;
  const converter = converterOf(net, around.facts);
  const isIsolated = converter.kind !== "buck" && converter.kind !== "boost";
  const before = {
    esrOhms: 1 / (1 / bank.ownOhms + bank.otherSiemens),
    capacitanceFarads: bank.ownFarads + bank.otherFarads,
  };
  const choke = around.facts.nets.find((one) => one.network?.behindNetId === net.id)?.network?.chokeHenrys ?? null;
  const switchingHertz = converter.switchingHertz ?? tradeConstants.replacement.usualSwitchingHertz;
  const least = leastLoopEsrOhms(before, before.capacitanceFarads, { switchingHertz, isIsolated }, choke, lostDegrees);
  if (least === 0) return null;
  const own = placeOhms(least, bank);
  return Number.isFinite(own) ? own : null;
}
