import type { Board, FittedPartRow, Position } from "@pale-cap/contract";
import { currentPart, foundPart } from "@pale-cap/core";

/** A part as it is drawn: middle and size in metres, on the board or in the tray of parts not placed yet. */
export interface DrawnPart {
  readonly position: Position;
  readonly part: FittedPartRow | undefined;
  readonly xMetres: number;
  readonly yMetres: number;
  readonly diameterMetres: number;
  readonly isPlaced: boolean;
}

const assumedDiameterMetres = 0.008;
const trayGapMetres = 0.006;
/** Below a row of the tray: its names. */
const trayRowMetres = 0.012;

/** Where everything is drawn. Cans without a place stand in rows under the board, no wider than it, to scale all the same. */
export function layOut(
  board: Board,
  positions: readonly Position[],
  parts: readonly FittedPartRow[],
): { readonly cans: readonly DrawnPart[]; readonly outlines: readonly Position[]; readonly heightMetres: number } {
  const cans: DrawnPart[] = [];
  let trayX = trayGapMetres;
  let trayDepth = 0;
  let trayTop = board.depthMetres + trayGapMetres;
  for (const position of positions) {
    if (position.kind !== "electrolytic") continue;
    const part = currentPart(parts, position.id) ?? foundPart(parts, position.id);
    const diameterMetres = part?.diameterMetres ?? assumedDiameterMetres;
    if (position.xMetres !== null && position.yMetres !== null) {
      const { xMetres, yMetres } = position;
      cans.push({ position, part, xMetres, yMetres, diameterMetres, isPlaced: true });
      continue;
    }
    if (trayX > trayGapMetres && trayX + diameterMetres > board.widthMetres) {
      trayX = trayGapMetres;
      trayTop += trayDepth + trayRowMetres;
      trayDepth = 0;
    }
    trayDepth = Math.max(trayDepth, diameterMetres);
    cans.push({
      position,
      part,
      xMetres: trayX + diameterMetres / 2,
      yMetres: trayTop + diameterMetres / 2,
      diameterMetres,
      isPlaced: false,
    });
    trayX += Math.max(diameterMetres, 0.012) + trayGapMetres;
  }
  const outlines = positions.filter(
    (one) => one.kind !== "electrolytic" && one.xMetres !== null && one.yMetres !== null,
  );
  const heightMetres = trayDepth > 0 ? trayTop + trayDepth + trayRowMetres : board.depthMetres;
  return { cans, outlines, heightMetres };
}

/** The stripe: the segment of the can's circle on the side it points to. */
export function stripePath(radius: number, degrees: number): string {
  const half = (42 * Math.PI) / 180;
  const middle = (degrees * Math.PI) / 180;
  const point = (angle: number) => `${(radius * Math.cos(angle)).toFixed(2)} ${(radius * Math.sin(angle)).toFixed(2)}`;
  return `M${point(middle - half)}A${radius} ${radius} 0 0 1 ${point(middle + half)}Z`;
}
