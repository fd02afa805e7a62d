import type { EnergyStoreRow } from "../energy/energy";
import type { JobDetail } from "../jobs/jobDetail";
import type { Board } from "./board";

/** A job with the one of its boards that is shown. */
export type BoardDetail = JobDetail & { readonly board: Board };

/** What a board is called where there are several. */
export const boardName = ({ name, place }: Board): string => name ?? `Board ${place}`;

/** The board that was asked for, else the first. */
export function shownBoard({ boards }: Pick<JobDetail, "boards">, boardId: string | undefined): Board {
  return boards.find((one) => one.id === boardId) ?? (boards[0] as Board);
}

/** Only what is on one board. */
export function onBoard(detail: JobDetail, board: Board): BoardDetail {
  if (detail.boards.length < 2) return { ...detail, board };
  const positions = detail.positions.filter((one) => one.boardId === board.id);
  const places = new Set(positions.map((one) => one.id));
  return {
    ...detail,
    board,
    nets: detail.nets.filter((one) => one.boardId === board.id),
    positions,
    fittedParts: detail.fittedParts.filter((one) => places.has(one.positionId)),
  };
}

/**
 * The whole unit, told apart: a part or rail whose name stands on two boards carries the name of its board. For reading
 * only; edits are made from the rows as they are stored.
 */
export function acrossBoards(detail: JobDetail): JobDetail {
  if (detail.boards.length < 2) return detail;
  const names = new Map(detail.boards.map((one) => [one.id, boardName(one)]));
  const isTwice = <T extends { readonly boardId: string }>(rows: readonly T[], nameOf: (row: T) => string, row: T) =>
    rows.some((one) => one.boardId !== row.boardId && nameOf(one).toLowerCase() === nameOf(row).toLowerCase());
  return {
    ...detail,
    nets: detail.nets.map((net) =>
      isTwice(detail.nets, (one) => one.name, net) ? { ...net, name: `${names.get(net.boardId)} ${net.name}` } : net,
    ),
    positions: detail.positions.map((position) =>
      isTwice(detail.positions, (one) => one.designator, position)
        ? { ...position, designator: `${names.get(position.boardId)} ${position.designator}` }
        : position,
    ),
    // Which board a charge sits on is told of every store: a hand reaches for it there.
    energyStores: detail.energyStores.map((store) => {
      const name = names.get(boardIdOf(detail, store) ?? "");
      return name === undefined || store.name.startsWith(name) ? store : { ...store, name: `${name} ${store.name}` };
    }),
  };
}

function boardIdOf(detail: JobDetail, { positionId, netId, boardId }: EnergyStoreRow): string | null {
  const place = detail.positions.find((one) => one.id === positionId) ?? detail.nets.find((one) => one.id === netId);
  return place?.boardId ?? boardId ?? null;
}
