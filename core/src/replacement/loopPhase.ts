import { tradeConstants } from "../constants/tradeConstants";
import { bracketedRoot } from "../numerics/bracketedRoot";
import { requirePositive } from "../numerics/requireRange";

const { warnDegrees, rejectDegrees, crossoverShare, couplerCrossoverHertz, peakingQ } = tradeConstants.replacement.loop;

export interface LoopChange {
  readonly crossoverHertz: number;
  readonly isCrossoverAssumed: boolean;
  readonly oldDegrees: number;
  readonly newDegrees: number;
  /** Of the phase lead that the regulation had; above 0 it has less. */
  readonly lostDegrees: number;
  /** Of the choke behind the bank; null without one. */
  readonly q: number | null;
  readonly verdict: "ok" | "warn" | "reject";
}

/** A bank as a regulation sees it. */
export interface LoopBank {
  readonly esrOhms: number;
  readonly capacitanceFarads: number;
}

/**
 * What new capacitors take from the phase of the regulation: the zero of their ESR gives lead at the crossover, and less ESR or
 * less C moves it away.
 *
 *     fz = 1/(2 pi ESR C),  lead = atan(fc/fz),  Q = sqrt(L/C)/ESR
 *
 * A loss of 15 degrees warns, of 30 rejects where no load step was tried; so does a Q above 3. Where nobody knows the
 * crossover it is fs/15, behind an optocoupler at most 5 kHz. From benches, rough.
 *
 * @param fed `isIsolated`: the regulation passes an optocoupler
 * @throws {OutOfRangeError} values not above 0
 */
export function loopChange(
  before: LoopBank,
  after: LoopBank,
  fed: { readonly switchingHertz: number; readonly isIsolated: boolean; readonly crossoverHertz?: number | null },
  chokeHenrys: number | null = null,
): LoopChange {
  const crossoverHertz = crossoverOf(fed);
  const lead = (bank: LoopBank) =>
    (Math.atan(
      2 *
        Math.PI *
        crossoverHertz *
        requirePositive("esrOhms", bank.esrOhms) *
        requirePositive("capacitanceFarads", bank.capacitanceFarads),
    ) *
      180) /
    Math.PI;
  const [oldDegrees, newDegrees] = [lead(before), lead(after)];
  const qOf = (bank: LoopBank) =>
    chokeHenrys === null
      ? null
      : Math.sqrt(requirePositive("chokeHenrys", chokeHenrys) / bank.capacitanceFarads) / bank.esrOhms;
  const q = qOf(after);
  const lostDegrees = oldDegrees - newDegrees;
  // A bank that peaked before, and was sound, may go on as it did.
  const isPeaking = q !== null && q > peakingQ && q > (qOf(before) ?? 0) * (1 + 1e-9);
  const verdict = lostDegrees > rejectDegrees || isPeaking ? "reject" : lostDegrees > warnDegrees ? "warn" : "ok";
  return {
    ...{ crossoverHertz, isCrossoverAssumed: fed.crossoverHertz == null },
    ...{ oldDegrees, newDegrees, lostDegrees, q, verdict },
  };
}

function crossoverOf(fed: Parameters<typeof loopChange>[2]): number {
  if (fed.crossoverHertz != null) return requirePositive("crossoverHertz", fed.crossoverHertz);
  const share = crossoverShare * requirePositive("switchingHertz", fed.switchingHertz);
  return fed.isIsolated ? Math.min(share, couplerCrossoverHertz) : share;
}

/**
 * The least ESR that a bank of a given C may have before the regulation loses so many degrees, or a choke behind it rings.
 *
 * @returns 0 where even none would not be too little
 */
export function leastLoopEsrOhms(
  before: LoopBank,
  capacitanceFarads: number,
  fed: Parameters<typeof loopChange>[2],
  chokeHenrys: number | null = null,
  lostDegrees: number = rejectDegrees,
): number {
  const C = requirePositive("capacitanceFarads", capacitanceFarads);
  const lostAt = (esrOhms: number) => loopChange(before, { esrOhms, capacitanceFarads: C }, fed).lostDegrees;
  const tiny = before.esrOhms * 1e-6;
  // With the old time constant nothing is lost.
  const even = (before.esrOhms * before.capacitanceFarads) / C;
  const byPhase = lostAt(tiny) <= lostDegrees ? 0 : bracketedRoot((ohms) => lostAt(ohms) - lostDegrees, tiny, even);
  if (chokeHenrys === null) return byPhase;
  const oldQ = Math.sqrt(chokeHenrys / before.capacitanceFarads) / before.esrOhms;
  const byPeak = Math.sqrt(chokeHenrys / C) / Math.max(peakingQ, oldQ);
  return Math.max(byPhase, byPeak);
}
