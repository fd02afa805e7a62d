import { energyStoreEditSchema, type NewEnergyStore, newEnergyStoreSchema, routes } from "@pale-cap/contract";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { withoutJob } from "../../records/loadJobs";
import { requireNetOfJob, requirePositionOfJob } from "../../records/ownership";

/** Energy stores of a job; what was charged, drained and measured on them are facts. */
export const energyRoutes = (): readonly Route[] => [
  write({
    method: "post",
    path: routes.energyStores,
    kind: "store",
    right: "measure",
    creates: true,
    schema: newEnergyStoreSchema,
    write: async (scope, { body, params }) => {
      const jobId = params.jobId as string;
      await requireHolder(scope, jobId, body);
      const boardId = await boardOfStore(scope, jobId, body);
      await scope.rows.energyStores.insert({ ...body, boardId, jobId });
    },
    answer: (scope, { body }) => storeOf(scope, body.id),
  }),
  write({
    method: "patch",
    path: routes.energyStore,
    kind: "store edit",
    right: "measure",
    schema: energyStoreEditSchema,
    write: async (scope, { body, params }) => {
      const { jobId, storeId } = params as { jobId: string; storeId: string };
      await requireHolder(scope, jobId, body.values);
      const key = { id: storeId, version: body.version, where: { jobId } };
      await updateFromVersion(scope.rows.energyStores, key, body.values);
    },
    answer: (scope, { params }) => storeOf(scope, params.storeId as string),
  }),
];

/** The board of its part or its net; else the one that was said, or the first. */
async function boardOfStore(
  { rows }: Scope,
  jobId: string,
  { positionId, netId, boardId = null }: Pick<NewEnergyStore, "positionId" | "netId" | "boardId">,
): Promise<string | null> {
  const holder =
    (positionId && (await rows.positions.first({ id: positionId }))) ||
    (netId && (await rows.nets.first({ id: netId })));
  if (holder) return holder.boardId;
  if (boardId !== null) return boardId;
  return (await rows.boards.first({ jobId, deletedAt: null }, [["place", "ASC"]]))?.id ?? null;
}

async function storeOf(scope: Scope, id: string) {
  const row = await scope.rows.energyStores.first({ id });
  if (!row) throw new HttpProblem("not_found", "There is no such store.");
  return withoutJob(row);
}

/** What holds the charge, a part or a net, and the board that it is on must be the job's. */
async function requireHolder(
  scope: Scope,
  jobId: string,
  { positionId, netId, boardId }: Pick<NewEnergyStore, "positionId" | "netId" | "boardId">,
): Promise<void> {
  if (positionId) await requirePositionOfJob(scope, jobId, positionId);
  if (netId) await requireNetOfJob(scope, jobId, netId);
  if (boardId && !(await scope.rows.boards.has({ id: boardId, jobId, deletedAt: null }))) {
    throw new HttpProblem("conflict", "The board is not of this unit.");
  }
}
