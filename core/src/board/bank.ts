import { type BoardPosition, currentPart, type FittedPart } from "./board";

/** The electrolytics that share a net with a position and are fitted now: a bank, the position itself included. */
export function bankOf(
  position: BoardPosition,
  positions: readonly BoardPosition[],
  parts: readonly FittedPart[],
): readonly BoardPosition[] {
  if (position.netId === null) return [position];
  return positions.filter(
    (other) =>
      other.kind === "electrolytic" &&
      other.netId === position.netId &&
      (other.id === position.id || currentPart(parts, other.id) !== undefined),
  );
}
