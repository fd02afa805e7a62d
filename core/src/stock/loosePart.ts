import { canImpedance, pseudoRatedRippleAmpsRms } from "../capacitors/canImpedance";
import { canSurfaceSquareMetres } from "../capacitors/canSurface";
import { type CapacitorClass, hasPolymer } from "../capacitors/capacitorClass";
import type { CataloguePart } from "../replacement/rankReplacements";

/** A heap that no catalogue lists, with the worst that was read of it. */
export interface LoosePart {
  readonly id: string;
  readonly series: string | null;
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  readonly temperatureClassCelsius: number | null;
  readonly capacitorClass: CapacitorClass | null;
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  readonly pitchMetres: number | null;
  readonly esrOhms: number | null;
  /** At its class, as far as they are left. */
  readonly lifeHours: number;
}

export type LooseGap = "class" | "temperature_class" | "size" | "pitch" | "esr";

/**
 * A loose part as the ranking takes it: ESR as it was read, ripple as its can of that ESR carries. It costs nothing more.
 *
 * @returns what is not known of it and is needed, where anything is
 */
export function loosePart(part: LoosePart): CataloguePart | readonly LooseGap[] {
  const { capacitorClass, temperatureClassCelsius, diameterMetres, heightMetres, pitchMetres, esrOhms } = part;
  const isKnown =
    capacitorClass !== null &&
    temperatureClassCelsius !== null &&
    diameterMetres !== null &&
    heightMetres !== null &&
    pitchMetres !== null &&
    esrOhms !== null;
  if (!isKnown) {
    const gaps: readonly (readonly [LooseGap, unknown])[] = [
      ...([["class", capacitorClass]] as const),
      ...([["temperature_class", temperatureClassCelsius]] as const),
      ...([["size", diameterMetres === null ? null : heightMetres]] as const),
      ...([
        ["pitch", pitchMetres],
        ["esr", esrOhms],
      ] as const),
    ];
    return gaps.flatMap(([gap, value]) => (value === null ? [gap] : []));
  }
  const { capacitanceFarads, ratedVolts } = part;
  const isTabled = !hasPolymer(capacitorClass) && ratedVolts <= 100;
  return {
    ...{ id: part.id, maker: "loose", series: part.series ?? "unnamed", capacitorClass, capacitanceFarads, ratedVolts },
    ...{ temperatureClassCelsius, diameterMetres, heightMetres, pitchMetres, esrOhms },
    rippleAmpsRms: isTabled
      ? canImpedance({ capacitorClass, ratedVolts, diameterMetres, heightMetres }).ratedRippleAmpsRms
      : pseudoRatedRippleAmpsRms(canSurfaceSquareMetres(diameterMetres, heightMetres), esrOhms),
    ratedLifeHours: part.lifeHours,
    priceMinor: 0,
  };
}
