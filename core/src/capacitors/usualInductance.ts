import { tradeConstants } from "../constants/tradeConstants";

const { henrysPerPitchMetre, leastCanHenrys, mostCanHenrys, usualPitchMetres } = tradeConstants.ripple;

/** Pitch of a radial can of this diameter, where nobody measured it. */
export function usualPitchOf(diameterMetres: number): number {
  return usualPitchMetres.find(([upTo]) => diameterMetres <= upTo)?.[1] ?? 10e-3;
}

/**
 * Inductance of a can with its leads on the board: what the loop between its pins holds, about 2.5 nH for each millimetre
 * of pitch. Rough (a third either way); traces come on top.
 *
 * @param can pitch as measured, else by the diameter, else as of a 10 mm can
 * @example usualInductanceHenrys({ pitchMetres: 5e-3, diameterMetres: null }) // 12.5e-9
 */
export function usualInductanceHenrys(can: {
  readonly pitchMetres: number | null;
  readonly diameterMetres: number | null;
}): number {
  const pitch = can.pitchMetres ?? usualPitchOf(can.diameterMetres ?? 10e-3);
  return Math.min(Math.max(henrysPerPitchMetre * pitch, leastCanHenrys), mostCanHenrys);
}
