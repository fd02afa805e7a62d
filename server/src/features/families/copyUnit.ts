import { randomUUID } from "node:crypto";
import type { JobRow } from "../../database/models/jobs";
import type { Scope } from "../../database/scope";
import { fillBoard, loadAllBoardParts, toContent } from "../../records/boardCopies";
import { markStale } from "../../summaries/markStale";

/**
 * A job of its own for another unit of the same kind: the device, its promise and the board with its markings are
 * copied; readings, signs, charge and plans are not. Places keep their lineage, so that what was found at one of them can
 * be told to the others.
 */
export async function copyUnit(
  scope: Scope,
  source: JobRow,
  unit: { readonly id: string; readonly serial: string | null; readonly familyId: string },
): Promise<void> {
  const { deviceKind, deviceMaker, deviceModel, deviceAgeYears, personId, dueOn, realm } = source;
  const { labelPlate, topology, purpose } = source.intakeDetails;
  await scope.rows.jobs.insert({
    id: unit.id,
    realm,
    personId,
    deviceKind,
    deviceMaker,
    deviceModel,
    deviceSerial: unit.serial,
    deviceAgeYears,
    symptoms: [],
    dueOn,
    createdAt: scope.now,
    intakeDetails: JSON.parse(JSON.stringify({ labelPlate, topology, purpose })),
    jobFamilyId: unit.familyId,
  });
  for (const parts of await loadAllBoardParts(scope, source.id)) {
    const boardId = randomUUID();
    await scope.rows.boards.insert({ ...parts.board, underlay: null, id: boardId, jobId: unit.id, version: 1 });
    await fillBoard(scope, boardId, toContent(parts));
  }
  await markStale(scope, unit.id);
}
