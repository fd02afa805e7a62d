import { randomUUID } from "node:crypto";
import type { Transaction } from "sequelize";
import type { Database } from "../../database/database";
import type { JobRow } from "../../database/models/jobs";
import { fillBoard, loadBoardParts, toContent } from "../../records/boardCopies";

/**
 * A job of its own for another unit of the same kind: the device, its promise and the board with its markings are
 * copied; readings, signs, charge and plans are not. Places keep their lineage, so that what was found at one of them can
 * be told to the others.
 */
export async function copyUnit(
  database: Database,
  source: JobRow,
  unit: { readonly id: string; readonly serial: string | null; readonly familyId: string; readonly createdAt: Date },
  transaction: Transaction,
): Promise<void> {
  const { models } = database;
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
  const parts = await loadBoardParts(database, source.id, transaction);
  if (!parts) return;
  const boardId = randomUUID();
  await models.boards.create(
    { ...parts.board, underlay: null, id: boardId, jobId: unit.id, version: 1 },
    { transaction },
  );
  await fillBoard(database, boardId, toContent(parts), transaction);
}
