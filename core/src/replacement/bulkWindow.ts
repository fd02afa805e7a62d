import type { BoardNet, BoardPosition } from "../board/board";
import { promisedWatts } from "../board/promisedWatts";
import { tradeConstants } from "../constants/tradeConstants";
import { interpolate } from "../numerics/interpolate";
import { converterDropout } from "../ripple/converterDropout";
import { stiffInrush } from "../safety/inrush";
import { holdUpCapacitanceFarads } from "./holdUpCapacitance";
import type { Surroundings } from "./surroundings";

const { holdUpSeconds, usualEfficiencyRatio, valleyShare, highMainsRatio, hotThermistorRatio, thermistorJoules } =
  tradeConstants.replacement;

export interface BulkWindow {
  /** By the time that outputs must stand through a gap of the mains. */
  readonly leastFarads: number | null;
  /** By what the inrush thermistor can take in, at the highest mains. */
  readonly mostFarads: number | null;
}

/**
 * Capacitance of a place in a bulk bank, by hold-up below and by inrush above; the rest of the bank stays as it is marked.
 *
 *     least: 2 P t / (eta (V1^2 - V2^2)), V1 the valley, V2 where the converter gives up;  most: E = C V^2 / 2 <= the disc's joules
 *
 * @returns null where it is no bulk
 */
export function bulkWindow(
  position: BoardPosition,
  net: BoardNet,
  capacitanceFarads: number,
  around: Surroundings,
): BulkWindow | null {
  if (net.section !== "bulk" && net.section !== "pfc") return null;
  const { facts, rail } = around;
  const others = facts.positions
    .filter((one) => one.netId === net.id && one.kind === "electrolytic" && one.id !== position.id)
    .reduce((sum, one) => {
      const part = facts.fittedParts.find((fitted) => fitted.positionId === one.id && fitted.origin === "found");
      return sum + (part?.capacitanceFarads ?? 0);
    }, 0);
  const isSeries = net.network?.arrangement === "series";
  const own = (farads: number) => (isSeries ? 2 * farads : farads - others);
  const crest = Math.SQRT2 * rail.mainsVoltsRms * (isSeries ? 2 : 1);
  const watts = promisedWatts(facts.nets);
  const full = net.section === "pfc" ? Math.abs(net.nominalVolts ?? crest) : crest;
  const gap = {
    ...{ outputWatts: watts, efficiencyRatio: usualEfficiencyRatio, seconds: holdUpSeconds },
    startVolts: net.section === "pfc" ? full : valleyShare * full,
    endVolts: converterDropout(facts.device.topology, full).typicalVolts,
  };
  const least = watts > 0 && gap.startVolts > gap.endVolts ? own(holdUpCapacitanceFarads(gap)) : null;
  const joules = thermistorEnergyJoules(around);
  const most = joules === null ? null : own((2 * joules) / (highMainsRatio * crest) ** 2);
  return {
    leastFarads: least !== null && least > 0 ? least : null,
    // Less than what stands there and has lived with it is no limit that a bench would believe.
    mostFarads: most !== null && most > capacitanceFarads ? most : null,
  };
}

/** What the inrush thermistor of the board can take in at once, by the size of its disc; null without one that was measured. */
function thermistorEnergyJoules({ facts }: Surroundings): number | null {
  const disc = facts.positions.find((one) => one.kind === "ntc" && one.outlineWidthMetres !== null);
  return disc?.outlineWidthMetres == null ? null : interpolate(disc.outlineWidthMetres, thermistorJoules);
}

export interface InrushNote {
  readonly coldAmps: number;
  readonly coldAmpsSquaredSeconds: number;
  /** Switched on again within a minute or two: the thermistor is still hot. */
  readonly hotAmps: number;
  readonly hotAmpsSquaredSeconds: number;
  readonly joules: number;
  readonly isThermistorAssumed: boolean;
}

/**
 * Inrush into a bulk of a given C, cold and switched on again hot: the latter is what kills bridges and fuses.
 *
 *     I = V/(Rs + Rntc), I2t = V^2 C/(2 R);  hot: Rntc falls to a twelfth
 */
export function inrushNote(
  around: Surroundings,
  capacitanceFarads: number,
  sourceOhms: number = tradeConstants.replacement.usualSourceOhms,
): InrushNote {
  const marked = around.facts.positions.find((one) => one.kind === "ntc")?.markedOhms ?? null;
  const cold = marked ?? tradeConstants.replacement.usualThermistorOhms;
  const peakVolts = Math.SQRT2 * around.rail.mainsVoltsRms;
  const at = (ohms: number) => stiffInrush({ capacitanceFarads, peakVolts, seriesOhms: sourceOhms + ohms });
  const [first, again] = [at(cold), at(hotThermistorRatio * cold)];
  return {
    ...{ coldAmps: first.peakAmps, coldAmpsSquaredSeconds: first.ampsSquaredSeconds },
    ...{ hotAmps: again.peakAmps, hotAmpsSquaredSeconds: again.ampsSquaredSeconds },
    ...{ joules: first.storedJoules, isThermistorAssumed: marked === null },
  };
}
