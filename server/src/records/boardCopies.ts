import { randomUUID } from "node:crypto";
import type { BoardTypeContent, NetNetwork, PlaceHere, TypePart } from "@pale-cap/core";
import { Op } from "sequelize";
import type { BoardRow } from "../database/models/boards";
import type { FittedPartDbRow } from "../database/models/fittedParts";
import type { NetRow } from "../database/models/nets";
import type { PositionRow } from "../database/models/positions";
import type { Scope } from "../database/scope";

interface BoardParts {
  readonly board: BoardRow;
  readonly nets: readonly NetRow[];
  readonly positions: readonly PositionRow[];
  readonly found: ReadonlyMap<string, FittedPartDbRow>;
}

/** Whose parts a copy takes: those that were found, for another unit; those that stand there now, for the same one. */
type CopiedParts = "found" | "standing";

/** Every board of a job with what was found on it, or stands on it. */
async function loadAllBoardParts(scope: Scope, jobId: string, which: CopiedParts): Promise<readonly BoardParts[]> {
  const boards = await scope.rows.boards.all({ jobId, deletedAt: null }, [["place", "ASC"]]);
  return Promise.all(boards.map((board) => partsOfBoard(scope, board, which)));
}

/** One board of a job, the first where none is said; null where there is none such. */
export async function loadBoardParts(scope: Scope, jobId: string, boardId: string | null): Promise<BoardParts | null> {
  const id = boardId === null ? {} : { id: boardId };
  const board = await scope.rows.boards.first({ ...id, jobId, deletedAt: null }, [["place", "ASC"]]);
  return board ? partsOfBoard(scope, board) : null;
}

async function partsOfBoard({ rows }: Scope, board: BoardRow, which: CopiedParts = "found"): Promise<BoardParts> {
  const ofBoard = { boardId: board.id, deletedAt: null };
  const nets = await rows.nets.all(ofBoard, [["id", "ASC"]]);
  const positions = await rows.positions.all(ofBoard, [["id", "ASC"]]);
  // Of other kinds a row says only that something came out: that is this unit's own.
  const positionIds = positions.filter((one) => one.kind === "electrolytic").map((one) => one.id);
  const all = await rows.fittedParts.all({ positionId: { [Op.in]: positionIds } }, [["id", "ASC"]]);
  const parts = which === "found" ? all.filter((one) => one.origin === "found") : all.filter(isStanding).map(asFound);
  return { board, nets, positions, found: new Map(parts.map((part) => [part.positionId, part])) };
}

/** What lies in the hand stands nowhere. */
const isStanding = ({ origin, fittedAt, removedAt }: FittedPartDbRow): boolean =>
  removedAt === null && (origin === "found" || fittedAt !== null);

/** What came out of a drawer for one job is of no drawer in the next. */
const asFound = (part: FittedPartDbRow): FittedPartDbRow => ({
  ...part,
  ...{ stockItemId: null, priceMinor: null, cataloguePartId: null },
});

/** The board as a copy takes it: places, rails and what was found on them, without readings and replacements. */
export function toContent({ board, nets, positions, found }: BoardParts): BoardTypeContent {
  const { name, widthMetres, depthMetres, barrierMetres, lidHeightMetres, outline, lidZones } = board;
  return {
    board: { name, widthMetres, depthMetres, barrierMetres, lidHeightMetres, outline: outline ?? null, lidZones },
    nets: nets.map(({ id: _, boardId: __, version: ___, deletedAt: ____, ...net }) => ({
      ...net,
      network: relinked(net.network, (id) => nets.find((one) => one.id === id)?.lineageId ?? null),
    })),
    positions: positions.map(({ id, boardId: _, version: __, deletedAt: ___, netId, note: ____, ...position }) => ({
      ...position,
      netLineageId: nets.find((net) => net.id === netId)?.lineageId ?? null,
      part: toMarking(found.get(id)),
    })),
  };
}

/** A rail's network names another rail: in a copy by its lineage, on a board by its row. Older copies have none. */
function relinked(network: NetNetwork | null | undefined, link: (id: string) => string | null): NetNetwork | null {
  if (!network) return null;
  return { ...network, behindNetId: network.behindNetId === null ? null : link(network.behindNetId) };
}

/** What one customer was promised is no property of a kind of board. */
export function withoutPromises(content: BoardTypeContent): BoardTypeContent {
  return { ...content, nets: content.nets.map((net) => ({ ...net, fullLoadAmps: null })) };
}

function toMarking(part: FittedPartDbRow | undefined): TypePart | null {
  if (!part) return null;
  const { id, positionId, version, origin, cataloguePartId, source, fittedAt, removedAt, ...marking } = part;
  return marking;
}

/** The places of a board as the comparison takes them. */
export function toPlaces({ nets, positions, found }: BoardParts): readonly PlaceHere[] {
  return positions.map(({ id, lineageId, designator, kind, netId }) => ({
    lineageId,
    designator,
    kind,
    netName: nets.find((net) => net.id === netId)?.name ?? null,
    part: toMarking(found.get(id)),
  }));
}

/**
 * Puts the rails, places and found parts of a copy on an empty board: new rows that keep their lineage.
 * @returns the new rails' ids by their lineage
 */
export async function fillBoard(
  scope: Scope,
  boardId: string,
  content: BoardTypeContent,
): Promise<ReadonlyMap<string, string>> {
  const netIds = new Map(content.nets.map((net) => [net.lineageId, randomUUID()] as const));
  for (const net of content.nets) {
    const id = netIds.get(net.lineageId) as string;
    const network = relinked(net.network, (lineageId) => netIds.get(lineageId) ?? null);
    await scope.rows.nets.insert({ ...net, network, id, boardId, version: 1 });
  }
  for (const { part, netLineageId, ...position } of content.positions) {
    const id = randomUUID();
    const netId = netLineageId === null ? null : (netIds.get(netLineageId) ?? null);
    await scope.rows.positions.insert({ ...position, id, boardId, version: 1, netId });
    if (!part) continue;
    await scope.rows.fittedParts.insert({ ...part, id: randomUUID(), positionId: id, version: 1, origin: "found" });
  }
  return netIds;
}

/** All boards of a job on boards of another: a rail behind a rail of another board stays behind that board's copy. */
export async function copyBoards(
  scope: Scope,
  fromJobId: string,
  toJobId: string,
  which: CopiedParts = "found",
): Promise<void> {
  const sources = await loadAllBoardParts(scope, fromJobId, which);
  const copyIds = new Map<string, string>();
  for (const parts of sources) {
    const boardId = randomUUID();
    await scope.rows.boards.insert({ ...parts.board, underlay: null, id: boardId, jobId: toJobId, version: 1 });
    const netIds = await fillBoard(scope, boardId, toContent(parts));
    for (const net of parts.nets) copyIds.set(net.id, netIds.get(net.lineageId) as string);
  }
  for (const { nets } of sources) {
    const own = new Set(nets.map((net) => net.id));
    for (const { id, network } of nets) {
      const behindNetId = network?.behindNetId ?? null;
      if (!network || behindNetId === null || own.has(behindNetId)) continue;
      const copied = { ...network, behindNetId: copyIds.get(behindNetId) ?? null };
      await scope.rows.nets.update({ network: copied }, { id: copyIds.get(id) as string });
    }
  }
}
