import { bankOf } from "../board/bank";
import type { BoardNet, BoardPosition, FittedPart } from "../board/board";
import { currentPart, foundPart } from "../board/board";
import { tradeConstants } from "../constants/tradeConstants";
import { storedEnergyJoules } from "../discharge/discharge";
import type { EnergyStore } from "../facts/chargeFacts";

const { touchLimitVolts, highVoltStoreJoules, anyVoltStoreJoules } = tradeConstants.safety;

/** What of a job tells which parts hold charge, and which of them were named. */
export interface StoreBoard {
  readonly nets: readonly BoardNet[];
  readonly positions: readonly BoardPosition[];
  readonly fittedParts: readonly FittedPart[];
  readonly energyStores: readonly EnergyStore[];
}

/** Parts of one net are read together, unless they stand in series: then each holds what it holds. */
export function isReadAlone(nets: readonly BoardNet[], netId: string | null): boolean {
  return netId === null || nets.find((net) => net.id === netId)?.network?.arrangement === "series";
}

/**
 * The store whose voltage is that of a part: its own, else one on the same net, where the parts of that net hang in
 * parallel. Two in series, as in a doubler, never answer for one another; nor does a reading across both.
 */
export function storeOfPosition(
  board: Pick<StoreBoard, "nets" | "positions" | "energyStores">,
  positionId: string,
): EnergyStore | undefined {
  const own = board.energyStores.find((store) => store.positionId === positionId);
  if (own) return own;
  const netOf = (id: string | null) => board.positions.find((one) => one.id === id)?.netId ?? null;
  const netId = netOf(positionId);
  if (isReadAlone(board.nets, netId)) return undefined;
  return board.energyStores.find((store) => (store.netId ?? netOf(store.positionId)) === netId);
}

/** Whether a part, or a net, hangs on a store whose drain is still connected. */
export function isUnderDrain(
  board: Pick<StoreBoard, "positions" | "energyStores">,
  states: readonly { readonly storeId: string | null; readonly isDrainOn: boolean }[],
  targetId: string,
): boolean {
  const netOf = (id: string | null) => board.positions.find((one) => one.id === id)?.netId ?? null;
  return board.energyStores.some((store) => {
    if (!states.some((one) => one.storeId === store.id && one.isDrainOn)) return false;
    const netId = store.netId ?? netOf(store.positionId);
    return store.positionId === targetId || (netId !== null && (netId === targetId || netId === netOf(targetId)));
  });
}

/**
 * What can hold a dangerous charge by the board alone, whether anybody named it or not: every bulk and PFC capacitor, and
 * whatever can hold more than 0.05 J above 60 V or more than 5 J at any voltage. A net that says no voltage holds what its
 * parts are rated for. A place whose part was taken out holds nothing.
 */
export function chargeHolders(board: Omit<StoreBoard, "energyStores">): readonly BoardPosition[] {
  return board.positions.filter((position) => {
    if (position.kind !== "electrolytic" && position.kind !== "film") return false;
    if (isEmptied(board, position)) return false;
    const net = board.nets.find((one) => one.id === position.netId);
    if (position.kind === "electrolytic" && (net?.section === "bulk" || net?.section === "pfc")) return true;
    const together =
      isReadAlone(board.nets, position.netId) || position.kind === "film"
        ? [position]
        : bankOf(position, board.positions, board.fittedParts);
    const parts = together.map((one) => partAt(board, one)).filter((part) => part !== undefined);
    const farads = parts.reduce((sum, part) => sum + (part.capacitanceFarads ?? 0), 0);
    const rated = Math.max(...parts.map((part) => part.ratedVolts ?? 0), 0);
    const volts = Math.abs(net?.nominalVolts ?? rated);
    if (!(farads > 0 && volts > 0)) return false;
    const joules = storedEnergyJoules(farads, volts);
    return joules > anyVoltStoreJoules || (volts > touchLimitVolts && joules > highVoltStoreJoules);
  });
}

/** The charge holders of the board that no named store answers for. */
export function unnamedHolders(board: StoreBoard): readonly BoardPosition[] {
  const hasLineStore = board.energyStores.some((store) => store.kind === "x_capacitor");
  return chargeHolders(board).filter(
    (position) =>
      !(position.kind === "film" && position.netId === null && hasLineStore) &&
      storeOfPosition(board, position.id) === undefined,
  );
}

function partAt(board: Omit<StoreBoard, "energyStores">, position: BoardPosition): FittedPart | undefined {
  return currentPart(board.fittedParts, position.id) ?? foundPart(board.fittedParts, position.id);
}

function isEmptied(board: Omit<StoreBoard, "energyStores">, { id }: BoardPosition): boolean {
  return foundPart(board.fittedParts, id)?.removedAt != null && currentPart(board.fittedParts, id) === undefined;
}
