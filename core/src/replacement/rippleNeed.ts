import type { BoardNet, BoardPosition } from "../board/board";
import { rippleFrequencyMultiplier } from "../capacitors/rippleFrequencyMultiplier";
import { tradeConstants } from "../constants/tradeConstants";
import { type BulkState, isTooWeak, predictBulk } from "../ripple/bulkPrediction";
import { type Assumption, converterSource, ImpossibleConverterError } from "../ripple/converter";
import { type RippleBoard, railFilter, railRipple } from "../ripple/railRipple";
import { converterOf } from "../ripple/usualConverter";
import type { Surroundings } from "./surroundings";

const { ambientUnderLoadCelsius, lowMainsRatio, bulkSwitchingHertz } = tradeConstants.replacement;

/** The ripple current that a place must bear, as one current at 100 kHz, with the band of what had to be assumed. */
export interface RippleNeed {
  readonly ampsRms: number;
  readonly lowAmpsRms: number;
  readonly highAmpsRms: number;
  /** Of a bulk: at twice the mains, and by the switching; null elsewhere. */
  readonly twoParts: { readonly twiceMainsAmpsRms: number; readonly switchingAmpsRms: number } | null;
  readonly assumed: readonly (Assumption["key"] | "low_mains")[];
}

/**
 * Ripple current of a place by the converter and the promised load of its rail, shared by impedance among the parts that will
 * stand there afterwards: those that were chosen, and the others as new.
 *
 * @returns null where nothing was promised of the rail, or nothing can be reckoned: then a share of the old rating has to do
 */
export function rippleNeed(position: BoardPosition, net: BoardNet, around: Surroundings): RippleNeed | null {
  const { nets, positions } = around.facts;
  const renewedIds = positions.filter((one) => !around.chosen.has(one.id)).map((one) => one.id);
  // The place that is asked about is filled, whatever the plan says of it.
  const emptyIds = new Set([...around.emptyIds].filter((id) => id !== position.id));
  const board: RippleBoard = { ...around.facts, chosen: around.chosen, emptyIds };
  try {
    return net.section === "bulk" || net.section === "pfc"
      ? bulkNeed(position, net, board, around)
      : outputNeed(position, nets.find((one) => one.id === net.network?.behindNetId) ?? net, board, renewedIds, around);
  } catch (error) {
    if (error instanceof ImpossibleConverterError || isTooWeak(error)) return null;
    throw error;
  }
}

function outputNeed(
  position: BoardPosition,
  net: BoardNet,
  board: RippleBoard,
  renewedIds: readonly string[],
  { facts }: Surroundings,
): RippleNeed | null {
  if (net.fullLoadAmps === null) return null;
  const converter = converterOf(net, facts);
  const rail = { volts: net.nominalVolts, loadAmps: net.fullLoadAmps };
  const at = (instead: Parameters<typeof converterSource>[2] = {}) => {
    const described = converterSource(converter, rail, instead);
    const filter = railFilter(board, net.id, {
      ...{ state: "replaced", switchingHertz: described.switchingHertz, renewedIds },
      temperatureCelsius: ambientUnderLoadCelsius,
    });
    const share = filter && railRipple(filter, described.source).shares.find((one) => one.positionId === position.id);
    return { amps: share?.equivalentAmpsRms ?? null, described };
  };
  const { amps, described } = at();
  if (amps === null) return null;
  const ends = described.assumptions.flatMap(({ key, low, high }) =>
    [low, high].flatMap((value) => at({ [key]: value }).amps ?? []),
  );
  return {
    ampsRms: amps,
    lowAmpsRms: Math.min(amps, ...ends),
    highAmpsRms: Math.max(amps, ...ends),
    twoParts: null,
    assumed: described.assumptions.map((one) => one.key),
  };
}

/** At nominal mains; the lowest that usual nets allow loads it most. */
function bulkNeed(
  position: BoardPosition,
  net: BoardNet,
  board: RippleBoard,
  { facts, rail, mainsHertz }: Surroundings,
): RippleNeed | null {
  const at = (mainsVoltsRms: number) =>
    predictBulk({
      ...{ board, netId: net.id, mainsVoltsRms, mainsHertz, loadWatts: null },
      temperatureCelsius: ambientUnderLoadCelsius,
      supplyTopology: facts.device.topology,
    });
  const nominal = at(rail.mainsVoltsRms);
  const low = at(lowMainsRatio * rail.mainsVoltsRms);
  if (!nominal || !low || nominal.isLoadAssumed) return null;
  const own = share(position, net, board);
  if (!own) return null;
  const parts = (state: BulkState) => ({
    twiceMainsAmpsRms: own.byCapacitance * state.lowFrequencyAmpsRms,
    switchingAmpsRms: own.byResistance * state.highFrequencyAmpsRms,
  });
  const weighed = ({ twiceMainsAmpsRms, switchingAmpsRms }: ReturnType<typeof parts>) => {
    const factor = (hertz: number) => rippleFrequencyMultiplier(own.marking, hertz).multiplierRatio;
    return Math.hypot(twiceMainsAmpsRms / factor(2 * mainsHertz), switchingAmpsRms / factor(bulkSwitchingHertz));
  };
  const twoParts = parts(nominal.states.healthy);
  const ampsRms = weighed(twoParts);
  const highAmpsRms = Math.max(ampsRms, weighed(parts(low.states.healthy)));
  return { ampsRms, lowAmpsRms: ampsRms, highAmpsRms, twoParts, assumed: ["low_mains"] };
}

/** Of the current at twice the mains a part takes its share by C, of the switching by ESR; in series each carries all. */
function share(position: BoardPosition, net: BoardNet, board: RippleBoard) {
  const filter = railFilter(board, net.id, {
    ...{ state: "healthy", switchingHertz: bulkSwitchingHertz, temperatureCelsius: ambientUnderLoadCelsius },
  });
  const own = filter?.parts.find((one) => one.positionId === position.id);
  if (!filter || !own) return null;
  const { marking, capacitor } = own;
  if (net.network?.arrangement === "series") return { marking, byCapacitance: 1, byResistance: 1 };
  const { parts } = filter;
  const sum = (of: (part: (typeof parts)[number]) => number) => parts.reduce((total, part) => total + of(part), 0);
  return {
    marking,
    byCapacitance: capacitor.capacitanceFarads / sum((part) => part.capacitor.capacitanceFarads),
    byResistance: 1 / capacitor.esrOhms / sum((part) => 1 / part.capacitor.esrOhms),
  };
}
