import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requireFinite, requireNonNegative, requirePositive } from "../numerics/requireRange";

/** What stands beside a can. Metres from the board's upper left corner; z from the board. */
export type Obstacle = (
  | { readonly kind: "circle"; readonly x: number; readonly y: number; readonly diameter: number }
  | { readonly kind: "rectangle"; readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number }
) & { readonly z0: number; readonly z1: number };

/** A part of the lid that hangs lower than the rest. */
export interface LowLid {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly heightMetres: number;
}

/** How a can stands: upright, perhaps raised, or laid flat along a direction (from x towards y, degrees). */
export type CanPose =
  | { readonly mode: "upright"; readonly liftMetres: number }
  | { readonly mode: "laid"; readonly thetaDegrees: number; readonly bendMetres: number; readonly gapMetres: number };

export interface FitQuestion {
  readonly pose: CanPose;
  readonly diameterMetres: number;
  readonly heightMetres: number;
  readonly xMetres: number;
  readonly yMetres: number;
  /** Null: no lid, or nobody measured it. */
  readonly lidMetres: number | null;
  readonly lowLids: readonly LowLid[];
  readonly obstacles: readonly Obstacle[];
  readonly clearanceMetres?: number | null;
  readonly lidClearanceMetres?: number | null;
}

export interface CanFit {
  readonly fits: boolean;
  /** Least way to what stands beside it; below 0 they overlap. Null where nothing does. */
  readonly clearanceMetres: number | null;
  /** Which of the obstacles that is. */
  readonly nearest: number | null;
  /** Null where no lid is known. */
  readonly headroomMetres: number | null;
  readonly ceilingMetres: number | null;
  readonly topMetres: number;
}

const slack = 1e-12;

type Corner = readonly [x: number, y: number];

/**
 * Whether a can fits between what stands beside it and under the lid, as solid bodies; leads are ignored.
 *
 *     clearance = max(gh, gz) where that is not above 0, else sqrt(max(gh, 0)^2 + max(gz, 0)^2)
 *
 * gh is the signed distance of the footprints, gz that of the heights. Solid; the clearances wanted are house rules.
 *
 * @throws {OutOfRangeError} sizes not above 0, obstacles without extent
 */
export function canFit(question: FitQuestion): CanFit {
  const diameter = requirePositive("diameterMetres", question.diameterMetres);
  const length = requirePositive("heightMetres", question.heightMetres);
  const at: Corner = [requireFinite("xMetres", question.xMetres), requireFinite("yMetres", question.yMetres)];
  const { pose } = question;
  const footprint: Footprint =
    pose.mode === "upright"
      ? { center: at, radius: diameter / 2 }
      : { corners: laidCorners(pose, at, diameter, length) };
  const bottom = requireNonNegative("liftMetres", pose.mode === "upright" ? pose.liftMetres : pose.gapMetres);
  const topMetres = bottom + (pose.mode === "upright" ? length : diameter);
  let [clearanceMetres, nearest]: [number | null, number | null] = [null, null];
  question.obstacles.forEach((obstacle, n) => {
    requireExtent(obstacle);
    const gh = apart(footprint, footprintOf(obstacle));
    const gz = Math.max(obstacle.z0 - topMetres, bottom - obstacle.z1);
    const own = Math.max(gh, gz) <= 0 ? Math.max(gh, gz) : Math.hypot(Math.max(gh, 0), Math.max(gz, 0));
    // The first of several that are equally near.
    if (clearanceMetres === null || own < clearanceMetres - slack) [clearanceMetres, nearest] = [own, n];
  });
  const heights = question.lowLids.flatMap((zone) => {
    if (!(zone.x0 < zone.x1 && zone.y0 < zone.y1)) throw new OutOfRangeError("lowLids", zone.x1, "with an extent");
    requirePositive("heightMetres", zone.heightMetres);
    return apart(footprint, { corners: corners(zone) }) < -slack ? [zone.heightMetres] : [];
  });
  const lid = question.lidMetres === null ? [] : [requirePositive("lidMetres", question.lidMetres)];
  const ceilingMetres = lid.length + heights.length === 0 ? null : Math.min(...lid, ...heights);
  const headroomMetres = ceilingMetres === null ? null : ceilingMetres - topMetres;
  const wanted = requireNonNegative("clearanceMetres", question.clearanceMetres ?? planningConstants.G.clear_mm / 1e3);
  const wantedLid = requireNonNegative(
    "lidClearanceMetres",
    question.lidClearanceMetres ?? planningConstants.G.clear_lid_mm / 1e3,
  );
  return {
    fits:
      (clearanceMetres === null || clearanceMetres >= wanted - slack) &&
      (headroomMetres === null || headroomMetres >= wantedLid - slack),
    ...{ clearanceMetres, nearest, headroomMetres, ceilingMetres, topMetres },
  };
}

