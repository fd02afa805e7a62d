import type {
  Acceptance,
  ChargeEventRow,
  EnergyStoreRow,
  FittedPartRow,
  Job,
  JobDetail,
  Net,
  PlanRow,
  Position,
  ReadingRow,
  SignRow,
  TickRow,
} from "@pale-cap/contract";
import { Op, type Transaction, type WhereOptions } from "sequelize";
import type { Database } from "../database/database";
import type { BoardRow } from "../database/models/boards";
import type { CustomerRow } from "../database/models/customers";
import type { JobCustomerRow } from "../database/models/jobCustomers";
import type { JobRow } from "../database/models/jobs";
import type { ReplacementPlanRow } from "../database/models/replacementPlans";
import type { Table } from "../database/models/table";
import { HttpProblem } from "../http/problems";

interface BoardBound {
  readonly boardId: string;
  readonly lineageId: string;
  readonly deletedAt: Date | null;
}

/** Rows as the wire has them: moments become ISO text when the response is written. */
type Stored<T> = T & { readonly jobId: string };

/** Loads whole jobs in a fixed number of queries, however many jobs there are. */
export async function loadJobs(
  database: Database,
  jobIds: readonly string[],
  transaction?: Transaction,
): Promise<readonly JobDetail[]> {
  const { models } = database;
  const options = { transaction, raw: true } as const;
  const all = async <T>(table: Table<never>, where: object): Promise<T[]> =>
    (await (table as unknown as Table<object>).findAll({ where: where as WhereOptions, ...options })) as unknown as T[];
  const ofJobs = { jobId: { [Op.in]: [...jobIds] } };

  const jobs = await all<JobRow>(models.jobs as never, { id: { [Op.in]: [...jobIds] } });
  const boards = await all<BoardRow>(models.boards as never, ofJobs);
  const ofBoards = { boardId: { [Op.in]: boards.map((board) => board.id) }, deletedAt: null };
  const nets = await all<Net & BoardBound>(models.nets as never, ofBoards);
  const positions = await all<Position & BoardBound>(models.positions as never, ofBoards);
  const ofPositions = { positionId: { [Op.in]: positions.map((position) => position.id) } };
  const fittedParts = await all<FittedPartRow>(models.fittedParts as never, ofPositions);
  const plans = await all<ReplacementPlanRow>(models.replacementPlans as never, ofPositions);
  const readings = await all<Stored<ReadingRow>>(models.readings as never, ofJobs);
  const signs = await all<Stored<SignRow>>(models.signObservations as never, ofJobs);
  const energyStores = await all<Stored<EnergyStoreRow>>(models.energyStores as never, ofJobs);
  const chargeEvents = await all<Stored<ChargeEventRow>>(models.chargeEvents as never, ofJobs);
  const ticks = await all<Stored<TickRow>>(models.reworkTicks as never, ofJobs);
  const acceptances = await all<Stored<Acceptance>>(models.openPointAcceptances as never, ofJobs);
  const links = await all<JobCustomerRow>(models.jobCustomers as never, ofJobs);
  const customerIds = links.map((link) => link.customerId).filter((id) => id !== null);
  const customers = await all<CustomerRow>(models.customers as never, { id: { [Op.in]: customerIds } });

  return jobs.map((row): JobDetail => {
    const board = boards.find((one) => one.jobId === row.id) as BoardRow;
    const own = <T extends Stored<object>>(rows: readonly T[]) =>
      rows.filter((one) => one.jobId === row.id).map(withoutJob) as unknown as Omit<T, "jobId">[];
    const ownPositions = positions.filter((one) => one.boardId === board.id);
    const positionIds = new Set(ownPositions.map((position) => position.id));
    const link = links.find((one) => one.jobId === row.id);
    const customer = customers.find((one) => one.id === link?.customerId);
    return toWire({
      job: toJob(row, link, customer),
      board: withoutJob(board),
      nets: nets.filter((one) => one.boardId === board.id).map(withoutBoard),
      positions: ownPositions.map(withoutBoard),
      fittedParts: fittedParts.filter((one) => positionIds.has(one.positionId)),
      readings: own(readings),
      signs: own(signs),
      energyStores: own(energyStores),
      chargeEvents: own(chargeEvents),
      plans: plans.filter((plan) => positionIds.has(plan.positionId)).map(toPlan),
      ticks: own(ticks),
      acceptances: own(acceptances),
    } as unknown as JobDetail);
  });
}

/** One job, or 404. */
export async function loadJob(database: Database, jobId: string, transaction?: Transaction): Promise<JobDetail> {
  const [detail] = await loadJobs(database, [jobId], transaction);
  if (!detail) throw new HttpProblem("not_found", "There is no job with this id.");
  return detail;
}

/** Moments as ISO text, as they will travel, so that core's functions see on the server what they see in the client. */
export function toWire<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}

function withoutJob<T extends { jobId: string }>({ jobId: _, ...row }: T): Omit<T, "jobId"> {
  return row;
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
  };
}

/** Columns side by side in the table, grouped on the wire. */
export function toPlan({ id: _, positionId, version, cataloguePartId, ...overrides }: ReplacementPlanRow): PlanRow {
  return { positionId, version, cataloguePartId, overrides };
}
