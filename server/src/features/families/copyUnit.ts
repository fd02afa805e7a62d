import { randomUUID } from "node:crypto";
import { Op, type Transaction } from "sequelize";
import type { Database } from "../../database/database";
import type { BoardRow } from "../../database/models/boards";
import type { FittedPartDbRow } from "../../database/models/fittedParts";
import type { JobRow } from "../../database/models/jobs";
import type { NetRow } from "../../database/models/nets";
import type { PositionRow } from "../../database/models/positions";

/**
 * A job of its own for another unit of the same kind: the device, its promise and the board with its markings are
 * copied; readings, signs, charge and plans are not. Places keep their lineage, so that what was found at one of them can
 * be told to the others.
 */
export async function copyUnit(
  { models }: Database,
  source: JobRow,
  unit: { readonly id: string; readonly serial: string | null; readonly familyId: string; readonly createdAt: Date },
  transaction: Transaction,
): Promise<void> {
  const { deviceKind, deviceMaker, deviceModel, deviceAgeYears, personId, dueOn } = source;
  const { labelPlate, topology, purpose } = source.intakeDetails;
  await models.jobs.create(
    {
      id: unit.id,
      personId,
      deviceKind,
      deviceMaker,
      deviceModel,
      deviceSerial: unit.serial,
      deviceAgeYears,
      symptoms: [],
      dueOn,
      createdAt: unit.createdAt,
      intakeDetails: JSON.parse(JSON.stringify({ labelPlate, topology, purpose })),
      jobFamilyId: unit.familyId,
    },
    { transaction },
  );
  const board = (await models.boards.findOne({
    where: { jobId: source.id },
    transaction,
    raw: true,
  })) as unknown as BoardRow;
  const boardId = randomUUID();
  await models.boards.create({ ...board, id: boardId, jobId: unit.id, version: 1 }, { transaction });
  const ofBoard = { where: { boardId: board.id, deletedAt: null }, transaction, raw: true } as const;
  const nets = (await models.nets.findAll(ofBoard)) as unknown as NetRow[];
  const netIds = new Map(nets.map((net) => [net.id, randomUUID()]));
  await models.nets.bulkCreate(
    nets.map((net) => ({ ...net, id: netIds.get(net.id), boardId, version: 1 })) as NetRow[],
    { transaction },
  );
  const positions = (await models.positions.findAll(ofBoard)) as unknown as PositionRow[];
  const positionIds = new Map(positions.map((position) => [position.id, randomUUID()]));
  await models.positions.bulkCreate(
    positions.map((position) => ({
      ...position,
      id: positionIds.get(position.id),
      boardId,
      version: 1,
      netId: position.netId === null ? null : (netIds.get(position.netId) ?? null),
    })) as PositionRow[],
    { transaction },
  );
  const found = (await models.fittedParts.findAll({
    where: { positionId: { [Op.in]: [...positionIds.keys()] }, origin: "found" },
    transaction,
    raw: true,
  })) as unknown as FittedPartDbRow[];
  await models.fittedParts.bulkCreate(
    found.map((part) => ({
      ...part,
      id: randomUUID(),
      positionId: positionIds.get(part.positionId) as string,
      version: 1,
      isTemporary: false,
      removedAt: null,
    })),
    { transaction },
  );
}
