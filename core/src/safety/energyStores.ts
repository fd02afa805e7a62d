import { type BoardNet, type BoardPosition, currentPart, foundPart } from "../board/board";
import { tradeConstants } from "../constants/tradeConstants";
import type { StoreKind } from "../facts/chargeFacts";
import { requirePositive } from "../numerics/requireRange";
import { chargeHolders, isReadAlone, type StoreBoard } from "./storeCoverage";

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

/**
 * What a store of unknown capacitance is drained as: with more than usual ones of its kind have, so that the time that is
 * told is long enough. Rough; what is read at the pins decides.
 */
export const assumedStoreFarads = (kind: StoreKind): number => tradeConstants.safety.assumedStoreFarads[kind];

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

type OfferBoard = Omit<StoreBoard, "energyStores">;

/**
 * The stores that the board itself tells of: each bulk and PFC capacitor, each of two in series by itself, X capacitors,
 * and each bank that counts (`chargeHolders`). The voltage is the net's own where it has one, halved for one of two in
 * series; else the crest of the mains, what a boost stage makes of it, or a bank's rating.
 */
export function energyStoreOffers(board: OfferBoard, mainsVoltsRms: number): readonly StoreOffer[] {
  const offers: StoreOffer[] = [];
  const told = new Set<string>();
  for (const position of chargeHolders(board)) {
    if (told.has(position.id)) continue;
    const net = board.nets.find((one) => one.id === position.netId);
    const offer =
      net && isBank(net, position) ? bankOffer(board, net, position) : ownOffer(board, net, position, mainsVoltsRms);
    for (const one of offer.netId === null ? [position] : onNet(board, position)) told.add(one.id);
    offers.push(offer);
  }
  return offers;
}

const isBank = (net: BoardNet, position: BoardPosition) =>
  position.kind === "electrolytic" && net.section !== "bulk" && net.section !== "pfc" && !isReadAlone([net], net.id);

const onNet = (board: OfferBoard, position: BoardPosition) =>
  chargeHolders(board).filter((one) => one.netId === position.netId && one.kind === "electrolytic");

function bankOffer(board: OfferBoard, net: BoardNet, position: BoardPosition): StoreOffer {
  const bank = onNet(board, position);
  const parts = bank.map((one) => partAt(board, one));
  const rated = Math.max(...parts.map((part) => part?.ratedVolts ?? 0));
  return {
    kind: "output_bank",
    designators: bank.map((one) => one.designator),
    positionId: null,
    netId: net.id,
    capacitanceFarads: parts.reduce((sum, part) => sum + (part?.capacitanceFarads ?? 0), 0),
    expectedVolts: Math.abs(net.nominalVolts ?? rated),
    feed: null,
  };
}

function ownOffer(
  board: OfferBoard,
  net: BoardNet | undefined,
  position: BoardPosition,
  mainsVoltsRms: number,
): StoreOffer {
  const part = partAt(board, position);
  const [kind, feed] = ownKind(net, position);
  const ratio = kind === "series_half" ? 0.5 : 1;
  const byNet = net?.nominalVolts == null ? null : Math.abs(net.nominalVolts) * ratio;
  const byFeed = feed === null ? (part?.ratedVolts ?? null) : Math.round(expectedStoreVolts(feed, mainsVoltsRms));
  return {
    kind,
    designators: [position.designator],
    positionId: position.id,
    netId: null,
    capacitanceFarads: part?.capacitanceFarads ?? null,
    expectedVolts: byNet ?? byFeed,
    feed,
  };
}

/** Of two in series nobody knows whether each is fed by itself: the whole crest is the worst. */
function ownKind(net: BoardNet | undefined, { kind }: BoardPosition): readonly [StoreKind, StoreFeed | null] {
  if (kind === "film") return net ? ["other", null] : ["x_capacitor", "line"];
  if (net?.section === "pfc") return ["pfc_bulk", "pfc"];
  if (net && isReadAlone([net], net.id)) return ["series_half", "doubler_half"];
  return net?.section === "bulk" ? ["bulk", "bridge"] : ["other", null];
}

function partAt(board: OfferBoard, { id }: BoardPosition) {
  return currentPart(board.fittedParts, id) ?? foundPart(board.fittedParts, id);
}
