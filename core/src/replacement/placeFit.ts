import type { BoardPosition } from "../board/board";
import { type CanFit, type CanPose, canFit } from "../board/canFit";
import { tradeConstants } from "../constants/tradeConstants";
import { lidWay, type Neighbour, neighbours, ventRoom } from "./placeRoom";
import type { Surroundings } from "./surroundings";

const { bendRadii, leastBendMetres, leadDiameterMetres, laidGapMetres, henrysPerLaidMetre } =
  tradeConstants.replacement;
/** Higher than this a can sways on its leads, whatever is under it. Rough. */
const mostLiftMetres = 12e-3;
const directions = [0, 45, 90, 135, 180, 225, 270, 315] as const;

/** One way in which a can stands at a place, and how that fits. */
export interface PlaceFit {
  readonly pose: CanPose;
  readonly fit: CanFit;
  /** What stands nearest; null where nothing does. */
  readonly nearestId: string | null;
  /** The way to it beyond what it wants kept; below 0 it is too near. */
  readonly spareMetres: number | null;
  /** Inductance that longer leads add; 0 upright. */
  readonly addedHenrys: number;
}

export interface PlaceFits {
  readonly upright: PlaceFit;
  /** Raised on a support above what is low beside it; null where it stands upright, or that does not help. */
  readonly raised: PlaceFit | null;
  /** Laid flat the way that leaves most room; null where it stands upright, or no way fits. */
  readonly laid: PlaceFit | null;
  readonly neighbours: readonly Neighbour[];
}

/**
 * How a can fits a place: upright, and where that does not go, raised on a support over what is low beside it, else laid flat in the
 * best of eight directions. Its leads are bent at
 * one and a half of their diameters and 2 mm from the body; each 5 mm of them adds about 5 nH. A can counts as live at its
 * minus: across the barrier it keeps the house's clearances, or the design's own where that was less.
 *
 * @returns null where the place is not drawn
 */
export function placeFits(
  position: BoardPosition,
  can: { readonly diameterMetres: number; readonly heightMetres: number },
  around: Surroundings,
): PlaceFits | null {
  const { xMetres, yMetres } = position;
  if (xMetres === null || yMetres === null) return null;
  const beside = neighbours(position, around);
  const at = (pose: CanPose): PlaceFit => {
    const common = {
      ...{ pose, xMetres, yMetres, ...can },
      lidMetres: around.lid?.lidHeightMetres ?? null,
      lowLids: (around.lid?.lidZones ?? []).map((zone) => ({
        ...{ x0: zone.xMetres, y0: zone.yMetres, heightMetres: zone.heightMetres },
        ...{ x1: zone.xMetres + zone.widthMetres, y1: zone.yMetres + zone.depthMetres },
      })),
      clearanceMetres: 0,
      lidClearanceMetres:
        pose.mode === "upright"
          ? Math.max(lidWay(position, around), ventRoom(can.diameterMetres))
          : lidWay(position, around),
    };
    const fit = canFit({ ...common, obstacles: beside.map((one) => one.obstacle) });
    // Each neighbour wants its own way kept: what is tightest is not always what is nearest.
    const spares = beside.map(
      (one) => (canFit({ ...common, obstacles: [one.obstacle] }).clearanceMetres ?? 0) - one.clearanceMetres,
    );
    const spareMetres = spares.length > 0 ? Math.min(...spares) : null;
    const tightest = spareMetres === null ? null : (beside[spares.indexOf(spareMetres)]?.positionId ?? null);
    const bend = pose.mode === "laid" ? pose.bendMetres + can.diameterMetres / 2 : pose.liftMetres;
    return {
      ...{ pose, nearestId: tightest, spareMetres, addedHenrys: henrysPerLaidMetre * bend },
      fit: { ...fit, fits: fit.fits && (spareMetres === null || spareMetres >= -1e-12) },
    };
  };
  const upright = at({ mode: "upright", liftMetres: 0 });
  if (upright.fit.fits) return { upright, raised: null, laid: null, neighbours: beside };
  const lifts = beside.map((one) => one.obstacle.z1 + one.clearanceMetres).filter((lift) => lift <= mostLiftMetres);
  const raised = lifts
    .sort((a, b) => a - b)
    .map((liftMetres) => at({ mode: "upright", liftMetres }))
    .find((one) => one.fit.fits);
  if (raised) return { upright, raised, laid: null, neighbours: beside };
  const bendMetres = leastBendMetres + bendRadii * leadDiameterMetres;
  const flat = directions
    .map((thetaDegrees) => at({ mode: "laid", thetaDegrees, bendMetres, gapMetres: laidGapMetres }))
    .filter((one) => one.fit.fits)
    .sort((a, b) => (b.spareMetres ?? 1) - (a.spareMetres ?? 1));
  return { upright, raised: null, laid: flat[0] ?? null, neighbours: beside };
}
