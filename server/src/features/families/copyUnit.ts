import type { JobRow } from "../../database/models/jobs";
import type { Scope } from "../../database/scope";
import { copyBoards } from "../../records/boardCopies";
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
  await copyBoards(scope, source.id, unit.id);
  await markStale(scope, unit.id);
}
