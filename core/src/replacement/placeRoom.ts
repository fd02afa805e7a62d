import { type BoardPosition, currentPart, type FittedPart, foundPart } from "../board/board";
import type { Obstacle } from "../board/canFit";
import { lidHeightAtMetres } from "../board/lidHeight";
import { sectionFacts } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { Surroundings } from "./surroundings";

const {
  bodyClearanceMetres,
  clearances: usualClearances,
  lidClearanceMetres,
  ventRoomMetres,
  mostSearchedMetres,
} = tradeConstants.replacement;

export interface PlaceRoom {
  /** Largest can that stands free of its neighbours; null where the drawing does not say. */
  readonly diameterMaxMetres: number | null;
  /** With every place in `emptyIds` out. */
  readonly nextToId: string | null;
  readonly heightMaxMetres: number | null;
}

/**
 * Room of a place by the drawing: the largest diameter that clears what stays, and the height that the lid leaves over the vent.
 *
 * @returns nulls where the place or its neighbours are not drawn
 */
export function placeRoom(position: BoardPosition, around: Surroundings): PlaceRoom {
  const { xMetres: x, yMetres: y } = position;
  if (x === null || y === null) return { diameterMaxMetres: null, nextToId: null, heightMaxMetres: null };
  let [radius, nextToId]: [number, string | null] = [mostSearchedMetres / 2, null];
  for (const { positionId, obstacle, clearanceMetres } of neighbours(position, around)) {
    const way = wayTo(x, y, obstacle) - clearanceMetres;
    if (way < radius) [radius, nextToId] = [way, positionId];
  }
  const lid = around.lid && lidHeightAtMetres(around.lid, x, y);
  const diameter = nextToId === null ? null : Math.max(0, 2 * radius);
  return {
    diameterMaxMetres: diameter,
    nextToId,
    heightMaxMetres:
      lid === null ? null : Math.max(0, lid - Math.max(lidWay(position, around), ventRoom(diameter ?? 0))),
  };
}

/** Room over a vent by the can's diameter. */
export function ventRoom(diameterMetres: number): number {
  return ventRoomMetres.find(([upTo]) => diameterMetres <= upTo)?.[1] ?? 5e-3;
}

export interface Neighbour {
  readonly positionId: string;
  readonly obstacle: Obstacle;
  readonly clearanceMetres: number;
}

/** What a can keeps from the lid: on the mains side it counts as earthed metal. */
export function lidWay(position: BoardPosition, around: Surroundings): number {
  const { earthedMetres } = around.clearances ?? usualClearances;
  return sideOf(position, around) === "mains" ? Math.max(earthedMetres, lidClearanceMetres) : lidClearanceMetres;
}

/** Which side of the barrier a place is on, by its net; null: nobody said. */
function sideOf({ netId }: BoardPosition, { facts }: Surroundings): "mains" | "secondary" | null {
  const net = facts.nets.find((one) => one.id === netId);
  if (!net) return null;
  return sectionFacts[net.section].isMainsSide ? "mains" : "secondary";
}

/** What stands on the same board beside a place, as bodies, with the way that each wants kept. */
export function neighbours(position: BoardPosition, around: Surroundings): readonly Neighbour[] {
  return around.facts.positions.flatMap((one): Neighbour[] => {
    if (one.id === position.id || one.xMetres === null || one.yMetres === null || around.emptyIds.has(one.id))
      return [];
    const part = currentPart(around.facts.fittedParts, one.id) ?? foundPart(around.facts.fittedParts, one.id);
    const obstacle = bodyOf(one, part);
    if (!obstacle) return [];
    const clearanceMetres = wayKept(position, { position: one, obstacle }, around);
    return [{ positionId: one.id, obstacle, clearanceMetres }];
  });
}

/**
 * The way between a place and what stands beside it: more to what is hot, more across the barrier. Where the part that was found
 * there stood nearer to the other side, that distance is the design's own and stays.
 */
function wayKept(
  position: BoardPosition,
  other: { readonly position: BoardPosition; readonly obstacle: Obstacle },
  around: Surroundings,
): number {
  const { secondaryMetres, earthedMetres, hotMetres } = around.clearances ?? usualClearances;
  const isSink = other.position.kind === "heat-sink";
  const heat = isSink || other.position.heatSource !== null ? hotMetres : bodyClearanceMetres;
  const [own, its] = [sideOf(position, around), sideOf(other.position, around)];
  // A sink of no net may be earthed.
  const barrier =
    own !== null && its !== null && own !== its
      ? secondaryMetres
      : own === "mains" && isSink && its === null
        ? earthedMetres
        : 0;
  const designed = designedWay(position, other.obstacle, around);
  return Math.max(heat, designed === null ? barrier : Math.min(barrier, designed));
}

/** How far the part that was found at a place stood from a body; null where its size is not known. */
function designedWay(position: BoardPosition, body: Obstacle, around: Surroundings): number | null {
  const { xMetres: x, yMetres: y } = position;
  const diameter = foundPart(around.facts.fittedParts, position.id)?.diameterMetres ?? null;
  if (x === null || y === null || diameter === null) return null;
  return Math.max(0, wayTo(x, y, body) - diameter / 2);
}

function bodyOf(position: BoardPosition, part: FittedPart | undefined): Obstacle | null {
  const { xMetres, yMetres, outlineWidthMetres, outlineDepthMetres, outlineHeightMetres } = position;
  if (xMetres === null || yMetres === null) return null;
  if (part?.diameterMetres != null) {
    const height = part.heightMetres ?? mostSearchedMetres;
    return { kind: "circle", x: xMetres, y: yMetres, diameter: part.diameterMetres, z0: 0, z1: height };
  }
  if (outlineWidthMetres === null || outlineDepthMetres === null) return null;
  const [w, d] = [outlineWidthMetres / 2, outlineDepthMetres / 2];
  return {
    ...{ kind: "rectangle", x0: xMetres - w, y0: yMetres - d, x1: xMetres + w, y1: yMetres + d },
    ...{ z0: 0, z1: outlineHeightMetres ?? mostSearchedMetres },
  };
}

/** From a point to the edge of a body; 0 inside it. */
function wayTo(x: number, y: number, body: Obstacle): number {
  if (body.kind === "circle") return Math.max(0, Math.hypot(x - body.x, y - body.y) - body.diameter / 2);
  return Math.hypot(Math.max(body.x0 - x, 0, x - body.x1), Math.max(body.y0 - y, 0, y - body.y1));
}
