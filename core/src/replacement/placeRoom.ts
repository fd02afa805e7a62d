import { type BoardPosition, currentPart, type FittedPart, foundPart } from "../board/board";
import type { Obstacle } from "../board/canFit";
import { lidHeightAtMetres } from "../board/lidHeight";
import { tradeConstants } from "../constants/tradeConstants";
import type { Surroundings } from "./surroundings";

const { bodyClearanceMetres, hotClearanceMetres, lidClearanceMetres, ventRoomMetres, mostSearchedMetres } =
  tradeConstants.replacement;

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
    heightMaxMetres: lid === null ? null : Math.max(0, lid - Math.max(lidClearanceMetres, ventRoom(diameter ?? 0))),
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

/** What stands on the same board beside a place, as bodies, with the way that each wants kept. */
export function neighbours(position: BoardPosition, around: Surroundings): readonly Neighbour[] {
  return around.facts.positions.flatMap((one): Neighbour[] => {
    if (one.id === position.id || one.xMetres === null || one.yMetres === null || around.emptyIds.has(one.id))
      return [];
    const part = currentPart(around.facts.fittedParts, one.id) ?? foundPart(around.facts.fittedParts, one.id);
    const obstacle = bodyOf(one, part);
    if (!obstacle) return [];
    const isHot = one.kind === "heat-sink" || one.heatSource !== null;
    return [{ positionId: one.id, obstacle, clearanceMetres: isHot ? hotClearanceMetres : bodyClearanceMetres }];
  });
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
