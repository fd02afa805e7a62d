import type { Job, JobDetail, PlanRow } from "@pale-cap/contract";
import { noIntakeDetails } from "@pale-cap/contract";
import { Op, type Transaction, type WhereOptions } from "sequelize";
import type { Database } from "../database/database";
import type { BoardRow } from "../database/models/boards";
import type { CaptureDbRow } from "../database/models/captures";
import type { CustomerRow } from "../database/models/customers";
import type { JobCustomerRow } from "../database/models/jobCustomers";
import type { JobRow } from "../database/models/jobs";
import type { PhotoDbRow } from "../database/models/photos";
import type { ReplacementPlanRow } from "../database/models/replacementPlans";
import type { Table } from "../database/models/table";
import { HttpProblem } from "../http/problems";
import { loadBaselines } from "./baselines";

interface BoardBound {
  readonly boardId: string;
  readonly lineageId: string;
  readonly deletedAt: Date | null;
}

/** Loads whole jobs in a fixed number of queries, however many jobs there are. */
export async function loadJobs(
  database: Database,
  jobIds: readonly string[],
  transaction?: Transaction,
): Promise<readonly JobDetail[]> {
  const { models } = database;
  const all = async <Row extends object>(table: Table<Row>, where: WhereOptions): Promise<Row[]> =>
    (await table.findAll({ where, transaction, raw: true })) as unknown as Row[];
  const ofJobs = { jobId: { [Op.in]: [...jobIds] } };

  const jobs = await all(models.jobs, { id: { [Op.in]: [...jobIds] } });
  const boards = await all(models.boards, ofJobs);
  const ofBoards = { boardId: { [Op.in]: boards.map((board) => board.id) }, deletedAt: null };
  const nets = await all(models.nets, ofBoards);
  const positions = await all(models.positions, ofBoards);
  const ofPositions = { positionId: { [Op.in]: positions.map((position) => position.id) } };
  const fittedParts = await all(models.fittedParts, ofPositions);
  const plans = await all(models.replacementPlans, ofPositions);
  const readings = await all(models.readings, ofJobs);
  const signs = await all(models.signObservations, ofJobs);
  const energyStores = await all(models.energyStores, ofJobs);
  const chargeEvents = await all(models.chargeEvents, ofJobs);
  const powerEvents = await all(models.powerEvents, ofJobs);
  const photos = await all(models.photos, ofJobs);
  const teardownSteps = await all(models.teardownSteps, { ...ofJobs, isRemoved: false });
  const teardownReturns = await all(models.teardownReturns, ofJobs);
  const captures = await all(models.captures, { ...ofJobs, isRemoved: false });
  const overrules = await all(models.verdictOverrules, ofJobs);
  const baselines = await loadBaselines(database, jobIds, transaction);
  const ticks = await all(models.reworkTicks, ofJobs);
  const acceptances = await all(models.openPointAcceptances, ofJobs);
  const links = await all(models.jobCustomers, ofJobs);
  const customerIds = links.map((link) => link.customerId).filter((id) => id !== null);
  const customers = await all(models.customers, { id: { [Op.in]: customerIds } });

  return jobs.map((row): JobDetail => {
    const board = boards.find((one) => one.jobId === row.id) as BoardRow;
    const own = <T extends { jobId: string }>(rows: readonly T[]) =>
      rows.filter((one) => one.jobId === row.id).map(withoutJob);
    const ownPositions = positions.filter((one) => one.boardId === board.id);
    const positionIds = new Set(ownPositions.map((position) => position.id));
    const link = links.find((one) => one.jobId === row.id);
    const customer = customers.find((one) => one.id === link?.customerId);
    return toWire<JobDetail>({
      job: toJob(row, link, customer),
      board: toBoard(board),
      nets: nets.filter((one) => one.boardId === board.id).map(withoutBoard),
      positions: ownPositions.map(withoutBoard),
      fittedParts: fittedParts.filter((one) => positionIds.has(one.positionId)),
      readings: own(readings),
      signs: own(signs),
      captures: captures.filter((one) => one.jobId === row.id).map(toCapture),
      overrules: own(overrules),
      baseline: baselines.get(row.id) ?? [],
      energyStores: own(energyStores),
      chargeEvents: own(chargeEvents),
      powerEvents: own(powerEvents),
      photos: photos.filter((photo) => photo.jobId === row.id).map(toPhoto),
      teardownSteps: own(teardownSteps),
      teardownReturns: own(teardownReturns),
      plans: plans.filter((plan) => positionIds.has(plan.positionId)).map(toPlan),
      ticks: own(ticks),
      acceptances: own(acceptances),
    });
  });
}

/** One job, or 404. */
export async function loadJob(database: Database, jobId: string, transaction?: Transaction): Promise<JobDetail> {
  const [detail] = await loadJobs(database, [jobId], transaction);
  if (!detail) throw new HttpProblem("not_found", "There is no job with this id.");
  return detail;
}

/** A value as it is before it travels: moments are still Date objects. */
type BeforeWire<T> = T extends string
  ? T | Date
  : T extends readonly (infer Item)[]
    ? readonly BeforeWire<Item>[]
    : T extends object
      ? { readonly [K in keyof T]: BeforeWire<T[K]> }
      : T;

/** Moments as ISO text, as they will travel, so that core's functions see on the server what they see in the client. */
function toWire<T>(value: BeforeWire<T>): T {
  return JSON.parse(JSON.stringify(value)) as T;
}

function withoutJob<T extends { jobId: string }>({ jobId: _, ...row }: T): Omit<T, "jobId"> {
  return row;
}

/** Which revision a board was copied from is told with its type, not with its measures. */
function toBoard({ jobId: _, boardTypeRevisionId: __, ...board }: BoardRow) {
  return board;
}

/** Board rows travel without what only the tables need. */
function withoutBoard<T extends BoardBound>({ boardId: _, lineageId: __, deletedAt: ___, ...row }: T) {
  return row;
}

function toJob(row: JobRow, link: JobCustomerRow | undefined, customer: CustomerRow | undefined): Job {
  const { createdAt, handedOverAt, ...rest } = row;
  return {
    ...rest,
    deviceKind: row.deviceKind as Job["deviceKind"],
    createdAt: createdAt.toISOString(),
    handedOverAt: handedOverAt?.toISOString() ?? null,
    customerName: customer?.name ?? null,
    customerContact: customer?.contact ?? null,
    ownersWords: link?.ownersWords ?? null,
    // Jobs from before these notes existed have none.
    intakeDetails: { ...noIntakeDetails, ...row.intakeDetails },
  };
}

/** A photo travels without the hashes of its pixels: they have an address of their own. */
export function toPhoto({ jobId: _, imageSha256: __, thumbnailSha256: ___, personId: ____, ...photo }: PhotoDbRow) {
  return photo;
}

/** A capture travels without its samples: they have an address of their own. */
export function toCapture({ jobId: _, samplesSha256: __, isRemoved: ___, personId: ____, ...capture }: CaptureDbRow) {
  return capture;
}

/** Columns side by side in the table, grouped on the wire. */
export function toPlan({ id: _, positionId, version, cataloguePartId, ...overrides }: ReplacementPlanRow): PlanRow {
  return { positionId, version, cataloguePartId, overrides };
}
