import { tradeConstants } from "../constants/tradeConstants";

const { sameDirectionDegrees } = tradeConstants.replacement;
/**
 * Whether the stripe of a part points where the board's own mark puts the negative side. Directions within 45 degrees
 * of each other agree; null while one of the two was not recorded.
 */
export function doPolaritiesAgree(boardNegativeDegrees: number | null, stripeDegrees: number | null): boolean | null {
  if (boardNegativeDegrees === null || stripeDegrees === null) return null;
  const difference = Math.abs(((boardNegativeDegrees - stripeDegrees + 540) % 360) - 180);
  return difference <= sameDirectionDegrees;
}
