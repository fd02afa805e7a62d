import { tradeConstants } from "../constants/tradeConstants";

const trade = tradeConstants.stock;

/** One piece of a delivery as it was measured; null: not measured. */
export interface SampledPiece {
  readonly massKilograms: number | null;
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  readonly esrOhms: number | null;
  readonly capacitanceFarads: number | null;
}

/** What the series promises of it. */
export interface PromisedPart {
  readonly diameterMetres: number;
  readonly heightMetres: number;
  readonly esrOhms: number;
  readonly capacitanceFarads: number;
}

export type PieceDoubt = "hollow" | "mass_off" | "size_off" | "esr_high" | "capacitance_off";

/**
 * What of a piece is not as its series says.
 *
 *     mass = 1.5 g/cm3 x can volume, +-15 %; below 75 %: a small can in a big sleeve;  size +-0.5 mm;  ESR <= sheet;  C +-20 %
 *
 * Mass: rough, to be replaced by the shop's own lots. The rest: usual.
 */
export function pieceDoubts(piece: SampledPiece, promised: PromisedPart): readonly PieceDoubt[] {
  const doubts: PieceDoubt[] = [];
  if (piece.massKilograms !== null) {
    const ratio = piece.massKilograms / usualMassKilograms(promised);
    if (ratio < trade.hollowBelowRatio) doubts.push("hollow");
    else if (Math.abs(ratio - 1) > trade.massToleranceRatio) doubts.push("mass_off");
  }
  const isOff = (got: number | null, wanted: number) =>
    got !== null && Math.abs(got - wanted) > trade.sizeToleranceMetres + 1e-9;
  if (isOff(piece.diameterMetres, promised.diameterMetres) || isOff(piece.heightMetres, promised.heightMetres)) {
    doubts.push("size_off");
  }
  if (piece.esrOhms !== null && piece.esrOhms > promised.esrOhms * (1 + 1e-9)) doubts.push("esr_high");
  const farads = piece.capacitanceFarads;
  if (
    farads !== null &&
    Math.abs(farads / promised.capacitanceFarads - 1) > trade.capacitanceToleranceRatio * (1 + 1e-9)
  ) {
    doubts.push("capacitance_off");
  }
  return doubts;
}

/** @example usualMassKilograms({ diameterMetres: 10e-3, heightMetres: 20e-3 }) // 2.36e-3 */
export function usualMassKilograms(can: Pick<PromisedPart, "diameterMetres" | "heightMetres">): number {
  return (trade.canKilogramsPerCubicMetre * Math.PI * can.diameterMetres ** 2 * can.heightMetres) / 4;
}

/** A piece with no number at all says nothing of its lot. */
export const isMeasured = (piece: SampledPiece): boolean => Object.values(piece).some((one) => one !== null);

/**
 * Standard deviation over mean of what was read of ESR; null below three pieces. One maker's one lot scatters by less than 8 %.
 */
export function esrVariation(pieces: readonly SampledPiece[]): number | null {
  const read = pieces.flatMap(({ esrOhms }) => (esrOhms === null ? [] : [esrOhms]));
  if (read.length < 3) return null;
  const mean = read.reduce((sum, one) => sum + one, 0) / read.length;
  const variance = read.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (read.length - 1);
  return Math.sqrt(variance) / mean;
}

export const mostEsrVariation = trade.mostEsrVariation;
