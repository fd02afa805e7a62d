import { bankOf } from "../board/bank";
import type { BoardNet, BoardPosition, FittedPart } from "../board/board";
import { tradeConstants } from "../constants/tradeConstants";
import { storedEnergyJoules } from "../discharge/discharge";
import type { StoreKind } from "../facts/chargeFacts";
import { requirePositive } from "../numerics/requireRange";

const { touchLimitVolts, worthNamingJoules } = tradeConstants.safety;

/**
 * How a store comes to its voltage. `doubler` is the whole of two in series fed half-wave each; `pair_half` one of two in
 * series behind a bridge; `pfc` behind a boost stage.
 */
export const storeFeeds = ["bridge", "doubler", "doubler_half", "pair_half", "pfc", "line"] as const;
export type StoreFeed = (typeof storeFeeds)[number];

/** Boost stages regulate to 380 to 400 V whatever the mains; the middle of what is met. Usual. */
const boostedVolts = 390;

/**
 * Voltage to expect on a store that is fed from the mains: the crest, once or twice, or what the boost stage makes of it.
 *
 *     bridge, line: sqrt(2) V    doubler: 2 sqrt(2) V    doubler_half: sqrt(2) V    pair_half: sqrt(2) V / 2
 *
 * `line` is an X capacitor: it is left at any point of the wave, the crest is the worst. A boost stage that never started
 * leaves the crest of the mains. Solid, diode drops left out; the mains itself may stand 10 % above its name.
 *
 * @throws {OutOfRangeError} mains not above 0
 * @example expectedStoreVolts("bridge", 230) // 325
 */
export function expectedStoreVolts(feed: StoreFeed, mainsVoltsRms: number): number {
  const crest = Math.SQRT2 * requirePositive("mainsVoltsRms", mainsVoltsRms);
  switch (feed) {
    case "doubler":
      return 2 * crest;
    case "pair_half":
      return crest / 2;
    case "pfc":
      return boostedVolts;
    default:
      return crest;
  }
}

/** Something on the board that could be named as a store. */
export interface StoreOffer {
  readonly kind: StoreKind;
  /** Designators that hold the charge, as a person lists them. */
  readonly designators: readonly string[];
  readonly positionId: string | null;
  readonly netId: string | null;
  readonly capacitanceFarads: number | null;
  readonly expectedVolts: number | null;
  readonly feed: StoreFeed | null;
}

interface OfferBoard {
  readonly nets: readonly BoardNet[];
  readonly positions: readonly BoardPosition[];
  readonly fittedParts: readonly FittedPart[];
}

/**
 * Stores that the board itself tells of: every bulk and PFC capacitor, and each bank behind the barrier that holds 0.3 J
 * or stands above 60 V. The voltage is the net's own where it has one, else the marking's for a bank.
 */
export function energyStoreOffers(board: OfferBoard, mainsVoltsRms: number): readonly StoreOffer[] {
  return board.nets.flatMap((net): StoreOffer[] => {
    const capacitors = board.positions.filter((one) => one.netId === net.id && one.kind === "electrolytic");
    if (capacitors.length === 0) return [];
    if (net.section === "bulk" || net.section === "pfc") {
      const feed = net.section === "pfc" ? "pfc" : "bridge";
      const expectedVolts = net.nominalVolts ?? Math.round(expectedStoreVolts(feed, mainsVoltsRms));
      return capacitors.map((one) => ({
        kind: net.section === "pfc" ? "pfc_bulk" : "bulk",
        designators: [one.designator],
        positionId: one.id,
        netId: null,
        capacitanceFarads: markedFarads(board, one),
        expectedVolts,
        feed,
      }));
    }
    const first = capacitors[0] as BoardPosition;
    const bank = bankOf(first, board.positions, board.fittedParts);
    const farads = bank.reduce((sum, one) => sum + (markedFarads(board, one) ?? 0), 0);
    const volts = net.nominalVolts === null ? null : Math.abs(net.nominalVolts);
    if (volts === null || farads === 0) return [];
    if (storedEnergyJoules(farads, volts) < worthNamingJoules && volts <= touchLimitVolts) return [];
    return [
      {
        kind: "output_bank",
        designators: bank.map((one) => one.designator),
        positionId: null,
        netId: net.id,
        capacitanceFarads: farads,
        expectedVolts: volts,
        feed: null,
      },
    ];
  });
}

function markedFarads(board: OfferBoard, position: BoardPosition): number | null {
  const parts = board.fittedParts.filter((part) => part.positionId === position.id);
  return (parts.find((part) => part.removedAt === null) ?? parts[0])?.capacitanceFarads ?? null;
}