type Footprint = { readonly center: Corner; readonly radius: number } | { readonly corners: readonly Corner[] };

function requireExtent(obstacle: Obstacle): void {
  if (!(obstacle.z0 >= 0 && obstacle.z0 < obstacle.z1)) throw new OutOfRangeError("z1", obstacle.z1, "above z0");
  if (obstacle.kind === "circle") requirePositive("diameter", obstacle.diameter);
  else if (!(obstacle.x0 < obstacle.x1 && obstacle.y0 < obstacle.y1)) {
    throw new OutOfRangeError("x1", obstacle.x1, "a rectangle with an extent");
  }
}

function footprintOf(obstacle: Obstacle): Footprint {
  return obstacle.kind === "circle"
    ? { center: [obstacle.x, obstacle.y], radius: obstacle.diameter / 2 }
    : { corners: corners(obstacle) };
}

function corners({ x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number }): readonly Corner[] {
  return [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
}

/** From the bend on, as long as the can and as wide as its diameter. */
function laidCorners(
  pose: Extract<CanPose, { mode: "laid" }>,
  [x, y]: Corner,
  diameter: number,
  length: number,
): readonly Corner[] {
  const bend = requireNonNegative("bendMetres", pose.bendMetres);
  const angle = (requireFinite("thetaDegrees", pose.thetaDegrees) * Math.PI) / 180;
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const point = (along: number, across: number): Corner => [x + along * ux - across * uy, y + along * uy + across * ux];
  const half = diameter / 2;
  return [point(bend, -half), point(bend + length, -half), point(bend + length, half), point(bend, half)];
}

function apart(a: Footprint, b: Footprint): number {
  if ("radius" in a && "radius" in b) {
    return Math.hypot(a.center[0] - b.center[0], a.center[1] - b.center[1]) - a.radius - b.radius;
  }
  if ("radius" in a) return pointToPolygon(a.center, (b as { corners: readonly Corner[] }).corners) - a.radius;
  if ("radius" in b) return pointToPolygon(b.center, a.corners) - b.radius;
  return polygonsApart(a.corners, b.corners);
}

const sides = (shape: readonly Corner[]) =>
  shape.map((from, n) => [from, shape[(n + 1) % shape.length] as Corner] as const);

/** Signed: inside a convex shape, minus the way to its nearest side. */
function pointToPolygon([px, py]: Corner, shape: readonly Corner[]): number {
  const signed = sides(shape).map(([[x0, y0], [x1, y1]]) => {
    const long = Math.hypot(x1 - x0, y1 - y0);
    return ((px - x0) * (y1 - y0) - (py - y0) * (x1 - x0)) / long;
  });
  const most = Math.max(...signed);
  return most <= 0 ? most : Math.min(...sides(shape).map(([from, to]) => pointToSide([px, py], from, to)));
}

function pointToSide([px, py]: Corner, [x0, y0]: Corner, [x1, y1]: Corner): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const along = Math.min(1, Math.max(0, ((px - x0) * dx + (py - y0) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(px - x0 - along * dx, py - y0 - along * dy);
}

/** Overlapping: the least depth over the normals of all sides, negative; else the way between them. */
function polygonsApart(a: readonly Corner[], b: readonly Corner[]): number {
  const separation = Math.max(
    ...[...sides(a), ...sides(b)].map(([[x0, y0], [x1, y1]]) => {
      const long = Math.hypot(x1 - x0, y1 - y0);
      const [nx, ny] = [(y1 - y0) / long, -(x1 - x0) / long];
      const spread = (shape: readonly Corner[]) => {
        const values = shape.map(([x, y]) => x * nx + y * ny);
        return [Math.min(...values), Math.max(...values)] as const;
      };
      const [[lowA, highA], [lowB, highB]] = [spread(a), spread(b)];
      return Math.max(lowB - highA, lowA - highB);
    }),
  );
  if (separation <= 0) return separation;
  return Math.min(...a.map((corner) => pointToPolygon(corner, b)), ...b.map((corner) => pointToPolygon(corner, a)));
}
